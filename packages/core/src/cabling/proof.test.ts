import { describe, expect, test } from '@jest/globals';
import { findReport } from '../report/registry.ts';
import { demoNetwork } from '../testing/testDemo.ts';
import { networkOf, smallRoom } from '../testing/testNetwork.ts';

const proof = (network: ReturnType<typeof smallRoom>, scopeId: string | null = null) =>
  findReport('cable-proof')?.make(network, scopeId).rows ?? [];

describe('the proof of a cabling', () => {
  test('two ends, rooms, type, length and sequence: of a clean room nothing is wrong', () => {
    const rows = proof(smallRoom());
    expect(rows.map(({ label, state }) => [label, state])).toEqual([
      ['KQ-00001', null],
      ['KQ-00002', null],
      ['KQ-00003', null],
    ]);
    expect(rows[0]).toMatchObject({
      aRoom: 'Kelder Quay/Data room',
      aPanel: 'kq-core-1',
      aPort: 'te1/1',
      strands: 2,
    });
    // The trunk between the panels is patched at both of its ends.
    expect(rows[1]).toMatchObject({ patched: 2, free: 0 });
  });

  test('what is wrong comes first, missing numbers among it; strands that nobody patched are free', () => {
    const network = networkOf({
      places: [
        { path: 'Quay', kind: 'site', code: 'QY' },
        { path: 'Quay/Room', kind: 'room' },
      ],
      devices: [
        { name: 'p1', model: 'Lumenroot LP-24LC', place: 'Quay/Room' },
        { name: 'p2', model: 'Lumenroot LP-24LC', place: 'Quay/Room' },
        { name: 'far', model: 'Lumenroot LP-24LC' },
      ],
      cables: [
        { label: 'QY-1', type: 'OS2 duplex LC', lengthM: 5, a: 'p1:R1', b: 'p2:R1' },
        { label: 'QY-4', type: 'OS2 duplex LC', a: 'p1:R2' },
        { label: 'odd', lengthM: 2, a: 'p1:R3', b: 'far:R1' },
        { label: 'QY-2', type: 'OS2 duplex LC', lengthM: 5, status: 'retired' },
      ],
    });
    expect(proof(network).map(({ label, state }) => [label, state])).toEqual([
      ['odd', 'B end in no room; type not known; number of no sequence'],
      ['QY-3', 'no cable has this number'],
      ['QY-4', 'B end open; length not known'],
      ['QY-1', null],
    ]);
    expect(proof(network).find(({ label }) => label === 'QY-1')).toMatchObject({ patched: 0, free: 2 });
  });

  test('of the demo: every cable once beside the gaps, and the open one among the first', () => {
    const demo = demoNetwork();
    const rows = proof(demo);
    const missing = rows.filter(({ state }) => state === 'no cable has this number').length;
    expect(rows.length - missing).toBe(
      [...demo.all('cable')].filter(({ status }) => status !== 'retired').length,
    );
    const wrong = rows.filter(({ state }) => state !== null).length;
    expect(rows.slice(0, wrong).every(({ state }) => state !== null)).toBe(true);
    expect(rows.slice(0, wrong).some(({ state }) => String(state).includes('end open'))).toBe(true);
  });
});

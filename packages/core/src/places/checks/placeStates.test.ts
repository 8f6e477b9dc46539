import { expect, test } from '@jest/globals';
import { networkOf } from '../../testing/testNetwork.ts';
import { placeStates } from './placeStates.ts';
import { reviewOf } from '../../check/review.ts';
import { foundIn, testDay } from '../../testing/testFindings.ts';

test('counts and findings of inner places belong to the outer ones; the worst is shown', () => {
  const feed = { name: 'A', volts: 230, amps: 6, phases: 1 as const, derating: 0.8 };
  const network = networkOf({
    places: [
      { path: 'KQ', kind: 'site', code: 'KQ' },
      { path: 'KQ/Hall' },
      { path: 'KQ/Room' },
      { path: 'AH' },
    ],
    racks: [{ name: 'R1', place: 'KQ/Room', units: 10, feeds: [feed] }],
    devices: [
      { name: 'box', model: 'Tessmark T4-Quad', rack: 'R1', unit: 1, feed: 'A' },
      { name: 'cam', model: 'Pellane Domus 4', place: 'KQ/Hall' },
      { name: 'sw', model: 'Norvane AX-2424P', place: 'KQ/Hall' },
    ],
    cables: [{ label: 'KQ-00001', a: 'sw:gi1/1', b: null }],
  });
  const findings = foundIn(network);
  expect(findings.map((one) => [one.rule, one.severity])).toEqual([
    ['cable-one-end', 'bad'],
    ['rack-over-limit', 'bad'],
    ['inlets-one-feed', 'warn'],
  ]);
  const states = placeStates(network, reviewOf(network, testDay).open);
  const of = (name: string) =>
    states.get([...network.all('place')].find((one) => one.name === name)?.id ?? '');
  expect(of('KQ')).toEqual({ devices: 3, racks: 1, findings: 3, worst: 'bad' });
  expect(of('Hall')).toEqual({ devices: 2, racks: 0, findings: 1, worst: 'bad' });
  expect(of('Room')).toEqual({ devices: 1, racks: 1, findings: 2, worst: 'bad' });
  expect(of('AH')).toEqual({ devices: 0, racks: 0, findings: 0, worst: null });
});

test('a feed that cannot carry all alone is a warning; one above its limit is bad', () => {
  const feeds = ['A', 'B'].map((name) => ({ name, volts: 230, amps: 10, phases: 1 as const, derating: 0.8 }));
  const network = networkOf({
    places: [{ path: 'KQ' }],
    racks: [{ name: 'R1', place: 'KQ', units: 20, feeds }],
    devices: [
      { name: 'pda', model: 'Brackwater PS-16', rack: 'R1', feed: 'A' },
      { name: 'pdb', model: 'Brackwater PS-16', rack: 'R1', feed: 'B' },
      { name: 'box', model: 'Tessmark T4-Quad', rack: 'R1', unit: 1 },
    ],
    cables: [
      { label: 'P-1', a: 'pda:o1', b: 'box:psu1' },
      { label: 'P-2', a: 'pdb:o1', b: 'box:psu2' },
    ],
  });
  const findings = foundIn(network);
  expect(findings.map((one) => one.severity)).toEqual(['warn', 'warn']);
  expect(findings[0]?.message).toBe(
    'Feed A of R1 would carry 2 205 W alone, above its usable 1 840 W: no redundancy. Move something out, or correct the figures.',
  );
});

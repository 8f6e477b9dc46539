import { describe, expect, test } from '@jest/globals';
import { allOf, concerns } from '../model/network/reads.ts';
import { deviceNamed, rackNamed, smallRoom } from '../testing/testNetwork.ts';
import { editHeld, editRow } from './edit.ts';

const network = smallRoom();
const device = deviceNamed(network, 'kq-core-1');

describe('what an edit is called', () => {
  test('one fact by its name, with its unit; nothing where it is emptied', () => {
    expect(editRow(network, 'device', device, { serial: 'NV-1' }).sentence).toBe(
      'Set serial of kq-core-1 to NV-1',
    );
    const { sentence } = editRow(network, 'rack', rackNamed(network, 'KQ-A1'), { massLimitKg: 900 });
    expect(sentence).toBe('Set mass limit of KQ-A1 to 900 kg');
    expect(editRow(network, 'device', { ...device, serial: 'x' }, { serial: null }).sentence).toBe(
      'Set serial of kq-core-1 to nothing',
    );
  });

  test('a new name is a renaming; with others it is one of them', () => {
    expect(editRow(network, 'device', device, { name: 'kq-core-9' }).sentence).toBe(
      'Renamed kq-core-1 to kq-core-9',
    );
    expect(editRow(network, 'device', device, { name: 'kq-core-9', serial: 'NV-1' }).sentence).toBe(
      'Changed kq-core-1: renamed it to kq-core-9, set serial to NV-1',
    );
  });

  test('a reference is called by the row it leads to', () => {
    const to = rackNamed(network, 'KQ-A2').id;
    expect(editHeld(network, 'device', device, { rackId: to }).sentence).toBe(
      'Set rack of kq-core-1 to KQ-A2',
    );
    expect(editHeld(network, 'device', device, { rackId: null }).sentence).toBe(
      'Set rack of kq-core-1 to nothing',
    );
  });

  test('what does not differ is no edit', () => {
    expect(editRow(network, 'device', device, { name: device.name })).toEqual({ changes: [], sentence: '' });
  });

  test('data inside a field is told in words', () => {
    const { sentence } = editHeld(network, 'device', device, {
      spanningTree: { mode: 'instances', region: 'quay', parts: [] },
    });
    expect(sentence).toBe('Set spanning tree of kq-core-1 to mode instances, region quay');
  });
});

describe('what a computation reads', () => {
  const touched = {
    kind: 'device' as const,
    before: device,
    after: { ...device, serial: 'NV-1', extra: { a: 'b' } },
  };

  test('a field that changed concerns it, another does not; a row that came or went always does', () => {
    expect(concerns({ device: ['serial'] }, touched)).toBe(true);
    expect(concerns({ device: ['name'] }, touched)).toBe(false);
    expect(concerns({ device: 'all' }, touched)).toBe(true);
    expect(concerns({ rack: 'all' }, touched)).toBe(false);
    expect(concerns({ device: [] }, { ...touched, before: null })).toBe(true);
  });

  test('data is compared by what is in it', () => {
    const same = {
      ...touched,
      before: { ...device, extra: { a: 'b' } },
      after: { ...device, extra: { a: 'b' } },
    };
    expect(concerns({ device: ['extra'] }, same)).toBe(false);
  });

  test('several together read what any reads', () => {
    expect(
      allOf({ device: ['name'], rack: 'all' }, { device: ['name', 'role'] }, { rack: ['units'] }),
    ).toEqual({
      rack: 'all',
      device: ['name', 'role'],
    });
  });
});

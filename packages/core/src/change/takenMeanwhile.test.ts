import { describe, expect, test } from '@jest/globals';
import { joinDevices } from '../cabling/commands/join.ts';
import type { Network } from '../model/network/network.ts';
import { addDevice } from '../racks/commands/devices.ts';
import { called, changed, drawn, modelNamed } from '../testing/testDrawn.ts';
import { applyChanges } from './apply.ts';
import type { Change } from './change.ts';
import { recalledWhereTaken } from './takenMeanwhile.ts';

const four = (): Network =>
  drawn({
    'rt-1': 'Generic router',
    'rt-2': 'Generic router',
    'rt-3': 'Generic router',
    'rt-4': 'Generic router',
  });
function line(network: Network, a: string, b: string, count = 1): Change[] {
  const made = joinDevices(network, {
    aDeviceId: called(network, a).id,
    bDeviceId: called(network, b).id,
    count,
  });
  if (!made.ok) throw new Error(made.why);
  return made.changes;
}
const labels = (network: Network): string[] => [...network.all('cable')].map(({ label }) => label).sort();

describe('what somebody else has taken meanwhile', () => {
  test('a label is counted on, and the rest of the step is made', () => {
    const start = four();
    const mine = line(start, 'rt-1', 'rt-2');
    const theirs = changed(start, line(start, 'rt-3', 'rt-4'));
    expect(applyChanges(theirs, mine).ok).toBe(false);
    const again = recalledWhereTaken(theirs, mine);
    expect(again.recalled).toEqual([{ kind: 'cable', from: 'C-00001', to: 'C-00002' }]);
    expect(labels(changed(theirs, again.changes))).toEqual(['C-00001', 'C-00002']);
  });

  test('several at once keep apart from each other too', () => {
    const start = four();
    const mine = line(start, 'rt-1', 'rt-2', 3);
    const theirs = changed(start, line(start, 'rt-3', 'rt-4', 2));
    const again = recalledWhereTaken(theirs, mine);
    expect(again.recalled.map(({ from, to }) => [from, to])).toEqual([
      ['C-00001', 'C-00004'],
      ['C-00002', 'C-00005'],
    ]);
    expect(labels(changed(theirs, again.changes))).toEqual([
      'C-00001',
      'C-00002',
      'C-00003',
      'C-00004',
      'C-00005',
    ]);
  });

  test('names of devices alike; what nobody has taken is left as it is', () => {
    const start = four();
    const add = (network: Network): Change[] =>
      addDevice(network, {
        ...{ name: 'rt-5', modelId: modelNamed('Generic router').id },
        ...{ rackId: null, placeId: null, unit: null },
      })?.changes ?? [];
    const mine = add(start);
    expect(recalledWhereTaken(start, mine)).toEqual({ changes: mine, recalled: [] });
    const again = recalledWhereTaken(changed(start, add(start)), mine);
    expect(again.recalled).toEqual([{ kind: 'device', from: 'rt-5', to: 'rt-6' }]);
  });

  test('a port that is taken is no matter of names: it stays refused', () => {
    const start = four();
    const one = changed(start, line(start, 'rt-1', 'rt-2'));
    const [port] = one.find('portsByDevice', called(one, 'rt-1').id).filter(({ name }) => name === 'eth0');
    const to = (name: string): Change[] => {
      const made = joinDevices(start, {
        aDeviceId: called(start, 'rt-1').id,
        bDeviceId: called(start, name).id,
        aPortId: port?.id ?? null,
      });
      if (!made.ok) throw new Error(made.why);
      return made.changes;
    };
    const theirs = changed(start, to('rt-3'));
    const again = recalledWhereTaken(theirs, to('rt-4'));
    const applied = applyChanges(theirs, again.changes);
    expect(applied.ok ? '' : applied.problems[0]?.message).toMatch(/rt-1|eth0/);
  });
});

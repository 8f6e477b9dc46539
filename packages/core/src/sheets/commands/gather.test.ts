import { describe, expect, test } from '@jest/globals';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { deleteDevice } from '../../racks/commands/devices.ts';
import { called, changed, drawn } from '../../testing/testDrawn.ts';
import { readExchange } from '../../exchange/read.ts';
import { writeExchange } from '../../exchange/write.ts';
import { planOf } from '../projection/plan.ts';
import { gather, scatter } from './gather.ts';
import { addSheet } from './sheets.ts';

const names = ['ph-1', 'ph-2', 'ph-3', 'ph-4', 'ph-5'];
function start(): { network: Network; sheet: Sheet } {
  const network = drawn({
    ...Object.fromEntries(names.map((name) => [name, 'Generic phone'])),
    'cm-1': 'Generic camera',
  });
  const set = addSheet(network, { scopeId: null });
  const after = changed(network, set.changes);
  return { network: after, sheet: sheetIn(after) };
}
function sheetIn(network: Network): Sheet {
  const [sheet] = [...network.all('sheet')];
  if (sheet === undefined) throw new Error('no sheet');
  return sheet;
}
const plates = (network: Network): string[] =>
  planOf(network, sheetIn(network), { today: '2026-01-01' })
    .graph.nodes.map(({ form, name, deviceIds }) => (form === 'fold' ? `${deviceIds.length} ${name}` : name))
    .sort();
function gathered(network: Network, ...of: string[]): Network {
  const attempt = gather(
    sheetIn(network),
    of.map((name) => called(network, name)),
  );
  if (!attempt.ok) throw new Error(attempt.why);
  return changed(network, attempt.set.changes);
}
const foldIn = (network: Network) => {
  const fold = planOf(network, sheetIn(network), { today: '2026-01-01' }).graph.nodes.find(
    ({ form }) => form === 'fold',
  );
  if (fold === undefined) throw new Error('no fold');
  return fold;
};

describe('n of these', () => {
  test('devices of one role are one plate, and devices of their own all the same', () => {
    const { network } = start();
    const one = gathered(network, ...names);
    expect(plates(one)).toEqual(['5 phones', 'cm-1']);
    expect(one.count('device')).toBe(6);
  });

  test('and back: all of them are drawn again', () => {
    const one = gathered(start().network, ...names);
    const fold = foldIn(one);
    const attempt = scatter(sheetIn(one), fold.id, fold.deviceIds);
    if (!attempt.ok) throw new Error(attempt.why);
    const back = changed(one, attempt.set.changes);
    expect(plates(back)).toEqual(['cm-1', ...names]);
    expect(attempt.set.sentence).toBe('Drew 5 devices one by one on sheet All sites · cabling');
  });

  test('gathered anew with others they leave the plate they were in; one alone is itself again', () => {
    const one = gathered(start().network, 'ph-1', 'ph-2', 'ph-3');
    expect(plates(gathered(one, 'ph-3', 'ph-4'))).toEqual(['2 phones', '2 phones', 'cm-1', 'ph-5']);
    expect(plates(gathered(one, 'ph-2', 'ph-3', 'ph-4'))).toEqual(['3 phones', 'cm-1', 'ph-1', 'ph-5']);
  });

  test('one that is deleted is missing from the plate', () => {
    const one = gathered(start().network, 'ph-1', 'ph-2', 'ph-3');
    const two = changed(one, deleteDevice(one, called(one, 'ph-1')).changes);
    expect(plates(two)).toEqual(['2 phones', 'cm-1', 'ph-4', 'ph-5']);
    expect(plates(changed(two, deleteDevice(two, called(two, 'ph-2')).changes))).toEqual([
      'cm-1',
      'ph-3',
      'ph-4',
      'ph-5',
    ]);
  });

  test('of different roles, or of one: refused with why', () => {
    const { network, sheet } = start();
    expect(gather(sheet, [called(network, 'ph-1')])).toMatchObject({ ok: false });
    expect(gather(sheet, [called(network, 'ph-1'), called(network, 'cm-1')])).toMatchObject({
      ok: false,
      why: 'cm-1 is a camera, ph-1 a phone: only devices of one role are drawn as one.',
    });
  });

  test('a file keeps them by name', () => {
    const one = gathered(start().network, 'ph-1', 'ph-2', 'ph-3');
    const file = writeExchange(one);
    expect(file.sheets?.[0]?.gathered).toEqual([['ph-1', 'ph-2', 'ph-3']]);
    const read = readExchange(start().network, file);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    expect(plates(read.network)).toEqual(['3 phones', 'cm-1', 'ph-4', 'ph-5']);
  });
});

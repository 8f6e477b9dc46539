import { describe, expect, test } from '@jest/globals';
import { deleteDevice } from '../racks/commands/devices.ts';
import { kindNames, kinds, type Kind, type Row } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { everything } from '../testing/testKinds.ts';
import { deviceNamed } from '../testing/testNetwork.ts';
import { applyChanges } from './apply.ts';
import { invert } from './invert.ts';
import { inNumbers, removal } from './removal.ts';

type Fields = Record<string, unknown> & { id: string };
const every = (network: Network): { kind: Kind; row: Row & Fields }[] =>
  kindNames.flatMap((kind) => [...network.all(kind)].map((row) => ({ kind, row: row })));
const content = (network: Network): string =>
  JSON.stringify(every(network).sort((a, b) => (a.row.id < b.row.id ? -1 : 1)));
/** Rows that have an id in one of their fields: found by reading all of them, without an index. */
const holding = (network: Network, id: string): string[] =>
  every(network)
    .filter(({ row }) => Object.entries(row).some(([field, value]) => field !== 'id' && value === id))
    .map(({ kind }) => kind);

describe('taking a row out', () => {
  test('of every kind: nothing is left that points at it, or it is refused by what holds it; undone, all is back', () => {
    const whole = content(everything);
    for (const { kind, row } of every(everything)) {
      if (kind === 'project') continue;
      const { changes } = removal(everything, [{ kind, id: row.id }]);
      expect(new Set(changes.map(({ id }) => id)).size).toBe(changes.length);
      const applied = applyChanges(everything, changes);
      if (!applied.ok) {
        expect(applied.problems.map(({ code }) => code)).toEqual(applied.problems.map(() => 'inUse'));
        // What holds it is really there.
        expect(holding(everything, row.id).length).toBeGreaterThan(0);
        continue;
      }
      const gone = changes.filter(({ op }) => op === 'delete').map(({ id }) => id);
      expect(gone).toContain(row.id);
      for (const id of gone) expect([kind, holding(applied.network, id)]).toEqual([kind, []]);
      const back = applyChanges(applied.network, invert(applied.changes));
      expect([kind, back.ok]).toEqual([kind, true]);
      if (back.ok) expect(content(back.network)).toBe(whole);
    }
  });

  test('what goes and what stays, as an engineer expects it', () => {
    const kept = (kind: Kind, names: Kind[]): number[] => {
      const [first] = everything.all(kind);
      const applied = applyChanges(
        everything,
        removal(everything, first === undefined ? [] : [{ kind, id: first.id }]).changes,
      );
      return applied.ok ? names.map((name) => applied.network.count(name) - everything.count(name)) : [];
    };
    // A cable takes its further legs and its line on a sheet along; ports stay.
    expect(kept('cable', ['cable', 'port', 'sheetLink'])).toEqual([-1, 0, -1]);
    // A sheet takes what is drawn on it along, and nothing of the network.
    expect(kept('sheet', ['sheetItem', 'sheetLink', 'mark', 'device', 'cable'])).toEqual([-3, -2, -4, 0, 0]);
    expect(kept('circuit', ['circuit', 'port', 'sheetItem'])).toEqual([-1, 0, -1]);
    // A place with racks in it holds.
    expect(kept('place', ['place'])).toEqual([]);
  });

  test('a device: told in numbers; a cable to it goes, its neighbour stays', () => {
    const a = deviceNamed(everything, 'a');
    const { alsoGone, changes, sentence } = deleteDevice(everything, a);
    expect(alsoGone).toBe(
      '3 ports, 4 interfaces, 2 cables, 3 addresses, 2 static routes, 1 BGP session and 1 redundancy group',
    );
    expect(sentence).toBe(`Deleted a with ${alsoGone}`);
    const applied = applyChanges(everything, changes);
    expect(applied.ok && applied.network.findOne('deviceByName', 'b')?.name).toBe('b');
    // The circuit stays with that end open, and a callout points at nothing.
    expect(applied.ok && [...applied.network.all('circuit')].map(({ aPortId }) => aPortId)).toEqual([null]);
    expect(applied.ok && applied.network.count('mark')).toBe(everything.count('mark'));
  });

  test('numbers are grouped and joined; what is part of a drawing is not counted', () => {
    const [port] = everything.all('port');
    const [item] = everything.all('sheetItem');
    if (port === undefined || item === undefined) throw new Error('nothing there');
    expect(inNumbers([])).toBe('');
    expect(inNumbers([{ kind: 'sheetItem', row: item }])).toBe('');
    expect(inNumbers([{ kind: 'port', row: { ...port, form: 'physical' } }])).toBe('1 port');
    expect(inNumbers(Array.from({ length: 1200 }, () => ({ kind: 'port' as const, row: port })))).toMatch(
      /^1.200 (ports|interfaces)$/,
    );
  });

  test('several at once: each row is changed once, though two of them lead to it', () => {
    const [a, b] = [deviceNamed(everything, 'a'), deviceNamed(everything, 'b')];
    const { changes } = removal(everything, [
      { kind: 'device', id: a.id },
      { kind: 'device', id: b.id },
    ]);
    expect(new Set(changes.map(({ id }) => id)).size).toBe(changes.length);
    const loose = changes.filter((change) => change.kind === 'cable');
    expect(loose.map((change) => (change.op === 'update' ? change.after : null))).toEqual([
      { aPortId: null, bPortId: null },
      { aPortId: null, bPortId: null },
    ]);
    expect(applyChanges(everything, changes).ok).toBe(true);
    expect(kinds.cable.refs['aPortId']?.onRemove).toBe('cleared');
  });
});

import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { changed, drawn } from '../../testing/testDrawn.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { planOf } from '../projection/plan.ts';
import { addMark } from './marks.ts';
import { copySheet, inSheetOrder, nextSheetName, orderSheets, sheetsLeadingTo } from './sheetList.ts';
import { addSheet, groupOnSheet } from './sheets.ts';

const names = (network: Network): string[] => inSheetOrder(network.all('sheet')).map(({ name }) => name);
const named = (network: Network, name: string): Sheet => {
  const found = [...network.all('sheet')].find((sheet) => sheet.name === name);
  if (found === undefined) throw new Error(`no sheet ${name}`);
  return found;
};
/** Six sheets named A to F, none in an order of its own. */
function six(): Network {
  let network = drawn({ 'rt-1': 'Generic router' });
  for (const name of ['D', 'A', 'F', 'C', 'B', 'E']) {
    const set = addSheet(network, { scopeId: null });
    network = changed(network, set.changes);
    const sheet = network.get('sheet', set.sheetId);
    if (sheet === null) throw new Error('no sheet');
    network = changed(network, [
      { op: 'update', kind: 'sheet', id: sheet.id, before: { name: sheet.name }, after: { name } },
    ]);
  }
  return network;
}
const ordered = (network: Network, ...to: string[]): Network =>
  changed(
    network,
    orderSheets(
      network,
      to.map((name) => named(network, name).id),
    ).changes,
  );

describe('the order of sheets', () => {
  test('by name while nobody gave one', () => expect(names(six()).join('')).toBe('ABCDEF'));

  test('some put in order keep their places among the others', () => {
    expect(names(ordered(six(), 'E', 'C', 'B')).join('')).toBe('AECDBF');
  });

  test('a new sheet comes after those that have one', () => {
    const network = ordered(six(), 'F', 'E', 'D', 'C', 'B', 'A');
    const set = addSheet(network, { scopeId: null });
    expect(names(changed(network, set.changes)).slice(0, 6).join('')).toBe('FEDCBA');
    expect(names(changed(network, set.changes))).toHaveLength(7);
  });

  test('any order of any of them is the one that is shown, and ordering twice changes nothing', () => {
    const start = six();
    fc.assert(
      fc.property(fc.shuffledSubarray(['A', 'B', 'C', 'D', 'E', 'F']), (some) => {
        const after = ordered(start, ...some);
        expect(names(after).filter((name) => some.includes(name))).toEqual(some);
        const rest = ['A', 'B', 'C', 'D', 'E', 'F'].filter((name) => !some.includes(name));
        expect(names(after).filter((name) => rest.includes(name))).toEqual(rest);
        expect(
          orderSheets(
            after,
            some.map((name) => named(after, name).id),
          ).changes,
        ).toEqual([]);
      }),
    );
  });
});

describe('a copy of a sheet', () => {
  test('has all that was done by hand, and draws the same', () => {
    let network = demoNetwork();
    const original = inSheetOrder(network.all('sheet')).find((sheet) => sheet.projection === 'cabling');
    if (original === undefined) throw new Error('no sheet');
    const set = addMark(original, 'note', { x: 8, y: 8, text: 'Here' });
    network = changed(network, set.changes);
    network = changed(network, groupOnSheet(named(network, original.name), 'Mine', [set.markId]).changes);
    const made = copySheet(network, named(network, original.name));
    const after = changed(network, made.changes);
    const copy = after.get('sheet', made.sheetId);
    if (copy === null) throw new Error('no copy');
    expect(copy.name).toBe(`${original.name} (2)`);
    const [mark] = after.find('marksBySheet', copy.id);
    expect(mark).toMatchObject({ text: 'Here' });
    expect(copy.groups[0]?.members).toEqual([mark?.id]);
    expect(after.find('sheetItemsBySheet', copy.id)).toHaveLength(
      network.find('sheetItemsBySheet', original.id).length,
    );
    const graph = (id: string): unknown => {
      const sheet = after.get('sheet', id);
      return sheet === null
        ? null
        : planOf(after, sheet, { today: '2026-01-01' }).graph.nodes.map(({ name }) => name);
    };
    expect(graph(copy.id)).toEqual(graph(original.id));
    expect(after.count('device')).toBe(network.count('device'));
    expect(nextSheetName(after, copy.name)).toBe(`${original.name} (3)`);
  });

  test('sheets that lead to one are told, each once', () => {
    const network = six();
    const [a, b, c] = ['A', 'B', 'C'].map((name) => named(network, name));
    if (a === undefined || b === undefined || c === undefined) throw new Error('no sheets');
    const marks = [b, b, c].flatMap((sheet) => addMark(sheet, 'note', { linkSheetId: a.id }).changes);
    const after = changed(network, marks);
    expect(sheetsLeadingTo(after, a.id).map(({ name }) => name)).toEqual(['B', 'C']);
    expect(sheetsLeadingTo(after, b.id)).toEqual([]);
  });
});

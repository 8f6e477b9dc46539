import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { plainView, type View } from '../model/kinds/reports/gridView.ts';
import { networkOf } from '../testing/testNetwork.ts';
import type { Column } from './table.ts';
import { headingKey, keepView, removeView, viewColumns, viewRows, viewsOf } from './view.ts';

const columns: Column[] = [
  { key: 'name', label: 'Name' },
  { key: 'type', label: 'Type' },
  { key: 'metres', label: 'Length', numeric: true, unit: 'm' },
];
const rows = [
  { id: '1', cells: { name: 'KQ-10', type: 'OS2', metres: 40 } },
  { id: '2', cells: { name: 'KQ-9', type: 'Cat 6A', metres: 3 } },
  { id: '3', cells: { name: 'KQ-11', type: null, metres: null } },
  { id: '4', cells: { name: 'AH-1', type: 'OS2', metres: 7.5 } },
];
const today = '2026-12-01';
const of = (view: Partial<View>, text = '') =>
  viewRows(columns, rows, { ...plainView, ...view }, text, today);
const ids = (view: Partial<View>, text = ''): string[] => of(view, text).rows.map(({ id }) => id);

describe('a view of rows', () => {
  test('asked for nothing it is the rows as they came', () => {
    expect(ids({})).toEqual(['1', '2', '3', '4']);
    expect(viewColumns(columns, plainView)).toEqual(columns);
  });

  test('shows columns in its order, and passes over those that are no more', () => {
    const { columns: shown } = {
      columns: viewColumns(columns, { ...plainView, columns: ['metres', 'gone', 'name'] }),
    };
    expect(shown.map(({ key }) => key)).toEqual(['metres', 'name']);
    expect(viewColumns(columns, { ...plainView, columns: ['gone'] })).toEqual(columns);
  });

  test.each<[string, Partial<View>, string, string[]]>([
    ['names as people count them', { order: { key: 'name', descending: false } }, '', ['4', '2', '1', '3']],
    [
      'figures downwards, what is empty last',
      { order: { key: 'metres', descending: true } },
      '',
      ['1', '4', '2', '3'],
    ],
    [
      'figures upwards, what is empty last',
      { order: { key: 'metres', descending: false } },
      '',
      ['2', '4', '1', '3'],
    ],
    ['a filter of figures', { filters: [{ key: 'metres', test: 'at least', value: '7,5' }] }, '', ['1', '4']],
    ['what is empty', { filters: [{ key: 'type', test: 'is empty', value: '' }] }, '', ['3']],
    [
      'two filters',
      {
        filters: [
          { key: 'type', test: 'is', value: 'os2' },
          { key: 'name', test: 'contains', value: 'kq' },
        ],
      },
      '',
      ['1'],
    ],
    ['a text in any column', {}, 'CAT', ['2']],
    ['a figure in any column', {}, '7.5', ['4']],
  ])('%s', (_what, view, text, expected) => {
    expect(ids(view, text)).toEqual(expected);
  });

  test('in groups, each with its count, in the order of their values', () => {
    const { rows: shown, count } = of({ group: 'type', order: { key: 'name', descending: false } });
    expect(count).toBe(4);
    expect(shown.map((row) => ('heading' in row ? row.cells[headingKey] : row.id))).toEqual([
      'Cat 6A · 1 row',
      '2',
      'OS2 · 2 rows',
      '4',
      '1',
      'no Type · 1 row',
      '3',
    ]);
  });

  test('what is not there, or cannot be asked, is told; the rest holds', () => {
    const { problems, count } = of({
      filters: [
        { key: 'gone', test: 'is', value: 'x' },
        { key: 'metres', test: 'at most', value: 'far' },
        { key: 'type', test: 'is', value: 'OS2' },
      ],
      group: 'room',
      order: { key: 'floor', descending: false },
    });
    expect(count).toBe(2);
    expect(problems).toHaveLength(4);
    expect(problems.join('\n')).toMatch(/“gone”[^]*“far” is none[^]*“floor”[^]*“room”/);
  });

  test('whatever is asked, no row is told twice or made up (against a plain search)', () => {
    const many = Array.from({ length: 300 }, (_, at) => ({
      id: String(at),
      cells: {
        name: `d-${(at * 37) % 101}`,
        type: at % 7 === 0 ? null : `t${at % 5}`,
        metres: (at * 13) % 60,
      },
    }));
    for (let most = 0; most < 60; most += 7)
      for (const group of [null, 'type', 'metres']) {
        const view: View = {
          ...plainView,
          group,
          filters: [{ key: 'metres', test: 'at most', value: String(most) }],
          order: { key: 'name', descending: most % 2 === 0 },
        };
        const shown = viewRows(columns, many, view, 't3', today).rows.filter((row) => !('heading' in row));
        const wanted = many.filter(({ cells }) => cells.metres <= most && cells.type === 't3');
        expect(shown.map(({ id }) => Number(id)).sort((a, b) => a - b)).toEqual(
          wanted.map(({ id }) => Number(id)),
        );
      }
  });
});

test('a view is kept for a grid under its name, replaced by one of that name, and deleted', () => {
  const start = networkOf({});
  const view = { ...plainView, group: 'type' };
  const kept = keepView(start, 'cables', ' Fibre ', view);
  if (!kept.ok) throw new Error(kept.why);
  const first = applyChanges(start, kept.set.changes);
  if (!first.ok) throw new Error(first.problems[0]?.message);
  expect(viewsOf(first.network, 'cables')).toMatchObject([{ name: 'Fibre', group: 'type' }]);
  expect(viewsOf(first.network, 'devices')).toEqual([]);
  const again = keepView(first.network, 'cables', 'fibre', plainView);
  if (!again.ok) throw new Error(again.why);
  const second = applyChanges(first.network, again.set.changes);
  if (!second.ok) throw new Error(second.problems[0]?.message);
  const [only, ...others] = viewsOf(second.network, 'cables');
  expect(only).toMatchObject({ name: 'fibre', group: null });
  expect(others).toEqual([]);
  expect(keepView(start, 'cables', '  ', view)).toMatchObject({
    ok: false,
    why: expect.stringContaining('no name'),
  });
  if (only === undefined) throw new Error('gone');
  const gone = removeView(second.network, only);
  expect(gone.ok && applyChanges(second.network, gone.set.changes).ok).toBe(true);
});

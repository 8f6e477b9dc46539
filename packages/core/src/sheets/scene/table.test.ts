import { describe, expect, test } from '@jest/globals';
import type { TextMeasure } from '../layout/textMeasure.ts';
import { pieces, rowsWithin, setTable, tableHeight, type SheetTable } from './table.ts';

/** Every letter as wide as 0.6 of its size. */
const measure: TextMeasure = (text, _face, size) => [...text].length * size * 0.6;
const row = (...cells: string[]) => ({ cells, heading: false });
const table: SheetTable = {
  title: 'Switches',
  heads: [
    { text: 'Name', numeric: false },
    { text: 'Ports', numeric: true },
  ],
  rows: Array.from({ length: 10 }, (_, at) => row(`kq-acc-${at + 1}`, String(48 - at))),
  below: [],
};

describe('rows in pieces', () => {
  test.each([
    [3, [3, 3, 3, 1]],
    [10, [10]],
    [40, [10]],
    // Fewer than two rows below a head are no table: there is room for two however low it is.
    [0, [2, 2, 2, 2, 2]],
  ])('at most %i', (most, lengths) => {
    expect(pieces(table.rows, most).map(({ length }) => length)).toEqual(lengths);
  });

  test('a heading stands with what follows it, and no row is lost or told twice', () => {
    for (let most = 2; most < 9; most++)
      for (let every = 2; every < 6; every++) {
        const rows = Array.from({ length: 23 }, (_, at) => ({
          cells: [String(at)],
          heading: at % every === 0 && at < 22,
        }));
        const made = pieces(rows, most);
        expect(made.flat()).toEqual(rows);
        for (const piece of made) expect(piece.length).toBeLessThanOrEqual(most);
        for (const piece of made.slice(0, -1))
          if (piece.some(({ heading }) => !heading)) expect(piece.at(-1)?.heading).toBe(false);
      }
  });

  test('nothing but headings ends as well', () => {
    const rows = Array.from({ length: 7 }, () => ({ cells: ['x'], heading: true }));
    expect(pieces(rows, 3).flat()).toHaveLength(7);
  });
});

test('a height for so many rows holds so many, and one less by the least', () => {
  for (const rows of [2, 5, 20, 100]) {
    expect(rowsWithin(tableHeight(rows))).toBe(rows);
    expect(rowsWithin(tableHeight(rows) - 1)).toBe(Math.max(2, rows - 1));
    const { text } = setTable(
      { ...table, rows: Array.from({ length: rows }, () => row('a', '1')) },
      tableHeight(rows),
      measure,
    );
    expect(text.height).toBe(tableHeight(rows));
  }
});

describe('a table that is set', () => {
  test('is as wide as its columns, and figures end at the right of theirs', () => {
    const { text, rules } = setTable(table, 1000, measure);
    // Inset 8, kq-acc-10 of 9 letters at 6, a gap of 14, Ports of 5 letters at 6, inset 8.
    expect(text.width).toBe(8 + 54 + 14 + 30 + 8);
    expect(text.height).toBe(24 + 15 + 10 * 15 + 8);
    const ends = text.runs.filter((run) => /^\d+$/.test(run.text)).map((run) => run.x + run.text.length * 6);
    expect(new Set(ends)).toEqual(new Set([8 + 54 + 14 + 30]));
    // One below the heads, one below each row.
    expect(rules).toHaveLength(11);
  });

  test('in half the height it stands in two pieces beside each other, each with its heads', () => {
    const { text } = setTable(table, 24 + 15 + 5 * 15 + 8, measure);
    expect(text.height).toBe(24 + 15 + 5 * 15 + 8);
    expect(text.width).toBe(8 + 98 + 26 + 98 + 8);
    expect(text.runs.filter((run) => run.text === 'Ports')).toHaveLength(2);
    expect(text.runs.filter((run) => /^kq-acc/.test(run.text))).toHaveLength(10);
  });

  test('a text longer than a column may be is cut, and says so', () => {
    const long = { ...table, rows: [row('W'.repeat(300), '1')] };
    const cut = setTable(long, 400, measure).text.runs.find((run) => run.text.startsWith('W'));
    expect(cut?.text.endsWith('…')).toBe(true);
    // 230 units at 6 each.
    expect(cut?.text).toHaveLength(38);
  });

  test('without a row it is its heads and why', () => {
    const none = { ...table, rows: [], below: ['No row passes.'] };
    const { text } = setTable(none, 400, measure);
    expect(text.runs.map((run) => run.text)).toEqual(['Switches', 'Name', 'Ports', 'No row passes.']);
  });
});

import { describe, expect, test } from '@jest/globals';
import { blockOf } from './gridBlocks.ts';
import { copiedText, filledDown, keptAfter, pastedEdits, spotKey } from './gridEdits.ts';
import type { GridColumn, GridRow } from './useGridRows.ts';

const columns: GridColumn[] = [
  { key: 'name', label: 'Name', width: 100, editable: true },
  { key: 'model', label: 'Model', width: 100 },
  { key: 'address', label: 'Address', width: 100, editable: true },
];
const rows: GridRow[] = [
  { id: 'a', cells: { name: 'kq-acc-08', model: 'AX-2448P', address: '10.1.0.8/24' } },
  { id: 'b', cells: { name: 'x', model: null, address: null } },
  { id: 'c', cells: { name: 'y', model: 'AX-2424', address: '10.1.0.77/24' } },
];

describe('copying', () => {
  test('a block goes out as a spreadsheet takes it, empty cells too', () => {
    expect(copiedText(columns, rows, blockOf({ row: 1, column: 2 }, { row: 0, column: 0 }))).toBe(
      'kq-acc-08\tAX-2448P\t10.1.0.8/24\nx\t\t',
    );
  });
});

describe('pasting', () => {
  test('cell by cell from the spot on, leaving out what is not typed into and what lies beside the grid', () => {
    const text = 'n1\tm1\t10.0.0.1/24\tbeyond\r\nn2\tm2\t10.0.0.2/24\r\nn3\r\n';
    expect(pastedEdits(columns, rows, { row: 1, column: 0 }, text)).toEqual([
      { id: 'b', key: 'name', text: 'n1' },
      { id: 'b', key: 'address', text: '10.0.0.1/24' },
      { id: 'c', key: 'name', text: 'n2' },
      { id: 'c', key: 'address', text: '10.0.0.2/24' },
    ]);
    expect(pastedEdits(columns, rows, { row: 0, column: 1 }, 'one')).toEqual([]);
  });
});

describe('filling down', () => {
  test('a block counts on from its first row in every column that is typed into', () => {
    expect(filledDown(columns, rows, blockOf({ row: 0, column: 0 }, { row: 2, column: 2 }))).toEqual([
      { id: 'b', key: 'name', text: 'kq-acc-09' },
      { id: 'b', key: 'address', text: '10.1.0.9/24' },
      { id: 'c', key: 'name', text: 'kq-acc-10' },
      { id: 'c', key: 'address', text: '10.1.0.10/24' },
    ]);
  });

  test('one row takes what stands above it counted on by one; the first has nothing above', () => {
    const one = (row: number) => filledDown(columns, rows, blockOf({ row, column: 0 }, { row, column: 0 }));
    expect(one(1)).toEqual([{ id: 'b', key: 'name', text: 'kq-acc-09' }]);
    expect(one(0)).toEqual([]);
  });
});

describe('keeping', () => {
  const taken: string[] = [];
  const keep = (id: string, key: string, text: string): string | null => {
    if (text === 'bad') return 'It is bad.';
    taken.push(`${id} ${key} ${text}`);
    return null;
  };

  test('what does not differ is not written; what is refused stays with its reason, the rest is kept', () => {
    taken.length = 0;
    const wrong = keptAfter(
      new Map([[spotKey('c', 'name'), { text: 'bad', why: 'It is bad.' }]]),
      rows,
      [
        { id: 'a', key: 'name', text: 'kq-acc-08' },
        { id: 'b', key: 'name', text: 'bad' },
        { id: 'b', key: 'address', text: '10.1.0.9/24' },
      ],
      keep,
    );
    expect(taken).toEqual(['b address 10.1.0.9/24']);
    expect([...wrong]).toEqual([
      ['c|name', { text: 'bad', why: 'It is bad.' }],
      ['b|name', { text: 'bad', why: 'It is bad.' }],
    ]);
  });

  test('a cell that was wrong is right again with its old text or with a good one', () => {
    const before = new Map([
      [spotKey('a', 'name'), { text: 'bad', why: 'It is bad.' }],
      [spotKey('b', 'name'), { text: 'bad', why: 'It is bad.' }],
    ]);
    const edits = [
      { id: 'a', key: 'name', text: 'kq-acc-08' },
      { id: 'b', key: 'name', text: 'good' },
    ];
    expect(keptAfter(before, rows, edits, keep).size).toBe(0);
    expect(before.size).toBe(2);
  });
});

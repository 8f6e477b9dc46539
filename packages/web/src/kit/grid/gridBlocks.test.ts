import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blockOf, countOn, holds, moveFor, pastedCells, within } from './gridBlocks.ts';

const end = { rows: 100, columns: 9 };

describe('filling down', () => {
  test('counts addresses with their carry, ports, labels; a text without a number stays', () => {
    expect(countOn('10.0.0.254/22', 1)).toBe('10.0.0.255/22');
    expect(countOn('10.0.0.255', 2)).toBe('10.0.1.1');
    expect(countOn('2001:db8::ff', 1)).toBe('2001:db8::100');
    expect(countOn('1/1/9', 1)).toBe('1/1/10');
    expect(countOn('KQ-00099', 2)).toBe('KQ-00101');
    expect(countOn('desk 7 left', 1)).toBe('desk 8 left');
    expect(countOn('Hall', 3)).toBe('Hall');
  });
});

describe('moving', () => {
  test('arrows by one, pages by fifteen, Home and End in the row or the whole grid', () => {
    const spot = { row: 20, column: 4 };
    expect(moveFor('ArrowDown', spot, end, false)).toEqual({ row: 21, column: 4 });
    expect(moveFor('PageUp', spot, end, false)).toEqual({ row: 5, column: 4 });
    expect(moveFor('Home', spot, end, false)).toEqual({ row: 20, column: 0 });
    expect(moveFor('End', spot, end, true)).toEqual({ row: 99, column: 8 });
    expect(moveFor('x', spot, end, false)).toBeNull();
  });

  test('property: no key leads out of the grid', () => {
    const key = fc.constantFrom(
      'ArrowDown',
      'ArrowUp',
      'ArrowLeft',
      'ArrowRight',
      'PageDown',
      'PageUp',
      'Home',
      'End',
    );
    fc.assert(
      fc.property(fc.array(key, { maxLength: 60 }), fc.boolean(), (keys, whole) => {
        let spot = { row: 0, column: 0 };
        for (const one of keys) spot = within(moveFor(one, spot, end, whole) ?? spot, end);
        expect(holds({ rows: [0, 99], columns: [0, 8] }, spot)).toBe(true);
      }),
    );
  });
});

test('a block is the same from either corner, and holds both', () => {
  const [a, b] = [
    { row: 7, column: 1 },
    { row: 3, column: 5 },
  ];
  expect(blockOf(a, b)).toEqual({ rows: [3, 7], columns: [1, 5] });
  expect(blockOf(b, a)).toEqual(blockOf(a, b));
  expect([holds(blockOf(a, b), a), holds(blockOf(a, b), { row: 8, column: 2 })]).toEqual([true, false]);
});

test('a spreadsheet ends its clipboard with a line end that is no cell', () => {
  expect(pastedCells('a\tb\r\nc\t\r\n')).toEqual([
    ['a', 'b'],
    ['c', ''],
  ]);
  expect(pastedCells('one')).toEqual([['one']]);
});

import { describe, expect, test } from '@jest/globals';
import { Corridors } from './corridor.ts';

const [columns, rows] = [200, 120];
const at = (column: number, row: number): number => row * columns + column;
const inside = (cell: number, left: number, top: number, right: number, bottom: number): boolean => {
  const [column, row] = [cell % columns, Math.floor(cell / columns)];
  return column >= left && column < right && row >= top && row < bottom;
};
const nothing = { columns, rows, closed: () => false, zone: () => 0 };
/** The rows of a column that the corridor sought last holds. */
const held = (corridors: Corridors, column: number): number[] =>
  Array.from({ length: rows }, (_, row) => row).filter((row) => corridors.holds(at(column, row)));

describe('the coarse way of a long line', () => {
  test('straight over free ground, with the fields beside it', () => {
    const corridors = new Corridors(nothing);
    expect(corridors.seek([at(10, 60)], at(190, 60), new Uint8Array([0]))).toBe(true);
    const open = held(corridors, 100);
    expect(open).toContain(60);
    expect(open.length).toBe(12);
  });

  test('around a container that it has no part in; through it where it has', () => {
    const lattice = { ...nothing, zone: (cell: number) => (inside(cell, 60, 20, 140, 100) ? 1 : 0) };
    for (const foreign of [1, 0]) {
      const corridors = new Corridors(lattice);
      expect(corridors.seek([at(10, 60)], at(190, 60), new Uint8Array([0, foreign]))).toBe(true);
      expect(corridors.holds(at(100, 60))).toBe(foreign === 0);
    }
  });

  test('a gap between two containers that does not lie in the fields is found', () => {
    // 6 cells wide, from column 97 on.
    const zone = (cell: number): number =>
      inside(cell, 0, 40, 97, 80) ? 1 : inside(cell, 103, 40, 200, 80) ? 2 : 0;
    const corridors = new Corridors({ ...nothing, zone });
    expect(corridors.seek([at(100, 10)], at(100, 110), new Uint8Array([0, 1, 1]))).toBe(true);
    expect(corridors.holds(at(100, 60))).toBe(true);
  });

  test('walled in: none', () => {
    const closed = (cell: number): boolean => inside(cell, 80, 0, 100, rows);
    const corridors = new Corridors({ ...nothing, closed });
    expect(corridors.seek([at(10, 60)], at(190, 60), new Uint8Array([0]))).toBe(false);
  });

  test('a second line keeps apart from the first where there is room', () => {
    const corridors = new Corridors(nothing);
    const seek = (): number[] => {
      corridors.seek([at(10, 60)], at(190, 60), new Uint8Array([0]));
      return held(corridors, 100);
    };
    const first = seek();
    for (let line = 0; line < 30; line++) seek();
    expect(seek()).not.toEqual(first);
  });
});

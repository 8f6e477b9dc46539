import { describe, expect, test } from '@jest/globals';
import type { Scene } from '@visograph/core/sheets';
import { reallyMoved } from './useDragging.ts';

const scene = {
  plates: [{ id: 'a', box: { x: 8, y: 16, width: 80, height: 40 } }],
  marks: [{ id: 'm', box: { x: 0, y: 0, width: 10, height: 10 } }],
} as unknown as Scene;
const moved = (plates: [string, number, number][], marks: [string, number, number][] = []) => ({
  plates: new Map(plates.map(([id, x, y]) => [id, { x, y }])),
  marks: new Map(marks.map(([id, x, y]) => [id, { x, y }])),
});

describe('whether a drop changes anything', () => {
  test('put somewhere else it does, where it stood it does not', () => {
    expect(reallyMoved(scene, moved([['a', 16, 16]]))).toBe(true);
    expect(reallyMoved(scene, moved([['a', 8, 16]]))).toBe(false);
    expect(reallyMoved(scene, moved([['a', 8, 16]], [['m', 0, 8]]))).toBe(true);
  });

  test('less than half a unit is no move, and what is not on the sheet moves nothing', () => {
    expect(reallyMoved(scene, moved([['a', 8.4, 15.6]]))).toBe(false);
    expect(reallyMoved(scene, moved([['gone', 99, 99]]))).toBe(false);
  });
});

import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { plainPage } from '../../model/kinds/drawings/sheet.ts';
import { align, alignments, distribute, mirror, sameSize, snapToOthers, straighten } from './arrange.ts';
import { pagesOf } from '../scene/pages.ts';
import { overlap, type Box } from '../scene/scene.ts';

const box = (x: number, y: number, width: number, height: number): Box => ({ x, y, width, height });
const three = new Map([
  ['a', box(0, 0, 112, 40)],
  ['b', box(200, 64, 160, 56)],
  ['c', box(600, 16, 112, 40)],
]);
const boxes = fc
  .array(
    fc.record({
      x: fc.integer({ min: -500, max: 500 }).map((n) => n * 8),
      y: fc.integer({ min: -500, max: 500 }).map((n) => n * 8),
      width: fc.integer({ min: 7, max: 30 }).map((n) => n * 16),
      height: fc.integer({ min: 2, max: 9 }).map((n) => n * 16),
    }),
    { minLength: 2, maxLength: 8 },
  )
  .map((list) => new Map(list.map((one, at) => [String(at), one])));

describe('aligning', () => {
  test('edges lie on the outermost edge, middles on the middle of all', () => {
    expect([...align(three, 'right').values()].map((at) => at.x)).toEqual([600, 552, 600]);
    expect([...align(three, 'middle').values()].map((at) => at.y)).toEqual([40, 32, 40]);
  });
  test('property: aligning twice is aligning once, and moves along one axis only', () => {
    fc.assert(
      fc.property(boxes, fc.constantFrom(...alignments), (chosen, by) => {
        const once = align(chosen, by);
        const moved = new Map([...chosen].map(([id, one]) => [id, { ...one, ...once.get(id) }]));
        expect(align(moved, by)).toEqual(once);
        const axis = ['left', 'centre', 'right'].includes(by) ? 'y' : 'x';
        for (const [id, at] of once) expect(at[axis]).toBe(chosen.get(id)?.[axis]);
      }),
    );
  });
});

describe('distributing', () => {
  test('the gaps are alike and the outermost stay', () => {
    const at = distribute(three, 'x');
    expect([at.get('a')?.x, at.get('b')?.x, at.get('c')?.x]).toEqual([0, 280, 600]);
    expect(at.get('b')?.y).toBe(64);
  });
});

test('property: mirroring twice gives back what was there', () => {
  fc.assert(
    fc.property(boxes, fc.constantFrom('x' as const, 'y' as const), (chosen, axis) => {
      const turned = new Map(
        [...chosen].map(([id, one]) => [id, { ...one, ...mirror(chosen, axis).get(id) }]),
      );
      const back = mirror(turned, axis);
      for (const [id, one] of chosen) expect(back.get(id)).toEqual({ x: one.x, y: one.y });
    }),
  );
});

test('the same size is that of the widest and the highest', () => {
  expect(sameSize(three)).toEqual({ width: 160, height: 56 });
});

test('a plate gives way along the shorter way so that the link to it is straight', () => {
  expect(straighten(box(0, 0, 112, 40), box(400, 56, 112, 56))).toEqual({ x: 400, y: -8 });
  expect(straighten(box(0, 0, 112, 40), box(56, 400, 144, 56))).toEqual({ x: -16, y: 400 });
});

describe('guides', () => {
  test('a box near the edge of another is moved onto it, and the line is told', () => {
    const { at, guides } = snapToOthers(box(203, 300, 112, 40), [box(200, 0, 160, 56)]);
    expect(at).toEqual({ x: 200, y: 300 });
    expect(guides).toEqual([{ axis: 'x', at: 200, from: 0, to: 340 }]);
  });
  test('nothing near: it stays where the hand has it', () => {
    expect(snapToOthers(box(1000, 1000, 112, 40), [box(0, 0, 160, 56)])).toEqual({
      at: { x: 1000, y: 1000 },
      guides: [],
    });
  });
});

describe('pages', () => {
  const drawn = box(-40, 20, 3000, 1400);
  test('A3 across, fitted: the drawing fills the width between the margins', () => {
    const pages = pagesOf(drawn, plainPage);
    expect([pages.widthMm, pages.heightMm]).toEqual([420, 297]);
    expect(pages.frames).toHaveLength(1);
    expect(3000 * pages.mmPerUnit).toBeCloseTo(400);
  });
  test('a small drawing is not blown up', () => {
    expect(pagesOf(box(0, 0, 200, 100), plainPage).mmPerUnit).toBeCloseTo(25.4 / 96);
  });
  test('A4 upright, tiled at 50 %: as many pages as it needs, numbered row by row', () => {
    const pages = pagesOf(drawn, { ...plainPage, size: 'A4', landscape: false, fit: false, scale: 0.5 });
    // 3000 units at half size are 397 mm, over 190 mm of paper; 1400 are 185 mm, over 277.
    expect(pages.frames.map(({ number, row, column }) => [number, row, column])).toEqual([
      [1, 0, 0],
      [2, 0, 1],
      [3, 0, 2],
    ]);
  });
  test('property: tiles cover the drawing and do not overlap', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 9000 }),
        fc.integer({ min: 50, max: 9000 }),
        fc.constantFrom('A4' as const, 'A2' as const, 'Letter' as const),
        fc.boolean(),
        (width, height, size, landscape) => {
          const whole = box(7, -13, width, height);
          const { frames } = pagesOf(whole, { ...plainPage, size, landscape, fit: false });
          const right = Math.max(...frames.map((frame) => frame.box.x + frame.box.width));
          const bottom = Math.max(...frames.map((frame) => frame.box.y + frame.box.height));
          expect(Math.min(...frames.map((frame) => frame.box.x))).toBeLessThanOrEqual(7 + 1e-6);
          expect(right).toBeGreaterThanOrEqual(7 + width - 1e-6);
          expect(bottom).toBeGreaterThanOrEqual(-13 + height - 1e-6);
          frames.forEach((one, at) =>
            frames.slice(at + 1).forEach((other) => expect(overlap(one.box, other.box, -0.001)).toBe(false)),
          );
        },
      ),
    );
  });
});

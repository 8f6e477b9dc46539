import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { plainPage, type Page } from '../../model/kinds/drawings/sheet.ts';
import { gallery } from '../../testing/testGallery.ts';
import { planOf } from '../projection/plan.ts';
import { aspectOf, legibilityOf, pageCount, pagesOf, windowAspect } from './pages.ts';
import { sceneOf } from './sceneOf.ts';

const drawn = (width: number, height: number) => ({ x: 0, y: 0, width, height });
const a4: Page = { ...plainPage, size: 'A4' };

describe('whether what is printed can be read', () => {
  test('what fits at its full size is set in 7.5 pt: ten units of 96 an inch', () => {
    expect(legibilityOf(drawn(800, 500), a4).points).toBeCloseTo(7.5);
    expect(legibilityOf(drawn(800, 500), a4).paper).toBeNull();
  });

  test('a drawing twice as wide as the paper: too small, A3 is enough', () => {
    // 277 mm of room over 1,600 units is 0.173 mm a unit: ten units are 1.73 mm, 4.9 pt.
    const { points, paper } = legibilityOf(drawn(1600, 900), a4);
    expect(points).toBeCloseTo((277 / 1600) * 10 * (72 / 25.4), 5);
    expect(points).toBeLessThan(6);
    expect(paper).toBe('A3');
  });

  test('at the scale that is proposed it can be read, on so many pages as are told', () => {
    for (const width of [1200, 2400, 5000]) {
      const { scale, pages } = legibilityOf(drawn(width, width / 1.6), a4);
      const tiled = { ...a4, fit: false, scale };
      expect(legibilityOf(drawn(width, width / 1.6), tiled).points).toBeGreaterThanOrEqual(6);
      expect(pagesOf(drawn(width, width / 1.6), tiled).frames).toHaveLength(pages);
    }
  });

  test('property: pages are counted as they are laid', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20_000 }),
        fc.integer({ min: 1, max: 20_000 }),
        fc.constantFrom(0.5, 1, 2),
        fc.boolean(),
        (width, height, scale, fit) => {
          const page: Page = { ...a4, fit, scale };
          expect(pageCount(drawn(width, height), page)).toBe(
            pagesOf(drawn(width, height), page).frames.length,
          );
        },
      ),
      { numRuns: 40 },
    );
    // What would take gigabytes to lay out is counted all the same.
    expect(pageCount(drawn(4e8, 4e8), { ...a4, fit: false, scale: 2 })).toBeGreaterThan(1e11);
  });

  test('of American paper an American size is proposed; where none is large enough, none', () => {
    expect(legibilityOf(drawn(1900, 1100), { ...a4, size: 'Letter' }).paper).toBe('Tabloid');
    expect(legibilityOf(drawn(60_000, 40_000), a4).paper).toBeNull();
  });
});

describe('what a sheet is laid out for', () => {
  test('a window unless its paper is asked for; paper as it lies (ISO 216: root of two)', () => {
    expect(aspectOf(a4)).toBe(windowAspect);
    expect(aspectOf({ ...a4, composed: true })).toBeCloseTo(Math.SQRT2, 2);
    expect(aspectOf({ ...a4, composed: true, landscape: false })).toBeCloseTo(1 / Math.SQRT2, 2);
    expect(aspectOf({ ...a4, size: 'Letter', composed: true })).toBeCloseTo(11 / 8.5, 5);
  });

  test.each(['campus-60', 'campus-300'])('upright paper is filled better by a layout for it, %s', (name) => {
    const made = gallery[name]?.();
    if (made === undefined) throw new Error(name);
    const measure = (text: string, _face: string, size: number): number => text.length * size * 0.6;
    const zoomOn = (page: Page): number => {
      const plan = planOf(made.network, { ...made.sheet, page }, { today: '2026-11-30' });
      return pagesOf(sceneOf(plan, { measure, quick: true }).box, page).mmPerUnit;
    };
    const upright: Page = { ...plainPage, landscape: false };
    expect(zoomOn({ ...upright, composed: true })).toBeGreaterThan(1.05 * zoomOn(upright));
  });
});

import { describe, expect, test } from '@jest/globals';
import { plainPage, type Page } from '../../model/kinds/drawings/sheet.ts';
import { legibilityOf, pagesOf } from './pages.ts';

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

  test('of American paper an American size is proposed; where none is large enough, none', () => {
    expect(legibilityOf(drawn(1900, 1100), { ...a4, size: 'Letter' }).paper).toBe('Tabloid');
    expect(legibilityOf(drawn(60_000, 40_000), a4).paper).toBeNull();
  });
});

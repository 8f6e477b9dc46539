import { describe, expect, test } from '@jest/globals';
import { fitText, measureText } from './metrics/measure.ts';
import { roundedPath } from './Link.tsx';
import { night, paper, type Tokens } from './tokens.ts';

describe('measuring', () => {
  test('mono advances are all alike; wider text is wider', () => {
    expect(measureText('iiii', 'mono', 10)).toBe(measureText('WWWW', 'mono', 10));
    expect(measureText('kq-core-10', 'textStrong', 13)).toBeGreaterThan(
      measureText('kq-core-1', 'textStrong', 13),
    );
    expect(measureText('abc', 'text', 20)).toBeCloseTo(2 * measureText('abc', 'text', 10));
  });

  test('a text is cut with an ellipsis so that it fits, and left whole when it does', () => {
    const cut = fitText('a-device-with-a-very-long-name', 'textStrong', 13, 80);
    expect(cut.endsWith('…')).toBe(true);
    expect(measureText(cut, 'textStrong', 13)).toBeLessThanOrEqual(80);
    expect(fitText('short', 'textStrong', 13, 80)).toBe('short');
  });
});

test('corners are rounded no further than half their pieces', () => {
  expect(
    roundedPath([
      { x: 0, y: 0 },
      { x: 0, y: 40 },
      { x: 40, y: 40 },
    ]),
  ).toBe('M0 0L0 35Q0 40 5 40L40 40');
  expect(
    roundedPath([
      { x: 0, y: 0 },
      { x: 0, y: 4 },
      { x: 40, y: 4 },
    ]),
  ).toBe('M0 0L0 2Q0 4 2 4L40 4');
  expect(roundedPath([])).toBe('');
});

/** Relative luminance and contrast by WCAG 2.2. */
const luminance = (colour: string): number => {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const value = parseInt(colour.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const contrast = (a: string, b: string): number => {
  const [low = 0, high = 0] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
};

describe.each([
  ['paper', paper],
  ['night', night],
] as [string, Tokens][])('the %s theme', (_name, tokens) => {
  test('text stands at 4.5:1 or more on every ground it is used on', () => {
    for (const ground of [tokens.ground, tokens.band, tokens.surface, tokens.container, tokens.accentWash]) {
      expect(contrast(tokens.ink, ground)).toBeGreaterThan(4.5);
      expect(contrast(tokens.inkSoft, ground)).toBeGreaterThan(4.5);
    }
    for (const family of Object.values(tokens.family))
      expect(contrast(tokens.tabInk, family)).toBeGreaterThan(4.5);
    expect(contrast(tokens.accentInk, tokens.accent)).toBeGreaterThan(4.5);
    expect(contrast(tokens.bad, tokens.surface)).toBeGreaterThan(4.5);
  });
});

import { describe, expect, test } from '@jest/globals';
import { measureText } from '@visograph/drawing';
import { drawnBy, isEastAsian, missingIn } from './coverage.ts';
import { embedFonts } from './embed.ts';
import { openSync } from 'fontkit';
import { eastAsianPaths, fallbackPaths, housePaths } from './files.ts';
import { outlineOf } from './outline.ts';
import { runsOf } from './runs.ts';
import { textsOf, withOutlines, withRuns } from './svgText.ts';

const familyOf = (cluster: string, weight: 400 | 600 = 400): string => {
  const drawn = drawnBy(cluster, weight);
  return drawn.kind === 'fallback' ? drawn.font.family : drawn.kind;
};
const shown = (text: string): string[] => runsOf(text, 400).map((run) => run.text);
const text = (inside: string, more = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg"><title>T</title><text x="10" y="20" font-family="'Atkinson Hyperlegible Next', sans-serif" font-size="10"${more}>${inside}</text></svg>`;

describe('which font draws what', () => {
  test.each([
    ['A', 'house'],
    ['é', 'house'],
    ['e\u0301', 'house'],
    ['≥', 'house'],
    ['α', 'Noto Sans'],
    ['Δ', 'Noto Sans'],
    ['ж', 'Noto Sans'],
    ['ש', 'Noto Sans Hebrew'],
    ['שׁ', 'Noto Sans Hebrew'],
    ['ش', 'Vazirmatn'],
    ['بّ', 'Vazirmatn'],
    ['ݐ', 'Noto Sans Arabic'],
    ['⇄', 'Noto Sans Math'],
    ['⚠', 'Noto Sans Symbols 2'],
    ['\u{1f5a7}', 'Noto Sans Symbols 2'],
    ['\u{1f4a1}', 'none'],
  ])('%s by %s', (cluster, family) => {
    expect([familyOf(cluster), familyOf(cluster, 600)]).toEqual([family, family]);
  });

  test('no character that a shipped font has is left out by the ranges', () => {
    const shipped = new Set<number>();
    for (const { path } of [...housePaths, ...fallbackPaths])
      for (const codePoint of openSync(path).characterSet) shipped.add(codePoint);
    const isDrawn = (codePoint: number): boolean =>
      drawnBy(String.fromCodePoint(codePoint), 400).kind !== 'none' ||
      /\p{C}|\p{Zl}|\p{Zp}/u.test(String.fromCodePoint(codePoint));
    expect([...shipped].filter((codePoint) => !isDrawn(codePoint)).map((at) => at.toString(16))).toEqual([]);
  });

  test('what would be boxes is named once, by what a reader sees', () => {
    expect(missingIn('core-sw1')).toEqual([]);
    expect(missingIn('Διακόπτης שרת مبدّل → ⇄')).toEqual([]);
    expect(missingIn('lamp \u{1f4a1} and \u{1f4a1}')).toEqual(['\u{1f4a1}']);
    expect(missingIn('核心')).toEqual(eastAsianPaths.length === 0 ? ['核', '心'] : []);
    expect(['核', 'か', '한', '\u{1f4a1}', 'ж'].map(isEastAsian)).toEqual([true, true, true, false, false]);
  });
});

describe('runs from left to right', () => {
  test.each([
    ['core-sw1', ['core-sw1']],
    ['Αθήνα 1', ['Αθήνα ', '1']],
    // A right-to-left word keeps its letters as they are read; the words stand the other way round.
    ['שרת ראשי', ['ראשי', ' ', 'שרת']],
    // A number between keeps its own direction, brackets are mirrored.
    ['שרת (12)', ['(12', ')', ' ', 'שרת']],
    ['rack الرياض-2 A', ['rack 2', '-', 'الرياض', ' A']],
  ])('%s', (line, expected) => {
    expect(shown(line)).toEqual(expected);
  });

  test('a letter and its mark are composed and stay together', () => {
    expect(runsOf('Cafe\u0301 α\u0301', 400)).toEqual([
      { text: 'Café ', family: null },
      { text: 'ά', family: 'Noto Sans' },
    ]);
  });

  test('nothing is lost: every letter of the line is in one run', () => {
    for (const line of ['a שלום b (مرحبا) 12-34 ж', '→ Δ ⇄ [שרת 7] x', 'مبدّل\u200f core'])
      expect([...shown(line).join('')].sort().join('')).toBe([...line.normalize('NFC')].sort().join(''));
  });
});

describe('drawings', () => {
  test('texts are read as they are shown', () => {
    expect(textsOf(text('a &lt; b &amp; &#x3b1;&#946;'))).toEqual(['a < b & αβ']);
  });

  test('a text of the house stays as it is, others come in spans with their font', () => {
    expect(withRuns(text('core &amp; edge'))).toBe(text('core &amp; edge'));
    expect(withRuns(text('Ж &lt; b'))).toBe(
      text('<tspan font-family="Noto Sans">Ж </tspan><tspan>&lt; b</tspan>'),
    );
  });

  test('outlines are as wide as the text is measured, and lie around its anchor', () => {
    const { width } = outlineOf('Αθήνα', 'Noto Sans', 400, 10);
    expect(measureText('Αθήνα', 'text', 10) / width).toBeGreaterThan(0.98);
    expect(measureText('Αθήνα', 'text', 10) / width).toBeLessThan(1.08);
    const lefts = ['', ' text-anchor="middle"', ' text-anchor="end"'].map((anchor) => {
      const svg = withOutlines(text('Ж', anchor));
      expect(svg).not.toContain('<text');
      return Math.min(...[...svg.matchAll(/[ML]([\d.-]+)[ ,]/g)].map(([, x]) => Number(x)));
    });
    const [start = 0, middle = 0, end = 0] = lefts;
    const wide = outlineOf('Ж', 'Noto Sans', 400, 10).width;
    expect(start - middle).toBeCloseTo(wide / 2, 2);
    expect(start - end).toBeCloseTo(wide, 2);
  });

  test('a mark is drawn over its letter: its outline lies above', () => {
    const heights = (line: string): number =>
      Math.min(
        ...[
          ...outlineOf(line, 'Vazirmatn', 400, 100)
            .pathAt(0, 0)
            .matchAll(/[ML][\d.-]+[ ,]([\d.-]+)/g),
        ].map(([, y]) => Number(y)),
      );
    expect(heights('د\u0651')).toBeLessThan(heights('د'));
  });

  test('a drawing carries the fonts of the house, and of others only the letters it needs', async () => {
    const plain = await embedFonts(text('core'));
    const greek = await embedFonts(text('core Αθήνα'));
    expect(plain.match(/@font-face/g)).toHaveLength(4);
    expect(greek.match(/@font-face/g)).toHaveLength(8);
    expect(greek.length - plain.length).toBeLessThan(40_000);
    expect(await embedFonts(text('core Αθήνα'))).toBe(greek);
  });
});

describe('measures', () => {
  test('marks take no room, squares take their size, letters that are composed are as wide as the bare ones', () => {
    expect(measureText('e\u0301', 'text', 10)).toBe(measureText('e', 'text', 10));
    expect(measureText('核', 'text', 10)).toBeCloseTo(10.2, 5);
    expect(measureText('ǻ', 'text', 10)).toBe(measureText('å', 'text', 10));
    expect(measureText('ж', 'textStrong', 10)).toBeGreaterThan(measureText('ж', 'text', 10));
  });
});

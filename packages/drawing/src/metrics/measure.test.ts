import { describe, expect, test } from '@jest/globals';
import type { FontFace } from '@visograph/core/sheets';
import fc from 'fast-check';
import { fitText, measureText } from './measure.ts';

const faces: readonly FontFace[] = ['text', 'textStrong', 'mono', 'monoStrong'];
const face = fc.constantFrom(...faces);
/** Letters of ours, of other scripts, with marks, and what stands for nothing. */
const text = fc
  .array(
    fc.constantFrom('a', 'W', '1', '-', ' ', 'é', 'ß', 'Ж', 'Ω', '漢', '한', 'e\u0301', '\u200d', '🙂'),
    {
      maxLength: 24,
    },
  )
  .map((letters) => letters.join(''));

describe('measuring', () => {
  test('property: a text is as wide as its parts, and twice as wide at twice the size', () => {
    fc.assert(
      fc.property(text, text, face, (a, b, one) => {
        const width = (of: string, size = 10): number => measureText(of, one, size);
        expect(width(a + b)).toBeCloseTo(width(a) + width(b), 6);
        expect(width(a, 20)).toBeCloseTo(2 * width(a), 6);
      }),
    );
  });

  test('letters of one width in the face that has one; marks and joiners take no room', () => {
    expect(measureText('i', 'mono', 12)).toBe(measureText('W', 'mono', 12));
    expect(measureText('i', 'text', 12)).toBeLessThan(measureText('W', 'text', 12));
    expect(measureText('e\u0301', 'text', 12)).toBe(measureText('e', 'text', 12));
    expect(measureText('\u200b\u2060', 'text', 12)).toBe(0);
  });

  test('a letter that is written with a mark is as wide as the letter; a square one as the size', () => {
    expect(measureText('ǻ', 'text', 12)).toBeGreaterThan(0);
    expect(measureText('漢', 'text', 10)).toBeCloseTo(10.2, 6);
    expect(measureText('漢字', 'mono', 10)).toBeCloseTo(20.4, 6);
  });

  test('strong is wider', () => {
    const sentence = 'kq-core-1 te1/49 and te1/50';
    expect(measureText(sentence, 'textStrong', 12)).toBeGreaterThan(measureText(sentence, 'text', 12));
  });
});

describe('fitting', () => {
  test('property: what comes out fits, is whole where there is room, and begins as the text does', () => {
    fc.assert(
      fc.property(text, face, fc.integer({ min: 12, max: 200 }), (whole, one, room) => {
        const shown = fitText(whole, one, 10, room);
        const wide = measureText(whole, one, 10);
        if (wide <= room) return expect(shown).toBe(whole);
        expect(shown.endsWith('…')).toBe(true);
        expect(whole.startsWith(shown.slice(0, -1))).toBe(true);
        // One letter with its ellipsis is the least that is shown.
        if ([...shown].length > 2) expect(measureText(shown, one, 10)).toBeLessThanOrEqual(room);
      }),
    );
  });

  test('is cut between letters, never between a letter and its marks', () => {
    const word = 'e\u0301'.repeat(12);
    const shown = fitText(word, 'text', 10, 40);
    expect(shown).toMatch(/^(e\u0301)+…$/u);
    expect(shown.length).toBeLessThan(word.length);
  });
});

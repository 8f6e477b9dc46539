import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { setText } from './richText.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';

const measure: TextMeasure = (text, _face, size) => text.length * size * 0.5;
const set = (text: string, width = 200) => setText(text, width, measure);

describe('notes in Markdown', () => {
  test('headings are larger, bold is strong, code is mono', () => {
    const { runs } = set('# Riser\nCall **Ben** before `KQ-00012` is touched', 1000);
    expect(runs.map(({ text, face, size }) => [text, face, size])).toEqual(
      [
        ['Riser', 'textStrong', 19],
        ['Call', 'text', 13],
        [' Ben', 'textStrong', 13],
        [' before', 'text', 13],
        [' KQ-00012', 'mono', 13],
        [' is touched', 'text', 13],
      ].map(([text, face, size]) => [expect.stringContaining(String(text).trim()), face, size]),
    );
  });
  test('lists are indented behind their marks', () => {
    const { runs } = set('1. first\n2. second');
    expect(runs.map((run) => run.text)).toEqual(['1.', 'first', '2.', 'second']);
    expect(runs[1]?.x).toBeGreaterThan(runs[0]?.x ?? 0);
    expect(runs[3]?.y).toBeGreaterThan(runs[1]?.y ?? 0);
  });
  test('markup other than Markdown is shown as typed, and only plain links are links', () => {
    const hostile =
      '<script>alert(1)</script> <img src=x onerror=alert(1)>\n\n[go](javascript:alert(1)) [ok](https://example.test)';
    const { runs } = set(hostile, 4000);
    const shown = runs.map((run) => run.text).join('');
    expect(shown).toContain('<script>');
    expect(shown).toContain('onerror');
    expect(runs.filter((run) => run.href !== null).map((run) => run.href)).toEqual(['https://example.test']);
  });
  test('property: nothing stands out of the width, and no letter is lost', () => {
    const words = fc.array(fc.stringMatching(/^[A-Za-z0-9]{1,40}$/), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(words, fc.integer({ min: 60, max: 400 }), (list, width) => {
        const { runs, height } = set(`x ${list.join(' ')}`, width);
        for (const run of runs) {
          expect(run.x + measure(run.text, run.face, run.size)).toBeLessThanOrEqual(width + 0.001);
          expect(run.y).toBeLessThanOrEqual(height);
        }
        const letters = runs
          .map((run) => run.text)
          .join('')
          .replaceAll(/\s/g, '');
        expect(letters).toBe(`x${list.join('')}`);
      }),
    );
  });
  test('nothing written takes no room', () => {
    expect(set('')).toEqual({ runs: [], width: 0, height: 0 });
  });

  test('property: a long word is cut where the letters that fit end, and never within one', () => {
    const letters = fc.array(fc.constantFrom('a', 'W', 'é', '漢', '😀', '\u{10FFFF}'), {
      minLength: 1,
      maxLength: 200,
    });
    fc.assert(
      fc.property(letters, fc.integer({ min: 3, max: 120 }), (word, width) => {
        const lines = set(word.join(''), width).runs.map(({ text }) => text);
        expect(lines.join('')).toBe(word.join(''));
        // Letter after letter, as one would by hand; one that is wider than the line stands alone.
        const expected: string[] = [''];
        for (const letter of word) {
          const line = `${expected.at(-1) ?? ''}${letter}`;
          if (line === letter || measure(line, 'text', 13) <= width) expected[expected.length - 1] = line;
          else expected.push(letter);
        }
        expect(lines).toEqual(expected);
      }),
    );
  });

  const hostile: [string, string][] = [
    ['one word of 4,000 letters', 'W'.repeat(4000)],
    ['4,000 quotes in each other', '>'.repeat(4000)],
    ['1,333 lists in each other', '1. '.repeat(1333)],
    ['2,000 lists in each other', '- '.repeat(2000)],
    ['quotes and lists by turns', '> - '.repeat(1000)],
    ['the same after a line of text', `text\n${'> '.repeat(1990)}`],
  ];
  test.each(hostile)('%s: are set, with all of their letters', (_what, text) => {
    let measured = 0;
    const counting: TextMeasure = (part, face, size) => {
      measured += part.length;
      return measure(part, face, size);
    };
    const { runs } = setText(text, 200, counting);
    // Work grows with the letters, not with their square.
    expect(measured).toBeLessThan(40 * text.length);
    const marks = (whole: string): number =>
      [...whole].filter((letter) => letter === 'W' || letter === '>').length;
    const shown = runs.map((run) => run.text).join('');
    if (text.startsWith('W')) expect(marks(shown)).toBe(4000);
    else expect(runs.length).toBeGreaterThan(0);
  });

  test('twelve in each other are lists and quotes still; the thirteenth is text', () => {
    const shown = (depth: number): string =>
      set(`${'> '.repeat(depth)}end`, 2000)
        .runs.map((run) => run.text)
        .join('');
    expect([shown(12), shown(13), shown(15)]).toEqual(['end', '> end', '> > > end']);
  });
});

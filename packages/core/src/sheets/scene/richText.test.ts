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
});

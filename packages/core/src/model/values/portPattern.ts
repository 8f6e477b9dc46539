/** The most names one pattern may yield: a chassis of 16 line cards with 64 ports each. */
export const maxPatternNames = 1024;

export type PatternResult = { ok: true; names: string[] } | { ok: false; reason: string };

const range = /\[(\d+)-(\d+)\]/;

/**
 * Names a port pattern stands for: `gi1/[1-48]` gives gi1/1 … gi1/48, `te[1-2]/[1-8]` sixteen names with the
 * last range counting fastest. Leading zeros are kept: `F[01-24]` gives F01 … F24.
 * A pattern without a range is one name. Reversed ranges, empty patterns and more than 1,024 names are refused.
 */
export function expandPortPattern(pattern: string): PatternResult {
  if (pattern.trim() === '') return { ok: false, reason: 'the pattern is empty' };
  let names = [pattern];
  while (names[0] !== undefined && range.test(names[0])) {
    const match = range.exec(names[0]);
    const first = match?.[1] ?? '';
    const last = match?.[2] ?? '';
    const from = Number(first);
    const to = Number(last);
    if (from > to) return { ok: false, reason: `the range [${first}-${last}] runs backwards` };
    if ((to - from + 1) * names.length > maxPatternNames) {
      return { ok: false, reason: `the pattern yields more than ${maxPatternNames} names` };
    }
    const width = first.startsWith('0') ? first.length : 0;
    const numbers = Array.from({ length: to - from + 1 }, (_, step) =>
      String(from + step).padStart(width, '0'),
    );
    names = names.flatMap((name) => numbers.map((number) => name.replace(range, number)));
  }
  if (/[[\]]/.test(names[0] ?? '')) {
    return { ok: false, reason: 'a bracket does not hold a range such as [1-48]' };
  }
  return { ok: true, names };
}

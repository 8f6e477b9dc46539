/** The most names one pattern may yield: a chassis of 16 line cards with 64 ports each. */
export const maxPatternNames = 1024;

export type PatternResult = { ok: true; names: readonly string[] } | { ok: false; reason: string };

/** A catalogue has few patterns, and each is asked for with every port: what they stand for is kept. */
const known = new Map<string, PatternResult>();
const mostKnown = 5_000;

const range = /(\d+)-(\d+)/;
/** Stands for the number of the slot that a module sits in. */
const slotWord = / ?\bslot\b ?/g;
/** Parts figures that are not one number. */
const gap = /(?<=\d) (?=\d)/g;

/**
 * Names that a pattern stands for, written as ports are on the command line: `gi1/1-48` gives gi1/1 … gi1/48,
 * `te1-2/1-8` sixteen names with the last range counting fastest. Leading zeros are kept: `F01-24` gives F01 … F24.
 * The word slot stands for the number of the slot: `te slot/1-8` in slot 3 gives te3/1 … te3/8. Two hyphens stand for
 * one that is part of the name: `eth1--2` is eth1-2. A space between figures parts them and is not in the name:
 * `gi1 1-4` is gi11 … gi14. A pattern without a range is one name. Reversed ranges, empty
 * patterns and more than 1,024 names are refused.
 */
export function expandPortPattern(pattern: string, slot: number | string = 1): PatternResult {
  const key = `${slot} ${pattern}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  if (known.size >= mostKnown) known.clear();
  const result = expanded(pattern, slot);
  known.set(key, result);
  return result;
}

function expanded(pattern: string, slot: number | string): PatternResult {
  if (pattern.trim() === '') return { ok: false, reason: 'the pattern is empty' };
  if (/[[\]{}]/.test(pattern))
    return {
      ok: false,
      reason: 'ranges are written without brackets, such as gi1/1-48, a slot as the word slot',
    };
  let names = [pattern];
  while (names[0] !== undefined && range.test(names[0])) {
    const match = range.exec(names[0]);
    const first = match?.[1] ?? '';
    const last = match?.[2] ?? '';
    const from = Number(first);
    const to = Number(last);
    if (from > to) return { ok: false, reason: `the range ${first}-${last} runs backwards` };
    if ((to - from + 1) * names.length > maxPatternNames) {
      return { ok: false, reason: `the pattern yields more than ${maxPatternNames} names` };
    }
    const width = first.startsWith('0') ? first.length : 0;
    const numbers = Array.from({ length: to - from + 1 }, (_, step) =>
      String(from + step).padStart(width, '0'),
    );
    names = names.flatMap((name) => numbers.map((number) => name.replace(range, number)));
  }
  const written = (name: string): string =>
    name.replace(gap, '').replace(slotWord, String(slot)).replaceAll('--', '-');
  return { ok: true, names: names.map(written) };
}

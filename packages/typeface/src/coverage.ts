import * as fontkit from 'fontkit';
import { eastAsianPaths, fallbackPaths, housePaths, type FontPath } from './files.ts';

interface OpenFont {
  font: fontkit.Font;
  /** The characters it has, by its `cmap`. */
  characters: ReadonlySet<number>;
}

/** Each file is opened once. */
const opened = new Map<string, OpenFont>();

export function openFont(path: string): OpenFont {
  let found = opened.get(path);
  if (found === undefined) {
    const font = fontkit.openSync(path);
    opened.set(path, (found = { font, characters: new Set(font.characterSet) }));
  }
  return found;
}

/** Characters that steer and are not drawn: joiners, marks of direction, selectors of a variant. */
const undrawn = /\p{Default_Ignorable_Code_Point}|\p{Cc}/u;
const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** The text in characters as a reader sees them: a letter with its marks is one (UAX 29). */
export const clustersOf = (text: string): string[] =>
  Array.from(segmenter.segment(text), ({ segment }) => segment);

const has = ({ path, ranges }: FontPath, cluster: string): boolean => {
  const { characters } = openFont(path);
  return [...cluster].every((character) => {
    const codePoint = character.codePointAt(0) ?? 0;
    // Marks are drawn by the font of their letter.
    const asked =
      ranges.length === 0 ||
      /\p{M}/u.test(character) ||
      ranges.some(([first, last]) => codePoint >= first && codePoint <= last);
    return undrawn.test(character) || (asked && characters.has(codePoint));
  });
};

/** Which font draws a cluster: the house's own, one that stands in, or none (it is drawn as a box). */
export type Drawn = { kind: 'house' } | { kind: 'fallback'; font: FontPath } | { kind: 'none' };

const house: Drawn = { kind: 'house' };
const none: Drawn = { kind: 'none' };
/** The house fonts have a few of these letters, as signs: a word is not set in two fonts. */
const foreignToHouse = /\p{Script=Greek}/u;
/** Text that the house fonts draw, whatever is asked: most of all there is. */
export const plain = /^[\x20-\x7e]*$/;

const fontOf = (list: readonly FontPath[], cluster: string, weight: number): Drawn | null => {
  const font = list.find((one) => one.weight === weight && has(one, cluster));
  return font === undefined ? null : { kind: 'fallback', font };
};

/**
 * The font that has all of a cluster. The families of the house have the same characters, so the first answers for
 * both.
 */
export function drawnBy(cluster: string, weight: 400 | 600): Drawn {
  if (plain.test(cluster)) return house;
  const own = housePaths.find((font) => font.weight === weight);
  if (own !== undefined && !foreignToHouse.test(cluster) && has(own, cluster)) return house;
  return fontOf(fallbackPaths, cluster, weight) ?? fontOf(eastAsianPaths, cluster, weight) ?? none;
}

/** What of a text would be drawn as boxes, each cluster once, in the order of the text. */
export function missingIn(text: string): string[] {
  if (plain.test(text)) return [];
  const missing = clustersOf(text.normalize('NFC')).filter(
    (cluster) => drawnBy(cluster, 400).kind === 'none',
  );
  return [...new Set(missing)];
}

/** The fonts that stand in for what the house lacks in these texts. */
export function standInsFor(texts: Iterable<string>): { font: FontPath; characters: Set<string> }[] {
  const found = new Map<string, { font: FontPath; characters: Set<string> }>();
  for (const text of texts) {
    if (plain.test(text)) continue;
    for (const weight of [400, 600] as const)
      for (const cluster of clustersOf(text.normalize('NFC'))) {
        const drawn = drawnBy(cluster, weight);
        if (drawn.kind !== 'fallback') continue;
        const key = `${drawn.font.family} ${weight}`;
        const entry = found.get(key) ?? { font: drawn.font, characters: new Set() };
        for (const character of cluster) entry.characters.add(character);
        found.set(key, entry);
      }
  }
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, entry]) => entry);
}

/** Whether the East Asian fonts would draw it. */
export const isEastAsian = (cluster: string): boolean =>
  /\p{Script=Han}|\p{Script=Hiragana}|\p{Script=Katakana}|\p{Script=Hangul}|\p{Script=Bopomofo}|[\u3000-\u303f\uff00-\uffef]/u.test(
    cluster,
  );

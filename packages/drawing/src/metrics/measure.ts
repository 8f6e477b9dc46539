import type { FontFace, TextMeasure } from '@visograph/core/sheets';
import advances from './advances.json' with { type: 'json' };

/** Thousandths of the size by code point, from runs [first, count, advance, …] of neighbours of one advance. */
function tableOf(runs: readonly number[]): ReadonlyMap<number, number> {
  const table = new Map<number, number>();
  for (let at = 0; at < runs.length; at += 3) {
    const [first = 0, count = 0, advance = 0] = runs.slice(at, at + 3);
    for (let next = 0; next < count; next++) table.set(first + next, advance);
  }
  return table;
}

const tables: Record<FontFace | 'fallback', ReadonlyMap<number, number>> = {
  text: tableOf(advances.text),
  textStrong: tableOf(advances.textStrong),
  mono: tableOf(advances.mono),
  monoStrong: tableOf(advances.monoStrong),
  fallback: tableOf(advances.fallback),
};
const unknownAdvance = 640;
const squareAdvance = 1000;
/** The strong cut of a fallback font is wider than the one that was measured. */
const strongFallback = 1.06;
/** Measured advances leave out kerning: a little room more. */
const margin = 1.02;
const unseen = /\p{Mn}|\p{Me}|\p{Default_Ignorable_Code_Point}/u;
const square =
  /\p{Script=Han}|\p{Script=Hangul}|\p{Script=Hiragana}|\p{Script=Katakana}|\p{Emoji_Presentation}|[\u3000-\u303f\uff00-\uff60]/u;

/** Thousandths of a character that the house fonts lack: of what stands in for it, or of the letter it is made from. */
function fallbackAdvance(character: string, face: FontFace): number {
  if (unseen.test(character)) return 0;
  const strong = face.endsWith('Strong') ? strongFallback : 1;
  const known = tables.fallback.get(character.codePointAt(0) ?? 0);
  if (known !== undefined) return known * strong;
  if (square.test(character)) return squareAdvance;
  const [letter = character] = character.normalize('NFD');
  return letter === character ? unknownAdvance : advanceOf(letter, face);
}

const advanceOf = (character: string, face: FontFace): number =>
  tables[face].get(character.codePointAt(0) ?? 0) ?? fallbackAdvance(character, face);

/** Width of a text in the shipped fonts, in the unit of `size`. */
export const measureText: TextMeasure = (text, face, size) => {
  let thousandths = 0;
  for (const character of text) thousandths += advanceOf(character, face);
  return (thousandths / 1000) * size * margin;
};

/** The text, cut with an ellipsis where it is wider than the room: between letters, never between a letter and its marks. */
export function fitText(text: string, face: FontFace, size: number, room: number): string {
  if (measureText(text, face, size) <= room) return text;
  const letters = [...text];
  while (letters.length > 1 && measureText(`${letters.join('')}…`, face, size) > room) {
    while (letters.length > 1 && unseen.test(letters.at(-1) ?? '')) letters.pop();
    if (letters.length > 1) letters.pop();
  }
  return `${letters.join('')}…`;
}

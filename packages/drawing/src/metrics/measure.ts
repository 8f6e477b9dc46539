import type { FontFace, TextMeasure } from '@visograph/core';
import advances from './advances.json' with { type: 'json' };

const tables: Record<FontFace, Record<string, number>> = advances;
const unknownAdvance = 640;
/** Measured advances leave out kerning: a little room more. */
const margin = 1.02;

/** Width of a text in the shipped fonts, in the unit of `size`. */
export const measureText: TextMeasure = (text, face, size) => {
  const table = tables[face];
  let thousandths = 0;
  for (const character of text) thousandths += table[character] ?? unknownAdvance;
  return (thousandths / 1000) * size * margin;
};

/** The text, cut with an ellipsis where it is wider than the room. */
export function fitText(text: string, face: FontFace, size: number, room: number): string {
  if (measureText(text, face, size) <= room) return text;
  let cut = text;
  while (cut.length > 1 && measureText(`${cut}…`, face, size) > room) cut = cut.slice(0, -1);
  return `${cut}…`;
}

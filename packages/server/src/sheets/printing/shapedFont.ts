/** What of a font of the PDF writer is used here; its own types do not tell it. */
interface Glyph {
  id: number;
  advanceWidth: number;
  codePoints: number[];
}
interface Position {
  xAdvance: number;
  yAdvance: number;
  xOffset: number;
  yOffset: number;
  advanceWidth?: number;
}
interface EmbeddedFont {
  font: { _glyphs: Record<number, Glyph> };
  scale: number;
  subset: { glyphs: number[]; includeGlyph(id: number): number };
  widths: number[];
  unicode: number[][];
  layout(text: string): { glyphs: Glyph[]; positions: Position[] };
  encode(text: string): [string[], Position[]];
}

/** Scripts whose letters change with their neighbours. */
const shapes = /\p{Script=Arabic}|\p{Script=Devanagari}|\p{Mn}/u;

/** Least width, in thousandths, of a glyph that the writer of drawings does not leave out. */
const sliver = 0.001;

/**
 * Lets the writer of drawings set shaped scripts with this font. It leaves out glyphs without a width, which marks
 * are; it takes offsets downwards, which fonts give upwards; and a glyph that stands for several letters (the stroke
 * of Arabic beh, noon and teh, whose dots are glyphs of their own) would be read back as the first of them: here it
 * is taken into the file once for each.
 */
export function shape(font: object): void {
  const own = font as EmbeddedFont;
  const taken = new Map<string, number>();
  const include = ({ id, codePoints, advanceWidth }: Glyph): number => {
    const key = `${id} ${codePoints.join(' ')}`;
    let at = taken.get(key);
    if (at !== undefined) return at;
    at = own.subset.includeGlyph(id);
    const read = own.unicode[at];
    if (id !== 0 && read !== undefined && read.join(' ') !== codePoints.join(' '))
      at = own.subset.glyphs.push(id) - 1;
    taken.set(key, at);
    own.widths[at] ??= advanceWidth * own.scale;
    own.unicode[at] ??= codePoints;
    return at;
  };
  own.encode = (text) => {
    // The glyphs that are kept tell the letters for which they stood first.
    if (shapes.test(text)) own.font._glyphs = {};
    const { glyphs, positions } = own.layout(text);
    const codes = glyphs.map((glyph) => `0000${include(glyph).toString(16)}`.slice(-4));
    const placed = positions.map((position, at) => ({
      ...position,
      yOffset: -position.yOffset,
      advanceWidth: Math.max(sliver, (glyphs[at]?.advanceWidth ?? 0) * own.scale),
    }));
    return [codes, placed];
  };
}

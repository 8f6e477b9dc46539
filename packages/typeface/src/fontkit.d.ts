declare module 'fontkit' {
  interface Path {
    /** A new path by a matrix, as in SVG. */
    transform(a: number, b: number, c: number, d: number, e: number, f: number): Path;
    /** Path data of SVG. */
    toSVG(): string;
  }
  export interface Font {
    characterSet: number[];
    unitsPerEm: number;
    /** Shapes a text: all in units of the font, upwards. */
    layout(text: string): {
      glyphs: { path: Path }[];
      positions: { xAdvance: number; xOffset: number; yOffset: number }[];
      advanceWidth: number;
    };
  }
  export function openSync(path: string): Font;
}

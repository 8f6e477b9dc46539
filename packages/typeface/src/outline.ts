import { openFont } from './coverage.ts';
import { eastAsianPaths, fallbackPaths, housePaths } from './files.ts';

/** The letters of a text as lines and curves. */
export interface Outline {
  width: number;
  /** Path data of SVG with the text's left end on this point of its base line. */
  pathAt(x: number, y: number): string;
}

const all = [...housePaths, ...fallbackPaths, ...eastAsianPaths];

/** A run of one script, shaped: `family` as it is named by a drawing, `size` in its units. */
export function outlineOf(text: string, family: string, weight: 400 | 600, size: number): Outline {
  const name = family.replace(/['"]/g, '').trim();
  const path = (
    all.find((one) => one.family === name && one.weight === weight) ??
    housePaths.find((one) => one.weight === weight)
  )?.path;
  if (path === undefined) throw new Error(`There is no font ${name}.`);
  const { font } = openFont(path);
  const { glyphs, positions, advanceWidth } = font.layout(text);
  const scale = size / font.unitsPerEm;
  return {
    width: advanceWidth * scale,
    pathAt: (x, y) => {
      let at = x;
      return glyphs
        .map((glyph, index) => {
          const { xOffset = 0, yOffset = 0, xAdvance = 0 } = positions[index] ?? {};
          const left = at + xOffset * scale;
          at += xAdvance * scale;
          // Fonts count upwards, drawings downwards.
          return glyph.path.transform(scale, 0, 0, -scale, left, y - yOffset * scale).toSVG();
        })
        .join('');
    },
  };
}

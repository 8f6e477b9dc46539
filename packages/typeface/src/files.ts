import {
  eastAsianFonts,
  fallbackFonts,
  houseFonts,
  type FallbackFont,
  type FontFile,
} from '@visograph/drawing';
import { existsSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

/** A font with its file on this disk. */
export interface FontPath extends FontFile {
  path: string;
  /** The code points for which it is asked, first and last of each stretch; all where there are none. */
  ranges: readonly (readonly [first: number, last: number])[];
}

/** `unicode-range` of CSS, as the browser reads it: both sides ask the same font for a character. */
const rangesOf = (range: string): [number, number][] =>
  range.split(', ').map((part) => {
    const [first = 0, last = first] = part
      .slice(2)
      .split('-')
      .map((end) => parseInt(end, 16));
    return [first, last];
  });

const require = createRequire(import.meta.url);
const located = (font: FontFile | FallbackFont, path = require.resolve(font.file)): FontPath => ({
  family: font.family,
  weight: font.weight,
  file: font.file,
  path,
  ranges: 'range' in font ? rangesOf(font.range) : [],
});

/** The fonts of the house and what stands in for them, as files on disk. */
export const housePaths: readonly FontPath[] = houseFonts.map((font) => located(font));
export const fallbackPaths: readonly FontPath[] = fallbackFonts.map((font) => located(font));

/** The folder `name` of this checkout: sought upwards, as sources and bundles lie at different depths. */
function folderOfCheckout(name: string): string | null {
  for (let at = import.meta.dirname; ; at = dirname(at)) {
    const folder = join(at, name);
    if (existsSync(join(folder, 'package.json'))) return folder;
    if (at === dirname(at)) return null;
  }
}

const eastAsianFolder = folderOfCheckout('fonts/east-asian');

/** The East Asian fonts that were there when the program started; none before `npm run fonts:east-asian`. */
export const eastAsianPaths: readonly FontPath[] =
  eastAsianFolder === null
    ? []
    : eastAsianFonts.flatMap((font) => {
        const path = join(eastAsianFolder, 'node_modules', font.file);
        return existsSync(path) ? [located(font, path)] : [];
      });

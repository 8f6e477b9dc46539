import { fontFiles } from '@visograph/drawing';
import type { EmbeddedFont } from '@visograph/drawing/svg';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
let loaded: Promise<EmbeddedFont[]> | null = null;

/** The shipped fonts as files on disk: what rasteriser and PDF writer read. */
export const fontPaths = fontFiles.map(({ family, weight, file }) => ({
  family,
  weight,
  path: require.resolve(file),
}));

/** The shipped fonts, ready to be carried inside a drawing. */
export function embeddedFonts(): Promise<EmbeddedFont[]> {
  loaded ??= Promise.all(
    fontPaths.map(async ({ family, weight, path }) => ({
      family,
      weight,
      base64: (await readFile(path)).toString('base64'),
    })),
  );
  return loaded;
}

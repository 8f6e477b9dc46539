import { fontFiles } from '@visograph/drawing';
import type { EmbeddedFont } from '@visograph/drawing/svg';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

/** The shipped fonts, ready to be carried inside a drawing. */
export const embeddedFonts = (): Promise<EmbeddedFont[]> =>
  Promise.all(
    fontFiles.map(async ({ family, weight, file }) => ({
      family,
      weight,
      base64: (await readFile(require.resolve(file))).toString('base64'),
    })),
  );

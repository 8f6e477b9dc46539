import { eastAsianFonts, houseFonts } from '@visograph/drawing';
import { eastAsianPaths } from '@visograph/typeface';
import type { Express } from 'express';
import { basename } from 'node:path';

const folder = '/fonts/east-asian';
const families = [...new Set(houseFonts.map(({ family }) => family))];

const rules = eastAsianPaths
  .flatMap(({ family: own, weight, path }) => {
    const range = eastAsianFonts.find((font) => font.family === own)?.range ?? '';
    return families.map(
      (family) =>
        `@font-face{font-family:'${family}';font-weight:${weight};unicode-range:${range};src:url(${folder}/${basename(path)}) format('truetype')}`,
    );
  })
  .join('\n');

/** The East Asian fonts for the browser where they have been added; an empty style sheet where not. */
export function serveEastAsianFonts(app: Express): void {
  app.get(`${folder}.css`, (_request, response) =>
    response.set('Cache-Control', 'no-cache').type('text/css').send(rules),
  );
  app.get(`${folder}/:file`, (request, response, next) => {
    const path = eastAsianPaths.find((font) => basename(font.path) === request.params.file)?.path;
    if (path === undefined) return next();
    response.set('Cache-Control', 'public, max-age=86400').sendFile(path);
  });
}

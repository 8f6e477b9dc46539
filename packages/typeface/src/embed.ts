import { houseRange } from '@visograph/drawing';
import { readFile } from 'node:fs/promises';
import subsetFont from 'subset-font';
import { standInsFor } from './coverage.ts';
import { housePaths } from './files.ts';
import { textsOf } from './svgText.ts';

let house: Promise<string> | null = null;

const face = (family: string, weight: number, bytes: Buffer, range = ''): string =>
  `@font-face{font-family:'${family}';font-weight:${weight};${range}src:url(data:font/ttf;base64,${bytes.toString('base64')}) format('truetype')}`;

const houseFaces = async (): Promise<string> =>
  (
    await Promise.all(
      housePaths.map(async ({ family, weight, path }) =>
        face(family, weight, await readFile(path), `unicode-range:${houseRange};`),
      ),
    )
  ).join('');

async function facesOf(svg: string): Promise<string> {
  const families = [...new Set(housePaths.map(({ family }) => family))];
  const faces = await Promise.all(
    standInsFor(textsOf(svg)).map(async ({ font, characters }) => {
      const bytes = await subsetFont(await readFile(font.path), [...characters].sort().join(''), {
        targetFormat: 'truetype',
      });
      return families.map((family) => face(family, font.weight, bytes)).join('');
    }),
  );
  // Of faces of one name the last is asked first: that of the house.
  return faces.join('') + (await (house ??= houseFaces()));
}

/**
 * The drawing with its fonts inside, so that it opens alike where they are not installed: those of the house whole,
 * those that stand in behind the same names with no more than its texts need.
 */
export async function embedFonts(svg: string): Promise<string> {
  const style = `<style>${await facesOf(svg)}</style>`;
  return svg.replace('</title>', () => `</title>${style}`);
}

import { pagesOf } from '@visograph/core/sheets';
import { diagramBox, paper } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';
import { Resvg } from '@resvg/resvg-js';
import {
  eastAsianPaths,
  embedFonts,
  housePaths,
  isEastAsian,
  missingIn,
  textsOf,
  withOutlines,
} from '@visograph/typeface';
import type { MissingGlyphs, PrintOrder, PrintSheet, PrintedPages } from './order.ts';
import { countPages, pdfOf } from './pdf.ts';
import { printedScene } from './printedScene.ts';
import { withinWindow } from './window.ts';

/** Pictures beyond this are refused by the rasteriser or by who opens them. */
const mostPixels = 120_000_000;

/** What of these sheets would be printed as boxes. */
function missingOn(sheets: readonly PrintSheet[]): MissingGlyphs {
  const found = new Map<string, { text: string; characters: string[]; sheets: string[] }>();
  for (const { name, plan } of sheets)
    for (const text of textsOf(diagramSvg(printedScene(plan)))) {
      const characters = missingIn(text);
      if (characters.length === 0) continue;
      const entry = found.get(text) ?? { text, characters, sheets: [] };
      entry.sheets.push(name);
      found.set(text, entry);
    }
  const texts = [...found.values()];
  const missing = texts.flatMap(({ characters }) => characters);
  const addable = (cluster: string): boolean => eastAsianPaths.length === 0 && isEastAsian(cluster);
  return { texts, eastAsian: missing.some(addable), others: !missing.every(addable) };
}

/** Draws what was ordered, telling how many sheets are done: the bytes of the file. */
export async function print(order: PrintOrder, tell?: (done: number, of: number) => void): Promise<Buffer> {
  if (order.form === 'pdf') return pdfOf(order.sheets, order.title, tell);
  if (order.form === 'missing') return Buffer.from(JSON.stringify(missingOn(order.sheets)));
  const scene = printedScene(order.sheet.plan);
  if (order.form === 'svg') return Buffer.from(await embedFonts(diagramSvg(scene)));
  const box = diagramBox(scene);
  if (order.form === 'pages') {
    countPages([{ page: order.sheet.page, scene }]);
    const { frames, mmPerUnit: _scale, ...rest } = pagesOf(box, order.sheet.page);
    const tokens = { ...paper, ground: '#FFFFFF' };
    const pages = frames.map((frame) =>
      diagramSvg(withinWindow(scene, frame.box), { tokens, transparent: true }, frame.box),
    );
    return Buffer.from(JSON.stringify({ ...rest, pages } satisfies PrintedPages));
  }
  const scale = Math.min(order.scale, Math.sqrt(mostPixels / (box.width * box.height)));
  const svg = diagramSvg(scene, { transparent: order.transparent });
  const picture = new Resvg(withOutlines(svg), {
    fitTo: { mode: 'zoom', value: scale },
    font: { fontFiles: housePaths.map(({ path }) => path), loadSystemFonts: false },
  }).render();
  return Buffer.from(picture.asPng());
}

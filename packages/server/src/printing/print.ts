import { pagesOf, sceneOf } from '@visograph/core';
import { diagramBox, measureText, paper } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';
import { Resvg } from '@resvg/resvg-js';
import { embeddedFonts, fontPaths } from './fonts.ts';
import type { PrintOrder, PrintedPages } from './order.ts';
import { pdfOf } from './pdf.ts';
import { withinWindow } from './window.ts';

/** Pictures beyond this are refused by the rasteriser or by who opens them. */
const mostPixels = 120_000_000;

/** Draws what was ordered: the bytes of the file. */
export async function print(order: PrintOrder): Promise<Buffer> {
  if (order.form === 'pdf') return pdfOf(order.sheets, order.title);
  const scene = sceneOf(order.sheet.plan, { measure: measureText });
  if (order.form === 'svg') {
    const fonts = order.embed ? await embeddedFonts() : [];
    return Buffer.from(diagramSvg(scene, { fonts }));
  }
  const box = diagramBox(scene);
  if (order.form === 'pages') {
    const { frames, mmPerUnit: _scale, ...rest } = pagesOf(box, order.sheet.page);
    const tokens = { ...paper, ground: '#FFFFFF' };
    const pages = frames.map((frame) =>
      diagramSvg(withinWindow(scene, frame.box), { tokens, transparent: true }, frame.box),
    );
    return Buffer.from(JSON.stringify({ ...rest, pages } satisfies PrintedPages));
  }
  const scale = Math.min(order.scale, Math.sqrt(mostPixels / (box.width * box.height)));
  const picture = new Resvg(diagramSvg(scene, { transparent: order.transparent }), {
    fitTo: { mode: 'zoom', value: scale },
    font: { fontFiles: fontPaths.map((font) => font.path), loadSystemFonts: false },
  }).render();
  return Buffer.from(picture.asPng());
}

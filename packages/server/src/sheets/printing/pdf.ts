import type { Page } from '@visograph/core/model';
import {
  documentTitle,
  mostPages,
  pageCount,
  pagesOf,
  type PageFrame,
  type Scene,
} from '@visograph/core/sheets';
import { diagramBox, fonts as fontFamilies, paper } from '@visograph/drawing';
import { diagramSvg } from '@visograph/drawing/svg';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import SVGtoPDF from 'svg-to-pdfkit';
import { attribute, withRuns } from '@visograph/typeface';
import { Refusal } from '../../http/problem.ts';
import type { PrintSheet } from './order.ts';
import { beginPdf, setFont, type PdfDocument } from './pdfDocument.ts';
import { printedScene } from './printedScene.ts';
import { withinWindow } from './window.ts';

const pointsPerMm = 72 / 25.4;

/**
 * The writer draws PNG pictures but no SVG ones: those, which were checked when they were taken in, are put into the
 * drawing itself.
 */
export const inlinePictures = (svg: string): string =>
  svg.replace(
    /<image [^>]*href="data:image\/svg\+xml;base64,([^"]*)"[^>]*\/?>(<\/image>)?/g,
    (tag, data: string) => {
      const text = Buffer.from(data, 'base64').toString('utf8');
      const root = /<svg\b[^>]*>/i.exec(text);
      if (root === null) return '';
      const [width, height] = [attribute(root[0], 'width'), attribute(root[0], 'height')];
      const viewBox =
        attribute(root[0], 'viewBox') ?? `0 0 ${parseFloat(width ?? '100')} ${parseFloat(height ?? '100')}`;
      const body = text.slice(root.index + root[0].length).replace(/<\/svg>\s*$/i, '');
      const place = ['x', 'y', 'width', 'height']
        .map((name) => `${name}="${attribute(tag, name) ?? '0'}"`)
        .join(' ');
      return `<svg ${place} viewBox="${viewBox}">${body}</svg>`;
    },
  );

export const writeSvg = (
  document: PdfDocument,
  svg: string,
  x: number,
  y: number,
  size: { width: number; height: number },
): void =>
  SVGtoPDF(document, svg, x, y, {
    ...size,
    preserveAspectRatio: 'xMidYMid meet',
    assumePt: true,
    fontCallback: (family, bold) => setFont(document, family, bold),
  });

function drawFrame(
  document: PdfDocument,
  svg: string,
  frame: PageFrame,
  mmPerUnit: number,
  room: { x: number; y: number; width: number; height: number },
): void {
  const width = frame.box.width * mmPerUnit * pointsPerMm;
  const height = frame.box.height * mmPerUnit * pointsPerMm;
  document.save();
  document.rect(room.x, room.y, room.width, room.height).clip();
  writeSvg(document, svg, room.x + (room.width - width) / 2, room.y + (room.height - height) / 2, {
    width,
    height,
  });
  document.restore();
}

/** A line of small text below a page, in whatever script it is. */
function drawLine(
  document: PdfDocument,
  text: string,
  { x, y, width }: { x: number; y: number; width: number },
): void {
  const line = createElement(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', width, height: 9 },
    createElement(
      'text',
      { y: 7, fontFamily: fontFamilies.mono, fontSize: 7, fill: paper.inkSoft, xmlSpace: 'preserve' },
      text,
    ),
  );
  writeSvg(document, withRuns(renderToStaticMarkup(line)), x, y, { width, height: 9 });
}

/** @throws Refusal where the sheets take more pages than anybody prints, before any is drawn */
export function countPages(sheets: readonly { page: Page; scene: Scene }[]): void {
  const pages = sheets.reduce((sum, { page, scene }) => sum + pageCount(diagramBox(scene), page), 0);
  if (pages <= mostPages) return;
  throw new Refusal(
    422,
    'Too many pages',
    `This comes to ${pages} pages; at most ${mostPages} are printed at once. Choose fewer sheets, larger paper or a smaller scale.`,
  );
}

/**
 * Draws sheets on pages of a document, each under a bookmark of its own.
 *
 * @throws Refusal where they take more pages than anybody prints, before any is drawn
 */
export function drawSheets(
  document: PdfDocument,
  sheets: readonly PrintSheet[],
  tell: (done: number, of: number) => void = () => undefined,
): void {
  const drawn = sheets.map(({ plan, page }) => ({ plan, page, scene: printedScene(plan) }));
  countPages(drawn);
  for (const [done, { plan, page, scene }] of drawn.entries()) {
    tell(done, sheets.length);
    const name = documentTitle(plan);
    const pages = pagesOf(diagramBox(scene), page);
    const margin = pages.marginMm * pointsPerMm;
    const [width, height] = [pages.widthMm * pointsPerMm, pages.heightMm * pointsPerMm];
    const room = { x: margin, y: margin, width: width - 2 * margin, height: height - 2 * margin };
    for (const frame of pages.frames) {
      document.addPage({ size: [width, height], margin: 0 });
      if (frame.number === 1) document.outline.addItem(name);
      // White paper: the ground of the screen is not printed.
      const tokens = { ...paper, ground: '#FFFFFF' };
      const seen = pages.frames.length === 1 ? scene : withinWindow(scene, frame.box);
      const svg = withRuns(inlinePictures(diagramSvg(seen, { tokens, transparent: true }, frame.box)));
      drawFrame(document, svg, frame, pages.mmPerUnit, room);
      if (pages.frames.length > 1) {
        const place = `${frame.number} / ${pages.frames.length}   row ${frame.row + 1}, column ${frame.column + 1}`;
        const top = Math.max(2, height - Math.max(margin, 10) + 2);
        drawLine(document, `${name}   ${place}`, { x: margin, y: top, width: width - 2 * margin });
      }
    }
  }
}

/** Sheets as one PDF (ISO 32000): vector lines, text that can be selected and searched, a bookmark for each sheet. */
export function pdfOf(
  sheets: readonly PrintSheet[],
  title: string,
  tell: (done: number, of: number) => void = () => undefined,
): Promise<Buffer> {
  const { document, finish } = beginPdf(title);
  drawSheets(document, sheets, tell);
  return finish();
}

import type { Cell, Column } from '@visograph/core/report';
import { grouped } from '@visograph/core/model';
import { fonts, paper } from '@visograph/drawing';
import { runsOf } from '@visograph/typeface';
import { setFont, type PdfDocument as Document } from '../sheets/printing/pdfDocument.ts';

export const pointsPerMm = 72 / 25.4;
/** ISO 216, A4. */
export const a4 = { short: 210 * pointsPerMm, long: 297 * pointsPerMm };
export const margin = 12 * pointsPerMm;
export const usualSize = 7.5;
export const lineHeight = 9.5;
/** A cell takes no more lines than this; what is longer ends in an ellipsis. */
const mostLines = 4;

export const textOf = (value: Cell): string =>
  typeof value === 'number' ? grouped(value, String(value).split('.')[1]?.length ?? 0) : (value ?? '');
export const headText = ({ label, unit }: Column): string =>
  unit === undefined ? label : `${label} (${unit})`;

export interface Style {
  /** In points; as that of cells where it is left out. */
  size?: number;
  family: string;
  weight: 400 | 600;
  colour: string;
}
export const cellStyle: Style = { family: fonts.mono, weight: 400, colour: paper.ink };
export const headStyle: Style = { family: fonts.text, weight: 600, colour: paper.inkSoft };
export const strongStyle: Style = { family: fonts.text, weight: 600, colour: paper.ink };

/** A text in the runs of the fonts that have its letters, and how wide it is. */
function runsIn(document: Document, text: string, { family, weight, size = usualSize }: Style) {
  return runsOf(text, weight).map((run) => {
    setFont(document, run.family ?? family, weight === 600);
    document.fontSize(size);
    return { text: run.text, family: run.family ?? family, width: document.widthOfString(run.text) };
  });
}
export const widthOf = (document: Document, text: string, style: Style): number =>
  runsIn(document, text, style).reduce((sum, { width }) => sum + width, 0);

/** A text broken to lines of a width: at spaces, and within a word that is wider than all of it. */
export function broken(document: Document, text: string, style: Style, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  const take = (part: string): void => {
    if (widthOf(document, line + part, style) <= width || line.trim() === '') line += part;
    else {
      lines.push(line.trimEnd());
      line = part.trimStart();
    }
  };
  for (const word of text.split(/(?<=[\s·/,-])/)) {
    if (widthOf(document, word, style) <= width) take(word);
    else for (const letter of word) take(letter);
    if (lines.length > mostLines) break;
  }
  lines.push(line);
  if (lines.length <= mostLines) return lines;
  return [...lines.slice(0, mostLines - 1), `${lines[mostLines - 1] ?? ''}…`];
}

export function write(document: Document, text: string, style: Style, x: number, y: number): void {
  let at = x;
  document.fillColor(style.colour);
  for (const run of runsIn(document, text, style)) {
    setFont(document, run.family, style.weight === 600);
    document.fontSize(style.size ?? usualSize);
    // On one line whatever font has the letters.
    const baseline = y + (style.size ?? usualSize) * 0.9;
    document.text(run.text, at, baseline, { lineBreak: false, baseline: 'alphabetic' });
    at += run.width;
  }
}

/** Numbers every page at its foot, once it is known how many there are. */
export function numberPages(document: Document, title: string): void {
  const { start, count } = document.bufferedPageRange();
  for (let at = start; at < start + count; at++) {
    document.switchToPage(at);
    const { width, height } = document.page;
    const text = `${at - start + 1} / ${count}`;
    const style = { ...headStyle, weight: 400 as const };
    write(document, title, style, margin, height - margin + 2);
    write(document, text, style, width - margin - widthOf(document, text, style), height - margin + 2);
  }
}

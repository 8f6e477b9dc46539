import { paper } from '@visograph/drawing';
import type { PrintSheet } from '../sheets/printing/order.ts';
import { drawSheets } from '../sheets/printing/pdf.ts';
import { beginPdf, type PdfDocument } from '../sheets/printing/pdfDocument.ts';
import {
  a4,
  broken,
  cellStyle,
  headStyle,
  lineHeight,
  margin,
  strongStyle,
  widthOf,
  write,
} from './pdfText.ts';
import { drawSchedule, type PrintedSchedule } from './schedulePdf.ts';

/** What is printed together: sheets, then schedules, each beginning on a page of its own. */
export interface DocumentSet {
  title: string;
  /** What stands below the title of the contents page, such as the revision and the day. */
  under: string;
  sheets: readonly PrintSheet[];
  schedules: readonly PrintedSchedule[];
}

const rowHeight = 2 * lineHeight;
const [width, height] = [a4.short, a4.long];
const firstTop = margin + 72;
const fitting = (top: number): number => Math.floor((height - 2 * margin - (top - margin)) / rowHeight);

/** How many contents pages so many entries take. */
export function contentsPages(entries: number): number {
  const rest = entries - fitting(firstTop);
  return rest <= 0 ? 1 : 1 + Math.ceil(rest / fitting(margin));
}

interface Entry {
  name: string;
  sort: string;
  /** Counted from 0. */
  page: number;
}

/** Fills the contents pages, which stand first and were left empty: each entry leads to its page. */
function writeContents(
  document: PdfDocument,
  { title, under }: DocumentSet,
  entries: readonly Entry[],
): void {
  let page = 0;
  let y = firstTop;
  document.switchToPage(page);
  write(document, title, { ...strongStyle, size: 20 }, margin, margin);
  write(document, under, { ...headStyle, weight: 400, size: 9 }, margin, margin + 30);
  write(document, 'Contents', { ...strongStyle, size: 11 }, margin, margin + 52);
  for (const [at, { name, sort, page: leads }] of entries.entries()) {
    if (y + rowHeight > height - 2 * margin) {
      document.switchToPage(++page);
      y = margin;
    }
    const number = String(leads + 1);
    const style = { ...strongStyle, weight: 400 as const, size: 10 };
    const right = width - margin - widthOf(document, number, style);
    const room = right - margin - 90;
    write(document, broken(document, name, style, room)[0] ?? '', style, margin + 70, y);
    write(document, sort, { ...headStyle, weight: 400, size: 9 }, margin, y + 0.6);
    write(document, number, style, right, y);
    document
      .moveTo(margin, y + rowHeight - 4)
      .lineTo(width - margin, y + rowHeight - 4)
      .lineWidth(0.4)
      .strokeColor(paper.rule)
      .stroke();
    document.goTo(margin, y - 3, width - 2 * margin, rowHeight, `entry ${at}`);
    y += rowHeight;
  }
}

/** The number of each page at its foot, at the right; the margin of a page may be narrow. */
function numberAll(document: PdfDocument): void {
  const { start, count } = document.bufferedPageRange();
  const style = { ...cellStyle, size: 7, colour: paper.inkSoft };
  for (let at = start; at < start + count; at++) {
    document.switchToPage(at);
    const text = `${at - start + 1} / ${count}`;
    const page = document.page;
    write(document, text, style, page.width - 14 - widthOf(document, text, style), page.height - 12);
  }
}

/**
 * Sheets and schedules as one PDF (ISO 32000): a contents page that leads to each, bookmarks, every page numbered.
 *
 * @throws Refusal where it takes more pages than anybody prints
 */
export async function documentSetPdf(
  set: DocumentSet,
  tell: (done: number, of: number) => void = () => undefined,
): Promise<Buffer> {
  const { document, finish } = beginPdf(set.title, { bufferPages: true });
  const of = set.sheets.length + set.schedules.length;
  const entries: Entry[] = [];
  for (let page = 0; page < contentsPages(of); page++) {
    document.addPage({ size: [width, height], margin: 0 });
    if (page === 0) document.outline.addItem('Contents');
  }
  const begin = (name: string, sort: string, draw: () => void): void => {
    const page = document.bufferedPageRange().count;
    draw();
    entries.push({ name, sort, page });
    tell(entries.length, of);
  };
  for (const sheet of set.sheets) begin(sheet.name, 'Sheet', () => drawSheets(document, [sheet]));
  for (const schedule of set.schedules)
    begin(schedule.title, 'Schedule', () => drawSchedule(document, schedule));
  entries.forEach(({ page }, at) => {
    document.switchToPage(page);
    document.addNamedDestination(`entry ${at}`);
  });
  writeContents(document, set, entries);
  numberAll(document);
  return finish();
}

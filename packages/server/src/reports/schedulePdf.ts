import type { Column, ScheduleLine } from '@visograph/core/report';
import { fonts, paper } from '@visograph/drawing';
import { mostPages } from '@visograph/core/sheets';
import { Refusal } from '../http/problem.ts';
import { beginPdf, type PdfDocument as Document } from '../sheets/printing/pdfDocument.ts';
import {
  a4,
  broken,
  cellStyle,
  headStyle,
  headText,
  lineHeight,
  margin,
  numberPages,
  strongStyle,
  textOf,
  widthOf,
  write,
  type Style,
} from './pdfText.ts';

export interface PrintedSchedule {
  title: string;
  /** What stands below the title: the place, the count, what was wrong with the question. */
  under: readonly string[];
  heads: readonly Column[];
  lines: readonly ScheduleLine[];
  notes: string | null;
}

const gap = 6;
const widest = 190;

/** As wide as most of what stands in a column is, and never so wide that it takes the page for itself. */
function columnWidths(document: Document, { heads, lines }: PrintedSchedule): number[] {
  return heads.map((head, at) => {
    const widths = lines
      .filter(({ form }) => form === 'row')
      .slice(0, 400)
      .map(({ cells }) => widthOf(document, textOf(cells[at] ?? null), cellStyle))
      .sort((a, b) => a - b);
    const usual = widths[Math.floor(widths.length * 0.97)] ?? 0;
    return Math.min(widest, Math.max(18, usual, widthOf(document, headText(head), headStyle) / 2)) + gap;
  });
}

/**
 * Lays one schedule out over pages of A4, upright where that is wide enough, with its heads on each.
 *
 * @throws Refusal where the document comes to more pages than anybody prints
 */
export function drawSchedule(document: Document, schedule: PrintedSchedule): void {
  const wished = columnWidths(document, schedule);
  const total = wished.reduce((sum, width) => sum + width, 0);
  const upright = total <= a4.short - 2 * margin;
  const [pageWidth, pageHeight] = upright ? [a4.short, a4.long] : [a4.long, a4.short];
  const room = pageWidth - 2 * margin;
  // What is too wide for the page is narrowed alike; what is narrower stands as it is.
  const widths = total > room ? wished.map((width) => (width * room) / total) : wished;
  const starts = widths.map((_width, at) => margin + widths.slice(0, at).reduce((sum, one) => sum + one, 0));
  const bottom = pageHeight - margin - lineHeight;
  let y = 0;
  const rule = (colour: string): void =>
    void document
      .moveTo(margin, y)
      .lineTo(margin + widths.reduce((sum, one) => sum + one, 0), y)
      .lineWidth(0.4)
      .strokeColor(colour)
      .stroke();
  const cellsAt = (texts: readonly string[][], style: Style): void => {
    texts.forEach((lines, at) => {
      const numeric = schedule.heads[at]?.numeric === true;
      lines.forEach((text, line) => {
        const spare = (widths[at] ?? 0) - gap - widthOf(document, text, style);
        write(
          document,
          text,
          style,
          (starts[at] ?? margin) + (numeric ? spare : 0),
          y + 2 + line * lineHeight,
        );
      });
    });
    y += Math.max(1, ...texts.map(({ length }) => length)) * lineHeight + 3;
  };
  const heads = schedule.heads.map((head, at) =>
    broken(document, headText(head), headStyle, (widths[at] ?? 0) - gap),
  );
  const page = (): void => {
    if (document.bufferedPageRange().count >= mostPages)
      throw new Refusal(
        422,
        'Too many pages',
        `This comes to more than ${mostPages} pages. Filter the schedule, or save it as a workbook.`,
      );
    document.addPage({ size: [pageWidth, pageHeight], margin: 0 });
    y = margin;
  };
  const headed = (): void => {
    page();
    cellsAt(heads, headStyle);
    rule(paper.inkSoft);
  };
  page();
  document.outline.addItem(schedule.title);
  write(document, schedule.title, { ...strongStyle, size: 13 }, margin, y);
  y += 20;
  for (const line of schedule.under)
    for (const part of broken(document, line, { ...headStyle, weight: 400 }, room)) {
      write(document, part, { ...headStyle, weight: 400 }, margin, y);
      y += lineHeight + 1;
    }
  y += 4;
  cellsAt(heads, headStyle);
  rule(paper.inkSoft);
  for (const { form, level, cells } of schedule.lines) {
    const style = form === 'row' ? cellStyle : strongStyle;
    const texts = cells.map((value, at) => {
      const text = textOf(value);
      if (form !== 'row' && at === 0) {
        // A heading reaches as far as nothing stands in the cells beside it.
        const next = cells.findIndex((other, after) => after > 0 && other !== null);
        const reach = widths.slice(0, next < 0 ? undefined : next).reduce((sum, one) => sum + one, 0);
        return broken(document, `${'  '.repeat(level)}${text}`, style, reach - gap);
      }
      return broken(document, text, style, (widths[at] ?? 0) - gap);
    });
    const height = Math.max(1, ...texts.map(({ length }) => length)) * lineHeight + 3;
    // A heading does not stand alone at the foot of a page.
    if (y + height + (form === 'group' ? 2 * lineHeight : 0) > bottom) headed();
    cellsAt(texts, style);
    rule(form === 'row' ? paper.rule : paper.inkSoft);
  }
  y += 6;
  for (const line of (schedule.notes ?? '').split('\n').filter((text) => text.trim() !== ''))
    for (const part of broken(document, line, { ...cellStyle, family: fonts.text }, room)) {
      if (y + lineHeight > bottom) page();
      write(document, part, { ...cellStyle, family: fonts.text }, margin, y);
      y += lineHeight + 1;
    }
}

/**
 * A schedule as PDF (ISO 32000) of A4 pages: text that can be selected and searched, in whatever script, heads on every
 * page, pages numbered.
 *
 * @throws Refusal where it takes more pages than anybody prints
 */
export function schedulePdf(schedule: PrintedSchedule): Promise<Buffer> {
  const { document, finish } = beginPdf(schedule.title, { bufferPages: true });
  drawSchedule(document, schedule);
  numberPages(document, schedule.title);
  return finish();
}

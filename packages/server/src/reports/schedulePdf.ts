import type { Cell, Column } from '@visograph/core/report';
import { grouped } from '@visograph/core/model';
import { fonts, paper } from '@visograph/drawing';
import { runsOf } from '@visograph/typeface';
import { mostPages } from '@visograph/core/sheets';
import { Refusal } from '../http/problem.ts';
import { beginPdf, setFont, type PdfDocument as Document } from '../sheets/printing/pdfDocument.ts';
import type { ScheduleLine } from './scheduleLines.ts';

export interface PrintedSchedule {
  title: string;
  /** What stands below the title: the place, the count, what was wrong with the question. */
  under: readonly string[];
  heads: readonly Column[];
  lines: readonly ScheduleLine[];
  notes: string | null;
}

const pointsPerMm = 72 / 25.4;
/** ISO 216, A4. */
const a4 = { short: 210 * pointsPerMm, long: 297 * pointsPerMm };
const margin = 12 * pointsPerMm;
const usualSize = 7.5;
const lineHeight = 9.5;
const gap = 6;
/** A cell takes no more lines than this; what is longer ends in an ellipsis. */
const mostLines = 4;
const widest = 190;

const textOf = (value: Cell): string =>
  typeof value === 'number' ? grouped(value, String(value).split('.')[1]?.length ?? 0) : (value ?? '');
const headText = ({ label, unit }: Column): string => (unit === undefined ? label : `${label} (${unit})`);

interface Style {
  /** In points; as that of cells where it is left out. */
  size?: number;
  family: string;
  weight: 400 | 600;
  colour: string;
}
const cellStyle: Style = { family: fonts.mono, weight: 400, colour: paper.ink };
const headStyle: Style = { family: fonts.text, weight: 600, colour: paper.inkSoft };
const strongStyle: Style = { family: fonts.text, weight: 600, colour: paper.ink };

/** A text in the runs of the fonts that have its letters, and how wide it is. */
function runsIn(document: Document, text: string, { family, weight, size = usualSize }: Style) {
  return runsOf(text, weight).map((run) => {
    setFont(document, run.family ?? family, weight === 600);
    document.fontSize(size);
    return { text: run.text, family: run.family ?? family, width: document.widthOfString(run.text) };
  });
}
const widthOf = (document: Document, text: string, style: Style): number =>
  runsIn(document, text, style).reduce((sum, { width }) => sum + width, 0);

/** A text broken to lines of a width: at spaces, and within a word that is wider than all of it. */
function broken(document: Document, text: string, style: Style, width: number): string[] {
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

function write(document: Document, text: string, style: Style, x: number, y: number): void {
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

/** Lays one schedule out over pages of A4, upright where that is wide enough, with its heads on each. */
function drawSchedule(document: Document, schedule: PrintedSchedule): void {
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

/** Numbers every page at its foot, once it is known how many there are. */
function numberPages(document: Document, title: string): void {
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

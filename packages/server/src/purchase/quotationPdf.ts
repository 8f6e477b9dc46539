import { modelFaces } from '@visograph/core/catalogue';
import { grouped, moneyText, type CatalogueModel, type Quotation } from '@visograph/core/model';
import { lineNet, percentText, totalsOf } from '@visograph/core/purchase';
import { mostPages } from '@visograph/core/sheets';
import { fonts, paper } from '@visograph/drawing';
import { faceSvg } from '@visograph/drawing/svg';
import { withRuns } from '@visograph/typeface';
import { Refusal } from '../http/problem.ts';
import {
  a4,
  broken,
  cellStyle,
  headStyle,
  lineHeight,
  margin,
  numberPages,
  strongStyle,
  widthOf,
  write,
  type Style,
} from '../reports/pdfText.ts';
import { drawSheets, inlinePictures, writeSvg } from '../sheets/printing/pdf.ts';
import { beginPdf, type PdfDocument as Document } from '../sheets/printing/pdfDocument.ts';
import type { PrintSheet } from '../sheets/printing/order.ts';

export interface PrintedQuotation {
  row: Quotation;
  /** Who offers it. */
  from: string;
  /** Models by their titles, whose faces are drawn. */
  models: ReadonlyMap<string, CatalogueModel>;
  drawings: readonly PrintSheet[];
}

const room = a4.short - 2 * margin;
const bottom = a4.long - margin - lineHeight;
/** Item, count, each, discount, tax, net: where each begins, in points from the margin. */
const columns = { item: 0, count: 268, each: 318, discount: 384, tax: 430, net: 466 } as const;
const itemWidth = columns.count - 14;
const faceWidth = 150;
const faceHeight = 26;
const plainStyle: Style = { family: fonts.text, weight: 400, colour: paper.ink };
const softStyle: Style = { ...headStyle, weight: 400 };

/** Writes from the top of a page to its bottom, then on the next. */
class Pages {
  y = 0;

  constructor(
    readonly document: Document,
    private readonly heads: (pages: Pages) => void,
  ) {}

  begin(): void {
    if (this.document.bufferedPageRange().count >= mostPages)
      throw new Refusal(
        422,
        'Too many pages',
        `This comes to more than ${mostPages} pages. Make several quotations of it.`,
      );
    this.document.addPage({ size: [a4.short, a4.long], margin: 0 });
    this.y = margin;
  }

  /** Goes on to the next page where so much does not fit any more. */
  need(height: number): void {
    if (this.y + height <= bottom) return;
    this.begin();
    this.heads(this);
  }

  left(text: string, style: Style, x: number = columns.item): void {
    write(this.document, text, style, margin + x, this.y);
  }

  right(text: string, style: Style, end: number): void {
    write(this.document, text, style, margin + end - widthOf(this.document, text, style), this.y);
  }

  rule(colour: string = paper.rule): void {
    this.document
      .moveTo(margin, this.y)
      .lineTo(margin + room, this.y)
      .lineWidth(0.4)
      .strokeColor(colour)
      .stroke();
    this.y += 3;
  }

  paragraph(text: string, style: Style, width = room): void {
    for (const line of text.split('\n'))
      for (const part of broken(this.document, line, style, width)) {
        this.need(lineHeight);
        this.left(part, style);
        this.y += lineHeight + 1;
      }
  }
}

function tableHeads(pages: Pages, currency: string): void {
  pages.left('Item', headStyle);
  pages.right('Count', headStyle, columns.each - 12);
  pages.right(`Each (${currency})`, headStyle, columns.discount - 6);
  pages.right('Discount', headStyle, columns.tax - 8);
  pages.right('Tax', headStyle, columns.net - 4);
  pages.right(`Net (${currency})`, headStyle, room);
  pages.y += lineHeight + 2;
  pages.rule(paper.inkSoft);
}

const amount = (minor: number): string => grouped(minor / 100, 2);

function head(pages: Pages, { row, from }: PrintedQuotation): void {
  const { document } = pages;
  write(document, from, { ...softStyle, size: 9 }, margin, pages.y);
  pages.y += 20;
  const title = `Quotation ${row.number}${row.revision === 1 ? '' : `, revision ${row.revision}`}`;
  document.outline.addItem(title);
  pages.left(title, { ...strongStyle, size: 15 });
  if (row.status === 'draft') pages.right('draft', { ...headStyle, size: 9 }, room);
  pages.y += 22;
  pages.left(row.title, { ...plainStyle, size: 10 });
  pages.y += 20;
  const top = pages.y;
  for (const text of [row.customer, row.address, row.contact])
    if (text !== null) pages.paragraph(text, plainStyle, room / 2);
  const below = pages.y;
  pages.y = top;
  const facts: [string, string | null][] = [
    ['Date', row.quotedOn],
    ['Valid until', row.validUntil],
    ['Currency', row.currency],
    ...row.rates.map(({ currency, rate }): [string, string] => [
      `1 ${currency}`,
      `${rate} ${row.currency}, fixed`,
    ]),
  ];
  for (const [label, value] of facts) {
    if (value === null) continue;
    pages.left(label, softStyle, room / 2 + 40);
    pages.left(value, cellStyle, room / 2 + 110);
    pages.y += lineHeight + 1;
  }
  pages.y = Math.max(pages.y, below) + 14;
}

function drawLine(
  pages: Pages,
  { models }: PrintedQuotation,
  section: Quotation['sections'][number],
  line: Quotation['sections'][number]['lines'][number],
  drawn: Set<string>,
): void {
  const { document } = pages;
  const name = `${line.what}${line.optional ? ' (option)' : ''}`;
  const lines = [
    ...broken(document, name, plainStyle, itemWidth).map((text) => [text, plainStyle] as const),
    ...[line.partNumber, line.detail]
      .flatMap((text) => text ?? [])
      .flatMap((text) => broken(document, text, softStyle, itemWidth))
      .map((text) => [text, softStyle] as const),
  ];
  // A face is drawn where its model is offered first.
  const model = line.model === null || drawn.has(line.model) ? undefined : models.get(line.model);
  const face = model?.form === 'device' ? modelFaces(model) : null;
  if (line.model !== null) drawn.add(line.model);
  const scale = face === null ? 0 : Math.min(faceWidth / (face.width + 2), faceHeight / (face.height + 2));
  const faceSpace = face === null ? 0 : (face.height + 2) * scale + 5;
  pages.need(lines.length * lineHeight + faceSpace + 5);
  const net = lineNet(line, section);
  pages.right(`${grouped(line.count)}${line.unit === 'm' ? ' m' : ''}`, cellStyle, columns.each - 12);
  pages.right(
    line.unitMinor === null ? 'not known' : amount(line.unitMinor),
    cellStyle,
    columns.discount - 6,
  );
  if (line.discount > 0) pages.right(percentText(line.discount), cellStyle, columns.tax - 8);
  pages.right(percentText(line.tax), cellStyle, columns.net - 4);
  const sum = net === null ? 'not known' : line.optional ? `(${amount(net)})` : amount(net);
  pages.right(sum, cellStyle, room);
  for (const [text, style] of lines) {
    pages.left(text, style);
    pages.y += lineHeight;
  }
  if (face !== null && line.model !== null) {
    const svg = withRuns(inlinePictures(faceSvg(face.front, { width: face.width, height: face.height })));
    const size = { width: (face.width + 2) * scale, height: (face.height + 2) * scale };
    writeSvg(document, svg, margin, pages.y + 2, size);
    pages.y += faceSpace;
  }
  pages.y += 2;
  pages.rule();
}

function sums(pages: Pages, { row }: PrintedQuotation): void {
  const totals = totalsOf(row);
  pages.need((totals.taxes.length + 4) * (lineHeight + 4));
  pages.y += 6;
  const line = (label: string, minor: number, style: Style): void => {
    pages.left(label, style, columns.each);
    pages.right(moneyText({ priceMinor: minor, currency: row.currency }), style, room);
    pages.y += lineHeight + 4;
  };
  if (totals.grossMinor !== totals.netMinor) {
    line('Sum before discounts', totals.grossMinor, plainStyle);
    line('Discounts', totals.netMinor - totals.grossMinor, plainStyle);
  }
  line('Net sum', totals.netMinor, { ...strongStyle, size: 9 });
  for (const { rate, baseMinor, taxMinor } of totals.taxes)
    line(`Tax ${percentText(rate)} of ${amount(baseMinor)}`, taxMinor, plainStyle);
  line('Total', totals.totalMinor, { ...strongStyle, size: 10.5 });
  if (totals.optionsMinor > 0) line('Options, net, not in the sum', totals.optionsMinor, softStyle);
  if (totals.unpriced > 0) {
    pages.left(`${totals.unpriced} without a price, in none of these sums`, softStyle, columns.each);
    pages.y += lineHeight + 4;
  }
  pages.y += 4;
  pages.paragraph(
    'Each line is rounded once to whole minor units, halves up; tax is worked out once for each rate on the sum of its lines.',
    softStyle,
  );
}

/**
 * A quotation as PDF (ISO 32000): its head, its lines with the faces of what is offered, its sums, its terms, and the
 * drawings that belong to it.
 *
 * @throws Refusal where it takes more pages than anybody prints
 */
export function quotationPdf(printed: PrintedQuotation): Promise<Buffer> {
  const { row, drawings } = printed;
  const title = `Quotation ${row.number}`;
  const { document, finish } = beginPdf(title, { bufferPages: true });
  const pages = new Pages(document, (at) => tableHeads(at, row.currency));
  pages.begin();
  head(pages, printed);
  tableHeads(pages, row.currency);
  const drawn = new Set<string>();
  const { sections: totals } = totalsOf(row);
  row.sections.forEach((section, at) => {
    pages.need(4 * lineHeight);
    pages.y += 3;
    pages.left(
      section.discount === 0 ? section.name : `${section.name}, less ${percentText(section.discount)}`,
      strongStyle,
    );
    pages.right(amount(totals[at]?.netMinor ?? 0), strongStyle, room);
    pages.y += lineHeight + 2;
    pages.rule(paper.inkSoft);
    for (const line of section.lines) drawLine(pages, printed, section, line, drawn);
  });
  sums(pages, printed);
  if (row.terms !== null) {
    pages.need(3 * lineHeight);
    pages.y += 10;
    pages.left('Terms', strongStyle);
    pages.y += lineHeight + 4;
    pages.paragraph(row.terms, plainStyle);
  }
  numberPages(document, title);
  drawSheets(document, drawings);
  return finish();
}

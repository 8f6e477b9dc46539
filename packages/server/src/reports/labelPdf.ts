import { fonts, paper } from '@visograph/drawing';
import { labelPlace, type LabelSize, type ThingLabel } from '@visograph/core/labels';
import { runsOf } from '@visograph/typeface';
import bwip from 'bwip-js/node';
import { qrCode } from './qrCode.ts';
import { beginPdf, setFont, type PdfDocument } from '../sheets/printing/pdfDocument.ts';

const pointsPerMm = 72 / 25.4;
/** Between the edge of a label and what stands on it, in mm. */
const inset = 1.2;
/** Sizes of type, in points: as large as there is room for, never too small to be read at arm's length. */
const largest = 11;
export const smallest = 4.5;
const step = 0.5;
const leading = 1.18;
/** The least that a scanner reads from a printed label, in mm a module (ISO/IEC 15415 and 15416 in common practice). */
const leastModule = { qr: 0.19, code128: 0.15 };
/** Modules of white around a QR code (ISO/IEC 18004) and beside Code 128 (ISO/IEC 15417). */
const quiet = { qr: 4, code128: 10 };

export type CodeForm = 'none' | 'qr' | 'code128';

export interface PrintableLabel extends ThingLabel {
  /** What its code says. */
  link: string;
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
/** Dark parts of a code in units of its own: where it begins and how large a unit is, in mm. */
interface Code extends Box {
  bars: Box[];
}
/** Where everything stands on a label, in mm from its corner; sizes of type in points. */
interface Laid {
  lines: (SetText & { x: number; y: number; size: number; strong: boolean })[];
  code: Code | null;
}

/** A text as it is set: its runs by font, and its width in points at a size of one point. */
interface SetText {
  runs: ReturnType<typeof runsOf>;
  width: number;
}
type Setter = (text: string, strong: boolean) => SetText;

/** Sets texts as the writer of the file does, each once. */
function setter(document: PdfDocument): Setter {
  const known = new Map<string, SetText>();
  return (text, strong) => {
    const key = `${strong ? 'b' : 'a'}${text}`;
    const found = known.get(key);
    if (found !== undefined) return found;
    const runs = runsOf(text, strong ? 600 : 400);
    const width = runs.reduce((sum, run) => {
      setFont(document, run.family ?? fonts.text, strong);
      document.fontSize(1000);
      return sum + document.widthOfString(run.text) / 1000;
    }, 0);
    const made = { runs, width };
    known.set(key, made);
    return made;
  };
}

/** The dark parts of a QR code (level M) within a square, in runs along its rows; null: too small to be read. */
function qrBars(text: string, { x, y, width: side }: Box): Code | null {
  const { size, dark } = qrCode(text);
  const module = side / (size + 2 * quiet.qr);
  if (module < leastModule.qr) return null;
  const bars: Box[] = [];
  for (let row = 0; row < size; row++)
    for (let from = 0; from < size;) {
      if (dark[row * size + from] === 0) {
        from++;
        continue;
      }
      let to = from + 1;
      while (to < size && dark[row * size + to] !== 0) to++;
      bars.push({ x: from, y: row, width: to - from, height: 1 });
      from = to;
    }
  return { x: x + quiet.qr * module, y: y + quiet.qr * module, width: module, height: module, bars };
}

/** The bars of Code 128 (ISO/IEC 15417) within a box; null: too fine to be read. */
function code128Bars(text: string, { x, y, width, height }: Box): Code | null {
  const [drawn] = bwip.raw({ bcid: 'code128', text });
  const widths = drawn !== undefined && 'sbs' in drawn ? drawn.sbs : [];
  const total = widths.reduce((sum, one) => sum + one, 0);
  const module = Math.min(0.33, width / (total + 2 * quiet.code128));
  if (total === 0 || module < leastModule.code128) return null;
  let at = 0;
  const bars = widths.flatMap((one, place): Box[] => {
    const bar = { x: at, y: 0, width: one, height: 1 };
    at += one;
    // Bars and spaces take turns, a bar first.
    return place % 2 === 0 ? [bar] : [];
  });
  return { x: x + (width - total * module) / 2, y, width: module, height, bars };
}

/** Texts set one below the other in a room, as large as they fit; null where they do not fit at the smallest size. */
function setLines(lines: readonly string[], room: Box, set: Setter): Laid['lines'] | null {
  const [first = '', ...rest] = lines;
  for (let size = largest; size >= smallest; size -= step) {
    const small = Math.max(smallest, size - 2);
    const height = (size + rest.length * small) * leading;
    const fits =
      height <= room.height * pointsPerMm &&
      set(first, true).width * size <= room.width * pointsPerMm &&
      rest.every((text) => set(text, false).width * small <= room.width * pointsPerMm);
    if (!fits) continue;
    let y = room.y + (room.height - height / pointsPerMm) / 2;
    return lines.map((text, at) => {
      const own = at === 0 ? size : small;
      const line = { ...set(text, at === 0), x: room.x, y, size: own, strong: at === 0 };
      y += (own * leading) / pointsPerMm;
      return line;
    });
  }
  return null;
}

/** Lays a label out; or tells what of it does not fit. */
function laidOut(label: PrintableLabel, size: LabelSize, code: CodeForm, set: Setter): Laid | string {
  const inner: Box = { x: inset, y: inset, width: size.width - 2 * inset, height: size.height - 2 * inset };
  const name = label.lines[0] ?? '';
  let room = inner;
  let drawn: Code | null = null;
  if (code === 'qr') {
    const side = Math.min(inner.height + inset, inner.width / 2, 26);
    drawn = qrBars(label.link, {
      x: inner.x - inset / 2,
      y: (size.height - side) / 2,
      width: side,
      height: side,
    });
    room = { ...inner, x: inner.x + side, width: inner.width - side };
  }
  if (code === 'code128') {
    const height = Math.min(10, inner.height * 0.4);
    // A link would be too wide for most labels: the name is what one types in without a scanner.
    drawn = code128Bars(name, { ...inner, y: inner.y + inner.height - height, height });
    room = { ...inner, height: inner.height - height - 0.6 };
  }
  if (drawn === null && code !== 'none')
    return code === 'qr'
      ? `A QR code on a label of ${size.width} × ${size.height} mm is too fine to be scanned: take a larger label, or none.`
      : `The bars of “${name}” on a label of ${size.width} mm are too fine to be scanned: take a wider label, or a QR code.`;
  const lines = setLines(label.lines, room, set);
  if (lines === null)
    return `“${label.lines.join(' / ')}” does not fit a label of ${size.width} × ${size.height} mm at ${smallest} points: take a larger label, or shorten the name.`;
  return { lines, code: drawn };
}

function draw(document: PdfDocument, { lines, code }: Laid, at: { x: number; y: number }): void {
  if (code !== null) {
    const { x, y, width, height, bars } = code;
    document.save();
    document.fillColor('#000000');
    document.transform(
      width * pointsPerMm,
      0,
      0,
      height * pointsPerMm,
      (at.x + x) * pointsPerMm,
      (at.y + y) * pointsPerMm,
    );
    // One fill for the whole code: without seams between its modules.
    document.addContent(bars.map((bar) => `${bar.x} ${bar.y} ${bar.width} ${bar.height} re`).join('\n'));
    document.addContent('f');
    document.restore();
  }
  document.fillColor(paper.ink);
  for (const { runs, x, y, size, strong } of lines) {
    let left = (at.x + x) * pointsPerMm;
    for (const run of runs) {
      setFont(document, run.family ?? fonts.text, strong);
      // On one line whatever font has the letters.
      const baseline = (at.y + y) * pointsPerMm + size * 0.9;
      document.fontSize(size).text(run.text, left, baseline, { lineBreak: false, baseline: 'alphabetic' });
      left += document.widthOfString(run.text);
    }
  }
}

export interface PrintedLabels {
  bytes: Buffer;
  pages: number;
  /** Labels that do not fit, and why: they are left out. */
  problems: { label: PrintableLabel; why: string }[];
}

/**
 * Labels on pages of a size as PDF (ISO 32000), those left out that do not fit. `skip` leaves so many places of the
 * first page empty: a sheet that was begun is used up.
 */
export async function labelPdf(
  title: string,
  labels: readonly PrintableLabel[],
  size: LabelSize,
  code: CodeForm,
  skip = 0,
): Promise<PrintedLabels> {
  const { document, finish } = beginPdf(title);
  const set = setter(document);
  const problems: PrintedLabels['problems'] = [];
  let at = skip;
  let pages = 0;
  for (const label of labels) {
    const laid = laidOut(label, size, code, set);
    if (typeof laid === 'string') {
      problems.push({ label, why: laid });
      continue;
    }
    const { page, x, y } = labelPlace(size, at++);
    while (pages <= page) {
      document.addPage({ size: [size.page.width * pointsPerMm, size.page.height * pointsPerMm], margin: 0 });
      pages++;
    }
    draw(document, laid, { x, y });
  }
  if (pages === 0)
    document.addPage({ size: [size.page.width * pointsPerMm, size.page.height * pointsPerMm], margin: 0 });
  return { bytes: await finish(), pages, problems };
}

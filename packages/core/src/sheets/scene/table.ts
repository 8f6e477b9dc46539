import type { FontFace, TextMeasure } from '../layout/textMeasure.ts';
import type { SceneMark } from './scene.ts';
import type { TextBlock, TextRun } from './richText.ts';

/** The rows of a schedule as they stand on a sheet: plain texts, as many as a sheet takes. */
export interface SheetTable {
  title: string;
  heads: { text: string; numeric: boolean }[];
  /** A heading of a group has one text, and what is worked out of the rows below it in their columns. */
  rows: { cells: string[]; heading: boolean }[];
  /** What stands below the last row: how many rows are left out, what does not hold any more. */
  below: string[];
}

/** More rows than this are read on screen or on pages of their own, not on a drawing. */
export const mostTableRows = 400;

const size = 10;
const rowHeight = 15;
const titleSize = 12;
const titleHeight = 24;
/** Between columns; between tables that stand beside each other. */
const gap = 14;
const apart = 26;
const inset = 8;
const widest = 230;

/** The height in which so many rows stand below each other, nothing below them. */
export const tableHeight = (rows: number): number => titleHeight + rowHeight + rows * rowHeight + inset;
/** How many rows stand below each other in a height. */
export const rowsWithin = (height: number): number =>
  Math.max(2, Math.floor((height - titleHeight - rowHeight - inset) / rowHeight));

/** A text cut to a width, with what is left out marked. */
function cutTo(text: string, width: number, face: FontFace, measure: TextMeasure): string {
  if (measure(text, face, size) <= width) return text;
  const letters = [...text];
  let [from, to] = [0, letters.length];
  while (from < to) {
    const middle = Math.ceil((from + to) / 2);
    if (measure(`${letters.slice(0, middle).join('')}…`, face, size) <= width) from = middle;
    else to = middle - 1;
  }
  return `${letters.slice(0, from).join('').trimEnd()}…`;
}

/** Rows in pieces that stand beside each other; a heading never stands last. */
export function pieces<R extends { heading: boolean }>(rows: readonly R[], most: number): R[][] {
  const made: R[][] = [];
  for (let from = 0; from < rows.length;) {
    let to = Math.min(rows.length, from + Math.max(2, most));
    while (to < rows.length && to > from + 1 && rows[to - 1]?.heading === true) to--;
    made.push(rows.slice(from, to));
    from = to;
  }
  return made.length === 0 ? [[]] : made;
}

/**
 * Sets a table within a height, in as many pieces beside each other as its rows need, each with its heads. Its width
 * follows from that.
 */
export function setTable(
  { title, heads, rows, below }: SheetTable,
  height: number,
  measure: TextMeasure,
): { text: TextBlock; rules: SceneMark['rules'] } {
  const widths = heads.map((head, at) => {
    // A heading has the room of the columns behind it, where nothing stands in them.
    const cells = rows
      .filter(({ heading, cells: own }) => !heading || at > 0 || (own[1] ?? '') !== '')
      .map(({ heading, cells: own }) => measure(own[at] ?? '', heading ? 'textStrong' : 'text', size));
    const longest = Math.max(measure(head.text, 'textStrong', size), ...cells);
    return Math.min(widest, Math.max(16, longest));
  });
  const starts = widths.map((_width, at) => widths.slice(0, at).reduce((sum, one) => sum + one + gap, 0));
  const whole = widths.reduce((sum, one) => sum + one, 0) + gap * Math.max(0, widths.length - 1);
  const top = titleHeight + rowHeight;
  const blocks = pieces(rows, rowsWithin(height - below.length * rowHeight));
  const runs: TextRun[] = [{ x: inset, y: 17, text: title, face: 'textStrong', size: titleSize, href: null }];
  const rules: SceneMark['rules'] = [];
  const put = (text: string, left: number, at: number, y: number, face: FontFace): void => {
    if (text === '') return;
    const width = widths[at] ?? 0;
    const shown = cutTo(text, width, face, measure);
    const spare = heads[at]?.numeric === true ? width - measure(shown, face, size) : 0;
    runs.push({ x: left + (starts[at] ?? 0) + spare, y, text: shown, face, size, href: null });
  };
  blocks.forEach((block, which) => {
    const left = inset + which * (whole + apart);
    heads.forEach((head, at) => put(head.text, left, at, titleHeight + 11, 'textStrong'));
    rules.push({ x: left, y: top, width: whole, strong: true });
    block.forEach(({ cells, heading }, line) => {
      const y = top + line * rowHeight + 11;
      const [first = '', ...others] = cells;
      if (heading) {
        // It reaches as far as there is room before the next text of its line.
        const next = others.findIndex((text) => text !== '');
        const room = next < 0 ? whole : (starts[next + 1] ?? whole) - gap;
        const text = cutTo(first, room, 'textStrong', measure);
        runs.push({ x: left, y, text, face: 'textStrong', size, href: null });
        others.forEach((cell, at) => put(cell, left, at + 1, y, 'textStrong'));
      } else cells.forEach((cell, at) => put(cell, left, at, y, 'text'));
      rules.push({ x: left, y: top + (line + 1) * rowHeight, width: whole, strong: false });
    });
  });
  const deepest = Math.max(...blocks.map(({ length }) => length));
  below.forEach((text, at) =>
    runs.push({ x: inset, y: top + (deepest + at) * rowHeight + 12, text, face: 'text', size, href: null }),
  );
  const sides = Math.max(
    blocks.length * whole + (blocks.length - 1) * apart,
    measure(title, 'textStrong', titleSize),
    ...below.map((text) => measure(text, 'text', size)),
  );
  return {
    text: {
      runs,
      width: Math.ceil(sides + 2 * inset),
      height: top + (deepest + below.length) * rowHeight + inset,
    },
    rules,
  };
}

import { paperSizes, type Page, type PaperSize } from '../../model/kinds/drawings/sheet.ts';
import type { Box } from './scene.ts';

/** Sheet units to the millimetre at scale 1: 96 units an inch. */
const unitsPerMm = 96 / 25.4;

export interface PageFrame {
  /** From 1, row by row. */
  number: number;
  row: number;
  column: number;
  /** What of the sheet is on this page. */
  box: Box;
}

export interface Pages {
  /** Of the paper, as it lies. */
  widthMm: number;
  heightMm: number;
  marginMm: number;
  /** Millimetres of paper for a sheet unit. */
  mmPerUnit: number;
  frames: PageFrame[];
}

/** The smallest text of a drawing, in sheet units, and what of it can still be read on paper, in points. */
const smallestText = 10;
export const leastPoints = 6;
const pointsPerMm = 72 / 25.4;
const kinSizes: readonly (readonly PaperSize[])[] = [
  ['A4', 'A3', 'A2', 'A1', 'A0'],
  ['Letter', 'Legal', 'Tabloid', 'ANSI C', 'ANSI D'],
];

/** Whether what is printed can be read, and what would help. */
export interface Legibility {
  /** The size of the smallest text on this paper, in points. */
  points: number;
  /** The smallest paper of the same kind on which it can be read; null where there is none, or where it can be read. */
  paper: PaperSize | null;
  /** The scale at which it can be read on several pages of this paper, and how many those are. */
  scale: number;
  pages: number;
}

/** How large the smallest text of a drawing falls on paper, and on what it could be read (6 pt and more). */
export function legibilityOf(drawn: Box, page: Page): Legibility {
  const pointsOn = (one: Page): number => smallestText * pagesOf(drawn, one).mmPerUnit * pointsPerMm;
  const points = pointsOn(page);
  const enough = (size: PaperSize): boolean => pointsOn({ ...page, size, fit: true }) >= leastPoints;
  const kin = kinSizes.find((sizes) => sizes.includes(page.size)) ?? [];
  const scale = Math.ceil((100 * leastPoints * unitsPerMm) / (smallestText * pointsPerMm)) / 100;
  return {
    points,
    paper: points >= leastPoints ? null : (kin.slice(kin.indexOf(page.size) + 1).find(enough) ?? null),
    scale,
    pages: pagesOf(drawn, { ...page, fit: false, scale }).frames.length,
  };
}

/** Width to height of a window with nothing chosen: a class, so that resizing it does not draw anew. */
export const windowAspect = 1.85;

/** Width to height of what a sheet is laid out for: a window, or its paper as it lies (ISO 216: 1.41). */
export function aspectOf({ composed = false, size, landscape }: Page): number {
  const [short, long] = paperSizes[size];
  return composed ? (landscape ? long / short : short / long) : windowAspect;
}

/** More pages than this are refused: nobody glues them together. */
export const mostPages = 200;

/** Pages that a drawing takes, counted without laying them out. */
export function pageCount(drawn: Box, page: Page): number {
  if (page.fit) return 1;
  const { columns, rows } = tilesOf(drawn, page);
  return columns * rows;
}

function tilesOf(
  drawn: Box,
  page: Page,
): { tile: { width: number; height: number }; columns: number; rows: number } {
  const [short, long] = paperSizes[page.size];
  const [widthMm, heightMm] = page.landscape ? [long, short] : [short, long];
  const mmPerUnit = page.scale / unitsPerMm;
  const tile = {
    width: (widthMm - 2 * page.marginMm) / mmPerUnit,
    height: (heightMm - 2 * page.marginMm) / mmPerUnit,
  };
  const along = (length: number, step: number): number =>
    Math.max(1, Math.ceil(Math.max(1, length) / step - 1e-9));
  return { tile, columns: along(drawn.width, tile.width), rows: along(drawn.height, tile.height) };
}

/** How a drawing falls on paper: fitted to one page, or tiled over as many as it needs at the scale. */
export function pagesOf(drawn: Box, page: Page): Pages {
  const [short, long] = paperSizes[page.size];
  const [widthMm, heightMm] = page.landscape ? [long, short] : [short, long];
  const room = { width: widthMm - 2 * page.marginMm, height: heightMm - 2 * page.marginMm };
  const width = Math.max(1, drawn.width);
  const height = Math.max(1, drawn.height);
  if (page.fit) {
    const mmPerUnit = Math.min(room.width / width, room.height / height, 1 / unitsPerMm);
    return {
      widthMm,
      heightMm,
      marginMm: page.marginMm,
      mmPerUnit,
      frames: [{ number: 1, row: 0, column: 0, box: drawn }],
    };
  }
  const mmPerUnit = page.scale / unitsPerMm;
  const { tile, columns, rows } = tilesOf(drawn, page);
  const left = drawn.x - (columns * tile.width - width) / 2;
  const top = drawn.y - (rows * tile.height - height) / 2;
  const frames: PageFrame[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      frames.push({
        number: frames.length + 1,
        row,
        column,
        box: { x: left + column * tile.width, y: top + row * tile.height, ...tile },
      });
  return { widthMm, heightMm, marginMm: page.marginMm, mmPerUnit, frames };
}

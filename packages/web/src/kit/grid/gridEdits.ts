import { countOn, pastedCells, type Block, type Spot } from './gridBlocks.ts';
import type { GridColumn, GridRow } from './useGridRows.ts';

/** A text for a cell. */
export interface CellEdit {
  id: string;
  key: string;
  text: string;
}
/** A text that could not be kept, and why. */
export interface Wrong {
  text: string;
  why: string;
}
export const spotKey = (id: string, key: string): string => `${id}|${key}`;

const valueOf = (row: GridRow, { key }: GridColumn): string => String(row.cells[key] ?? '');

/** A block as a spreadsheet takes it: cells between tabs, rows between line ends. */
export const copiedText = (
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  { rows: down, columns: across }: Block,
): string =>
  rows
    .slice(down[0], down[1] + 1)
    .map((row) =>
      columns
        .slice(across[0], across[1] + 1)
        .map((column) => valueOf(row, column))
        .join('\t'),
    )
    .join('\n');

/** Pasted text cell by cell from a spot on; what falls beside the grid or on a cell that is not typed into is left out. */
export const pastedEdits = (
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  spot: Spot,
  text: string,
): CellEdit[] =>
  pastedCells(text).flatMap((cells, down) =>
    cells.flatMap((cell, across) => {
      const [row, column] = [rows[spot.row + down], columns[spot.column + across]];
      return row === undefined || row.heading !== undefined || column?.editable !== true
        ? []
        : [{ id: row.id, key: column.key, text: cell }];
    }),
  );

/**
 * What of a pasted text falls below the last row: a line of the headings of the columns that it falls on, then the
 * rest of its lines. Null where all of it falls on rows.
 */
export function pastedBelow(
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  spot: Spot,
  text: string,
): string | null {
  const below = pastedCells(text).slice(rows.length - spot.row);
  if (below.length === 0) return null;
  const heads = (below[0] ?? []).map((_cell, across) => columns[spot.column + across]?.label ?? '');
  return [heads, ...below].map((cells) => cells.join('\t')).join('\n');
}

/** A block filled from its first row, counting on; one row alone takes what stands above it. */
export function filledDown(
  columns: readonly GridColumn[],
  rows: readonly GridRow[],
  { rows: [top, bottom], columns: [left, right] }: Block,
): CellEdit[] {
  const from = top === bottom ? top - 1 : top;
  const first = rows[from];
  // A heading has nothing to fill down, and is no row to be filled.
  if (first === undefined || first.heading !== undefined) return [];
  const below = rows.slice(from + 1, bottom + 1).filter(({ heading }) => heading === undefined);
  return below.flatMap((row, at) =>
    columns
      .slice(left, right + 1)
      .filter(({ editable }) => editable === true)
      .map((column) => ({ id: row.id, key: column.key, text: countOn(valueOf(first, column), at + 1) })),
  );
}

/**
 * Keeps texts where they differ from what stands there, one after the other, and tells which could not be kept; what
 * was wrong before stays so until its cell is given a text that can.
 */
export function keptAfter(
  before: ReadonlyMap<string, Wrong>,
  rows: readonly GridRow[],
  edits: readonly CellEdit[],
  keep: (id: string, key: string, text: string) => string | null,
): ReadonlyMap<string, Wrong> {
  const now = new Map(before);
  const wanted = new Set(edits.map(({ id }) => id));
  const there = new Map(rows.flatMap((row) => (wanted.has(row.id) ? [[row.id, row.cells]] : [])));
  for (const { id, key, text } of edits) {
    const same = text === String(there.get(id)?.[key] ?? '');
    const why = same ? null : keep(id, key, text);
    if (why === null) now.delete(spotKey(id, key));
    else now.set(spotKey(id, key), { text, why });
  }
  return now;
}

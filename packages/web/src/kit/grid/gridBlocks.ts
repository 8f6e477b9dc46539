import { formatIp, parseInterface } from '@visograph/core/model';

/** A cell by its row and column among those shown. */
export interface Spot {
  row: number;
  column: number;
}
export interface Block {
  rows: [number, number];
  columns: [number, number];
}

const pageRows = 15;

/** Where a key leads from a cell; null for keys that do not move. The caller keeps the result inside the grid. */
export function moveFor(
  key: string,
  spot: Spot,
  end: { rows: number; columns: number },
  whole: boolean,
): Spot | null {
  const { row, column } = spot;
  switch (key) {
    case 'ArrowDown':
      return { row: row + 1, column };
    case 'ArrowUp':
      return { row: row - 1, column };
    case 'ArrowLeft':
      return { row, column: column - 1 };
    case 'ArrowRight':
      return { row, column: column + 1 };
    case 'PageDown':
      return { row: row + pageRows, column };
    case 'PageUp':
      return { row: row - pageRows, column };
    case 'Home':
      return { row: whole ? 0 : row, column: 0 };
    case 'End':
      return { row: whole ? end.rows - 1 : row, column: end.columns - 1 };
    default:
      return null;
  }
}

export const within = (spot: Spot, end: { rows: number; columns: number }): Spot => ({
  row: Math.max(0, Math.min(end.rows - 1, spot.row)),
  column: Math.max(0, Math.min(end.columns - 1, spot.column)),
});

/** The block between two corners, whichever way they lie. */
export const blockOf = (a: Spot, b: Spot): Block => ({
  rows: [Math.min(a.row, b.row), Math.max(a.row, b.row)],
  columns: [Math.min(a.column, b.column), Math.max(a.column, b.column)],
});

export const holds = (block: Block, spot: Spot): boolean =>
  spot.row >= block.rows[0] &&
  spot.row <= block.rows[1] &&
  spot.column >= block.columns[0] &&
  spot.column <= block.columns[1];

/**
 * What comes so many steps below a text when it is filled down: the next address of `10.0.0.1/24`, otherwise its last
 * number counted on with as many digits (`1/1/9` to `1/1/10`, `KQ-00099` to `KQ-00100`); a text without a number again.
 */
export function countOn(text: string, steps: number): string {
  const address = text.includes('.') || text.includes(':') ? parseInterface(text.trim()) : null;
  if (address !== null) {
    const { family, value } = address.address;
    const next = formatIp({ family, value: value + BigInt(steps) });
    return text.includes('/') ? `${next}/${address.length}` : next;
  }
  const match = /^(.*?)(\d+)(\D*)$/s.exec(text);
  if (match === null) return text;
  const [, head = '', digits = '', tail = ''] = match;
  return `${head}${String(Number(digits) + steps).padStart(digits.length, '0')}${tail}`;
}

/** Cells of a pasted text, as spreadsheets put them on the clipboard: lines, and tabs within them. */
export const pastedCells = (text: string): string[][] =>
  text
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .map((line) => line.split('\t'));

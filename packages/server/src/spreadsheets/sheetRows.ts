import { csvRows } from '@visograph/core/exchange';
import { Refusal } from '../http/problem.ts';
import { unreadable } from './unreadable.ts';
import { guardWorkbook, workbookLimits } from './workbookLimits.ts';

/** The text a person sees in a cell; formulas give their result. */
function cellText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== 'object') return String(value);
  const cell = value as { result?: unknown; text?: unknown; richText?: { text: string }[] };
  if (cell.richText !== undefined) return cell.richText.map((part) => part.text).join('');
  return cellText(cell.result ?? cell.text ?? '');
}

/** The rows of the first sheet of a workbook (ISO/IEC 29500). The library is loaded when it is first needed. */
async function workbookRows(bytes: Uint8Array, rowLimit: number): Promise<string[][]> {
  const { default: excel } = await import('exceljs');
  const book = new excel.Workbook();
  try {
    await guardWorkbook(bytes, rowLimit);
    await book.xlsx.load(new Uint8Array(bytes).buffer);
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw unreadable('The file is not a workbook, or it is damaged. Save it again as .xlsx or .csv.');
  }
  const sheet = book.worksheets[0];
  if (sheet === undefined) throw unreadable('The workbook has no sheet.');
  const rows: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row) => {
    const cells: string[] = [];
    for (let column = 1; column <= Math.min(row.cellCount, workbookLimits.columns); column++)
      cells.push(cellText(row.getCell(column).value));
    rows.push(cells);
  });
  return rows;
}

/** Separators of a text of rows, of whatever kind: as many cells there are at least. */
function cellsAtLeast(bytes: Uint8Array): number {
  const [comma, semicolon, tab] = [0x2c, 0x3b, 0x09];
  let count = 0;
  for (const byte of bytes) if (byte === comma || byte === semicolon || byte === tab) count++;
  return count;
}

/** The cells of a text of rows (RFC 4180). */
function textRows(bytes: Uint8Array): string[][] {
  if (cellsAtLeast(bytes) > 2 * workbookLimits.cells)
    throw unreadable(`It has more than ${workbookLimits.cells} cells. Split it and take the parts.`);
  const rows = csvRows(new TextDecoder('utf-8').decode(bytes));
  const wide = rows.findIndex((row) => row.length > workbookLimits.columns);
  if (wide >= 0)
    throw unreadable(
      `Row ${wide + 1} has ${rows[wide]?.length ?? 0} columns; at most ${workbookLimits.columns} are taken.`,
    );
  return rows;
}

/** The cells of an .xlsx or .csv file as text, at most so many rows. */
export async function sheetRows(bytes: Uint8Array, rowLimit: number): Promise<string[][]> {
  if (bytes.length === 0) throw unreadable('The file is empty.');
  const isWorkbook = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const rows = isWorkbook ? await workbookRows(bytes, rowLimit) : textRows(bytes);
  if (rows.length > rowLimit)
    throw unreadable(`The file has ${rows.length} rows; at most ${rowLimit} are taken. Split it.`);
  return rows;
}

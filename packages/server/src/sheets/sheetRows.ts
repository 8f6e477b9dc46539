import { csvRows } from '@visograph/core/exchange';
import { Refusal } from '../http/problem.ts';

export const unreadable = (detail: string): Refusal => new Refusal(422, 'The file cannot be read', detail);

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
    await book.xlsx.load(new Uint8Array(bytes).buffer);
  } catch {
    throw unreadable('The file is not a workbook, or it is damaged. Save it again as .xlsx or .csv.');
  }
  const sheet = book.worksheets[0];
  if (sheet === undefined) throw unreadable('The workbook has no sheet.');
  if (sheet.rowCount > rowLimit)
    throw unreadable(
      `The sheet ${sheet.name} has ${sheet.rowCount} rows; at most ${rowLimit} are taken. Split it.`,
    );
  const rows: string[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row) => {
    const cells: string[] = [];
    for (let column = 1; column <= row.cellCount; column++) cells.push(cellText(row.getCell(column).value));
    rows.push(cells);
  });
  return rows;
}

/** The cells of an .xlsx or .csv file as text, at most so many rows. */
export async function sheetRows(bytes: Uint8Array, rowLimit: number): Promise<string[][]> {
  if (bytes.length === 0) throw unreadable('The file is empty.');
  const isWorkbook = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const rows = isWorkbook
    ? await workbookRows(bytes, rowLimit)
    : csvRows(new TextDecoder('utf-8').decode(bytes));
  if (rows.length > rowLimit)
    throw unreadable(`The file has ${rows.length} rows; at most ${rowLimit} are taken. Split it.`);
  return rows;
}

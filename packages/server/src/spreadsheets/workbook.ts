import type { Cell, Column } from '@visograph/core/report';
import { PassThrough } from 'node:stream';
import { buffer } from 'node:stream/consumers';

export const xlsxType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

export interface WorkbookLine {
  cells: readonly Cell[];
  /** How deep it lies in groups that can be folded; 0: in none. */
  level: number;
  /** A heading or a total. */
  strong: boolean;
}

const day = /^\d{4}-\d{2}-\d{2}$/;

/** A day is a day in a workbook, so that it sorts and counts as one; texts stay texts, numbers numbers. */
function typed(value: Cell): Cell | Date {
  if (typeof value !== 'string' || !day.test(value)) return value;
  const at = new Date(`${value}T00:00:00Z`);
  return Number.isNaN(at.getTime()) || at.getUTCFullYear() < 1900 ? value : at;
}

const headText = ({ label, unit }: Column): string => (unit === undefined ? label : `${label} (${unit})`);

/**
 * A workbook (ISO/IEC 29500) with one sheet: heads that stay in view and filter, groups that fold, days as days.
 *
 * @param notes lines that stand below the last row
 */
export async function workbook(
  title: string,
  columns: readonly Column[],
  lines: Iterable<WorkbookLine>,
  notes: readonly string[] = [],
): Promise<Buffer> {
  const { default: excel } = await import('exceljs');
  const stream = new PassThrough();
  const collected = buffer(stream);
  const book = new excel.stream.xlsx.WorkbookWriter({ stream, useSharedStrings: false, useStyles: true });
  // Sheet names hold at most 31 characters and none of these signs.
  const sheet = book.addWorksheet(title.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31), {
    views: [{ state: 'frozen', ySplit: 1 }],
    properties: { outlineLevelRow: 4 },
  });
  sheet.columns = columns.map((column, at) => ({
    header: headText(column),
    key: `c${at}`,
    width: column.numeric === true ? 12 : 22,
  }));
  sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1, column: Math.max(1, columns.length) } };
  sheet.getRow(1).font = { bold: true };
  for (const { cells, level, strong } of lines) {
    const row = sheet.addRow(cells.map(typed));
    row.outlineLevel = level;
    if (strong) row.font = { bold: true };
    row.eachCell((cell) => {
      if (cell.value instanceof Date) cell.numFmt = 'yyyy-mm-dd';
    });
    row.commit();
  }
  for (const note of notes) sheet.addRow([note]).commit();
  sheet.commit();
  await book.commit();
  return collected;
}

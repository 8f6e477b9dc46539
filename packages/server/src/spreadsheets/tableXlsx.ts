import type { Table } from '@visograph/core/report';
import { PassThrough } from 'node:stream';
import { buffer } from 'node:stream/consumers';

export const xlsxType = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** A schedule as a workbook with one sheet: headings fixed and filterable; texts stay texts, numbers numbers. */
export async function tableToXlsx(title: string, table: Table): Promise<Buffer> {
  const { default: excel } = await import('exceljs');
  const stream = new PassThrough();
  const collected = buffer(stream);
  const book = new excel.stream.xlsx.WorkbookWriter({ stream, useSharedStrings: false, useStyles: true });
  // Sheet names hold at most 31 characters and none of these signs.
  const sheet = book.addWorksheet(title.replace(/[\\/?*[\]:]/g, ' ').slice(0, 31), {
    views: [{ state: 'frozen', ySplit: 1 }],
  });
  sheet.columns = table.columns.map((column) => ({
    header: column.unit === undefined ? column.label : `${column.label} (${column.unit})`,
    key: column.key,
    width: column.numeric === true ? 12 : 22,
  }));
  sheet.autoFilter = {
    from: { row: 1, column: 1 },
    to: { row: 1, column: Math.max(1, table.columns.length) },
  };
  sheet.getRow(1).font = { bold: true };
  for (const row of table.rows) sheet.addRow(table.columns.map((column) => row[column.key] ?? null)).commit();
  sheet.commit();
  await book.commit();
  return collected;
}

import type { Table } from '@visograph/core/report';
import { workbook, type WorkbookLine } from './workbook.ts';

/** A schedule as a workbook with one sheet. */
export function tableToXlsx(title: string, { columns, rows }: Table): Promise<Buffer> {
  const lines = rows.map((row): WorkbookLine => ({
    cells: columns.map(({ key }) => row[key] ?? null),
    level: 0,
    strong: false,
  }));
  return workbook(title, columns, lines);
}

import Papa from 'papaparse';

export interface Column {
  key: string;
  label: string;
  /** Right-aligned and tabular. */
  numeric?: boolean;
  unit?: string;
}
export type Cell = string | number | null;
export interface TableRow {
  [key: string]: Cell;
}
/** A report as plain data: columns, and rows keyed by column. Row ids lead back to the model. */
export interface Table {
  columns: Column[];
  rows: TableRow[];
  ids: string[];
}

/**
 * CSV by RFC 4180: CRLF lines, quotes doubled, a heading line. A text that a spreadsheet would take for a formula
 * (it starts with = + - @, a tab or a carriage return) gets an apostrophe before it; numbers stay numbers.
 */
export function tableToCsv(table: Table): string {
  const fields = table.columns.map((column) =>
    column.unit === undefined ? column.label : `${column.label} (${column.unit})`,
  );
  const data = table.rows.map((row) => table.columns.map((column) => row[column.key] ?? ''));
  return `${Papa.unparse({ fields, data }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
}

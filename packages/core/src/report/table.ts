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
  readonly rows: TableRow[];
  ids: string[];
  /** One row, without those that nobody has looked at; left out where all of them are there. */
  rowAt?: (at: number) => TableRow;
}

/** A table of things of which each makes one row, which is worked out when it is first looked at. */
export function tableOf<T extends { id: string }>(
  columns: Column[],
  things: readonly T[],
  cellsOf: (thing: T) => TableRow,
): Table {
  const made: (TableRow | undefined)[] = [];
  const rowAt = (at: number): TableRow => {
    const thing = things[at];
    return (made[at] ??= thing === undefined ? {} : cellsOf(thing));
  };
  return {
    columns,
    get rows() {
      return things.map((_thing, at) => rowAt(at));
    },
    ids: things.map(({ id }) => id),
    rowAt,
  };
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

import type { Question } from '@visograph/core/model';
import {
  groupText,
  headsOf,
  numberKey,
  rowCells,
  totalCell,
  type Answer,
  type TableRow,
} from '@visograph/core/report';
import type { GridColumn, GridRow } from '../kit/grid/Grid.tsx';

/** What is worked out of rows, below the heads of its columns; the first cell says of which rows. */
const totalCells = (answer: Answer, totals: Answer['totals'], first: string, text: string): TableRow => {
  const cells: TableRow = {};
  for (const { key, total } of answer.columns) {
    const value = totals[key] ?? null;
    if (value !== null && total !== null) cells[key] = totalCell(total, value);
  }
  const own = cells[first];
  cells[first] = own === undefined || own === null ? text : `${text} · ${own}`;
  return cells;
};

/** A row of an answer, worked out when it is looked at: of a hundred thousand a few are in view. */
class AnswerRow implements GridRow {
  private made: { cells: TableRow; repeats: ReadonlySet<string> } | null = null;
  constructor(
    readonly id: string,
    private readonly answer: Answer,
    private readonly position: number,
    private readonly blankRepeats: boolean,
  ) {}

  private get parts(): { cells: TableRow; repeats: ReadonlySet<string> } {
    if (this.made !== null) return this.made;
    const cells = rowCells(this.answer, this.position, false);
    const seen = this.blankRepeats ? rowCells(this.answer, this.position, true) : cells;
    const repeats = new Set(Object.keys(cells).filter((key) => cells[key] !== null && seen[key] === null));
    return (this.made = { cells, repeats });
  }
  get cells(): TableRow {
    return this.parts.cells;
  }
  get repeats(): ReadonlySet<string> {
    return this.parts.repeats;
  }
}

/** The row that a grid calls by this id: of the kind of the answer. */
export const rowIdOf = (id: string): string => id.slice(0, id.indexOf('#'));

/** The lines of an answer as rows of a grid: headings of groups, rows, and what is worked out in all. */
export function answerRows(answer: Answer, { numbered, blankRepeats }: Question): GridRow[] {
  const first = headsOf(answer, numbered)[0]?.key ?? '';
  const rows = answer.lines.map((line, position): GridRow => {
    if (line.form === 'row') return new AnswerRow(`${line.id}#${line.at}`, answer, position, blankRepeats);
    const cells = totalCells(answer, line.totals, first, groupText(answer, line));
    return { id: `group#${position}`, cells, heading: line.level };
  });
  if (Object.keys(answer.totals).length > 0)
    rows.push({ id: 'all#', cells: totalCells(answer, answer.totals, first, 'In all'), heading: 0 });
  return rows;
}

/** Columns whose values read as text. */
const asText = new Set([
  'type',
  'model',
  'aPlace',
  'bPlace',
  'place',
  'role',
  'status',
  'notes',
  'what',
  'fault',
]);
const usualWidth = 96;
const widths: Readonly<Record<string, number>> = {
  [numberKey]: 44,
  label: 82,
  type: 124,
  lengthM: 84,
  name: 124,
  device: 112,
  model: 146,
  unit: 52,
  status: 66,
  where: 110,
  transceiver: 124,
  next: 130,
  far: 130,
  from: 134,
  to: 134,
  near: 190,
  cables: 190,
  fault: 260,
  handover: 150,
  prefix: 128,
  address: 128,
};

/** The columns of an answer as those of a grid. */
export function answerColumns(answer: Answer, numbered: boolean): GridColumn[] {
  const typed = answer.columns.some(({ fact }) => fact !== null);
  const heads = answer.columns.map(({ key, title, unit, numeric, width, fact }): GridColumn => ({
    key,
    label: unit === undefined ? title : `${title} (${unit})`,
    width: width ?? widths[key] ?? Math.max(usualWidth, Math.min(180, title.length * 7 + 20)),
    numeric: numeric ?? false,
    figure: unit !== undefined && unit !== '%',
    text: asText.has(key),
    editable: fact !== null,
    ...(typed && fact === null ? { worked: true } : {}),
  }));
  if (!numbered) return heads;
  return [{ key: numberKey, label: 'No.', width: widths[numberKey] ?? usualWidth, numeric: true }, ...heads];
}

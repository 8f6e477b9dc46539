import { kinds } from '../../model/kinds.ts';
import { grouped } from '../../model/values/numbers.ts';
import type { Cell, Column, Table, TableRow } from '../table.ts';
import type { Question, Total } from '../../model/kinds/reports/schedule.ts';
import type { Answer, Line, Totals } from './answer.ts';

type LineWishes = Pick<Question, 'numbered' | 'blankRepeats'>;

/** The key of the column that numbers rows. */
export const numberKey = '#';

/**
 * A heading of a group as one reads it: "Data room · 12 devices". A figure and what is missing say what they are of:
 * "Unit 42 · 1 device", "no Serial · 3 devices".
 */
export function groupText(
  answer: Answer,
  { value, column, count }: Extract<Line, { form: 'group' }>,
): string {
  const { one, many } = kinds[answer.kind];
  const named =
    value === null || value === ''
      ? `no ${column.title}`
      : typeof value === 'number'
        ? `${column.title} ${value}`
        : value;
  return `${named} · ${grouped(count)} ${count === 1 ? one : many}`;
}

/** What is worked out of a column, where a figure alone would say too little: "mean 12.5". A mean is told to hundredths. */
export function totalCell(total: Total, value: Cell): Cell {
  if (value === null || total === 'sum' || total === 'count') return value;
  const told = total === 'mean' && typeof value === 'number' ? Math.round(value * 100) / 100 : value;
  return `${total} ${told}`;
}

/**
 * The cells of a row of an answer. Where repeated values are blanked, a cell is empty when it and all before it say
 * what the row above says; a heading between them begins anew.
 */
export function rowCells(answer: Answer, position: number, blankRepeats: boolean): TableRow {
  const line = answer.lines[position];
  if (line?.form !== 'row') return {};
  const above = blankRepeats ? answer.lines[position - 1] : undefined;
  let repeats = above?.form === 'row';
  const cells: TableRow = { [numberKey]: line.number };
  for (const { key } of answer.columns) {
    const value = answer.cell(line.at, key);
    repeats &&= above?.form === 'row' && value !== null && answer.cell(above.at, key) === value;
    cells[key] = repeats ? null : value;
  }
  return cells;
}

/** Heads of an answer, the number of the row before them where rows are numbered. */
export const headsOf = (answer: Answer, numbered: boolean): Column[] => [
  ...(numbered ? [{ key: numberKey, label: 'No.', numeric: true }] : []),
  ...answer.columns.map(({ key, title, numeric, unit }) => ({
    key,
    label: title,
    ...(numeric === undefined ? {} : { numeric }),
    ...(unit === undefined ? {} : { unit }),
  })),
];

/**
 * An answer as plain rows, for files that other programs read: groups that are not among the columns stand before
 * them, nothing is blanked, and no line is a heading.
 */
export function answerTable(answer: Answer, numbered: boolean): Table {
  const lists = new Set(answer.columns.map(({ key }) => key));
  const grouping = new Map(
    answer.lines.flatMap((line) =>
      line.form === 'group' && !lists.has(line.column.key) ? [[line.column.key, line.column]] : [],
    ),
  );
  const [number, ...rest] = headsOf(answer, true);
  const columns = [
    ...(numbered && number !== undefined ? [number] : []),
    ...[...grouping.values()].map(({ key, title }) => ({ key, label: title })),
    ...rest,
  ];
  const rows: TableRow[] = [];
  const ids: string[] = [];
  answer.lines.forEach((line, position) => {
    if (line.form !== 'row') return;
    const groups = [...grouping.keys()].map((key): [string, Cell] => [key, answer.cell(line.at, key)]);
    rows.push({ ...Object.fromEntries(groups), ...rowCells(answer, position, false) });
    ids.push(line.id);
  });
  return { columns, rows, ids };
}

/** A line of an answer as other programs read it. */
export type ToldLine =
  | { form: 'group'; level: number; text: string; count: number; totals: Totals }
  | { form: 'row'; id: string; cells: TableRow };
/** An answer as plain data: heads, lines in their order, what is worked out in all, and what was wrong with the question. */
export interface ToldAnswer {
  columns: Column[];
  lines: ToldLine[];
  count: number;
  totals: Totals;
  problems: string[];
}

export function toldAnswer(answer: Answer, { numbered, blankRepeats }: LineWishes): ToldAnswer {
  return {
    columns: headsOf(answer, numbered),
    lines: answer.lines.map((line, position): ToldLine => {
      if (line.form === 'row')
        return { form: 'row', id: line.id, cells: rowCells(answer, position, blankRepeats) };
      const { level, count, totals } = line;
      return { form: 'group', level, text: groupText(answer, line), count, totals };
    }),
    count: answer.count,
    totals: answer.totals,
    problems: [...answer.problems],
  };
}

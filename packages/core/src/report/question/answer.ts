import type { AskedColumn, AskedFilter, Question, Total } from '../../model/kinds/reports/schedule.ts';
import type { Kind } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { grouped } from '../../model/values/numbers.ts';
import type { Cell } from '../table.ts';
import { ranked } from './ranked.ts';
import { sourceOf, type Source, type SourceColumn } from './source.ts';
import { testFor } from './test.ts';
import { totalOf } from './total.ts';

/** A column of an answer: what the question says of it over what it is by itself. */
export interface AnswerColumn extends SourceColumn {
  title: string;
  width: number | null;
  total: Total | null;
}

/** What is worked out of the values of columns, by their keys. */
export type Totals = Readonly<Record<string, Cell>>;

export type Line =
  | {
      form: 'group';
      /** 0 for the outermost. */
      level: number;
      column: AnswerColumn;
      value: Cell;
      /** Rows in it. */
      count: number;
      totals: Totals;
    }
  | { form: 'row'; /** Where it stands in the source. */ at: number; id: string; number: number };

/** What a question comes to: headings and rows in their order, and what was wrong with the question. */
export interface Answer {
  source: Source;
  kind: Kind;
  columns: readonly AnswerColumn[];
  lines: readonly Line[];
  /** Rows that are listed. */
  count: number;
  totals: Totals;
  /** Each names the column and says what to do; the rest of the question is answered all the same. */
  problems: readonly string[];
  cell: (at: number, key: string) => Cell;
}

/** More groups than this help nobody to read. */
export const mostGroups = 2000;

type Known = (key: string, use: string) => SourceColumn | null;

/** Finds the columns that a question names; one that is not there is told once for each use. */
function knownIn(source: Source, problems: string[]): Known {
  return (key, use) => {
    const found = source.byKey.get(key) ?? null;
    if (found === null)
      problems.push(
        `${source.report.title} has no column “${key}” any more: ${use} without it. Choose another, or take it out.`,
      );
    return found;
  };
}

function filtered(
  source: Source,
  filters: readonly AskedFilter[],
  today: string,
  known: Known,
  problems: string[],
): number[] {
  const tests = filters.flatMap((filter) => {
    const column = known(filter.key, 'rows are listed');
    if (column === null) return [];
    const test = testFor(column, filter, today);
    if (typeof test !== 'string') return [{ key: filter.key, test }];
    problems.push(test);
    return [];
  });
  const kept: number[] = [];
  for (let at = 0; at < source.ids.length; at++)
    if (tests.every(({ key, test }) => test(source.cell(at, key)))) kept.push(at);
  return kept;
}

/** Rows in the order of the question; what it leaves open stays as it came. */
function ordered(
  source: Source,
  rows: number[],
  keys: readonly { column: SourceColumn; descending: boolean }[],
): number[] {
  if (keys.length === 0) return rows;
  const ranks = keys.map(({ column, descending }) => ({
    of: ranked(rows, (at) => source.cell(at, column.key), column.numeric === true),
    sign: descending ? -1 : 1,
  }));
  const positions = rows.map((_row, position) => position);
  positions.sort((a, b) => {
    for (const { of, sign } of ranks) {
      const [one = 0, other = 0] = [of[a], of[b]];
      // What is not known stands last either way.
      if (one !== other) return one < 0 ? 1 : other < 0 ? -1 : sign * (one - other);
    }
    return a - b;
  });
  return positions.map((position) => rows[position] ?? 0);
}

function totalsOf(source: Source, rows: readonly number[], columns: readonly AnswerColumn[]): Totals {
  return Object.fromEntries(
    columns.flatMap(({ key, total }): [string, Cell][] =>
      total === null ? [] : [[key, totalOf(total, rows, (at) => source.cell(at, key))]],
    ),
  );
}

function columnsAsked(
  source: Source,
  columns: readonly AskedColumn[],
  known: Known,
  problems: string[],
): AnswerColumn[] {
  const seen = new Set<string>();
  return columns.flatMap(({ key, title, width, total }): AnswerColumn[] => {
    if (seen.has(key)) return [];
    seen.add(key);
    const column = known(key, 'it is listed');
    if (column === null) return [];
    const adds = total === null || total === 'count' || column.numeric === true;
    if (!adds)
      problems.push(
        `${title ?? column.label} is text: it has no ${total}. Its values are counted instead; choose “count”, or another column.`,
      );
    return [{ ...column, title: title ?? column.label, width, total: adds ? total : 'count' }];
  });
}

/** Columns to group by, from the outermost; none where there would be more groups than one can read. */
function groupsAsked(
  source: Source,
  rows: readonly number[],
  columns: readonly SourceColumn[],
  problems: string[],
): readonly SourceColumn[] {
  for (const [level, column] of columns.entries()) {
    const values = new Set<string>();
    for (const at of rows) {
      values.add(
        columns
          .slice(0, level + 1)
          .map(({ key }) => String(source.cell(at, key) ?? ''))
          .join('\u0000'),
      );
      if (values.size <= mostGroups) continue;
      problems.push(
        `There are more than ${grouped(mostGroups)} groups by ${column.label}: rows are listed without them. Filter first, or group by another column.`,
      );
      return columns.slice(0, level);
    }
  }
  return columns;
}

/** The lines of rows that are in order: before each group its heading. */
function linesOf(
  source: Source,
  rows: readonly number[],
  groups: readonly AnswerColumn[],
  columns: readonly AnswerColumn[],
): Line[] {
  const lines: Line[] = [];
  let number = 0;
  const within = (part: readonly number[], level: number): void => {
    const column = groups[level];
    if (column === undefined) {
      for (const at of part) lines.push({ form: 'row', at, id: source.ids[at] ?? '', number: ++number });
      return;
    }
    for (let from = 0; from < part.length;) {
      const value = source.cell(part[from] ?? 0, column.key);
      let to = from + 1;
      while (to < part.length && source.cell(part[to] ?? 0, column.key) === value) to++;
      const inGroup = part.slice(from, to);
      const totals = totalsOf(source, inGroup, columns);
      lines.push({ form: 'group', level, column, value, count: inGroup.length, totals });
      within(inGroup, level + 1);
      from = to;
    }
  };
  within(rows, 0);
  return lines;
}

/**
 * Answers a question: the rows of a place that pass every filter, grouped, in order, with what is worked out of them.
 * Whatever in it no longer holds is told, and the rest is answered.
 *
 * @param scopeId the place that one looks at; the question's own goes before it
 * @param today year-month-day, for filters that speak of it
 * @returns null where there is no built-in schedule of that key
 */
export function answerOf(
  network: Network,
  question: Question,
  scopeId: string | null,
  today: string,
): Answer | null {
  const source = sourceOf(network, question.of, question.scopeId ?? scopeId);
  if (source === null) return null;
  const problems: string[] = [];
  const known = knownIn(source, problems);
  const columns = columnsAsked(source, question.columns, known, problems);
  const titled = (column: SourceColumn): AnswerColumn =>
    columns.find(({ key }) => key === column.key) ?? {
      ...{ ...column, title: column.label, width: null, total: null },
    };
  const kept = filtered(source, question.filters, today, known, problems);
  const groups = groupsAsked(
    source,
    kept,
    question.groups.flatMap((key) => known(key, 'rows are grouped') ?? []),
    problems,
  ).map(titled);
  const order = question.order.flatMap(({ key, descending }) => {
    const column = known(key, 'rows are ordered');
    return column === null ? [] : [{ column, descending }];
  });
  // A group stands where its value does in the order, or in the order of its values.
  const byGroup = groups.map((column) => ({
    column,
    descending: order.find((one) => one.column.key === column.key)?.descending ?? false,
  }));
  const rows = ordered(source, kept, [...byGroup, ...order]);
  return {
    source,
    kind: source.kind,
    columns,
    lines: linesOf(source, rows, groups, columns),
    count: rows.length,
    totals: totalsOf(source, rows, columns),
    problems: [...new Set(problems)],
    cell: source.cell,
  };
}

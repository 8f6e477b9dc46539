import { create, remove } from '../change/change.ts';
import { judged, refuse, type Attempt } from '../commands/attempt.ts';
import type { GridView, View } from '../model/kinds/reports/gridView.ts';
import type { Network } from '../model/network/network.ts';
import { newId } from '../model/values/ids.ts';
import { compareNames } from '../model/values/order.ts';
import { testFor } from './question/test.ts';
import type { Cell, Column, TableRow } from './table.ts';

/** A row of a grid. */
export interface Viewed {
  id: string;
  readonly cells: TableRow;
}
/** A heading over the rows of a group. */
export interface ViewedGroup extends Viewed {
  heading: number;
}

export interface ViewedRows<R> {
  rows: (R | ViewedGroup)[];
  /** Rows that pass, headings not counted. */
  count: number;
  /** Each names the column and what to do; the rest of the view holds. */
  problems: string[];
}

/** The columns that a view shows, in its order; those that it names and that are no more are passed over. */
export function viewColumns<C extends Column>(columns: readonly C[], { columns: wanted }: View): C[] {
  const byKey = new Map(columns.map((column) => [column.key, column]));
  const shown = wanted.flatMap((key) => byKey.get(key) ?? []);
  return shown.length === 0 ? [...columns] : shown;
}

const compareCells = (a: Cell, b: Cell): number =>
  typeof a === 'number' && typeof b === 'number' ? a - b : compareNames(String(a), String(b));
const isEmpty = (value: Cell | undefined): boolean => value === undefined || value === null || value === '';

/** Below 0 where one row stands before another; what is empty stands last, whichever way the order goes. */
function inOrder(key: string, descending: boolean): (a: Viewed, b: Viewed) => number {
  const sign = descending ? -1 : 1;
  return (a, b) => {
    const [one, other] = [a.cells[key] ?? null, b.cells[key] ?? null];
    if (isEmpty(one) || isEmpty(other)) return Number(isEmpty(one)) - Number(isEmpty(other));
    return sign * compareCells(one, other);
  };
}

/**
 * Rows as a view wants them: those that pass all filters and hold the text, in groups with their counts, in order.
 * Rows that are alike to the order stay as they came.
 *
 * @param text part of what some column of a row must say, without regard to case; empty for all rows
 * @param today year-month-day, for filters that speak of it
 */
export function viewRows<R extends Viewed>(
  columns: readonly Column[],
  rows: readonly R[],
  { filters, group, order }: View,
  text: string,
  today: string,
): ViewedRows<R> {
  const problems: string[] = [];
  const byKey = new Map(columns.map((column) => [column.key, column]));
  const known = (key: string, use: string): Column | null => {
    const column = byKey.get(key) ?? null;
    if (column === null)
      problems.push(`There is no column “${key}” here: ${use} without it. Take it out of the view.`);
    return column;
  };
  const tests = filters.flatMap((filter) => {
    const column = known(filter.key, 'rows are filtered');
    const test = column === null ? null : testFor(column, filter, today);
    if (typeof test === 'string') problems.push(test);
    return test === null || typeof test === 'string' ? [] : [(row: R) => test(row.cells[filter.key] ?? null)];
  });
  const part = text.trim().toLowerCase();
  if (part !== '')
    tests.push((row) =>
      columns.some(({ key }) => {
        const value = row.cells[key];
        return value !== undefined && value !== null && String(value).toLowerCase().includes(part);
      }),
    );
  const passing = tests.length === 0 ? [...rows] : rows.filter((row) => tests.every((test) => test(row)));
  if (order !== null && known(order.key, 'rows are ordered') !== null)
    passing.sort(inOrder(order.key, order.descending));
  const column = group === null ? null : known(group, 'rows are grouped');
  if (column === null) return { rows: passing, count: passing.length, problems };
  const groups = new Map<string, R[]>();
  for (const row of passing) {
    const value = row.cells[column.key] ?? null;
    const key = isEmpty(value) ? '' : String(value);
    const held = groups.get(key);
    if (held === undefined) groups.set(key, [row]);
    else held.push(row);
  }
  const descending = order?.key === column.key && order.descending;
  const sorted = [...groups.values()].sort((a, b) => {
    const [one, other] = [a[0], b[0]];
    return one === undefined || other === undefined ? 0 : inOrder(column.key, descending)(one, other);
  });
  return {
    rows: sorted.flatMap((held): (R | ViewedGroup)[] => {
      const value = held[0]?.cells[column.key] ?? null;
      const named = isEmpty(value)
        ? `no ${column.label}`
        : typeof value === 'number'
          ? `${column.label} ${value}`
          : value;
      const heading = `${named} · ${held.length} ${held.length === 1 ? 'row' : 'rows'}`;
      return [{ id: `group#${value ?? ''}`, heading: 0, cells: { [headingKey]: heading } }, ...held];
    }),
    count: passing.length,
    problems,
  };
}

/** Where a heading says what its rows are of: the cell of the first column that is shown. */
export const headingKey = '#heading';

/** The views of a grid that everybody can choose, by name. */
export const viewsOf = (network: Network, grid: string): GridView[] =>
  [...network.all('gridView')]
    .filter((view) => view.grid === grid)
    .sort((a, b) => compareNames(a.name, b.name));

/** Keeps a view under a name, for everybody in the project; one of that name is replaced. */
export function keepView(network: Network, grid: string, name: string, view: View): Attempt {
  const tidy = name.trim();
  if (tidy === '') return refuse('The view has no name. Give it one.');
  const there = viewsOf(network, grid).find((one) => one.name.toLowerCase() === tidy.toLowerCase());
  const changes = [
    ...(there === undefined ? [] : [remove('gridView', there)]),
    create('gridView', { ...view, id: newId(), name: tidy, grid }),
  ];
  return judged(network, changes, `Kept the view ${tidy}`);
}

export const removeView = (network: Network, view: GridView): Attempt =>
  judged(network, [remove('gridView', view)], `Deleted the view ${view.name}`);

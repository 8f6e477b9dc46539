import { factFieldsOf, type FactField } from '../../model/fields/factFields.ts';
import { held, kinds, type Kind, type Row } from '../../model/kinds.ts';
import { derivedBy } from '../../model/network/derived.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { cellOf } from '../ofKind.ts';
import { findReport, type Report } from '../registry.ts';
import type { Cell, Column, Table } from '../table.ts';

/** A column that a schedule can have. */
export interface SourceColumn extends Column {
  /** The fact of the row that it is, where it can be typed in; null: it is worked out, or it is the name of another row. */
  fact: FactField | null;
  /** It stands in the built-in schedule itself, not only among the facts of its rows. */
  own: boolean;
}

/** The rows that schedules are made of, each with all that can be said of it. */
export interface Source {
  report: Report;
  kind: Kind;
  columns: readonly SourceColumn[];
  byKey: ReadonlyMap<string, SourceColumn>;
  /** Rows of the kind, one for each row that is listed; some kinds of schedule list one several times. */
  ids: readonly string[];
  cell: (at: number, key: string) => Cell;
}

const ownPrefix = 'extra.';
/** The key of a column that is an own field. */
export const ownFieldKey = (name: string): string => `${ownPrefix}${name}`;
/** The own field that a column is; null: it is none. */
export const ownFieldOf = (key: string): string | null =>
  key.startsWith(ownPrefix) ? key.slice(ownPrefix.length) : null;

const extraOf = (row: Row): Readonly<Record<string, unknown>> => {
  const extra = held(row)['extra'];
  return typeof extra === 'object' && extra !== null ? { ...extra } : {};
};

/** Own fields of these rows, by name. */
function ownFields(rows: readonly (Row | null)[]): SourceColumn[] {
  const names = new Set(rows.flatMap((row) => (row === null ? [] : Object.keys(extraOf(row)))));
  return [...names].sort(compareNames).map((name) => ({
    key: ownFieldKey(name),
    label: name,
    own: false,
    fact: {
      ...{ field: ownFieldKey(name), label: name, unit: null, help: null },
      ...{ form: 'text', words: [], to: null, optional: true },
    },
  }));
}

/** Facts that are typed where they stand: what names another row is chosen elsewhere. */
const typed = (fact: FactField | undefined): FactField | null =>
  fact === undefined || fact.form === 'row' ? null : fact;

function columnsOf(
  { worked = [] }: Report,
  table: Table,
  facts: ReadonlyMap<string, FactField>,
  rows: readonly (Row | null)[],
): SourceColumn[] {
  const own = table.columns.map((column): SourceColumn => {
    const fact = worked.includes(column.key) ? null : typed(facts.get(column.key));
    return { ...column, own: true, fact };
  });
  const said = new Set(own.flatMap(({ key, label }) => [key, label]));
  const further = [...facts.values()]
    .filter(({ field, label }) => !said.has(field) && !said.has(label))
    .map((fact): SourceColumn => ({
      key: fact.field,
      label: fact.label,
      ...(fact.form === 'number' ? { numeric: true } : {}),
      ...(fact.unit === null ? {} : { unit: fact.unit }),
      own: false,
      fact: typed(fact),
    }));
  return [...own, ...further, ...ownFields(rows)];
}

const opened = derivedBy((network, wanted: string): Source | null => {
  const [key = '', scopeId = ''] = wanted.split('|');
  const report = findReport(key);
  if (report === null) return null;
  const table = report.make(network, scopeId === '' ? null : scopeId);
  const rowOf = (at: number): Row | null => network.get(report.kind, table.ids[at] ?? null);
  const hasOwnFields = 'extra' in kinds[report.kind].blank;
  const rows = hasOwnFields ? table.ids.map((_id, at) => rowOf(at)) : [];
  const facts = new Map(factFieldsOf(report.kind).map((fact) => [fact.field, fact]));
  const columns = columnsOf(report, table, facts, rows);
  const byKey = new Map(columns.map((column) => [column.key, column]));
  const cell = (at: number, name: string): Cell => {
    const column = byKey.get(name);
    if (column === undefined) return null;
    if (column.own) return (table.rowAt?.(at) ?? table.rows[at])?.[name] ?? null;
    const row = rowOf(at);
    if (row === null) return null;
    const extra = ownFieldOf(name);
    if (extra !== null) return String(extraOf(row)[extra] ?? '') || null;
    const fact = facts.get(name);
    return fact === undefined ? null : cellOf(network, row, fact);
  };
  return { report, kind: report.kind, columns, byKey, ids: table.ids, cell };
});

/**
 * The rows of a built-in schedule in a place, with every fact of them as a column besides its own. Kept for the
 * network. Null: there is no schedule of that key.
 */
export const sourceOf = (network: Network, key: string, scopeId: string | null): Source | null =>
  opened(network, `${key}|${scopeId ?? ''}`);

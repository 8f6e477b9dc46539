import { z } from 'zod';
import { uuid } from '../model/fields/field.ts';
import { held, kindNames, refsOf, type Held, type Kind, type Row, type Rows } from '../model/kinds.ts';

interface Create<K extends Kind> {
  op: 'create';
  kind: K;
  id: string;
  after: Rows[K];
}
/** Holds only the fields it touches, with their old and new values. */
interface Update<K extends Kind> {
  op: 'update';
  kind: K;
  id: string;
  before: Partial<Rows[K]>;
  after: Partial<Rows[K]>;
}
interface Delete<K extends Kind> {
  op: 'delete';
  kind: K;
  id: string;
  before: Rows[K];
}
/** One row made, changed or removed. */
export type Change = { [K in Kind]: Create<K> | Update<K> | Delete<K> }[Kind];

/** What an intent came to: changes to be made together, and what to call them in the history. */
export interface ChangeSet {
  changes: Change[];
  sentence: string;
}

/** A change set as it stands in the journal. */
export interface JournalEntry extends ChangeSet {
  id: string;
  revision: number;
  author: string;
  at: string;
  /** The plan whose line of history it is of; null: as built. */
  line: string | null;
  /** The revision of as built that an entry of a plan was made over; null for as built itself. */
  base: number | null;
  /** The revision this entry takes back or makes again, if it is an undo or a redo. */
  undoes: number | null;
  redoes: number | null;
}

const fields = z.record(z.string(), z.unknown());

const wireChange = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('create'), kind: z.enum(kindNames), id: uuid(), after: fields }),
  z.strictObject({
    op: z.literal('update'),
    kind: z.enum(kindNames),
    id: uuid(),
    before: fields,
    after: fields,
  }),
  z.strictObject({ op: z.literal('delete'), kind: z.enum(kindNames), id: uuid(), before: fields }),
]);

/** The fields of a row as they came, with the ids among them in their one spelling. */
function withCanonicalIds(kind: Kind, row: Record<string, unknown>): Record<string, unknown> {
  const ids = ['id', ...refsOf(kind).map(([field]): string => field)];
  const otherwise = ids.flatMap((field) => {
    const id = row[field];
    return typeof id === 'string' && id !== id.toLowerCase() ? [[field, id.toLowerCase()]] : [];
  });
  return otherwise.length === 0 ? row : { ...row, ...Object.fromEntries(otherwise) };
}

/** A change as it comes over the wire: the rows inside are checked against the network by applyChanges. */
export const changeSchema = wireChange.overwrite((change) => {
  const { kind } = change;
  if (change.op === 'create') return { ...change, after: withCanonicalIds(kind, change.after) };
  const before = withCanonicalIds(kind, change.before);
  if (change.op === 'delete') return { ...change, before };
  return { ...change, before, after: withCanonicalIds(kind, change.after) };
});
export type WireChange = z.infer<typeof changeSchema>;

/** A change whose rows are of its kind, as those who make one see to. */
export const asChange = (change: WireChange): Change => change as Change;

export const create = <K extends Kind>(kind: K, row: Rows[K]): Change =>
  asChange({ op: 'create', kind, id: row.id, after: row });

/** An update of the fields that differ, or null when none does. */
export const update = <K extends Kind>(kind: K, row: Rows[K], fieldsAfter: Partial<Rows[K]>): Change | null =>
  updateHeld(kind, row, fieldsAfter);

/** The same for a kind of which only the name is known. */
export function updateHeld(kind: Kind, row: Row, fieldsAfter: Held): Change | null {
  const now = held(row);
  const touched = Object.entries(fieldsAfter).filter(([field, value]) => !sameValue(now[field], value));
  if (touched.length === 0) return null;
  const before = Object.fromEntries(touched.map(([field]) => [field, now[field]]));
  return asChange({ op: 'update', kind, id: row.id, before, after: Object.fromEntries(touched) });
}

export const remove = <K extends Kind>(kind: K, row: Rows[K]): Change =>
  asChange({ op: 'delete', kind, id: row.id, before: row });

/** Equality of field values: plain data, compared by content; the order of an object's keys does not matter. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) {
    return a.length === b.length && a.every((item, at) => sameValue(item, b[at]));
  }
  if (typeof a === 'object' && typeof b === 'object' && a !== null && b !== null) {
    const left = Object.entries(a);
    const right = new Map(Object.entries(b));
    return left.length === right.size && left.every(([key, value]) => sameValue(value, right.get(key)));
  }
  return false;
}

import type { z } from 'zod';
import type { FactSort } from '../values/facts.ts';

/**
 * What becomes of a row when the one it refers to is taken out: it `goes` along, its field is `cleared`, or it `holds`
 * the other there until somebody decides.
 */
export type OnRemove = 'goes' | 'cleared' | 'holds';

/** A field that has the id of another row. */
export interface Reference {
  /** The kind it refers to; where it may be one of several, `by` is the field that says which. */
  to: string | readonly string[];
  by?: string;
  /** Leads from that row to those that refer to it; fields of one kind may share one. */
  index: string;
  onRemove: OnRemove;
  /** Under what the rows with nothing in the field are found; without it they are not in the index. */
  none?: string;
}

/** Under what a row is found: one key, several, or none. */
export type IndexKey = string | readonly string[] | null;

/** What must be unique in the project: a readable key, compared without regard to case; empty: no matter. */
export interface Unique<R> {
  what: keyof R & string;
  key: (row: R) => string;
  /** The fields that make the key, for a table made from the definition. */
  fields?: readonly (keyof R & string)[];
  /** The value after this row's, tried where that one is taken; null: none. Left out, names are counted on. */
  next?: (row: R) => string | number | null;
  /** Told where nobody chooses the key: somebody else made the same row at the same moment. */
  meanwhile?: (row: R, name: (kind: string, id: string | null) => string) => string;
}

export interface Identified {
  id: string;
}
export type RowSchema<R extends Identified = Identified> = z.ZodType<R> & {
  shape: Record<string, z.ZodType>;
};

/** When a row stays as it is: from then on only the fields in `except` change, here and in the database. */
export interface Frozen<R> {
  when: (row: R) => boolean;
  /** The same for the database: the field that says so, and with what. */
  field: keyof R & string;
  value: string;
  except: readonly (keyof R & string)[];
  /** Told after the name of the row. */
  why: string;
}

/** All that the house knows of a kind of row. Whatever needs to know more of it derives it from here. */
export interface KindDefinition<R extends Identified> {
  schema: RowSchema<R>;
  one: string;
  many: string;
  refs: { readonly [field: string]: Reference };
  /** Ways to find rows other than by id and by reference. Built when first asked for, then kept up to date. */
  indexes: { readonly [name: string]: (row: R) => IndexKey };
  unique: readonly Unique<R>[];
  /** What may be there twice and yet is kept for the plan that wants it, as what is unique is. */
  kept?: readonly Unique<R>[];
  nameOf: (row: R) => string;
  /** What it is called beside others, where its own name does not tell it; `title` gives that of another row. */
  titled?: (row: R, title: (kind: string, id: string | null) => string) => string;
  /** The sort of fact that each field holds; those that are left out are structure. */
  facts: { readonly [F in keyof R & string]?: FactSort };
  /** What fields hold in a row written before they were there. */
  blank: Partial<R>;
  /** What some of its rows are called where they are counted; `one` and `many` where it is left out. */
  wordsFor?: (row: R) => { one: string; many: string };
  frozen?: Frozen<R>;
  /** Its own section of an exchange file under this name, read and written by what the kind says of itself. */
  section?: string;
  /** Drawn or planned and no more: nothing of it changes what the network does. */
  paper?: boolean;
  /** Part of another thing's drawing or wiring: nobody counts it when they are told what goes. */
  uncounted?: boolean;
}

type RefsOf<R> = { readonly [F in keyof R & string]?: Reference };

/** A kind, with the names of its references and indexes known to the compiler. */
export const defineKind = <
  S extends RowSchema,
  const F extends RefsOf<z.infer<S>>,
  X extends Record<string, (row: z.infer<S>) => IndexKey>,
>(
  definition: Omit<KindDefinition<z.infer<S>>, 'schema' | 'refs' | 'indexes'> & {
    schema: S;
    refs: F;
    indexes: X;
  },
): typeof definition => definition;

/** Kinds that refer to each other in a circle: none of them could be created first. */
export class KindCircle extends Error {
  constructor(readonly path: readonly string[]) {
    super(`The kinds ${path.join(' → ')} refer to each other in a circle. Let one of them do without.`);
  }
}

/**
 * Kinds in the order in which their rows can be created: what a row refers to stands before it, otherwise as they are
 * listed. A kind may refer to itself.
 *
 * @throws KindCircle
 */
export function creationOrder(definitions: {
  readonly [kind: string]: { refs: { readonly [field: string]: Pick<Reference, 'to'> | undefined } };
}): string[] {
  const order: string[] = [];
  const visit = (kind: string, path: readonly string[]): void => {
    if (order.includes(kind)) return;
    const at = path.indexOf(kind);
    if (at >= 0) throw new KindCircle([...path.slice(at), kind]);
    for (const reference of Object.values(definitions[kind]?.refs ?? {}))
      for (const to of [reference?.to ?? []].flat()) if (to !== kind) visit(to, [...path, kind]);
    order.push(kind);
  };
  for (const kind of Object.keys(definitions)) visit(kind, []);
  return order;
}

/** What these fields hold together is there once in the project; with nothing in the first of them it does not matter. */
export const uniqueBy = <R>(...fields: [keyof R & string, ...(keyof R & string)[]]): Unique<R> => ({
  what: fields[0],
  fields,
  key: (row) => {
    const values = fields.map((field) => String(row[field] ?? ''));
    return values[0] === '' ? '' : values.join('/');
  },
});

import type { z } from 'zod';
import { kinds, targetOf, type Kind, type Rows } from '../kinds.ts';

/** How a value of a field is kept in a table. */
export type Storage = 'uuid' | 'text' | 'int' | 'number' | 'boolean' | 'json';

export interface StoredField {
  field: string;
  storage: Storage;
  nullable: boolean;
  /** The kind whose id it holds. */
  to: Kind | null;
}

export interface Definition {
  type: string;
  innerType?: z.ZodType;
  in?: z.ZodType;
  options?: readonly z.ZodType[];
  element?: z.ZodType;
  shape?: Readonly<Record<string, z.ZodType>>;
  format?: string;
  values?: readonly unknown[];
}
export const definitionOf = (schema: z.ZodType): Definition => schema.def;

/** Through what only says that a value may be missing, to what the value is. */
export function inner(schema: z.ZodType): { schema: z.ZodType; nullable: boolean } {
  const { type, innerType, in: input } = definitionOf(schema);
  if (type === 'nullable' && innerType !== undefined)
    return { schema: inner(innerType).schema, nullable: true };
  const wrapped = type === 'pipe' ? input : innerType;
  return wrapped === undefined ? { schema, nullable: false } : inner(wrapped);
}

const simple: Readonly<Record<string, Storage>> = {
  string: 'text',
  enum: 'text',
  boolean: 'boolean',
  array: 'json',
  object: 'json',
  record: 'json',
  tuple: 'json',
};

function storageOf(schema: z.ZodType): Storage {
  const { type, format, options, values } = definitionOf(inner(schema).schema);
  if (format === 'uuid') return 'uuid';
  if (type === 'number') return format === 'safeint' ? 'int' : 'number';
  if (type === 'literal') return typeof values?.[0] === 'number' ? 'number' : 'text';
  if (type === 'union') {
    const parts = new Set((options ?? []).map(storageOf));
    const [only = 'json'] = parts;
    return parts.size === 1 ? only : 'json';
  }
  const found = simple[type];
  if (found === undefined) throw new Error(`A field of the type ${type} cannot be kept in a table.`);
  return found;
}

function workedOut(kind: Kind): StoredField[] {
  return Object.entries(kinds[kind].schema.shape).map(([field, schema]) => ({
    field,
    storage: storageOf(schema),
    nullable: inner(schema).nullable,
    to: targetOf(kind, field),
  }));
}

const known = new Map<Kind, readonly StoredField[]>();

/** The columns of a kind's table, worked out from its schema. */
export function columnsOf(kind: Kind): readonly StoredField[] {
  const found = known.get(kind) ?? workedOut(kind);
  known.set(kind, found);
  return found;
}

/** Whether data has named parts, whose order is to be settled: a list of numbers has none. */
export const hasNames = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (Array.isArray(value) ? value.some((part) => hasNames(part)) : true);

/**
 * A row as it was kept, with its fields and the data inside them in the order of the schema: what is written of it is
 * the same, byte for byte, however it was kept (a table of JSON has an order of its own).
 */
export function inSchemaOrder<K extends Kind>(kind: K, kept: Readonly<Record<string, unknown>>): Rows[K] {
  const { shape } = kinds[kind].schema;
  const row: Record<string, unknown> = {};
  for (const { field, storage } of columnsOf(kind)) {
    const value = kept[field];
    if (value === undefined) continue;
    const parsed = storage === 'json' && hasNames(value) ? shape[field]?.safeParse(value) : undefined;
    row[field] = parsed?.success === true ? parsed.data : value;
  }
  return row as Rows[K];
}

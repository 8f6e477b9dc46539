import { z } from 'zod';
import { notesOfSchema } from './field.ts';
import { kinds, targetOf, type Kind } from '../kinds.ts';
import { columnsOf, inner } from './storage.ts';

/** A fact of a row as people read and change it: a column of a grid, a line of a record. */
export interface FactField {
  field: string;
  label: string;
  unit: string | null;
  help: string | null;
  /** How it is given: typed, counted, chosen from words, yes or no, or another row. */
  form: 'text' | 'number' | 'choice' | 'yes or no' | 'row';
  /** For a choice. */
  words: readonly string[];
  /** For a row: its kind. */
  to: Kind | null;
  optional: boolean;
}

const wordsOf = (schema: z.ZodType): readonly string[] => {
  const held = inner(schema).schema;
  return held instanceof z.ZodEnum ? held.options.map(String) : [];
};

function factField(kind: Kind, field: string, storage: string, nullable: boolean): FactField | null {
  const schema = kinds[kind].schema.shape[field];
  const to = targetOf(kind, field);
  const notes = schema === undefined ? null : notesOfSchema(schema);
  if (schema === undefined || field === 'id' || storage === 'json') return null;
  if (notes?.internal === true && to === null) return null;
  const words = wordsOf(schema);
  const typed = storage === 'int' || storage === 'number' ? 'number' : 'text';
  return {
    field,
    label: notes?.label ?? field,
    unit: notes?.unit ?? null,
    help: notes?.help ?? null,
    form: to !== null ? 'row' : words.length > 0 ? 'choice' : storage === 'boolean' ? 'yes or no' : typed,
    words,
    to,
    optional: nullable,
  };
}

/** The facts of a kind in the order of its schema, without ids, plumbing and data that needs a form of its own. */
export const factFieldsOf = (kind: Kind): FactField[] =>
  columnsOf(kind).flatMap(({ field, storage, nullable }) => factField(kind, field, storage, nullable) ?? []);

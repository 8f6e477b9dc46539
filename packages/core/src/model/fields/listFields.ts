import { z } from 'zod';
import { notesOfSchema } from './field.ts';
import { kinds, type Kind } from '../kinds.ts';
import { inner } from './storage.ts';

/** A fact that is many: texts one below the other, some of a few words, or labels of key and value. */
export interface ListField {
  field: string;
  label: string;
  help: string | null;
  form: 'texts' | 'words' | 'labels';
  /** For words those there are; for labels the keys that may be used, none for any. */
  words: readonly string[];
  /** Labels whose values are whole numbers. */
  numeric: boolean;
}

const wordsOf = (schema: unknown): readonly string[] =>
  schema instanceof z.ZodEnum ? schema.options.map(String) : [];

function formOf(schema: z.ZodType): Pick<ListField, 'form' | 'words' | 'numeric'> | null {
  const held = inner(schema).schema;
  if (held instanceof z.ZodRecord) {
    const numeric = held.valueType instanceof z.ZodNumber;
    if (!numeric && !(held.valueType instanceof z.ZodString)) return null;
    return { form: 'labels', words: wordsOf(held.keyType), numeric };
  }
  if (!(held instanceof z.ZodArray)) return null;
  const each = held.element instanceof z.ZodType ? inner(held.element).schema : null;
  if (each instanceof z.ZodEnum) return { form: 'words', words: wordsOf(each), numeric: false };
  return each instanceof z.ZodString ? { form: 'texts', words: [], numeric: false } : null;
}

/** The facts of a kind that are lists of texts or words, or labels, in the order of its schema. */
export const listFieldsOf = (kind: Kind): ListField[] =>
  Object.entries(kinds[kind].schema.shape).flatMap(([field, schema]) => {
    const form = formOf(schema);
    const notes = notesOfSchema(schema);
    return form === null ? [] : [{ field, label: notes?.label ?? field, help: notes?.help ?? null, ...form }];
  });

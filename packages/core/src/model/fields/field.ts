import { z } from 'zod';
import { macForm } from '../values/mac.ts';
import './issueWords.ts';

/** What a field is called and measured in; read by grids, forms, problem texts and the API description. */
export interface FieldNotes {
  label: string;
  unit?: string;
  help?: string;
  /** Not shown in grids and forms: an id that stands for another row, or plumbing. */
  internal?: boolean;
}

export const fieldNotes = z.registry<FieldNotes>();

/** Gives a schema its human notes; one that has notes already keeps them, and another like it is given. */
export function noted<T extends z.ZodType>(schema: T, notes: FieldNotes): T {
  const own = fieldNotes.has(schema) ? schema.clone() : schema;
  fieldNotes.add(own, notes);
  return own;
}

/** The notes of a schema, or of what it is when it is not empty. */
export function notesOfSchema(schema: z.ZodType): FieldNotes | null {
  const own = fieldNotes.get(schema);
  if (own !== undefined) return own;
  const wraps =
    schema instanceof z.ZodNullable || schema instanceof z.ZodOptional || schema instanceof z.ZodDefault;
  const held: unknown = wraps ? schema.def.innerType : undefined;
  return held instanceof z.ZodType ? notesOfSchema(held) : null;
}

const tidy = (text: string): boolean => text.trim() === text;

/** An id (RFC 9562) in its one spelling: what is written otherwise is the same id. */
export const uuid = () => z.uuid().toLowerCase();
export const idField = (label: string) => noted(uuid(), { label, internal: true });
export const refField = (label: string) => noted(uuid().nullable(), { label, internal: true });
export const nameField = (label: string, max = 80) =>
  noted(
    z
      .string()
      .min(1, 'is empty')
      .max(max, `is longer than ${max} characters`)
      .refine(tidy, 'starts or ends with a space')
      .refine((text) => !/[\n\r\t]/.test(text), 'holds a line break or a tab'),
    { label },
  );
export const dateField = (label: string) =>
  noted(
    z.iso
      .date('is not a date such as 2031-06-30')
      // There is no year 0: the year before 1 is 1 BC.
      .refine((text) => !text.startsWith('0000'), 'is not a date such as 2031-06-30')
      .nullable(),
    { label, help: 'Year-month-day' },
  );
export const textField = (label: string, max = 2000, help?: string) =>
  noted(z.string().max(max, `is longer than ${max} characters`).nullable(), { label, help });
export const countField = (label: string, least: number, most: number, unit?: string) =>
  noted(z.int('is not a whole number').min(least, `is below ${least}`).max(most, `is above ${most}`), {
    label,
    unit,
  });
export const amountField = (label: string, most: number, unit: string, help?: string) =>
  noted(z.number().min(0, 'is negative').max(most, `is above ${most}`).nullable(), { label, unit, help });
/** Keys in their order, so that what is the same is written alike however it was kept. */
export const inKeyOrder = <V>(record: Record<string, V>): Record<string, V> =>
  Object.fromEntries(Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1)));

/** An amount in hundredths of its currency. */
export const moneyField = (label: string) =>
  noted(z.int('is not a whole number of minor units').min(0, 'is negative').max(1e12).nullable(), {
    label,
    internal: true,
  });
export const currencyField = () =>
  noted(
    z
      .string()
      .regex(/^[A-Z]{3}$/, 'is not a currency code such as EUR')
      .nullable(),
    { label: 'Currency' },
  );
export const macField = (label: string, help?: string) =>
  noted(
    z
      .string()
      .refine(
        (text) => macForm.test(text),
        'is not six pairs of hexadecimal digits such as 02:00:5e:00:53:01',
      )
      .nullable(),
    { label, help },
  );

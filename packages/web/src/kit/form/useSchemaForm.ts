import { zodResolver } from '@hookform/resolvers/zod';
import { noted, notesOfSchema, type FieldNotes, type Problem } from '@visograph/core/model';
import {
  useForm,
  type DefaultValues,
  type FieldValues,
  type Path,
  type UseFormReturn,
} from 'react-hook-form';
import { z } from 'zod';

export type FormSchema<V extends FieldValues> = z.ZodType<V, FieldValues> & {
  shape: Readonly<Record<string, z.ZodType>>;
};

/** A form whose fields, with label, unit, help and what is wrong with them, follow from a schema. */
export interface SchemaForm<V extends FieldValues> {
  control: UseFormReturn<V>;
  notes: (name: Path<V>) => FieldNotes;
  /** Tells at its field what the model or the server found wrong; at the foot what is of no field here. */
  refuse: (problems: readonly Pick<Problem, 'field' | 'message'>[]) => void;
}

/**
 * A form of a schema: a field is judged when it is left, then with every key; sending goes to the first fault. What
 * was typed stays until the form is sent.
 */
export function useSchemaForm<V extends FieldValues>(
  schema: FormSchema<V>,
  defaultValues: NoInfer<DefaultValues<V>>,
  /** What stands there now, for a form that changes it: when that becomes another, the form shows it. */
  now?: NoInfer<V>,
): SchemaForm<V> {
  const control = useForm<V>({
    // What a schema assumes where something is left out is given by the start already.
    resolver: zodResolver(schema as z.ZodType<V, V>),
    defaultValues,
    ...(now === undefined ? {} : { values: now }),
    mode: 'onTouched',
    shouldFocusError: true,
  });
  return {
    control,
    notes: (name) => {
      const field = schema.shape[name];
      return (field === undefined ? null : notesOfSchema(field)) ?? { label: name };
    },
    refuse: (problems) => {
      problems.forEach(({ field, message }, at) => {
        const here = field !== null && field in schema.shape ? (field as Path<V>) : 'root';
        control.setError(here, { type: 'refused', message }, { shouldFocus: at === 0 });
      });
    },
  };
}

/** A text whose spaces before and behind do not count, then what it must be. */
export const trimmed = (schema: z.ZodType<string, string>): z.ZodType<string, string> =>
  noted(z.string().trim().pipe(schema), notesOfSchema(schema) ?? { label: '' });

/** "Number is above 4094.": what is wrong as a sentence that begins with the field, unless it is one already. */
export function faultText(label: string, message: string | undefined): string | null {
  if (message === undefined || message === '') return null;
  return /^[a-z\d]/.test(message) ? `${label} ${message}.` : message;
}

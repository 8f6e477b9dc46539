import type { z } from 'zod';
import { addressForms, type AddressForm } from './ipField.ts';
import { held, kindNames, kinds, type Held, type Kind, type Row } from '../kinds.ts';
import { definitionOf, inner } from './storage.ts';

/** Puts another address in the place of one. */
export type MoveAddress = (text: string, form: AddressForm) => string;
/** The same for a whole value; null where it holds no address. */
type Mover = (value: unknown, move: MoveAddress) => unknown;

/** What is done with the values of a schema: addresses wherever they stand in it, in lists and parts too. */
function moverOf(schema: z.ZodType): Mover | null {
  const whole = inner(schema).schema;
  const form = addressForms.get(schema)?.form ?? addressForms.get(whole)?.form;
  if (form !== undefined) return (value, move) => (typeof value === 'string' ? move(value, form) : value);
  const { element, shape } = definitionOf(whole);
  if (element !== undefined) {
    const each = moverOf(element);
    return each === null
      ? null
      : (value, move) => (Array.isArray(value) ? value.map((one) => each(one, move)) : value);
  }
  const parts = Object.entries(shape ?? {}).flatMap(([name, part]): [string, Mover][] => {
    const mover = moverOf(part);
    return mover === null ? [] : [[name, mover]];
  });
  if (parts.length === 0) return null;
  return (value, move) => {
    if (typeof value !== 'object' || value === null) return value;
    const all = new Map<string, unknown>(Object.entries(value));
    return {
      ...value,
      ...Object.fromEntries(parts.map(([name, mover]) => [name, mover(all.get(name), move)])),
    };
  };
}

const known = new Map<Kind, readonly [field: string, mover: Mover][]>();
function moversOf(kind: Kind): readonly [field: string, mover: Mover][] {
  const found =
    known.get(kind) ??
    Object.entries(kinds[kind].schema.shape).flatMap(([field, schema]): [string, Mover][] => {
      const mover = moverOf(schema);
      return mover === null ? [] : [[field, mover]];
    });
  known.set(kind, found);
  return found;
}

/** The fields of a kind that hold addresses, as its schema says: what renumbering has to look at. */
export const addressFieldsOf = (kind: Kind): string[] => moversOf(kind).map(([field]) => field);
/** The kinds that have such fields. */
export const addressKinds: readonly Kind[] = kindNames.filter((kind) => addressFieldsOf(kind).length > 0);

/** These fields of a row with every address in them moved. */
export function movedAddresses(kind: Kind, row: Row, move: MoveAddress): Held {
  return Object.fromEntries(moversOf(kind).map(([field, mover]) => [field, mover(held(row)[field], move)]));
}

import { sameValue } from '../change/change.ts';

/** Leaves out what is null or equal to the value that reading assumes. */
export function sparse<T extends object>(entry: T, assumed: Partial<T> = {}): T {
  const blank = new Map<string, unknown>(Object.entries(assumed));
  const kept = Object.entries(entry).filter(
    ([key, value]) => value !== null && !sameValue(value, blank.get(key)),
  );
  return Object.fromEntries(kept) as T;
}

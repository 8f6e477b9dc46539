import { sameValue } from '../change/change.ts';

/** Leaves out what is null or equal to the value that reading assumes. */
export function sparse<T extends object>(entry: T, assumed: Partial<T> = {}): T {
  const kept = Object.entries(entry).filter(
    ([key, value]) => value !== null && !sameValue(value, (assumed as Record<string, unknown>)[key]),
  );
  return Object.fromEntries(kept) as T;
}

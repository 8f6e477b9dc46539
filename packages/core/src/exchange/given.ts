/** What an entry says itself: the fields it gives, without those that are names of other things. */
export function given<T extends object, D extends keyof T>(
  entry: T,
  without: readonly D[],
): Partial<Omit<T, D>> {
  return Object.fromEntries(
    Object.entries(entry).filter(
      ([key, value]) => value !== undefined && !without.some((one) => one === key),
    ),
  ) as Partial<Omit<T, D>>;
}

/** The keys of a record of known keys, in the order in which they stand in it. */
export const keysOf = <K extends string>(record: Readonly<Partial<Record<K, unknown>>>): K[] =>
  Object.keys(record) as K[];

/** Whether a text is one of a list of words. */
export const isOneOf = <W extends string>(words: readonly W[], text: unknown): text is W =>
  words.some((word) => word === text);

/** A record of known keys, each with the value that is worked out for it. */
export const recordOf = <K extends string, V>(keys: readonly K[], valueOf: (key: K) => V): Record<K, V> =>
  Object.fromEntries(keys.map((key) => [key, valueOf(key)])) as Record<K, V>;

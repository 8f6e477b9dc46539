/** The first of a list that has at least one. @throws where it has none: whoever made the list is wrong. */
export function firstOf<T>(list: readonly T[]): T {
  const [first] = list;
  if (first === undefined) throw new Error('A list that has at least one thing has none.');
  return first;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Orders names as people count: gi1/2 before gi1/10. Names that count alike (`a1`, `A01`) still have one order. */
export const compareNames = (a: string, b: string): number =>
  collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
export const byName = (a: { name: string }, b: { name: string }): number => compareNames(a.name, b.name);

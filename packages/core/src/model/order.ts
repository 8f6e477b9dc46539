const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Orders names as people count: gi1/2 before gi1/10. */
export const compareNames = (a: string, b: string): number => collator.compare(a, b);
export const byName = (a: { name: string }, b: { name: string }): number => collator.compare(a.name, b.name);

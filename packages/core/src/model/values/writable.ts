/**
 * Control characters other than line feed, carriage return and tab, halves of surrogate pairs, and code points that
 * are no characters: none can be written in XML (XML 1.0 section 2.2) or kept as text by PostgreSQL (NUL).
 */
const unwritable =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** `U+0007`: the first character of a text that cannot be written; null where all can. */
export function unwritableIn(text: string): string | null {
  const found = unwritable.exec(text)?.[0];
  return found === undefined ? null : `U+${found.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`;
}

/** The same for all texts inside a value, names of its fields included. */
export function unwritableInside(value: unknown): string | null {
  if (typeof value === 'string') return unwritableIn(value);
  if (typeof value !== 'object' || value === null) return null;
  for (const [name, part] of Object.entries(value)) {
    const found = unwritableIn(name) ?? unwritableInside(part);
    if (found !== null) return found;
  }
  return null;
}

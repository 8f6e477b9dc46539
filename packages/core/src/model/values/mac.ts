/** A MAC address as it is kept: six pairs of lower-case hexadecimal digits with colons between. */
export const macForm = /^[0-9a-f]{2}(:[0-9a-f]{2}){5}$/;

/**
 * The 48-bit address that a text means in any of its usual spellings: pairs with colons or with hyphens (IEEE 802-2014
 * clause 8.1), three groups of four digits with points, or twelve digits alone. Null where it is none.
 */
export function macOf(text: string): string | null {
  const word = text.trim().toLowerCase();
  const isOne =
    /^[0-9a-f]{2}(?:([:-])[0-9a-f]{2})(?:\1[0-9a-f]{2}){4}$/.test(word) ||
    /^[0-9a-f]{4}\.[0-9a-f]{4}\.[0-9a-f]{4}$/.test(word) ||
    /^[0-9a-f]{12}$/.test(word);
  return isOne
    ? (word
        .replace(/[^0-9a-f]/g, '')
        .match(/../g)
        ?.join(':') ?? null)
    : null;
}

/**
 * Short addresses of things, for codes that are scanned: ids in base 36, all in capitals, so that a QR code takes them
 * as letters and figures (ISO/IEC 18004, alphanumeric mode) and is a third smaller.
 */
export const shortId = (id: string): string =>
  BigInt(`0x${id.replaceAll('-', '')}`)
    .toString(36)
    .toUpperCase();

/** The id that a short one stands for; null: it is none. */
export function longId(text: string): string | null {
  if (!/^[0-9a-z]{1,25}$/i.test(text)) return null;
  let value = 0n;
  for (const letter of text.toLowerCase()) value = value * 36n + BigInt(parseInt(letter, 36));
  const hex = value.toString(16).padStart(32, '0');
  if (hex.length > 32) return null;
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}

/** The address that leads into the application to a thing of a project. Host and path are read without regard to case. */
export const thingLink = (origin: string, projectId: string, id: string): string =>
  `${origin}/AT/${shortId(projectId)}/${shortId(id)}`.toUpperCase();

import { z } from 'zod';
import { noted } from '../../fields/field.ts';

/** Letters of the data URL: a picture travels with every change of its row. */
export const mostPicture = { model: 150_000, sheet: 1_500_000 };
const png = 'data:image/png;base64,';
const svg = 'data:image/svg+xml;base64,';

function bytesOf(base64: string): Uint8Array | null {
  try {
    return Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
  } catch {
    return null;
  }
}

/** The signature of PNG (ISO/IEC 15948, 5.2), its first chunk, and a size that is not absurd. */
function pngFault(bytes: Uint8Array): string | null {
  const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
  if (!signature.every((byte, at) => bytes[at] === byte) || bytes.length < 33) return 'is not a PNG picture';
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  if (width < 1 || height < 1 || width > 4096 || height > 4096)
    return `is ${width} × ${height} pixels: at most 4096 × 4096 are kept`;
  return null;
}

const forbidden: readonly [RegExp, string][] = [
  [/<\s*script\b/i, 'a script'],
  [/<\s*(foreignObject|iframe|object|embed|handler|set|animate\w*)\b/i, 'embedded content'],
  [/\son\w+\s*=/i, 'an event handler'],
  [/(href|src)\s*=\s*["']?\s*(?!["']?#)(?!["']?data:image\/(png|jpeg);)/i, 'a link to somewhere else'],
  [/url\(\s*["']?\s*(?!["']?#)/i, 'a link to somewhere else'],
  [/@import|javascript:|<!ENTITY|<!DOCTYPE/i, 'something that is not a drawing'],
];

/** What an SVG text may not hold, in words, or null when it is a plain drawing. */
export function svgFault(text: string): string | null {
  if (!/^\s*(<\?xml[^>]*\?>\s*)?(<!--[\s\S]*?-->\s*)*<svg[\s>]/i.test(text)) return 'is not an SVG picture';
  const found = forbidden.find(([pattern]) => pattern.test(text));
  return found === undefined ? null : `holds ${found[1]}, which is not kept`;
}

/** Why a data URL cannot be kept as the picture of a model, or null when it can. */
export function pictureFault(url: string, most = mostPicture.model): string | null {
  if (url.length > most) return `is larger than ${Math.floor((most * 3) / 4 / 1000)} kB: make it smaller`;
  if (url.startsWith(png)) {
    const bytes = bytesOf(url.slice(png.length));
    return bytes === null ? 'is damaged' : pngFault(bytes);
  }
  if (url.startsWith(svg)) {
    const bytes = bytesOf(url.slice(svg.length));
    return bytes === null ? 'is damaged' : svgFault(new TextDecoder().decode(bytes));
  }
  return 'is neither a PNG nor an SVG picture';
}

const pictureOf = (most: number) =>
  noted(
    z
      .string()
      .superRefine((url, context) => {
        const why = pictureFault(url, most);
        if (why !== null) context.addIssue({ code: 'custom', message: why });
      })
      .nullable(),
    { label: 'Picture', internal: true },
  );

export const pictureField = pictureOf(mostPicture.model);
export const sheetPictureField = pictureOf(mostPicture.sheet);

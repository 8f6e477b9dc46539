import { z } from 'zod';
import { noted } from '../../../fields/field.ts';
import { pngFault } from './png.ts';
import { svgFault } from './svg.ts';

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

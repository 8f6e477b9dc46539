import { mostPicture, pictureFault, pngFault, svgFault } from '@visograph/core/model';

export type PictureRead = { ok: true; picture: string; removed: boolean } | { ok: false; why: string };

const base64 = (bytes: Uint8Array): string => {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
};

/**
 * The same pixels as a new PNG: what else the file held, such as where and by whom it was taken, is gone. A picture
 * that the browser cannot draw is no picture.
 */
async function redrawn(file: Blob): Promise<Uint8Array | null> {
  try {
    const bitmap = await createImageBitmap(file);
    const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
    canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
    const made = await canvas.convertToBlob({ type: 'image/png' });
    return new Uint8Array(await made.arrayBuffer());
  } catch {
    return null;
  }
}

/**
 * A picture from a file, checked by its content. A drawing is cleaned of everything that is not one: scripts,
 * event handlers, links to elsewhere.
 */
export async function readPicture(file: Blob, use: 'model' | 'sheet' = 'model'): Promise<PictureRead> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const isPng = bytes[0] === 0x89 && bytes[1] === 0x50;
  let picture: string;
  let removed = false;
  if (isPng) {
    const fault = pngFault(bytes);
    const drawn = fault === null ? await redrawn(file) : null;
    if (drawn === null) return { ok: false, why: `The picture ${fault ?? 'is damaged'}.` };
    picture = `data:image/png;base64,${base64(drawn)}`;
  } else {
    const text = new TextDecoder().decode(bytes);
    if (!/<svg[\s>]/i.test(text)) return { ok: false, why: 'The file is neither a PNG nor an SVG picture.' };
    const { default: purify } = await import('dompurify');
    const clean = purify.sanitize(text, {
      USE_PROFILES: { svg: true, svgFilters: true },
      NAMESPACE: 'http://www.w3.org/2000/svg',
      FORBID_TAGS: ['style', 'foreignObject', 'animate', 'set'],
    });
    removed = svgFault(text) !== null || /<style[\s>]/i.test(text);
    if (!/<svg[\s>]/i.test(clean))
      return { ok: false, why: 'Nothing of the drawing is left without its scripts.' };
    const start = clean.slice(clean.search(/<svg[\s>]/i));
    const drawn = start.includes('xmlns=')
      ? start
      : start.replace(/<svg/i, '<svg xmlns="http://www.w3.org/2000/svg"');
    picture = `data:image/svg+xml;base64,${base64(new TextEncoder().encode(drawn))}`;
  }
  const fault = pictureFault(picture, mostPicture[use]);
  return fault === null ? { ok: true, picture, removed } : { ok: false, why: `The picture ${fault}.` };
}

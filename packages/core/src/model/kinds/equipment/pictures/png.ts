import { Unzlib } from 'fflate';

const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
const mostSide = 4096;
/** Pixels: what a printer has to unpack, at most 8 bytes each. */
const mostPixels = 8_000_000;

/** Samples of a pixel by colour type, and the depths each may have (ISO/IEC 15948, table 11.1). */
const samples: Readonly<Record<number, { each: number; depths: readonly number[] }>> = {
  0: { each: 1, depths: [1, 2, 4, 8, 16] },
  2: { each: 3, depths: [8, 16] },
  3: { each: 1, depths: [1, 2, 4, 8] },
  4: { each: 2, depths: [8, 16] },
  6: { each: 4, depths: [8, 16] },
};

interface Header {
  width: number;
  height: number;
  bitsOfPixel: number;
  interlaced: boolean;
}

/** The passes of Adam7: where each begins, and its steps (ISO/IEC 15948, 8.2). */
const passes = [
  [0, 0, 8, 8],
  [4, 0, 8, 8],
  [0, 4, 4, 8],
  [2, 0, 4, 4],
  [0, 2, 2, 4],
  [1, 0, 2, 2],
  [0, 1, 1, 2],
] as const;

/** The bytes that the picture data come to once they are unpacked: each line of pixels and its filter. */
function unpackedSize({ width, height, bitsOfPixel, interlaced }: Header): number {
  const block = (columns: number, lines: number): number =>
    columns <= 0 || lines <= 0 ? 0 : lines * (1 + Math.ceil((columns * bitsOfPixel) / 8));
  if (!interlaced) return block(width, height);
  return passes.reduce(
    (sum, [x, y, stepX, stepY]) =>
      sum + block(Math.ceil((width - x) / stepX), Math.ceil((height - y) / stepY)),
    0,
  );
}

function headerOf(view: DataView, at: number): Header | string {
  const [width, height] = [view.getUint32(at), view.getUint32(at + 4)];
  const [depth, colour, interlace] = [view.getUint8(at + 8), view.getUint8(at + 9), view.getUint8(at + 12)];
  if (width < 1 || height < 1 || width > mostSide || height > mostSide || width * height > mostPixels)
    return `is ${width} × ${height} pixels: at most ${mostSide} × ${mostSide} and ${mostPixels / 1e6} million in all are kept`;
  const kind = samples[colour];
  if (kind === undefined || !kind.depths.includes(depth) || interlace > 1) return 'is a damaged PNG picture';
  return { width, height, bitsOfPixel: kind.each * depth, interlaced: interlace === 1 };
}

/** The data of a picture unpacked to nothing but their size; null where they are no such data. */
function sizeOf(parts: readonly Uint8Array[], most: number): number | null {
  let size = 0;
  const unpack = new Unzlib((part) => {
    size += part.length;
    if (size > most) throw new RangeError('more than the header says');
  });
  try {
    parts.forEach((part, at) => unpack.push(part, at === parts.length - 1));
    return size;
  } catch {
    return null;
  }
}

/**
 * Why bytes are no PNG picture (ISO/IEC 15948) that every reader can draw, or null: chunk after chunk to its end, a
 * size that is not absurd, and as many data as its header says.
 */
export function pngFault(bytes: Uint8Array): string | null {
  if (!signature.every((byte, at) => bytes[at] === byte)) return 'is not a PNG picture';
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const data: Uint8Array[] = [];
  let header: Header | null = null;
  let hasPalette = false;
  for (let at = signature.length; ;) {
    if (at + 12 > bytes.length) return 'is a damaged PNG picture: it breaks off';
    const length = view.getUint32(at);
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (!/^[A-Za-z]{4}$/.test(type) || at + 12 + length > bytes.length)
      return 'is a damaged PNG picture: it breaks off';
    if (header === null) {
      if (type !== 'IHDR' || length !== 13) return 'is a damaged PNG picture';
      const read = headerOf(view, at + 8);
      if (typeof read === 'string') return read;
      header = read;
    } else if (type === 'PLTE') hasPalette = length > 0 && length % 3 === 0 && length <= 768;
    else if (type === 'IDAT') data.push(bytes.subarray(at + 8, at + 8 + length));
    else if (type === 'IEND') break;
    else if (type === 'acTL' || type === 'fcTL') return 'moves: only pictures that stand still are kept';
    at += 12 + length;
  }
  const wanted = unpackedSize(header);
  const needsPalette = view.getUint8(25) === 3;
  if (sizeOf(data, wanted) !== wanted || (needsPalette && !hasPalette))
    return 'is a damaged PNG picture: its data are not those of its size';
  return null;
}

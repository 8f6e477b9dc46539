import { create } from 'qrcode';

/** What a QR code holds in eleven bits for two letters (ISO/IEC 18004, 7.4.4). */
const alphanumeric = /^[0-9A-Z $%*+\-./:]+$/;

export interface QrCode {
  /** Modules on a side, without the white around it. */
  size: number;
  /** Row by row, 1 is dark. */
  dark: Uint8Array;
}

/** Which modules the eight masks turn over, of row i and column j (ISO/IEC 18004, table 10). */
const masks: readonly ((i: number, j: number) => boolean)[] = [
  (i, j) => (i + j) % 2 === 0,
  (i) => i % 2 === 0,
  (_, j) => j % 3 === 0,
  (i, j) => (i + j) % 3 === 0,
  (i, j) => ((i >> 1) + Math.floor(j / 3)) % 2 === 0,
  (i, j) => ((i * j) % 2) + ((i * j) % 3) === 0,
  (i, j) => (((i * j) % 2) + ((i * j) % 3)) % 2 === 0,
  (i, j) => (((i * j) % 3) + ((i + j) % 2)) % 2 === 0,
];

/** The generator of the BCH code of format information (ISO/IEC 18004, annex C). */
const generator = 0b10100110111;

/** Bits in which the format information of a mask differs from that of mask 0: the code is linear. */
function formatDifference(mask: number): number {
  let rest = mask << 10;
  for (let bit = 14; bit >= 10; bit--) if ((rest >> bit) & 1) rest ^= generator << (bit - 10);
  return (mask << 10) | rest;
}

/** Where bit i of the format information stands, both times (ISO/IEC 18004, figure 25). */
function formatPlaces(bit: number, size: number): [number, number] {
  const row = bit < 6 ? bit : bit < 8 ? bit + 1 : size - 15 + bit;
  const column = bit < 8 ? size - 1 - bit : bit === 8 ? 7 : 14 - bit;
  return [row * size + 8, 8 * size + column];
}

/** By size, which fixes what is reserved: for each mask, 1 where a code of mask 0 is turned over to be one of this mask. */
const turned = new Map<number, Uint32Array[]>();

/** Modules in words of four, so that they are turned four at a time. */
const inWords = (modules: Uint8Array): Uint32Array => {
  const padded = new Uint8Array(Math.ceil(modules.length / 4) * 4);
  padded.set(modules);
  return new Uint32Array(padded.buffer);
};

function turnedFrom0(size: number, reserved: Uint8Array): Uint32Array[] {
  const known = turned.get(size);
  if (known !== undefined) return known;
  const [first = () => false] = masks;
  const made = masks.map((turns, mask) => {
    const turn = Uint8Array.from(reserved, (is, at) => {
      const [i, j] = [Math.floor(at / size), at % size];
      return is === 0 && turns(i, j) !== first(i, j) ? 1 : 0;
    });
    const differs = formatDifference(mask);
    for (let bit = 0; bit < 15; bit++)
      if ((differs >> bit) & 1) for (const at of formatPlaces(bit, size)) turn[at] = 1;
    return inWords(turn);
  });
  turned.set(size, made);
  return made;
}

/** Points of the last six modules of a line: three with the fifth of one colour, one with each further. */
const runPoints = Uint8Array.from({ length: 64 }, (_, last) =>
  last === 0 || last === 63 ? 1 : (last & 31) === 0 || (last & 31) === 31 ? 3 : 0,
);
/** Points of the last eleven: the same, and forty where they look like a finder with white before or after it. */
const linePoints = Uint8Array.from(
  { length: 2048 },
  (_, last) => (runPoints[last & 63] ?? 0) + (last === 0x5d0 || last === 0x05d ? 40 : 0),
);
/** Points of a block of four by how many of it are dark. */
const blockPoints = Uint8Array.of(3, 0, 0, 0, 3);

/** Points along lines that begin `line` apart, with modules `step` apart. Without branches: the modules are as good as random. */
function alongLines(dark: Uint8Array, size: number, line: number, step: number): number {
  let points = 0;
  for (let from = 0; from < size; from++) {
    let at = from * line;
    // As if modules of the other colour stood before it.
    let last = dark[at] === 1 ? 0 : 0x7ff;
    for (let place = 0; place < 10; place++, at += step) {
      last = ((last << 1) & 0x7ff) | (dark[at] ?? 0);
      points += runPoints[last & 63] ?? 0;
    }
    for (let place = 10; place < size; place++, at += step) {
      last = ((last << 1) & 0x7ff) | (dark[at] ?? 0);
      points += linePoints[last] ?? 0;
    }
  }
  return points;
}

/** How many modules of a word are dark. */
const darkOf = (word: number): number => Math.imul(word, 0x01010101) >>> 24;

/** How ill a code can be read: the sum of penalties of ISO/IEC 18004, 7.8.3.1; not counted on above the least so far. */
function penalty(dark: Uint8Array, size: number, all: number, least: number): number {
  let points = alongLines(dark, size, size, 1) + alongLines(dark, size, 1, size);
  if (points >= least) return points;
  for (let row = 0; row < size - 1; row++) {
    let before = (dark[row * size] ?? 0) + (dark[(row + 1) * size] ?? 0);
    for (let at = row * size + 1, end = at + size - 1; at < end; at++) {
      const pair = (dark[at] ?? 0) + (dark[at + size] ?? 0);
      points += blockPoints[before + pair] ?? 0;
      before = pair;
    }
  }
  return points + 10 * Math.abs(Math.ceil((all * 20) / dark.length) - 10);
}

/**
 * The QR code of a text at level M (ISO/IEC 18004). The library encodes it; the mask is chosen here by the
 * standard's penalties, with the same choice in a tenth of the library's time, which thousands of labels feel.
 */
export function qrCode(text: string): QrCode {
  // Links are written so that all of them is one alphanumeric segment: no shorter mixture has to be looked for.
  const content = alphanumeric.test(text) ? [{ data: text, mode: 'alphanumeric' as const }] : text;
  const { modules } = create(content, { errorCorrectionLevel: 'M', maskPattern: 0 });
  const { size, data, reservedBit } = modules;
  let best: QrCode = { size, dark: data };
  let least = Infinity;
  const words = inWords(data);
  const tried = new Uint32Array(words.length);
  for (const turn of turnedFrom0(size, reservedBit)) {
    let all = 0;
    for (let at = 0; at < turn.length; at++) {
      const word = (words[at] ?? 0) ^ (turn[at] ?? 0);
      all += darkOf(word);
      tried[at] = word;
    }
    const dark = new Uint8Array(tried.buffer, 0, data.length);
    const points = penalty(dark, size, all, least);
    if (points >= least) continue;
    least = points;
    best = { size, dark: Uint8Array.from(dark) };
  }
  return best;
}

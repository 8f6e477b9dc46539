import { describe, expect, test } from '@jest/globals';
import { strToU8, zlibSync } from 'fflate';
import { pictureFault } from './picture.ts';
import { pngFault } from './png.ts';
import { svgFault } from './svg.ts';

const number = (value: number): number[] => [24, 16, 8, 0].map((shift) => (value >>> shift) & 255);
/** A chunk (ISO/IEC 15948, 5.3); what is checked here does not look at its checksum. */
const chunk = (type: string, data: Iterable<number>): number[] => {
  const bytes = [...data];
  return [...number(bytes.length), ...strToU8(type), ...bytes, 0, 0, 0, 0];
};
const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
interface Wish {
  size?: [number, number];
  depth?: number;
  colour?: number;
  interlace?: number;
  raw?: Uint8Array;
  chunks?: number[][];
  end?: number[];
}
const png = ({ size = [2, 2], depth = 8, colour = 6, interlace = 0, raw, chunks, end }: Wish = {}) =>
  Uint8Array.from([
    ...signature,
    ...chunk('IHDR', [...number(size[0]), ...number(size[1]), depth, colour, 0, 0, interlace]),
    ...(chunks ?? []).flat(),
    ...chunk('IDAT', zlibSync(raw ?? new Uint8Array(size[1] * (1 + size[0] * 4)))),
    ...(end ?? chunk('IEND', [])),
  ]);

describe('PNG pictures', () => {
  test.each<[string, Wish]>([
    ['8 bits, red, green, blue and opacity', {}],
    ['1 bit of grey, 10 wide', { size: [10, 3], depth: 1, colour: 0, raw: new Uint8Array(3 * (1 + 2)) }],
    [
      'a palette',
      { size: [3, 1], colour: 3, raw: new Uint8Array(4), chunks: [chunk('PLTE', [0, 0, 0, 9, 9, 9])] },
    ],
    // 8 × 8 in seven passes of 1, 1, 2, 4, 8, 16 and 32 pixels on 1, 1, 1, 2, 2, 4 and 4 lines.
    ['interlaced', { size: [8, 8], colour: 0, interlace: 1, raw: new Uint8Array(64 + 15) }],
    // In a picture one pixel wide the passes that begin at a later column are empty.
    ['interlaced, one pixel', { size: [1, 1], colour: 0, interlace: 1, raw: new Uint8Array(2) }],
  ])('%s: is kept', (_what, wish) => {
    expect(pngFault(png(wish))).toBeNull();
  });

  test.each<[string, Uint8Array, string]>([
    ['another file', strToU8('GIF89a and more than thirty-three bytes of it'), 'is not a PNG'],
    ['one without its end', png({ end: [] }), 'breaks off'],
    ['one that is cut in its data', png().slice(0, 45), 'breaks off'],
    [
      'a chunk longer than the file',
      png({ chunks: [[0x7f, 0xff, 0xff, 0xff, ...strToU8('tEXt')]] }),
      'breaks off',
    ],
    ['a chunk without a name', png({ chunks: [chunk('\u0000\u0000\u0000\u0000', [])] }), 'breaks off'],
    ['data of another size', png({ raw: new Uint8Array(5) }), 'not those of its size'],
    ['data that go on and on', png({ raw: new Uint8Array(50_000_000) }), 'not those of its size'],
    [
      'data that are none',
      Uint8Array.from([
        ...signature,
        ...chunk('IHDR', [...number(2), ...number(2), 8, 6, 0, 0, 0]),
        ...chunk('IDAT', [1, 2, 3]),
        ...chunk('IEND', []),
      ]),
      'not those of its size',
    ],
    [
      'no data at all',
      Uint8Array.from([
        ...signature,
        ...chunk('IHDR', [...number(2), ...number(2), 8, 6, 0, 0, 0]),
        ...chunk('IEND', []),
      ]),
      'not those of its size',
    ],
    [
      'a palette that is missing',
      png({ size: [3, 1], colour: 3, raw: new Uint8Array(4) }),
      'not those of its size',
    ],
    ['a depth that there is not', png({ depth: 7 }), 'damaged'],
    ['far too many pixels', png({ size: [4096, 4096] }), 'at most'],
    ['a width of nothing', png({ size: [0, 2] }), '0 × 2'],
    ['pictures that move', png({ chunks: [chunk('acTL', [0, 0, 0, 1, 0, 0, 0, 0])] }), 'moves'],
  ])('%s: is refused', (_what, bytes, why) => {
    expect(pngFault(bytes)).toContain(why);
  });

  test('whatever a bit is turned to, the answer is a fault or none, and comes', () => {
    const whole = png({ size: [4, 4] });
    for (let at = 0; at < whole.length * 8; at++) {
      const bent = whole.slice();
      bent[at >> 3] = (bent[at >> 3] ?? 0) ^ (1 << (at & 7));
      const fault = pngFault(bent);
      expect(fault === null || fault.startsWith('is ') || fault.startsWith('moves')).toBe(true);
    }
  });
});

const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${inside}</svg>`;

describe('SVG pictures', () => {
  test.each([
    ['a plain drawing', svg('<g id="a"><rect width="3" height="3"/></g><path d="M0 0L9 9"/>')],
    [
      'a part used again',
      svg('<defs><g id="a"><circle r="1"/></g></defs><use href="#a"/><use xlink:href="#a" x="3"/>'),
    ],
    [
      'a gradient after another',
      svg('<linearGradient id="a"/><linearGradient id="b" href="#a"/><rect fill="url(#b)"/>'),
    ],
    ['a reference to nothing', svg('<use href="#none"/>')],
  ])('%s: is kept', (_what, text) => {
    expect(svgFault(text)).toBeNull();
  });

  /** Ten uses of the one before, so many times over. */
  const nested = (levels: number): string =>
    Array.from(
      { length: levels },
      (_, at) => `<g id="g${at + 1}">${`<use href="#g${at}"/>`.repeat(10)}</g>`,
    ).join('');
  test.each([
    [
      'parts that use parts ten times over, eight deep',
      svg(`<g id="g0"><rect/></g>${nested(8)}`),
      'more than 100000',
    ],
    [
      'the same by patterns',
      svg(
        `${Array.from({ length: 8 }, (_, at) => `<pattern id="p${at + 1}">${`<rect fill="url(#p${at})"/>`.repeat(10)}</pattern>`).join('')}<rect id="p0"/>`,
      ),
      'more than 100000',
    ],
    [
      'a part that uses itself',
      svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'),
      'uses itself',
    ],
    ['a part within itself', svg('<g id="a"><use href="#a"/></g>'), 'uses itself'],
    ['a thousand groups in each other', svg(`${'<g>'.repeat(1000)}${'</g>'.repeat(1000)}`), '60 deep'],
    ['thirty thousand elements', svg('<a/>'.repeat(30_000)), '20000 elements'],
    ['comments without an end', svg('<!--'.repeat(30_000)), 'breaks off'],
    ['a script', svg('<script>1</script>'), 'a script'],
  ])('%s: is refused', (_what, text, why) => {
    expect(svgFault(text)).toContain(why);
  });

  test('is the same as a data URL', () => {
    const url = (text: string): string => `data:image/svg+xml;base64,${btoa(text)}`;
    expect(pictureFault(url(svg('<rect/>')))).toBeNull();
    expect(pictureFault(url(svg('<g id="a"><use href="#a"/></g>')))).toContain('uses itself');
    expect(pictureFault('data:image/png;base64,%%%')).toBe('is damaged');
  });
});

import { describe, expect, test } from '@jest/globals';
import { builtInModels } from '@visograph/core/catalogue';
import { moneyText } from '@visograph/core/model';
import { kindText, portCount, portText, sizeText } from './figures.ts';
import { readPicture } from './pictures.ts';

const named = (name: string) => {
  const found = builtInModels().find((model) => model.name === name);
  if (found === undefined) throw new Error(name);
  return found;
};

describe('figures in words', () => {
  test('ports, size and price of hardware, modules, optics and cables', () => {
    expect(portText(named('AX-2448P'))).toBe('48 × RJ45 1G PoE, 4 × SFP+ 10G');
    expect(portText(named('LC-36X'))).toBe('36 × SFP28 25G');
    expect(sizeText(named('AX-1208P'))).toBe('1 U half · 1.6 kg · 150 W');
    expect(sizeText(named('PS-16'))).toBe('0 U · 3.6 kg · 5 W · passes 3 680 W');
    expect(sizeText(named('LR-10'))).toBe('10G · 10 km');
    expect(sizeText(named('OM4 duplex LC'))).toBe('1 to 100 m');
    expect(moneyText(named('CR-6032'))).toBe('11 900.00 EUR');
    expect([kindText(named('Blank 1')), kindText(named('CM-1')), kindText(named('LC-48T'))]).toEqual([
      'blank panel',
      'cable manager',
      'module',
    ]);
  });

  test('a pattern that cannot be read has no ports', () => {
    expect([portCount('gi1/1-48'), portCount('te slot/1-8'), portCount('gi9-1')]).toEqual([48, 8, 0]);
  });
});

/** jsdom's Blob has no arrayBuffer. */
const file = (text: string): Blob =>
  ({ arrayBuffer: async () => new TextEncoder().encode(text).buffer }) as Blob;
const drawn = (picture: string): string => atob(picture.split(',')[1] ?? '');

describe('pictures', () => {
  test('a plain drawing is kept as it is', async () => {
    const read = await readPicture(
      file('<svg xmlns="http://www.w3.org/2000/svg"><rect width="4" height="4"></rect></svg>'),
    );
    expect(read).toMatchObject({ ok: true, removed: false });
    expect(read.ok && drawn(read.picture)).toContain('<rect width="4" height="4"');
  });

  test.each([
    ['<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script><rect width="4"/></svg>', 'script'],
    ['<svg xmlns="http://www.w3.org/2000/svg"><rect width="4" onclick="x()"/></svg>', 'onclick'],
    [
      '<svg xmlns="http://www.w3.org/2000/svg"><foreignObject><b>x</b></foreignObject><rect width="4"/></svg>',
      'foreignObject',
    ],
    [
      '<svg xmlns="http://www.w3.org/2000/svg"><a href="javascript:x()"><rect width="4"/></a></svg>',
      'javascript',
    ],
  ])('what is no drawing is taken out: %s', async (text, gone) => {
    const read = await readPicture(file(text));
    expect(read).toMatchObject({ ok: true, removed: true });
    expect(read.ok && drawn(read.picture).toLowerCase()).not.toContain(gone.toLowerCase());
    expect(read.ok && drawn(read.picture)).toContain('<rect width="4"');
  });

  test('a text, a page and a damaged PNG are refused in words', async () => {
    expect(await readPicture(file('hello'))).toEqual({
      ok: false,
      why: 'The file is neither a PNG nor an SVG picture.',
    });
    expect(await readPicture(file('<html><body>x</body></html>'))).toMatchObject({ ok: false });
    const png = { arrayBuffer: async () => new Uint8Array([0x89, 0x50, 1, 2, 3]).buffer } as Blob;
    expect(await readPicture(png)).toEqual({ ok: false, why: 'The picture is not a PNG picture.' });
  });
});

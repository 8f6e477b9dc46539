/** Labels as pages: what is printed is drawn again by another program, and its codes are read back. */
import { createCanvas } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { BinaryBitmap, Code128Reader, GlobalHistogramBinarizer, RGBLuminanceSource } from '@zxing/library';
import { schemas } from '@visograph/api';
import {
  labelPlace,
  labelSizes,
  labelsOf,
  notePrinted,
  thingLink,
  type LabelSize,
} from '@visograph/core/labels';
import { newId } from '@visograph/core/model';
import jsqr from 'jsqr';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { readPdf } from '../sheets/printing/testPdf.ts';
import { atHand, testServer, type AtHand, type Reply, type TestServer } from '../testServer.ts';

jest.setTimeout(90_000);
let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

interface Told {
  count: number;
  pages: number;
  unfit: number;
  problems: { kind: string; id: string; side: 'a' | 'b' | null; why: string }[];
}
const origin = 'https://net.marrow.example';
const get = (query: Record<string, string>, who = hand.rita): Promise<Reply<Told>> =>
  who.call('GET', hand.at(`labels?${new URLSearchParams(query).toString()}`));
const sizeOf = (key: string): LabelSize => {
  const found = labelSizes[key];
  if (found === undefined) throw new Error(key);
  return found.size;
};

const dotsPerMm = 24;
/** The dots of one label of a page, as a scanner sees them. */
async function scanned(bytes: Uint8Array, size: LabelSize, at: number) {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const { page: number, x, y } = labelPlace(size, at);
  const page = await document.getPage(number + 1);
  const viewport = page.getViewport({ scale: (dotsPerMm * 25.4) / 72 });
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
  const context = canvas.getContext('2d');
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  await page.render({ canvas: canvas as never, canvasContext: context as never, viewport }).promise;
  const [width, height] = [Math.floor(size.width * dotsPerMm), Math.floor(size.height * dotsPerMm)];
  return {
    ...context.getImageData(Math.round(x * dotsPerMm), Math.round(y * dotsPerMm), width, height),
    width,
    height,
  };
}

describe('labels of the demo', () => {
  test('a QR code on every label leads to its thing; each label says what it is of', async () => {
    const size = sizeOf('sheet-3x8');
    const network = await hand.network();
    const labels = labelsOf(network, 'devices', null);
    const reply = await get({ of: 'devices', size: 'sheet-3x8', code: 'qr', origin, format: 'pdf' });
    const { pages } = await readPdf(reply.bytes);
    expect(pages).toHaveLength(Math.ceil(labels.length / 24));
    const text = pages.map((page) => page.text).join(' ');
    for (const { lines } of labels) expect(text).toContain(lines[0]);
    for (const at of [0, 4, 23, labels.length - 1]) {
      const { data, width, height } = await scanned(reply.bytes, size, at);
      const label = labels[at];
      expect(jsqr(new Uint8ClampedArray(data), width, height)?.data).toBe(
        thingLink(origin, hand.projectId, label?.id ?? ''),
      );
    }
  });

  test('a tape of 18 mm takes a QR code, one of 6 mm does not, and says so', async () => {
    const narrow = { ...sizeOf('tape-9'), page: { width: 50, height: 6 }, height: 6 };
    const told = await get({ of: 'racks', measures: JSON.stringify(narrow), code: 'qr', origin });
    expect(schemas.labels.parse(told.body)).toEqual(told.body);
    expect(told.body).toMatchObject({ count: 0, pages: 0, unfit: 10 });
    expect(told.body.problems[0]?.why).toBe(
      'A QR code on a label of 50 × 6 mm is too fine to be scanned: take a larger label, or none.',
    );
    const reply = await get({ of: 'racks', size: 'tape-18', code: 'qr', origin, format: 'pdf' });
    const { data, width, height } = await scanned(reply.bytes, sizeOf('tape-18'), 3);
    const label = labelsOf(await hand.network(), 'racks', null)[3];
    expect(jsqr(new Uint8ClampedArray(data), width, height)?.data).toBe(
      thingLink(origin, hand.projectId, label?.id ?? ''),
    );
    const { pages } = await readPdf(reply.bytes);
    // A tape is cut label by label.
    expect(pages).toHaveLength(10);
    expect(pages[0]?.width).toBeCloseTo((70 * 72) / 25.4, 1);
  });

  test('Code 128 says the name', async () => {
    const size = sizeOf('sheet-3x7');
    const reply = await get({ of: 'cables', size: 'sheet-3x7', code: 'code128', format: 'pdf' });
    const labels = labelsOf(await hand.network(), 'cables', null);
    const { data, width, height } = await scanned(reply.bytes, size, 5);
    const grey = new Uint8ClampedArray(width * height).map((_dot, at) => data[at * 4] ?? 255);
    const bitmap = new BinaryBitmap(
      new GlobalHistogramBinarizer(new RGBLuminanceSource(grey, width, height)),
    );
    expect(new Code128Reader().decode(bitmap).getText()).toBe(labels[5]?.lines[0]);
  });

  test('a text that is too long for its label is told with the label, and the others are printed', async () => {
    const told = await get({ of: 'cables', size: 'sheet-7x27' });
    const { count, unfit, problems } = told.body;
    const all = labelsOf(await hand.network(), 'cables', null).length;
    expect(count + unfit).toBe(all);
    // All of them are told, each end by itself: who notes what is printed leaves just these out.
    expect(new Set(problems.map(({ id, side }) => `${id} ${side ?? ''}`)).size).toBe(unfit);
    expect(unfit).toBeGreaterThan(0);
    expect(problems[0]?.why).toMatch(
      /^“KQ-.* does not fit a label of 25.4 × 10 mm at 4.5 points: take a larger label/,
    );
  });

  test('only new ones, once they are noted as printed; a sheet that was begun is used up', async () => {
    const network = await hand.network();
    const attempt = notePrinted(network, labelsOf(network, 'racks', null).slice(0, 7), '2026-11-30');
    if (!attempt.ok) throw new Error(attempt.why);
    expect((await hand.ben.call('POST', hand.at('changes'), { id: newId(), ...attempt.set })).status).toBe(
      200,
    );
    expect((await get({ of: 'racks', size: 'sheet-3x8', fresh: '1' })).body).toMatchObject({
      count: 3,
      pages: 1,
    });
    expect((await get({ of: 'racks', size: 'sheet-3x8', fresh: '1', skip: '22' })).body.pages).toBe(2);
    const own = { ...sizeOf('sheet-3x8'), columns: 1, rows: 2 };
    expect((await get({ of: 'racks', measures: JSON.stringify(own) })).body.pages).toBe(5);
  });

  test.each([
    [{ of: 'clouds', size: 'tape-9' }, 'There are no labels of “clouds”. There are: cables, devices'],
    [{ size: 'huge' }, 'There is no label size “huge”'],
    [{ size: 'tape-9', code: 'dots' }, 'There is no code “dots”'],
    [{ size: 'tape-9', code: 'qr' }, 'origin is missing'],
    [{ size: 'tape-9', code: 'qr', origin: 'javascript:alert(1)' }, 'origin is missing'],
    [{ measures: '{' }, 'measures is not JSON'],
    [{ measures: JSON.stringify({ ...sizeOf('tape-9'), width: 400 }) }, '1 columns need 400 mm'],
    [{ size: 'sheet-3x8', skip: '24' }, 'of which 0 to 23 can be used already'],
  ])('%j is refused: %s', async (query, detail) => {
    const reply = await get(query);
    expect([reply.status, reply.text.includes(detail)]).toEqual([400, true]);
  });
});

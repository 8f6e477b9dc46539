import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { type ChangeSet } from '@visograph/core/change';
import { newId, type Network, type Sheet } from '@visograph/core/model';
import { addMark, addSheet, changeMark, setFacet } from '@visograph/core/sheets';
import { eastAsianPaths } from '@visograph/typeface';
import type { MissingGlyphs } from './printing/order.ts';
import { readPdf } from './printing/testPdf.ts';
import { testServer, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let ben: Caller;
let projectId: string;
let sheet: Sheet;
jest.setTimeout(60_000);

const network = async (): Promise<Network> => (await server.store.read(projectId)).network;
const send = async ({ changes, sentence }: ChangeSet): Promise<void> => {
  const reply = await ben.call('POST', `/projects/${projectId}/changes`, {
    id: newId(),
    changes,
    sentence,
  });
  expect(reply.status).toBe(200);
};
const written = async (text: string): Promise<void> => {
  const [mark] = (await network()).find('marksBySheet', sheet.id);
  if (mark !== undefined) await send(changeMark(sheet, mark, { text }));
};
const at = (what: string): string => `/projects/${projectId}/sheets/${sheet.id}/${what}`;
const missing = async (): Promise<MissingGlyphs> =>
  (await ben.call<MissingGlyphs>('POST', `/projects/${projectId}/missing-glyphs`, { sheetIds: [sheet.id] }))
    .body;

beforeAll(async () => {
  server = await testServer();
  ben = await server.caller('ben@marrow.example');
  projectId = (await ben.call<{ id: string }[]>('GET', '/projects')).body[0]?.id ?? '';
  // A sheet of one note, with nothing else on it.
  const made = addSheet(await network(), { scopeId: null, name: 'Scripts', deviceIds: [] });
  await send(made);
  const found = (await network()).get('sheet', made.sheetId);
  if (found === null) throw new Error('no sheet');
  await send(addMark(found, 'note', { text: 'x', width: 400 }));
  await send(setFacet(found, 'titleBlock', 'hidden'));
  sheet = (await network()).get('sheet', made.sheetId) ?? found;
}, 60_000);
afterAll(async () => server.end());

describe('text of any script', () => {
  test.each([
    ['Greek', 'Διακόπτης'],
    ['Cyrillic', 'Коммутатор'],
    ['Hebrew', 'מתג'],
    ['Arabic', 'مبدّل'],
    ['arrows and signs', '⇄→≥✓'],
    ['a combining mark', 'Cafe\u0301'],
  ])('%s can be read back from the PDF', async (_script, word) => {
    await written(`core ${word} 7`);
    const { pages } = await readPdf((await ben.call('GET', at('pdf'))).bytes);
    const read = (pages[0]?.text ?? '').normalize('NFKC');
    // Letters of right-to-left scripts are read one by one from left to right, or put in order by the reader.
    const letters = (text: string): string => [...text.normalize('NFKC')].sort().join('');
    expect(letters(read.replace(/[\s7]|core/g, ''))).toBe(letters(word.replace(/\s/g, '')));
    expect(read).toContain('core');
  });

  test('a picture has letters and not boxes: other letters, another picture', async () => {
    const picture = async (text: string): Promise<string> => {
      await written(text);
      return Buffer.from((await ben.call('GET', at('png?scale=1'))).bytes).toString('base64');
    };
    // What no font has is the same box whatever it is.
    expect(await picture('\u{1f4a1}')).toBe(await picture('\u{1f525}'));
    for (const [one, other] of [
      ['α', 'ξ'],
      ['ж', 'ю'],
      ['ש', 'מ'],
      ['ش', 'ق'],
      ['⇄', '⇅'],
    ] as const)
      expect(await picture(one)).not.toBe(await picture(other));
    // Arabic letters take the form of their place: joined they are not the two beside each other.
    expect(await picture('بب')).not.toBe(await picture('ب\u200cب'));
  });

  test('what would be boxes is named before it is printed', async () => {
    await written('Διακόπτης مبدّل ⇄');
    expect(await missing()).toEqual({ texts: [], eastAsian: false, others: false });
    await written('lamp \u{1f4a1}');
    expect(await missing()).toEqual({
      texts: [{ text: 'lamp \u{1f4a1}', characters: ['\u{1f4a1}'], sheets: ['Scripts'] }],
      eastAsian: false,
      others: true,
    });
    await written('核心');
    const found = await missing();
    if (eastAsianPaths.length === 0)
      expect([found.texts[0]?.characters, found.eastAsian, found.others]).toEqual([
        ['核', '心'],
        true,
        false,
      ]);
    else expect(found.texts).toEqual([]);
  });

  test('the SVG keeps its text whole and carries what draws it', async () => {
    await written('Διακόπτης');
    const svg = (await ben.call('GET', at('svg'))).text;
    expect(svg).toContain('Διακόπτης');
    expect(svg.match(/@font-face/g)).toHaveLength(8);
  });

  test('the browser is told of East Asian fonts where they are, and of none where they are not', async () => {
    const css = await (await fetch(`${server.url}/fonts/east-asian.css`)).text();
    expect(css.match(/@font-face/g)?.length ?? 0).toBe(eastAsianPaths.length * 2);
  });
});

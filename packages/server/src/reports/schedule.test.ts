/** Schedules over the API: as data, and as files that other programs open. */
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { schemas } from '@visograph/api';
import { applyChanges, create } from '@visograph/core/change';
import { blankDevice, newId, type Question } from '@visograph/core/model';
import { keepSchedule, type ToldAnswer } from '@visograph/core/report';
import { csvRows } from '@visograph/core/exchange';
import { unzipSync } from 'fflate';
import readSheet from 'read-excel-file/node';
import { readPdf } from '../sheets/printing/testPdf.ts';
import { atHand, testServer, type AtHand, type Reply, type TestServer } from '../testServer.ts';

jest.setTimeout(60_000);
let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

const question: Question = {
  of: 'cables',
  scopeId: null,
  columns: [
    { key: 'label', title: 'Cable', width: null, total: 'count' },
    { key: 'lengthM', title: null, width: null, total: 'sum' },
    { key: 'aDevice', title: null, width: null, total: null },
  ],
  filters: [{ key: 'lengthM', test: 'at least', value: '40' }],
  groups: ['type'],
  order: [{ key: 'label', descending: false }],
  numbered: true,
  blankRepeats: false,
  notes: 'Measured in October.\nCheck the long ones.',
};
const get = (query: Record<string, string>, who = hand.rita): Promise<Reply<ToldAnswer>> =>
  who.call('GET', hand.at(`schedule?${new URLSearchParams(query).toString()}`));
const asked = (format: string, of: Question = question): Promise<Reply<ToldAnswer>> =>
  get({
    question: JSON.stringify(of),
    title: 'Long cables',
    on: '2026-11-30',
    ...(format === '' ? {} : { format }),
  });

/** What the network itself says of long cables, without the code of schedules. */
async function longCables(): Promise<{ type: string; labels: string[]; metres: number }[]> {
  const network = await hand.network();
  const byType = new Map<string, { labels: string[]; metres: number }>();
  for (const { typeId, label, lengthM } of network.all('cable')) {
    if (lengthM === null || lengthM < 40) continue;
    const model = network.get('model', typeId);
    const type = [model?.maker, model?.name].filter((part) => part != null).join(' ');
    const known = byType.get(type) ?? { labels: [], metres: 0 };
    byType.set(type, { labels: [...known.labels, label], metres: known.metres + lengthM });
  }
  return [...byType].map(([type, one]) => ({ type, labels: one.labels.sort(), metres: one.metres }));
}

describe('a question', () => {
  test('is answered with its groups, sums and rows', async () => {
    const reply = await asked('');
    expect(schemas.scheduleAnswer.parse(reply.body)).toEqual(reply.body);
    const expected = await longCables();
    const groups = reply.body.lines.flatMap((line) => (line.form === 'group' ? [line] : []));
    expect(groups.map(({ totals, count }) => [count, totals['lengthM']]).sort()).toEqual(
      expected.map(({ labels, metres }) => [labels.length, metres]).sort(),
    );
    expect(expected.length).toBeGreaterThan(1);
    const rows = reply.body.lines.flatMap((line) => (line.form === 'row' ? [line.cells['label']] : []));
    expect(rows.sort()).toEqual(expected.flatMap(({ labels }) => labels).sort());
    expect(reply.body.totals['lengthM']).toBe(expected.reduce((sum, { metres }) => sum + metres, 0));
  });

  test('as CSV every row has its group, and a line of the heads', async () => {
    const rows = csvRows((await asked('csv')).text.replace('\uFEFF', ''));
    expect(rows[0]).toEqual(['No.', 'Type', 'Cable', 'Length (m)', 'A device']);
    const expected = await longCables();
    expect(
      rows
        .slice(1)
        .map((row) => `${row[1]} ${row[2]}`)
        .sort(),
    ).toEqual(expected.flatMap(({ type, labels }) => labels.map((label) => `${type} ${label}`)).sort());
  });

  test('as a workbook: opened by another library, figures as figures, groups that fold, heads that stay', async () => {
    const reply = await asked('xlsx');
    const [sheet] = await readSheet(Buffer.from(reply.bytes));
    const rows = sheet?.data ?? [];
    const expected = await longCables();
    const metres = rows.slice(1).flatMap((row) => (typeof row[0] === 'number' ? [row[2]] : []));
    expect(metres.reduce<number>((sum, value) => sum + Number(value), 0)).toBe(
      expected.reduce((sum, one) => sum + one.metres, 0),
    );
    expect(metres.every((value) => typeof value === 'number')).toBe(true);
    expect(rows.at(-1)?.[0]).toBe('Check the long ones.');
    const xml = new TextDecoder().decode(unzipSync(reply.bytes)['xl/worksheets/sheet1.xml']);
    expect(xml).toMatch(/<pane [^>]*state="frozen"/);
    expect(xml.match(/outlineLevel="1"/g)).toHaveLength(metres.length);
  });

  test('days are days in a workbook', async () => {
    const reply = await asked('xlsx', {
      ...question,
      of: 'inventory',
      groups: [],
      filters: [{ key: 'supportUntil', test: 'is not empty', value: '' }],
      columns: ['name', 'supportUntil'].map((key) => ({ key, title: null, width: null, total: null })),
      order: [],
    });
    const [sheet] = await readSheet(Buffer.from(reply.bytes));
    const days = (sheet?.data ?? []).slice(1).flatMap((row) => (typeof row[0] === 'number' ? [row[2]] : []));
    expect(days.length).toBeGreaterThan(0);
    expect(days.every((day) => day instanceof Date)).toBe(true);
    const supported = [...(await hand.network()).all('device')].find(
      ({ supportUntil }) => supportUntil !== null,
    );
    expect(days.map((day) => (day instanceof Date ? day.toISOString().slice(0, 10) : ''))).toContain(
      supported?.supportUntil,
    );
  });

  test('as PDF: title, heads on every page, every cable, notes, pages numbered', async () => {
    const { pages, bookmarks } = await readPdf(
      (await asked('pdf', { ...question, filters: [], groups: [] })).bytes,
    );
    const network = await hand.network();
    expect(pages.length).toBeGreaterThan(2);
    expect(bookmarks).toEqual(['Long cables']);
    const text = pages.map((page) => page.text).join(' ');
    for (const { label } of network.all('cable')) expect(text).toContain(label);
    for (const [at, page] of pages.entries()) {
      expect(page.text).toContain('A device');
      expect(page.text).toContain(`${at + 1} / ${pages.length}`);
    }
    expect(text).toContain('Check the long ones.');
    // Few columns: upright.
    expect(pages[0]?.height).toBeGreaterThan(pages[0]?.width ?? 0);
  });
});

describe('what it is asked of', () => {
  test('a schedule of the project by its name, whatever its case; what is wrong with it is told in the answer', async () => {
    const network = await hand.network();
    const kept = keepSchedule(
      network,
      { ...question, columns: [...question.columns, { key: 'gone', title: null, width: null, total: null }] },
      'Long ones',
    );
    if (!kept.ok) throw new Error(kept.why);
    const written = await hand.ben.call('POST', hand.at('changes'), { id: newId(), ...kept.set });
    expect(written.status).toBe(200);
    const reply = await get({ name: 'LONG ones' });
    expect(reply.body.problems).toEqual([
      'Cable schedule has no column “gone” any more: it is listed without it. Choose another, or take it out.',
    ]);
    expect(reply.body.count).toBe((await longCables()).flatMap(({ labels }) => labels).length);
  });

  test.each([
    [{}, 400, 'Say which schedule'],
    [{ name: 'Nothing' }, 404, 'The schedule Nothing'],
    [{ question: '{' }, 400, 'question is not JSON'],
    [{ question: '{"of":"cables"}' }, 400, 'question.scopeId is missing'],
    [{ question: JSON.stringify({ ...question, columns: [] }) }, 400, 'columns are missing'],
    [{ question: JSON.stringify({ ...question, of: 'colours' }) }, 404, 'The built-in schedule colours'],
    [{ question: JSON.stringify(question), on: 'soon' }, 400, 'on is soon'],
    [{ question: JSON.stringify(question), scope: '018f0000-0000-7000-8000-000000000000' }, 404, 'The place'],
  ])('%j: %i, %s', async (query, status, detail) => {
    const reply = await get(query);
    expect(reply.status).toBe(status);
    expect(reply.text).toContain(detail);
  });

  test('a schedule of every script is printed with its letters', async () => {
    const network = await hand.network();
    const names = ['Ἀθήνα-1', 'Ростов-2', 'קו-3', 'محطة-4'];
    const changes = names.map((name) => create('device', { ...blankDevice, id: newId(), name, role: 'SV' }));
    if (!applyChanges(network, changes).ok) throw new Error('names');
    const sent = { id: newId(), changes, sentence: 'Servers of every script' };
    expect((await hand.ben.call('POST', hand.at('changes'), sent)).status).toBe(200);
    const columns = ['name', 'role'].map((key) => ({ key, title: null, width: null, total: null }));
    const { pages } = await readPdf(
      (await asked('pdf', { ...question, of: 'devices', groups: [], order: [], filters: [], columns })).bytes,
    );
    const text = pages
      .map((page) => page.text)
      .join('')
      .replaceAll(' ', '')
      .normalize('NFC');
    // What stands right to left is read back from its other end.
    for (const name of ['Ἀθήνα-1', 'Ростов-2', '3-קו', '4-محطة']) expect(text).toContain(name);
  });
});

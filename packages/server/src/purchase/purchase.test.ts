/** Parts lists and quotations over the API: as data, as files that other programs open, kept by the database. */
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { schemas } from '@visograph/api';
import { csvRows } from '@visograph/core/exchange';
import { newId } from '@visograph/core/model';
import { beginQuotation, changeQuotation, issueQuotation, reviseQuotation } from '@visograph/core/purchase';
import readSheet from 'read-excel-file/node';
import { readPdf } from '../sheets/printing/testPdf.ts';
import { atHand, testServer, type AtHand, type Reply, type TestServer } from '../testServer.ts';

jest.setTimeout(120_000);
let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

const get = <T = unknown>(path: string, query: Record<string, string>, who = hand.rita): Promise<Reply<T>> =>
  who.call<T>('GET', hand.at(`${path}?${new URLSearchParams(query).toString()}`));
const link = { list: 'Otterslip second link', on: '2026-11-30' };

describe('a parts list', () => {
  test('as data: its groups, its sum, what to look at before it is ordered', async () => {
    const reply = await get<{ totalMinor: number; groups: { title: string }[]; concerns: unknown[] }>(
      'parts',
      link,
    );
    expect(schemas.parts.parse(reply.body)).toEqual(reply.body);
    expect(reply.body).toMatchObject({ totalMinor: 589_880, unpriced: 0, currency: 'EUR' });
    expect(reply.body.groups.map(({ title }) => title)).toEqual([
      'Devices',
      'Cables',
      'Services',
      'Further parts',
    ]);
    expect(reply.body.concerns).not.toHaveLength(0);
  });

  test('as CSV and as a workbook that another library opens', async () => {
    const csv = await get('parts', { ...link, format: 'csv', by: 'supplier' });
    const rows = csvRows(csv.text.replace(/^\uFEFF/, ''));
    expect(rows[0]?.slice(0, 2)).toEqual(['Supplier', 'Part']);
    expect(rows.some((row) => row.includes('Harrow Marine Supplies'))).toBe(true);
    const xlsx = await get('parts', { ...link, format: 'xlsx' });
    const [sheet] = await readSheet(Buffer.from(xlsx.bytes));
    const cells = JSON.stringify(sheet);
    expect(cells).toContain('Norvane WB-60');
    expect(cells).toContain('5 898.80 EUR');
  });

  test('what is asked wrongly is told', async () => {
    expect([(await get('parts', {})).status, (await get('parts', { list: 'Nothing' })).status]).toEqual([
      400, 404,
    ]);
    expect((await get('parts', { ...link, by: 'colour' })).text).toContain('section, supplier, place');
    expect((await get('parts', { ...link, on: 'soon' })).status).toBe(400);
    expect((await get('quotation', {})).status).toBe(400);
    expect((await get('quotation', { number: 'Q-0031', revision: '7' })).status).toBe(404);
  });
});

describe('a quotation', () => {
  test('as data with its sums; as a workbook', async () => {
    const reply = await get<{ totals: { totalMinor: number } }>('quotation', { number: 'q-0031' });
    expect(reply.body.totals.totalMinor).toBe(701_957);
    const xlsx = await get('quotation', { number: 'Q-0031', format: 'xlsx' });
    const [sheet] = await readSheet(Buffer.from(xlsx.bytes));
    const rows = (sheet as unknown as { data?: unknown[][] }).data ?? (sheet as unknown as unknown[][]);
    expect(JSON.stringify(rows)).toContain('7019.57');
  });

  test('as PDF: its head, lines, sums and terms can be read back; the drawings that it names follow', async () => {
    const network = await hand.network();
    const list = [...network.all('partsList')].find(({ name }) => name === link.list) ?? null;
    const draft = beginQuotation(network, list, '2026-11-30', {
      ...{
        number: 'Q-9',
        customer: 'Hafenamt Ærø, 港務局',
        tax: 1900,
        drawings: ['Data room · cabling', 'gone'],
      },
      terms: 'Payment within 30 days.',
    });
    if (!draft.ok) throw new Error(draft.why);
    const kept = await hand.ben.call('POST', hand.at('changes'), { id: newId(), ...draft.set });
    expect(kept.status).toBe(200);
    const pdf = await readPdf((await get('quotation', { number: 'Q-9', format: 'pdf' })).bytes);
    const text = pdf.pages.map(({ text: own }) => own.replaceAll(/\s+/g, ' ')).join('\n');
    for (const part of [
      'Quotation Q-9',
      'draft',
      'Hafenamt Ærø',
      'Norvane IX-812P',
      '2 598.00',
      '7 019.57 EUR',
    ])
      expect(text).toContain(part);
    expect(text).toContain('Payment within 30 days.');
    expect(pdf.pages.length).toBeGreaterThanOrEqual(2);
    expect(text).toContain('kq-core-1');
  });

  test('issued it stays: the application refuses a change, and so does the database itself', async () => {
    const own = async (number: string, revision = 1) => {
      const network = await hand.network();
      const row = network.find('quotationsByNumber', number).find((one) => one.revision === revision);
      if (row === undefined) throw new Error(`no ${number}`);
      return { network, row };
    };
    const send = async (attempt: ReturnType<typeof issueQuotation>): Promise<Reply> => {
      if (!attempt.ok) throw new Error(attempt.why);
      return hand.ben.call('POST', hand.at('changes'), { id: newId(), ...attempt.set });
    };
    const draft = await own('q-9');
    const changed = changeQuotation(draft.network, draft.row, { customer: 'Somebody else' });
    expect((await send(issueQuotation(draft.network, draft.row))).status).toBe(200);
    const late = await send(changed);
    expect([late.status, late.text]).toEqual([422, expect.stringContaining('is issued and stays as it is')]);
    const undone = await hand.ben.call('POST', hand.at('undo'), {});
    expect(undone.text).toContain('is issued and stays as it is');
    await expect(
      server.knex('quotation').where({ id: draft.row.id }).update({ customer: 'Somebody else' }),
    ).rejects.toThrow('stays as it is');
    await expect(
      server.knex('quotation').where({ id: draft.row.id }).update({ status: 'draft' }),
    ).rejects.toThrow('stays as it is');
    await server.knex('quotation').where({ id: draft.row.id }).update({ parts_list_id: null });
    const issued = await own('q-9');
    expect((await send(reviseQuotation(issued.network, issued.row, '2026-12-01'))).status).toBe(200);
    expect((await own('q-9', 2)).row.status).toBe('draft');
    const last = await get<{ quotation: { revision: number } }>('quotation', { number: 'Q-9' });
    expect(last.body.quotation.revision).toBe(2);
  });
});

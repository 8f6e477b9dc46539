import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { update, type ChangeSet } from '@visograph/core/change';
import {
  inSheetOrder,
  addMark,
  addSheet,
  changeMark,
  copySheet,
  orderSheets,
  placeOnSheet,
} from '@visograph/core/sheets';
import { newId, type Network, type Sheet } from '@visograph/core/model';
import { atHand, demoFile, testServer, type AtHand, Caller, type TestServer } from '../testServer.ts';
import type { SheetChange } from '../store/sheetChanges.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

interface Since {
  seen: number | null;
  lines: { author: string; sentence: string; revision: number }[];
}
const since = async (who: Caller): Promise<Since> => (await who.call<Since>('GET', hand.at('since'))).body;
const seen = async (who: Caller, revision: number): Promise<number> =>
  (await who.call('PUT', hand.at('seen'), { revision })).status;
const changes = async (who: Caller): Promise<SheetChange[]> =>
  (await who.call<SheetChange[]>('GET', hand.at('sheets'))).body;
async function does(who: Caller, set: ChangeSet): Promise<number> {
  const { changes: made, sentence } = set;
  const reply = await who.call<{ revision: number }>('POST', hand.at('changes'), {
    id: newId(),
    changes: made,
    sentence,
  });
  if (reply.status !== 200) throw new Error(reply.text);
  return reply.body.revision;
}
const rename = (network: Network, name: string, to: string): ChangeSet => {
  const device = network.findOne('deviceByName', name);
  const change = device === null ? null : update('device', device, { notes: to });
  return { changes: change === null ? [] : [change], sentence: `Noted ${to} of ${name}` };
};

describe('what changed since one was last there', () => {
  test('nothing is told the first time; then what others did, not what one did', async () => {
    expect(await since(hand.anna)).toEqual({ seen: null, lines: [] });
    const { revision } = await server.store.read(hand.projectId);
    expect(await seen(hand.anna, revision)).toBe(204);
    await does(hand.ben, rename(await hand.network(), 'kq-core-1', 'a'));
    await does(hand.anna, rename(await hand.network(), 'kq-core-1', 'b'));
    await does(hand.ben, rename(await hand.network(), 'kq-core-1', 'c'));
    const told = await since(hand.anna);
    expect(told.seen).toBe(revision);
    expect(told.lines.map(({ author, sentence }) => [author, sentence])).toEqual([
      ['Ben Adair', 'Noted c of kq-core-1'],
      ['Ben Adair', 'Noted a of kq-core-1'],
    ]);
  });

  test('it never goes back, nor ahead of what there is; a reader has one of their own', async () => {
    const { revision } = await server.store.read(hand.projectId);
    await seen(hand.anna, revision + 1000);
    expect((await since(hand.anna)).seen).toBe(revision);
    await seen(hand.anna, 1);
    expect((await since(hand.anna)).seen).toBe(revision);
    expect((await since(hand.rita)).seen).toBeNull();
    expect(await seen(hand.rita, 1)).toBe(204);
    expect((await since(hand.rita)).lines.length).toBeGreaterThan(2);
    const stranger = await server.caller();
    expect((await stranger.call('GET', hand.at('since'))).status).toBe(401);
    expect((await hand.anna.call('PUT', hand.at('seen'), { revision: -1 })).status).toBe(400);
  });
});

describe('who changed a sheet last', () => {
  const first = async (): Promise<Sheet> => {
    const [sheet] = inSheetOrder((await hand.network()).all('sheet'));
    if (sheet === undefined) throw new Error('no sheet');
    return sheet;
  };
  const changeOf = async (sheet: Sheet): Promise<SheetChange | undefined> =>
    (await changes(hand.rita)).find(({ id }) => id === sheet.id);

  test('every sheet of the demo came with it; a mark, its move and a plate moved are changes of their sheet', async () => {
    const network = await hand.network();
    expect(await changes(hand.rita)).toHaveLength(network.count('sheet'));
    const sheet = await first();
    const set = addMark(sheet, 'note', { text: 'Look' });
    const made = await does(hand.ben, set);
    expect(await changeOf(sheet)).toMatchObject({ revision: made, author: 'Ben Adair' });
    const mark = (await hand.network()).get('mark', set.markId);
    if (mark === null) throw new Error('no mark');
    const moved = await does(hand.anna, changeMark(sheet, mark, { x: 40 }));
    expect(await changeOf(sheet)).toMatchObject({ revision: moved, author: 'Anna Kerr' });
    const device = network.findOne('deviceByName', 'kq-core-1');
    const placed = placeOnSheet(network, sheet, new Map([[device?.id ?? '', { x: 8, y: 16 }]]));
    const third = await does(hand.ben, placed);
    expect(await changeOf(sheet)).toMatchObject({ revision: third, author: 'Ben Adair' });
  });

  test('undone is a change too; what is no part of a sheet is none; a sheet that is gone is not told', async () => {
    const sheet = await first();
    const before = await changeOf(sheet);
    await does(hand.ben, rename(await hand.network(), 'kq-core-1', 'd'));
    expect(await changeOf(sheet)).toEqual(before);
    const copy = copySheet(await hand.network(), sheet);
    await does(hand.ben, copy);
    expect((await changes(hand.rita))[0]?.id).toBe(copy.sheetId);
    await hand.ben.call('POST', hand.at('undo'), {});
    expect((await changes(hand.rita)).some(({ id }) => id === copy.sheetId)).toBe(false);
  });

  test('an order that is given is kept by the database, and is a change of those that moved', async () => {
    const network = await hand.network();
    const ids = inSheetOrder(network.all('sheet'))
      .map(({ id }) => id)
      .reverse();
    await does(hand.anna, orderSheets(network, ids));
    const after = await (await server.second()).store.read(hand.projectId);
    expect(inSheetOrder(after.network.all('sheet')).map(({ id }) => id)).toEqual(ids);
    const wrong = addSheet(network, { scopeId: null });
    const [made] = wrong.changes;
    const reply = await hand.anna.call('POST', hand.at('changes'), {
      id: newId(),
      sentence: 'A wrong order',
      changes: [made?.op === 'create' ? { ...made, after: { ...made.after, position: 0 } } : made],
    });
    expect(reply.status).toBe(422);
    expect(reply.text).toContain('below 1');
  });
});

describe('beginning with the example', () => {
  test('a server that has one makes a project of it; one that has none says so', async () => {
    const own = async (who: Caller): Promise<string> =>
      (await who.call<{ id: string }>('POST', '/projects', { name: 'Mine' })).body.id;
    const none = await hand.anna.call('POST', `/projects/${await own(hand.anna)}/example`);
    expect([none.status, none.text]).toEqual([404, expect.stringContaining('no example network')]);
    const other = await testServer({ exampleFile: demoFile });
    const anna = await other.caller('anna@marrow.example');
    const id = await own(anna);
    const made = await anna.call<{ created: number }>('POST', `/projects/${id}/example`);
    expect(made.status).toBe(200);
    expect(made.body.created).toBeGreaterThan(1000);
    const { network } = await other.store.read(id);
    expect(network.count('device')).toBe((await hand.network()).count('device'));
    await other.end();
  });
});

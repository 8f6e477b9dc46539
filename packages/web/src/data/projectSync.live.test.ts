/** A window's sync against the real server and database: what people do at once, and what goes wrong between them. */
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { create, type ChangeSet } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { addDevice } from '@visograph/core/racks';
import { blankPlace, newId, type Network } from '@visograph/core/model';
import { WebSocket as Socket } from 'ws';
import {
  accountOf,
  atHand,
  bringIn,
  testServer,
  type AtHand,
  type TestServer,
} from '../../../server/src/testServer.ts';
import { ProjectSync, type View } from './projectSync.ts';

jest.setTimeout(60_000);
let server: TestServer;
let hand: AtHand;
let cookie = '';
let online = true;
/** So many edits are refused as too many at once. */
let refused = 0;
const sockets = new Set<Socket>();
const windows: ProjectSync[] = [];
const kept = new Map<string, string>();

beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
  const { fetch } = globalThis;
  Object.assign(globalThis, {
    location: { protocol: 'http:', host: new URL(server.url).host },
    sessionStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    },
    fetch: (path: string, init: RequestInit = {}) => {
      // What other people send goes its own way.
      if (!path.startsWith('/')) return fetch(path, init);
      if (!online) return Promise.reject(new TypeError('no network'));
      if (refused > 0 && init.method === 'POST' && path.endsWith('/changes')) {
        refused--;
        return Promise.resolve(new Response('{"detail":"30 of yours wait already."}', { status: 429 }));
      }
      return fetch(`${server.url}${path}`, { ...init, headers: { ...init.headers, Cookie: cookie } });
    },
    WebSocket: class extends Socket {
      constructor(url: string) {
        super(online ? url : 'ws://127.0.0.1:1', { headers: { Cookie: cookie } });
        this.on('error', () => undefined);
        sockets.add(this);
        this.on('close', () => sockets.delete(this));
      }
    },
  });
});
afterAll(async () => server.end());
beforeEach(() => {
  cookie = hand.anna.cookies;
  online = true;
  kept.clear();
});
afterEach(() => {
  for (const one of windows.splice(0)) one.close();
});

const until = (sync: ProjectSync, fits: (view: View) => boolean, patience = 15_000): Promise<View> =>
  new Promise((resolve, reject) => {
    const late = setTimeout(() => {
      const { save, waiting, revision, notice, failed } = sync.current();
      reject(
        new Error(`it never came to that: ${JSON.stringify({ save, waiting, revision, notice, failed })}`),
      );
    }, patience);
    const look = (): void => {
      if (!fits(sync.current())) return;
      clearTimeout(late);
      leave();
      resolve(sync.current());
    };
    const leave = sync.subscribe(look);
    look();
  });
const saved = (sync: ProjectSync, patience?: number): Promise<View> =>
  until(sync, ({ save, waiting }) => save === 'saved' && waiting === 0, patience);
const openWindow = async (account = 'anna'): Promise<ProjectSync> => {
  const sync = new ProjectSync({ projectId: hand.projectId, line: null }, account);
  windows.push(sync);
  await sync.open();
  await saved(sync);
  return sync;
};
const cutOff = (): void => {
  online = false;
  for (const socket of sockets) socket.terminate();
};

/** So many others are told to be there. */
const heard = ({ presence }: ProjectSync, count: number): Promise<void> =>
  new Promise((resolve) => {
    const look = (): void => {
      if (presence.current().length !== count) return;
      leave();
      resolve();
    };
    const leave = presence.subscribe(look);
    look();
  });

const device = (network: Network, name = 'kq-acc-1') => {
  const found = network.findOne('deviceByName', name);
  if (found === null) throw new Error(`no ${name}`);
  return found;
};
const serialSet = (network: Network, serial: string, name?: string) =>
  editRow(network, 'device', device(network, name), { serial });
/** What another person does meanwhile. */
const benSets = async (serial: string, name?: string): Promise<void> => {
  const network = await hand.network();
  const reply = await hand.ben.call('POST', hand.at('changes'), {
    id: newId(),
    ...serialSet(network, serial, name),
  });
  expect(reply.status).toBe(200);
};

describe('a window and the server', () => {
  test('an edit shows at once and is saved; another window of the same person has it too', async () => {
    const [here, there] = [await openWindow(), await openWindow()];
    const before = here.current().revision;
    expect(here.commit(serialSet(here.current().network, 'S-1'))).toEqual({ ok: true });
    expect(device(here.current().network).serial).toBe('S-1');
    expect(here.current()).toMatchObject({ save: 'saving', waiting: 1, revision: before });
    expect((await saved(here)).revision).toBe(before + 1);
    const seen = await until(there, ({ revision }) => revision === before + 1);
    expect(device(seen.network).serial).toBe('S-1');
    expect(device(await hand.network()).serial).toBe('S-1');
    expect(kept.size).toBe(0);
  });

  test('an edit of thousands of rows is saved and taken back, one that follows waits for it; others have both', async () => {
    const [here, there] = [await openWindow(), await openWindow()];
    const { revision, network } = here.current();
    const count = network.count('place');
    const changes = Array.from({ length: 2000 }, (_, at) => {
      const after = {
        ...blankPlace,
        id: newId(),
        name: `Berth ${at}`,
        kind: 'site' as const,
        parentId: null,
      };
      return create('place', after);
    });
    expect(here.commit({ sentence: 'Added 2,000 berths', changes })).toEqual({ ok: true });
    expect(here.commit(serialSet(here.current().network, 'after them'))).toEqual({ ok: true });
    expect((await saved(here, 40_000)).revision).toBe(revision + 2);
    await until(there, (view) => view.revision === revision + 2);
    expect(there.current().network.count('place')).toBe(count + 2000);
    here.step('undo');
    here.step('undo');
    const undone = await until(
      here,
      (view) => view.revision === revision + 4 && view.save === 'saved',
      40_000,
    );
    expect(undone.network.count('place')).toBe(count);
    expect((await hand.network()).count('place')).toBe(count);
  }, 120_000);

  test('what the model forbids is refused here with the field, and nothing is sent', async () => {
    const here = await openWindow();
    const { revision, network } = here.current();
    const refused = here.commit(editRow(network, 'device', device(network), { name: 'kq-acc-2' }));
    expect(refused).toMatchObject({ ok: false, problems: [{ kind: 'device', field: 'name' }] });
    expect(here.current()).toMatchObject({ revision, waiting: 0, save: 'saved' });
  });

  test('two people at one field: the later one is taken back with both values, the window goes on', async () => {
    const here = await openWindow();
    cutOff();
    here.commit(serialSet(here.current().network, 'mine'));
    await until(here, ({ save }) => save === 'offline');
    await benSets('theirs');
    online = true;
    const view = await until(here, ({ notice, save }) => notice?.tone === 'bad' && save === 'saved');
    expect(view.notice?.text).toContain('kq-acc-1: Serial was changed by somebody else');
    expect(view.waiting).toBe(0);
    expect(device(view.network).serial).toBe('theirs');
    here.commit(serialSet(here.current().network, 'again'));
    await saved(here);
    expect(device(await hand.network()).serial).toBe('again');
  });

  test('two people are offered one name: the later one gets the next, and is told; nothing is lost', async () => {
    const mine = await openWindow();
    const { network } = mine.current();
    const site = [...network.all('place')].find(({ kind }) => kind === 'site');
    const model = [...network.all('model')].find(({ name }) => name === 'AX-2424P');
    const add = (): (ChangeSet & { deviceId: string }) | null =>
      addDevice(network, {
        ...{ name: 'kq-new-1', modelId: model?.id ?? '', rackId: null },
        ...{ placeId: site?.id ?? null, unit: null },
      });
    const [theirs, own] = [add(), add()];
    if (theirs === null || own === null) throw new Error('no device');
    cutOff();
    expect(mine.commit(own).ok).toBe(true);
    const sent = await hand.ben.call('POST', hand.at('changes'), {
      id: newId(),
      ...{ changes: theirs.changes, sentence: theirs.sentence },
    });
    expect(sent.status).toBe(200);
    online = true;
    const view = await saved(mine);
    expect(view.notice).toMatchObject({
      tone: 'ok',
      text: 'kq-new-1 was taken meanwhile: it is kq-new-2 now.',
    });
    expect(view.network.findOne('deviceByName', 'kq-new-2')?.id).toBe(own.deviceId);
    const [last] = (await hand.anna.call<{ sentence: string }[]>('GET', hand.at('changes'))).body;
    expect(last?.sentence).toContain('kq-new-2');
  });

  test('away from the server edits wait in order, over a reload as well, and are sent when it is back', async () => {
    const here = await openWindow();
    const { revision } = here.current();
    cutOff();
    here.commit(serialSet(here.current().network, 'W-1'));
    here.commit(serialSet(here.current().network, 'W-2', 'kq-acc-2'));
    const waiting = await until(here, ({ save }) => save === 'offline');
    expect(waiting.waiting).toBe(2);
    here.close();
    // The page is loaded again while the server is still away.
    const again = new ProjectSync({ projectId: hand.projectId, line: null }, 'anna');
    windows.push(again);
    const opened = again.open();
    await until(again, ({ save }) => save === 'offline');
    online = true;
    await opened;
    const view = await saved(again);
    expect(view.revision).toBe(revision + 2);
    const network = await hand.network();
    expect([device(network).serial, device(network, 'kq-acc-2').serial]).toEqual(['W-1', 'W-2']);
  });

  test('an edit that is one too many at once waits, and is sent again: nothing that was typed is lost', async () => {
    const here = await openWindow();
    refused = 2;
    here.commit(serialSet(here.current().network, 'B-1'));
    const view = await saved(here);
    expect([refused, view.notice?.tone]).toEqual([0, undefined]);
    expect(device(await hand.network()).serial).toBe('B-1');
  });

  test('edits that wait are those of the person who made them', async () => {
    const here = await openWindow('anna');
    cutOff();
    here.commit(serialSet(here.current().network, 'annas'));
    await until(here, ({ save }) => save === 'offline');
    here.close();
    online = true;
    const other = await openWindow('ben');
    expect(other.current().waiting).toBe(0);
    expect(device(other.current().network).serial).not.toBe('annas');
  });

  test('entries that were missed are loaded: a gap closes, and what waits here stays on top', async () => {
    const here = await openWindow();
    cutOff();
    await until(here, ({ save }) => save === 'offline');
    for (const serial of ['G-1', 'G-2', 'G-3']) await benSets(serial, 'kq-acc-3');
    here.commit(serialSet(here.current().network, 'own', 'kq-acc-4'));
    online = true;
    const view = await saved(here);
    expect(device(view.network, 'kq-acc-3').serial).toBe('G-3');
    expect(device(view.network, 'kq-acc-4').serial).toBe('own');
  });

  test('undo and redo are told with their sentence; what somebody built upon is refused with the reason', async () => {
    const here = await openWindow();
    here.commit(serialSet(here.current().network, 'U-1', 'kq-acc-5'));
    await saved(here);
    here.step('undo');
    const undone = await until(here, ({ notice, waiting }) => notice !== null && waiting === 0);
    expect(undone.notice).toMatchObject({ tone: 'ok', text: expect.stringContaining('kq-acc-5') as unknown });
    expect(device(undone.network, 'kq-acc-5').serial).not.toBe('U-1');
    here.step('redo');
    const redone = await until(here, ({ notice, waiting }) => notice !== null && waiting === 0);
    expect([redone.notice?.tone, device(redone.network, 'kq-acc-5').serial]).toEqual(['ok', 'U-1']);
    await benSets('on top', 'kq-acc-5');
    await until(here, ({ network }) => device(network, 'kq-acc-5').serial === 'on top');
    here.step('undo');
    const refused = await until(here, ({ notice }) => notice?.tone === 'bad');
    expect(device(refused.network, 'kq-acc-5').serial).toBe('on top');
  });

  test('a session that ended keeps the edit, and sends it once signed in again', async () => {
    const here = await openWindow();
    const signedIn = cookie;
    cookie = 'none=1';
    here.commit(serialSet(here.current().network, 'kept', 'kq-core-1'));
    const out = await until(here, ({ save }) => save === 'signedOut');
    expect([out.waiting, device(out.network, 'kq-core-1').serial]).toEqual([1, 'kept']);
    cookie = signedIn;
    await here.resume();
    await saved(here);
    expect(device(await hand.network(), 'kq-core-1').serial).toBe('kept');
  });

  test('a project that is not there, or not for this person, says so and stops asking', async () => {
    const stray = new ProjectSync({ projectId: newId(), line: null }, 'anna');
    windows.push(stray);
    await stray.open();
    expect(stray.current().failed).toMatch(/project/i);
    expect(stray.current().save).toBe('loading');
  });

  test('a database that was put back is believed: the window shows what there is', async () => {
    const here = await openWindow();
    const { revision, network } = here.current();
    const before = device(network, 'kq-core-2').serial;
    here.commit(serialSet(network, 'lost', 'kq-core-2'));
    await saved(here);
    cutOff();
    await until(here, ({ save }) => save === 'offline');
    const { knex } = server;
    await knex('change_set')
      .where({ projectId: hand.projectId, revision: revision + 1 })
      .delete();
    await knex('device').where({ projectId: hand.projectId, name: 'kq-core-2' }).update({ serial: before });
    await knex('project').where({ id: hand.projectId }).update({ revision });
    // As when it was started on it.
    server.store.forget(hand.projectId);
    online = true;
    const view = await until(here, (now) => now.revision === revision && now.save === 'saved');
    expect(device(view.network, 'kq-core-2').serial).toBe(before);
    here.commit(serialSet(here.current().network, 'after', 'kq-core-2'));
    expect((await saved(here)).revision).toBe(revision + 1);
  });

  test('who is taken out while the window is cut off is told when it comes back, and asks no further', async () => {
    const olaf = await server.caller('rita@marrow.example');
    cookie = olaf.cookies;
    let asked = 0;
    const here = new ProjectSync({ projectId: hand.projectId, line: null }, 'rita', () => asked++);
    windows.push(here);
    await here.open();
    await saved(here);
    cutOff();
    await until(here, ({ save }) => save === 'offline');
    const account = await accountOf(olaf);
    await hand.anna.call('DELETE', hand.at(`members/${account}`));
    online = true;
    const view = await until(here, ({ failed }) => failed !== null);
    expect([view.failed, asked > 0]).toEqual([expect.stringMatching(/project/i), true]);
    await bringIn(hand.anna, hand.projectId, olaf, 'reader');
  });

  test('a reader’s edit is refused by the server and taken back', async () => {
    cookie = hand.rita.cookies;
    const here = await openWindow('rita');
    const before = device(here.current().network).serial;
    here.commit(serialSet(here.current().network, 'not mine'));
    const view = await until(here, ({ notice }) => notice?.tone === 'bad');
    expect(device(view.network).serial).toBe(before);
    expect(view.waiting).toBe(0);
  });

  test('who else is on a sheet is heard, and forgotten when they leave', async () => {
    const [here, there] = [await openWindow(), await openWindow()];
    const sheetId = newId();
    there.presence.tell({ sheetId, at: { x: 8, y: 16 }, selection: [sheetId] });
    await heard(here, 1);
    expect(here.presence.current()).toMatchObject([{ sheetId, at: { x: 8, y: 16 }, selection: [sheetId] }]);
    there.close();
    await heard(here, 0);
  });
});

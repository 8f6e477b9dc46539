import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type JournalEntry } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { newId } from '@visograph/core/model';
import { WebSocket } from 'ws';
import { testServer, type Caller, type TestServer } from '../testServer.ts';
import type { LiveMessage } from './live.ts';

let server: TestServer;
let anna: Caller;
let projectId: string;

beforeAll(async () => {
  server = await testServer();
  anna = await server.caller('anna@marrow.example');
  projectId = (await anna.call<{ id: string }[]>('GET', '/projects')).body[0]?.id ?? '';
}, 60_000);
afterAll(async () => server.end());

const open = (
  url: string,
  cookie: string,
): Promise<{ next: () => Promise<LiveMessage>; say: (text: string) => void; close: () => void }> =>
  new Promise((resolve, reject) => {
    const socket = new WebSocket(`${url.replace('http', 'ws')}/api/v1/projects/${projectId}/live`, {
      headers: { Cookie: cookie },
    });
    const messages: LiveMessage[] = [];
    const waiting: ((message: LiveMessage) => void)[] = [];
    socket.on('message', (data) => {
      const message = JSON.parse(String(data)) as LiveMessage;
      const taker = waiting.shift();
      if (taker === undefined) messages.push(message);
      else taker(message);
    });
    socket.on('error', reject);
    socket.on('open', () =>
      resolve({
        next: () => {
          const ready = messages.shift();
          return ready === undefined ? new Promise((take) => waiting.push(take)) : Promise.resolve(ready);
        },
        say: (text) => socket.send(text),
        close: () => socket.close(),
      }),
    );
  });

const edit = async (serial: string): Promise<JournalEntry> => {
  const { network } = await server.store.read(projectId);
  const device = network.findOne('deviceByName', 'kq-acc-1');
  if (device === null) throw new Error('no device');
  const reply = await anna.call<JournalEntry>('POST', `/projects/${projectId}/changes`, {
    id: newId(),
    ...editRow(network, 'device', device, { serial }),
  });
  return reply.body;
};

test('others hear of every step, with its changes', async () => {
  const ben = await server.caller('ben@marrow.example');
  const line = await open(server.url, ben.cookies);
  const entry = await edit('pushed');
  expect(await line.next()).toEqual({ type: 'entry', entry: { ...entry, at: expect.any(String) } });
  line.close();
});

test('also those who are on another server of the same database', async () => {
  const second = await server.second();
  const ben = await server.caller('ben@marrow.example');
  await second.store.read(projectId);
  const line = await open(second.url, ben.cookies);
  const entry = await edit('from afar');
  const heard = await line.next();
  expect(heard).toMatchObject({
    type: 'entry',
    entry: { revision: entry.revision, sentence: entry.sentence },
  });
  const there = (await second.store.read(projectId)).network.findOne('deviceByName', 'kq-acc-1');
  expect(there?.serial).toBe('from afar');
  line.close();
});

test('nobody listens without a session, or to a project of others', async () => {
  await expect(open(server.url, '')).rejects.toThrow('401');
  const made = await anna.call<{ id: string }>('POST', '/projects', { name: 'Private' });
  const ben = await server.caller('ben@marrow.example');
  const before = projectId;
  projectId = made.body.id;
  await expect(open(server.url, ben.cookies)).rejects.toThrow('404');
  projectId = before;
});

test('others see where somebody is on a sheet, and when they have gone; nonsense is passed over', async () => {
  const ben = await server.caller('ben@marrow.example');
  const [one, two] = [await open(server.url, anna.cookies), await open(server.url, ben.cookies)];
  one.say('not JSON');
  one.say(JSON.stringify({ type: 'here', sheetId: 'no id', at: null, selection: [] }));
  one.say(JSON.stringify({ type: 'here', sheetId: null, at: { x: 3, y: 4 }, selection: ['plate'] }));
  const peer = await two.next();
  expect(peer).toMatchObject({ type: 'peer', name: 'Anna Kerr', at: { x: 3, y: 4 }, selection: ['plate'] });
  one.close();
  expect(await two.next()).toEqual({ type: 'gone', peer: 'peer' in peer ? peer.peer : '' });
  two.close();
});

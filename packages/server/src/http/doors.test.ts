/** What stands at the entrances: bodies, ids, sign-in, members, sockets, and what happens while the database is away. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { blankPlace, newId } from '@visograph/core/model';
import { request as httpRequest } from 'node:http';
import pg from 'pg';
import { WebSocket } from 'ws';
import {
  accountOf,
  atHand,
  bringIn,
  Caller,
  testServer,
  type AtHand,
  type TestServer,
} from '../testServer.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

async function addPlace(who: Caller, projectId: string, name: string, id = newId()) {
  const after = { ...blankPlace, id, name, kind: 'site', parentId: null };
  const changes = [{ op: 'create', kind: 'place', id, after }];
  const body = { id: newId(), sentence: `Added ${name}`, changes };
  return who.call<{ detail?: string; revision?: number }>('POST', `/projects/${projectId}/changes`, body);
}

describe('bodies', () => {
  test('of strangers are not read: the answer comes before they are sent', async () => {
    const { hostname, port } = new URL(server.url);
    const status = await new Promise<number>((resolve, reject) => {
      const sent = httpRequest(
        {
          ...{ hostname, port, method: 'POST', path: `/api/v1${hand.at('changes')}` },
          headers: { 'Content-Type': 'application/json', 'Content-Length': 16 * 1024 * 1024 },
        },
        (reply) => {
          resolve(reply.statusCode ?? 0);
          sent.destroy();
        },
      );
      sent.on('error', reject);
      // A beginning, and then nothing.
      sent.write('['.repeat(1000));
    });
    expect(status).toBe(401);
  });

  test('nested deeper than any request is are refused while they are read', async () => {
    const deep = new TextEncoder().encode(`{"changes":${'['.repeat(1_000_000)}`);
    const reply = await hand.ben.call<{ detail: string }>('POST', hand.at('changes'), deep);
    expect([reply.status, reply.body.detail]).toEqual([400, expect.stringContaining('more than 60 deep')]);
    const file = await hand.ben.call<{ detail: string }>('POST', hand.at('exchange'), '['.repeat(1_000_000));
    expect([file.status, file.body.detail]).toEqual([422, expect.stringContaining('too deep')]);
    // Brackets in a text are text.
    const text = JSON.stringify({ id: newId(), sentence: '[{'.repeat(100), changes: [] });
    expect((await hand.ben.call<{ detail: string }>('POST', hand.at('changes'), text)).body.detail).toContain(
      'changes',
    );
  });

  test('larger than their call takes are refused with how much that is', async () => {
    const large = (size: number) => new Uint8Array(size).fill(0x20);
    const undo = await hand.ben.call<{ detail: string }>('POST', hand.at('undo'), large(70_000));
    expect([undo.status, undo.body.detail]).toEqual([413, expect.stringContaining('64 kB')]);
    const sheet = await hand.ben.call<{ detail: string }>('POST', hand.at('spreadsheet'), large(6_000_000));
    expect([sheet.status, sheet.body.detail]).toEqual([413, expect.stringContaining('5 MB')]);
  });

  test('that are no UTF-8 or no JSON are told so', async () => {
    const asked = async (bytes: number[] | string) =>
      (
        await hand.ben.call<{ detail: string }>(
          'POST',
          hand.at('undo'),
          typeof bytes === 'string' ? bytes : Uint8Array.from(bytes),
        )
      ).body.detail;
    expect(await asked([0x22, 0xff, 0x22])).toContain('not UTF-8');
    expect(await asked('{"id":')).toContain('not JSON');
  });
});

test('a connection that says nothing is kept for longer than a proxy keeps its own', async () => {
  const { headers } = await hand.anna.call('GET', '/session');
  expect(headers.get('keep-alive')).toBe('timeout=75');
});

describe('ids', () => {
  test('of a project in other letters mean the same project: one copy, and live', async () => {
    const upper = hand.projectId.toUpperCase();
    const socket = new WebSocket(`${server.url.replace('http', 'ws')}/api/v1/projects/${upper}/live`, {
      headers: { Cookie: hand.rita.cookies },
    });
    const told: string[] = [];
    socket.on('message', (data: Buffer) => told.push(String(data)));
    await new Promise((open) => socket.once('open', open));
    const made = await addPlace(hand.ben, upper, 'Upper Quay');
    expect(made.status).toBe(200);
    const [one, other] = await Promise.all(
      [upper, hand.projectId].map((id) =>
        hand.rita.call<{ revision: number }>('GET', `/projects/${id}/network`),
      ),
    );
    expect([one?.body.revision, other?.body.revision]).toEqual([made.body.revision, made.body.revision]);
    for (let turn = 0; turn < 50 && told.length === 0; turn++)
      await new Promise((done) => setTimeout(done, 20));
    expect(told.some((text) => text.includes('Upper Quay'))).toBe(true);
    socket.close();
  });

  test('of another project tell nothing: the same id is as good as any', async () => {
    const own = (await hand.rita.call<{ id: string }>('POST', '/projects', { name: 'Elsewhere' })).body.id;
    const theirs = [...(await hand.network()).all('place')][0];
    const made = await addPlace(hand.rita, own, 'Mine', theirs?.id);
    expect(made.status).toBe(200);
    expect([...(await hand.network()).all('place')].find(({ id }) => id === theirs?.id)?.name).toBe(
      theirs?.name,
    );
    const mine = (await server.store.read(own)).network;
    expect(mine.get('place', theirs?.id ?? '')?.name).toBe('Mine');
    // Nor does a reference lead out of the project, whoever asks the database.
    const rack = [...(await hand.network()).all('rack')][0];
    await expect(
      server.knex.raw('UPDATE rack SET place_id = ? WHERE id = ?', [newId(), rack?.id ?? '']),
    ).rejects.toMatchObject({ code: '23503' });
  });

  test('names that are one to people are one to the database, and those that are two are two', async () => {
    const own = (await hand.rita.call<{ id: string }>('POST', '/projects', { name: 'Letters' })).body.id;
    const statuses: number[] = [];
    for (const name of [
      'ISTANBUL',
      'İSTANBUL',
      'ısTANBUL',
      'istanbul',
      'ΟΔΟΣ',
      'οδος',
      'οδοσ',
      'STRASSE',
      'Straße',
    ])
      statuses.push((await addPlace(hand.rita, own, name)).status);
    expect(statuses).toEqual([200, 200, 200, 422, 200, 422, 200, 200, 200]);
  });
});

describe('sign-in', () => {
  const tries = async (
    base: string,
    emails: string[],
    headers: Record<string, string> = {},
  ): Promise<number[]> => {
    const statuses: number[] = [];
    for (const email of emails) {
      const wish = { email, password: 'wrong password' };
      statuses.push((await new Caller(base).call('POST', '/session', wish, headers)).status);
    }
    return statuses;
  };
  const times = <T>(count: number, value: T): T[] => Array.from({ length: count }, () => value);

  test('is counted by account however its address is typed, and by source over many accounts', async () => {
    const strict = await server.second({ signInTries: 3 });
    const spelled = [
      'ben@marrow.example',
      ' ben@marrow.example',
      'BEN@marrow.example\t',
      'ｂen@marrow.example',
      'Ben@Marrow.Example',
    ];
    expect(await tries(strict.url, spelled)).toEqual([401, 401, 401, 429, 429]);
    // Five times as many of one source, whoever they are tried at: the five above count too.
    const names = Array.from({ length: 14 }, (_, at) => `nobody${at}@marrow.example`);
    const sprayed = await tries(strict.url, names);
    expect(sprayed.filter((status) => status === 401)).toHaveLength(12);
    expect(sprayed.slice(12)).toEqual([429, 429]);
    // Whoever signs in rightly gives nothing up, and another server counts along.
    const other = await server.second({ signInTries: 3 });
    expect(await tries(other.url, ['ben@marrow.example'])).toEqual([429]);
    await server.knex('sign_in_try').delete();
    for (let count = 0; count < 20; count++) await new Caller(strict.url).signIn('ben@marrow.example');
    expect(await tries(strict.url, times(4, 'ben@marrow.example'))).toEqual([401, 401, 401, 429]);
    await server.knex('sign_in_try').delete();
  });

  test('many at once are counted as many', async () => {
    const strict = await server.second({ signInTries: 3 });
    const all = await Promise.all(
      times(12, 'rita@marrow.example').map((email) => tries(strict.url, [email])),
    );
    expect(all.flat().filter((status) => status === 401).length).toBeLessThanOrEqual(3);
    await server.knex('sign_in_try').delete();
  });

  test('takes a proxy’s word on the source only where that is set', async () => {
    const from = (address: string) => ({ 'X-Forwarded-For': address });
    const [open, behind] = [
      await server.second({ signInTries: 1 }),
      await server.second({ signInTries: 1, trustedProxies: ['loopback'] }),
    ];
    expect(
      (await tries(open.url, ['a@b.example'], from('192.0.2.1'))).concat(
        await tries(open.url, ['a@b.example'], from('192.0.2.2')),
      ),
    ).toEqual([401, 429]);
    await server.knex('sign_in_try').delete();
    expect(
      (await tries(behind.url, ['a@b.example'], from('192.0.2.1'))).concat(
        await tries(behind.url, ['a@b.example'], from('192.0.2.2')),
      ),
    ).toEqual([401, 401]);
    await server.knex('sign_in_try').delete();
  });
});

describe('members', () => {
  test('a project keeps an owner, whoever demotes whom at the same moment', async () => {
    const [annaId, benId] = [await accountOf(hand.anna), await accountOf(hand.ben)];
    for (let round = 0; round < 8; round++) {
      const project = (await hand.anna.call<{ id: string }>('POST', '/projects', { name: `Pair ${round}` }))
        .body.id;
      const members = `/projects/${project}/members`;
      await bringIn(hand.anna, project, hand.ben, 'owner');
      const [a, b] = await Promise.all([
        round % 2 === 0
          ? hand.anna.call('PUT', `${members}/${benId}`, { role: 'reader' })
          : hand.anna.call('DELETE', `${members}/${benId.toUpperCase()}`),
        hand.ben.call('PUT', `${members}/${annaId}`, { role: 'reader' }),
      ]);
      expect([a.status, b.status].sort()).not.toEqual([200, 200]);
      const owners = await server.knex('membership').where({ projectId: project, role: 'owner' });
      expect(owners).toHaveLength(1);
    }
    // One's own id is one's own in whatever letters.
    const members = hand.at('members');
    expect((await hand.anna.call('DELETE', `${members}/${annaId.toUpperCase()}`)).status).toBe(422);
    expect((await hand.anna.call('DELETE', `${members}/not-a-uuid`)).status).toBe(404);
    // And the database holds it, whoever asks.
    await expect(
      server.knex.raw(`DELETE FROM membership WHERE project_id = ? AND role = 'owner'`, [hand.projectId]),
    ).rejects.toMatchObject({ constraint: 'project_has_owner' });
  });
});

describe('sockets', () => {
  const open = (url: string, who: Caller): Promise<WebSocket> =>
    new Promise((resolve, reject) => {
      const socket = new WebSocket(`${url.replace('http', 'ws')}/api/v1${hand.at('live')}`, {
        headers: { Cookie: who.cookies },
      });
      socket.once('open', () => resolve(socket));
      socket.once('error', reject);
    });
  const closing = (socket: WebSocket): Promise<number> =>
    Promise.race([
      new Promise<number>((resolve) => socket.once('close', resolve)),
      new Promise<number>((resolve) => setTimeout(() => resolve(0), 3000)),
    ]);

  test('are closed at every server when their person signs out there, and no others', async () => {
    const second = await server.second();
    const [leaving, staying] = [
      await server.caller('ben@marrow.example'),
      await server.caller('ben@marrow.example'),
    ];
    const [here, there, other] = [
      await open(server.url, leaving),
      await open(second.url, leaving),
      await open(second.url, staying),
    ];
    const codes = Promise.all([closing(here), closing(there)]);
    await leaving.call('DELETE', '/session');
    expect(await codes).toEqual([4001, 4001]);
    expect(other.readyState).toBe(WebSocket.OPEN);
    other.close();
  });

  test('are closed when the role of their person changes, also where another server does it', async () => {
    const second = await server.second();
    const [here, there] = [await open(server.url, hand.rita), await open(second.url, hand.rita)];
    const codes = Promise.all([closing(here), closing(there)]);
    expect(
      (await hand.anna.call('PUT', hand.at(`members/${await accountOf(hand.rita)}`), { role: 'reader' }))
        .status,
    ).toBe(200);
    expect(await codes).toEqual([4001, 4001]);
    const again = await open(server.url, hand.rita);
    again.close();
  });

  test('of one person are so many and no more', async () => {
    const many: WebSocket[] = [];
    const refused = await (async () => {
      for (let count = 0; count < 40; count++) many.push(await open(server.url, hand.rita));
      return '';
    })().catch((error: unknown) => String(error));
    expect(refused).toContain('429');
    expect(many).toHaveLength(30);
    for (const one of many) one.close();
  });
});

test('with room for one project in memory, several are used side by side, and windows hear of what is not in it', async () => {
  const small = await server.second({ cacheRows: 10 });
  const anna = await new Caller(small.url).signIn('anna@marrow.example');
  const own = (await anna.call<{ id: string }>('POST', '/projects', { name: 'Small' })).body.id;
  const socket = new WebSocket(`${small.url.replace('http', 'ws')}/api/v1${hand.at('live')}`, {
    headers: { Cookie: anna.cookies },
  });
  const told: string[] = [];
  socket.on('message', (data: Buffer) => told.push(String(data)));
  await new Promise((ready) => socket.once('open', ready));
  for (let round = 0; round < 3; round++) {
    expect((await addPlace(anna, own, `Small ${round}`)).status).toBe(200);
    expect((await addPlace(anna, hand.projectId, `Other ${round}`)).status).toBe(200);
  }
  // The network of the own project has taken the room of the other, which somebody else now changes.
  await anna.call('GET', `/projects/${own}/network`);
  told.length = 0;
  expect((await addPlace(hand.ben, hand.projectId, 'From afar')).status).toBe(200);
  for (let turn = 0; turn < 100 && told.length === 0; turn++)
    await new Promise((done) => setTimeout(done, 20));
  expect(told.map((text) => (JSON.parse(text) as { type: string }).type)).toContain('reload');
  const { body } = await anna.call<{ rows: { place: { name: string }[] } }>('GET', hand.at('network'));
  expect(body.rows.place.map(({ name }) => name)).toEqual(expect.arrayContaining(['Other 2', 'From afar']));
  socket.close();
});

test('while the database takes nobody, requests are asked to come again, and an edit is made once it does', async () => {
  const own = await testServer();
  const admin = new pg.Client({ connectionString: process.env['VISOGRAPH_TEST_DATABASE'] });
  await admin.connect();
  const name = new URL(own.databaseUrl).pathname.slice(1);
  try {
    const here = await atHand(own);
    await here.ben.call('GET', here.at('network'));
    await admin.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS false`);
    await admin.query('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1', [name]);
    const known = [...(await own.store.read(here.projectId)).network.all('place')][0];
    const id = newId();
    const edit = {
      id: newId(),
      sentence: 'Kept',
      changes: [{ op: 'create', kind: 'place', id, after: { ...known, id, name: 'Kept', code: null } }],
    };
    for (let round = 0; round < 5; round++) {
      const reply = await here.ben.call<{ title: string }>('POST', here.at('changes'), edit);
      expect([reply.status, reply.headers.get('retry-after')]).toEqual([503, '2']);
    }
    expect((await here.ben.call('GET', '/projects')).status).toBe(503);
    expect((await here.ben.call('POST', here.at('missing-glyphs'), { sheetIds: [newId()] })).status).toBe(
      503,
    );
    const started = performance.now();
    const stranger = new Caller(own.url, false);
    expect((await stranger.call('GET', '/health')).body).toEqual({ status: 'ok' });
    const ready = await stranger.call('GET', '/ready');
    expect([ready.status, ready.body]).toMatchObject([503, { ready: false, database: false }]);
    // Whatever is away: each answers within its second.
    expect(performance.now() - started).toBeLessThan(4000);
    await admin.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS true`);
    const made = await here.ben.call<{ revision: number }>('POST', here.at('changes'), edit);
    expect(made.status).toBe(200);
    expect((await here.ben.call<{ revision: number }>('POST', here.at('changes'), edit)).body.revision).toBe(
      made.body.revision,
    );
    expect((await stranger.call('GET', '/ready')).body).toEqual({ ready: true, database: true, jobs: true });
  } finally {
    await admin.query(`ALTER DATABASE ${name} ALLOW_CONNECTIONS true`);
    await admin.end();
    await own.end();
  }
}, 90_000);

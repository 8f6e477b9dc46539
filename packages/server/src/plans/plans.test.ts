import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { create, type Change, type ChangeSet, type JournalEntry } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { type PlanConflict } from '@visograph/core/lens';
import { newId, type Device, type Network } from '@visograph/core/model';
import { deleteDevice } from '@visograph/core/racks';
import { once } from 'node:events';
import { WebSocket } from 'ws';
import { atHand, testServer, type AtHand, type Caller, type Reply, type TestServer } from '../testServer.ts';

let server: TestServer;
let here: AtHand;
jest.setTimeout(60_000);
beforeAll(async () => {
  server = await testServer();
  here = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

interface Plan {
  id: string;
  name: string;
  revision: number;
  thrownAway: { by: string } | null;
}
/** What came over a socket, in words. */
interface Heard {
  heard: string[];
  socket: WebSocket;
  until: (count: number) => Promise<void>;
}
interface Refused {
  detail: string;
  problems: { code: string; field: string; free?: string }[];
}

const begin = async (name: string): Promise<string> => {
  const reply = await here.ben.call<Plan>('POST', here.at('plans'), { name });
  expect(reply.status).toBe(200);
  return reply.body.id;
};
const device = (network: Network, name: string): Device => {
  const found = network.findOne('deviceByName', name);
  if (found === null) throw new Error(name);
  return found;
};
const send = (
  who: Caller,
  plan: string | null,
  { changes, sentence }: ChangeSet,
): Promise<Reply<JournalEntry & Refused>> =>
  who.call('POST', here.at(`changes${plan === null ? '' : `?plan=${plan}`}`), {
    id: newId(),
    changes,
    sentence,
  });
const set = async (who: Caller, plan: string | null, name: string, fields: Partial<Device>) => {
  const network = await here.network(plan === null ? null : plan.toLowerCase());
  const reply = await send(who, plan, editRow(network, 'device', device(network, name), fields));
  expect([reply.status, reply.body.detail]).toEqual([200, undefined]);
  return reply.body;
};
const named = (of: Network, name: string): Change =>
  create('device', {
    ...device(of, 'kq-acc-1'),
    id: newId(),
    name,
    unit: null,
    rackId: null,
    placeId: [...of.all('place')][0]?.id ?? '',
    serial: null,
  });
const add = (who: Caller, plan: string | null, of: Network, name: string) =>
  send(who, plan, { changes: [named(of, name)], sentence: `Added ${name}` });
const detail = async (plan: string) =>
  (
    await here.rita.call<Plan & { base: number | null; conflicts: PlanConflict[] }>(
      'GET',
      here.at(`plans/${plan}`),
    )
  ).body;
const seen = async (plan: string, name: string, query = ''): Promise<Device | undefined> =>
  (
    await here.rita.call<{ rows: { device: Device[] } }>('GET', here.at(`network?plan=${plan}${query}`))
  ).body.rows.device.find((one) => one.name === name);
const exported = async (): Promise<string> => (await here.rita.call('GET', here.at('exchange'))).text;

describe('the line of history of a plan', () => {
  test('is edited by two, each undoing their own; as built does not notice', async () => {
    const before = await exported();
    const plan = await begin('Second link');
    await set(here.ben, plan, 'kq-acc-1', { serial: 'BEN' });
    await set(here.anna, plan, 'kq-acc-2', { serial: 'ANNA' });
    expect([(await seen(plan, 'kq-acc-1'))?.serial, (await seen(plan, 'kq-acc-2'))?.serial]).toEqual([
      'BEN',
      'ANNA',
    ]);
    expect((await here.ben.call('POST', here.at(`undo?plan=${plan}`), {})).status).toBe(200);
    expect([(await seen(plan, 'kq-acc-1'))?.serial, (await seen(plan, 'kq-acc-2'))?.serial]).toEqual([
      device(await here.network(), 'kq-acc-1').serial,
      'ANNA',
    ]);
    const nothing = await here.ben.call<Refused>('POST', here.at(`undo?plan=${plan}`), {});
    expect([nothing.status, nothing.body.detail]).toEqual([
      409,
      'There is no step of yours left to take back or make again.',
    ]);
    const again = await here.ben.call<JournalEntry>('POST', here.at(`redo?plan=${plan}`), {});
    expect(again.body).toMatchObject({ line: plan, changes: [{ op: 'update', after: { serial: 'BEN' } }] });
    expect((await seen(plan, 'kq-acc-1'))?.serial).toBe('BEN');
    const lines = await here.rita.call<{ sentence: string; author: string }[]>(
      'GET',
      here.at(`changes?plan=${plan}`),
    );
    expect(lines.body.map(({ author }) => author)).toEqual([
      'Ben Adair',
      'Ben Adair',
      'Anna Kerr',
      'Ben Adair',
      'Ben Adair',
    ]);
    expect(lines.body.at(-1)?.sentence).toBe('Began the plan Second link');
    // As built, its file and its history know nothing of it; the file of the plan does.
    expect(await exported()).toBe(before);
    expect((await here.rita.call('GET', here.at(`exchange?plan=${plan}`))).text).toContain('ANNA');
    // The same wish sent twice is one entry; a reader writes nothing.
    const wish = { id: newId(), sentence: 'Once', changes: [named(await here.network(), 'once-1')] };
    const [one, other] = [
      await here.ben.call<JournalEntry>('POST', here.at(`changes?plan=${plan}`), wish),
      await here.ben.call<JournalEntry>('POST', here.at(`changes?plan=${plan}`), wish),
    ];
    expect(other.body.revision).toBe(one.body.revision);
    expect((await send(here.rita, plan, { changes: wish.changes, sentence: 'No' })).status).toBe(403);
  });

  test('is replayed when as built moves: what contradicts is told with both values and lost nowhere', async () => {
    const plan = await begin('Move over');
    const { network } = await server.store.read(here.projectId);
    await set(here.ben, plan, 'kq-core-1', { serial: 'PLAN' });
    await send(here.ben, plan, editRow(network, 'device', device(network, 'kq-fw-2'), { serial: 'GONE' }));
    expect((await detail(plan)).conflicts).toEqual([]);
    await set(here.anna, null, 'kq-core-1', { serial: 'REAL' });
    expect(
      (
        await send(
          here.anna,
          null,
          deleteDevice(await here.network(), device(await here.network(), 'kq-fw-2')),
        )
      ).status,
    ).toBe(200);
    const { conflicts, base } = await detail(plan);
    expect(base).toBe((await server.store.read(here.projectId)).revision);
    expect(conflicts).toMatchObject([
      { revision: 2, field: 'serial', mine: 'PLAN', theirs: 'REAL', outcome: 'kept', code: 'conflict' },
      { revision: 3, code: 'absent', outcome: 'left out' },
    ]);
    expect(conflicts[0]?.message).toContain('is REAL as built. The plan says PLAN.');
    expect((await seen(plan, 'kq-core-1'))?.serial).toBe('PLAN');
    expect(await seen(plan, 'kq-fw-2')).toBeUndefined();
    // As it was when each step was made: with what as built was then.
    expect((await seen(plan, 'kq-fw-2', '&at=3'))?.serial).toBe('GONE');
    // Taken back as built, nothing contradicts the plan any more.
    await here.anna.call('POST', here.at('undo'), {});
    expect((await detail(plan)).conflicts).toHaveLength(1);
    expect((await seen(plan, 'kq-fw-2'))?.serial).toBe('GONE');
    await here.anna.call('POST', here.at('undo'), {});
    expect((await detail(plan)).conflicts).toEqual([]);
  });

  test('a step that later ones stand on is not taken back from under them', async () => {
    const plan = await begin('Stands on');
    const base = await here.network();
    const added = named(base, 'basis-1');
    await send(here.ben, plan, { changes: [added], sentence: 'Added basis-1' });
    await set(here.anna, plan, 'basis-1', { serial: 'ON TOP' });
    const refused = await here.ben.call<Refused>('POST', here.at(`undo?plan=${plan}`), {});
    expect(refused.status).toBe(422);
    expect(refused.body.detail).toMatch(
      /“Added basis-1” cannot be taken back: r3 of the plan, “.*”, needs things as they are/,
    );
    expect((await seen(plan, 'basis-1'))?.serial).toBe('ON TOP');
    await here.anna.call('POST', here.at(`undo?plan=${plan}`), {});
    expect((await here.ben.call('POST', here.at(`undo?plan=${plan}`), {})).status).toBe(200);
    expect(await seen(plan, 'basis-1')).toBeUndefined();
  });
});

describe('names that plans keep', () => {
  test('another plan is refused with a free one; as built may take it, and the plan is told', async () => {
    const [one, two] = [await begin('Keeps'), await begin('Wants')];
    const base = await here.network();
    expect((await add(here.ben, one, base, 'kept-09')).status).toBe(200);
    expect((await add(here.ben, one, base, 'kept-10')).status).toBe(200);
    const refused = await add(here.anna, two, base, 'KEPT-09');
    expect([refused.status, refused.body.detail]).toEqual([
      422,
      'The plan “Keeps” keeps the device KEPT-09 for itself. Choose another: KEPT-11 is free.',
    ]);
    expect(refused.body.problems).toMatchObject([{ code: 'kept', field: 'name', free: 'KEPT-11' }]);
    expect(await seen(two, 'KEPT-09')).toBeUndefined();
    expect((await detail(two)).revision).toBe(1);
    expect((await add(here.anna, null, base, 'kept-09')).status).toBe(200);
    const told = (await detail(one)).conflicts;
    expect(told).toMatchObject([
      { revision: 2, code: 'duplicate', field: 'name', outcome: 'left out', free: 'kept-11' },
    ]);
  });

  test('two at the same moment on two servers: one has it, the other is refused', async () => {
    const other = await server.second();
    const [one, two] = [await begin('First hand'), await begin('Second hand')];
    const base = await here.network();
    const author = { id: null, name: 'Test' };
    const want = () => ({ id: newId(), sentence: 'Added', changes: [named(base, 'only-one')] });
    const results = await Promise.all([
      server.store.write(here.projectId, one, author, want()),
      other.store.write(here.projectId, two, author, want()),
    ]);
    expect(results.map(({ ok }) => ok).sort()).toEqual([false, true]);
    expect(results.flatMap((result) => (result.ok ? [] : result.problems.map(({ code }) => code)))).toEqual([
      'kept',
    ]);
    // Both servers go on with both plans.
    for (const [at, store] of [server.store, other.store].entries())
      for (const plan of [one, two])
        expect(
          (
            await store.write(here.projectId, plan, author, {
              id: newId(),
              sentence: 'More',
              changes: [named(base, `more-${at}-${plan}`)],
            })
          ).ok,
        ).toBe(true);
    expect((await server.store.read(here.projectId, one)).network.count('device')).toBe(
      (await other.store.read(here.projectId, one)).network.count('device'),
    );
  });

  test('what was thrown away keeps nothing, and comes back when its names are free', async () => {
    const plan = await begin('Short life');
    const base = await here.network();
    await add(here.ben, plan, base, 'brief-1');
    const put = (body: object) => here.ben.call<Plan & Refused>('PUT', here.at(`plans/${plan}`), body);
    expect((await put({ thrownAway: true })).body.thrownAway).toMatchObject({ by: 'Ben Adair' });
    const today = new Date().toISOString().slice(0, 10);
    for (const reply of [
      await here.rita.call<Refused>('GET', here.at(`network?plan=${plan}`)),
      await add(here.ben, plan, base, 'brief-2'),
    ])
      expect([reply.status, reply.body.detail]).toEqual([
        410,
        `Ben Adair threw the plan “Short life” away on ${today}. Bring it back to work in it.`,
      ]);
    // Its name and what it kept are free.
    const next = await begin('short life');
    expect((await add(here.ben, next, base, 'brief-1')).status).toBe(200);
    const refused = await put({ thrownAway: false, name: 'Long life' });
    expect([refused.status, refused.body.detail]).toEqual([
      422,
      'The plan “short life” keeps the device brief-1 for itself. Choose another: brief-2 is free.',
    ]);
    await here.ben.call('POST', here.at(`undo?plan=${next}`), {});
    const clash = await put({ thrownAway: false });
    expect(clash.body.detail).toBe('There is already a plan with the name Short life. Choose another name.');
    expect((await put({ thrownAway: false, name: 'Long life' })).body).toMatchObject({
      name: 'Long life',
      thrownAway: null,
    });
    expect((await seen(plan, 'brief-1'))?.name).toBe('brief-1');
    const plans = (await here.rita.call<Plan[]>('GET', here.at('plans'))).body.map(({ name }) => name);
    expect(plans).toContain('Long life');
  });
});

describe('who may see which line', () => {
  test('no such plan, one of another project, a stranger, a revision that is not there', async () => {
    const plan = await begin('Seen by members');
    const made = await here.anna.call<{ id: string }>('POST', '/projects', { name: 'Elsewhere' });
    const foreign = await here.anna.call<Plan>('POST', `/projects/${made.body.id}/plans`, {
      name: 'Foreign',
    });
    for (const id of [newId(), 'nonsense', foreign.body.id]) {
      const reply = await here.rita.call<Refused>('GET', here.at(`network?plan=${id}`));
      expect([reply.status, reply.body.detail]).toEqual([
        404,
        'This plan is not there, or you may not see it.',
      ]);
      expect((await add(here.ben, id, await here.network(), 'nobody')).status).toBe(404);
      expect((await here.rita.call('GET', here.at(`plans/${id}`))).status).toBe(404);
      expect((await here.ben.call('PUT', here.at(`plans/${id}`), { name: 'Mine' })).status).toBe(404);
    }
    expect(
      (await here.ben.call('GET', `/projects/${made.body.id}/network?plan=${foreign.body.id}`)).status,
    ).toBe(404);
    expect((await (await server.caller()).call('GET', here.at(`network?plan=${plan}`))).status).toBe(401);
    const late = await here.rita.call<Refused>('GET', here.at(`network?plan=${plan}&at=2`));
    expect([late.status, late.body.detail]).toEqual([
      404,
      'There is no revision 2: the history goes from 1 to 1.',
    ]);
    expect((await here.rita.call('POST', here.at('plans'), { name: 'No' })).status).toBe(403);
    // However its id is spelled, it is one plan.
    await set(here.ben, plan.toUpperCase(), 'kq-acc-1', { serial: 'SPELLED' });
    expect((await seen(plan, 'kq-acc-1'))?.serial).toBe('SPELLED');
    const twice = await here.ben.call<Refused>('POST', here.at('plans'), { name: 'SEEN by members' });
    expect([twice.status, twice.body.detail]).toEqual([
      422,
      'There is already a plan with the name SEEN by members. Choose another name.',
    ]);
  });

  test('each hears of its own line, and a plan of as built that it has moved', async () => {
    const plan = await begin('Heard');
    const other = await server.second();
    await other.store.read(here.projectId);
    await other.store.read(here.projectId, plan);
    const listen = async (url: string, query: string): Promise<Heard> => {
      const socket = new WebSocket(`${url.replace('http', 'ws')}/api/v1${here.at(`live${query}`)}`, {
        headers: { Cookie: here.rita.cookies },
      });
      const heard: string[] = [];
      socket.on('message', (data) => {
        const message = JSON.parse(String(data)) as { type: string; entry?: JournalEntry };
        heard.push(message.entry?.sentence ?? message.type);
      });
      await new Promise((resolve, reject) => socket.on('open', resolve).on('error', reject));
      const until = async (count: number): Promise<void> => {
        while (heard.length < count) await once(socket, 'message');
      };
      return { heard, socket, until };
    };
    const all = await Promise.all([
      listen(server.url, ''),
      listen(server.url, `?plan=${plan}`),
      listen(other.url, `?plan=${plan}`),
    ]);
    const planned = await set(here.ben, plan, 'kq-acc-1', { serial: 'PLANNED' });
    const real = await set(here.ben, null, 'kq-acc-3', { serial: 'REAL' });
    const wanted = [[real.sentence], [planned.sentence, 'moved'], [planned.sentence, 'moved']];
    await Promise.all(all.map(({ until }, at) => until(wanted[at]?.length ?? 0)));
    expect(all.map(({ heard }) => heard)).toEqual(wanted);
    for (const { socket } of all) socket.close();
    await here.ben.call('PUT', here.at(`plans/${plan}`), { thrownAway: true });
    await expect(listen(server.url, `?plan=${plan}`)).rejects.toThrow('404');
  });
});

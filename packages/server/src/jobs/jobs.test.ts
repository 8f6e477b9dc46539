import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Job } from '@visograph/api';
import { readdir, readFile } from 'node:fs/promises';
import WebSocket from 'ws';
import { atHand, testServer, type AtHand, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

const atOnce = { Prefer: 'respond-async' };
const list = (rows: number, more = ''): Uint8Array =>
  new TextEncoder().encode(
    `Label,A end,B end,Length\n${more}${Array.from({ length: rows }, (_, at) => `X-${at},kq-acc-9${at}:1,kq-acc-1:gi1/40,1`).join('\n')}\n`,
  );
const begin = async (who: Caller, path: string, body: unknown): Promise<Job> => {
  const reply = await who.call<Job>('POST', hand.at(path), body, atOnce);
  expect([reply.status, reply.headers.get('location')]).toEqual([202, `/api/v1/jobs/${reply.body.id}`]);
  return reply.body;
};
const of = async (who: Caller, { id }: Pick<Job, 'id'>): Promise<Job> =>
  (await who.call<Job>('GET', `/jobs/${id}`)).body;
const result = (who: Caller, { id }: Pick<Job, 'id'>) =>
  who.call<{ written: boolean; detail: string; results: unknown[] }>('GET', `/jobs/${id}/result`);

async function over(who: Caller, job: Pick<Job, 'id'>): Promise<Job> {
  for (let turn = 0; turn < 600; turn++) {
    const now = await of(who, job);
    if (!['waiting', 'running', 'writing'].includes(now.state)) return now;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error('the job does not end');
}

/** The processes that this one started for jobs. */
async function processes(): Promise<number[]> {
  const found: number[] = [];
  for (const pid of (await readdir('/proc')).filter((name) => /^\d+$/.test(name))) {
    const stat = await readFile(`/proc/${pid}/stat`, 'utf8').catch(() => '');
    const command = await readFile(`/proc/${pid}/cmdline`, 'utf8').catch(() => '');
    const parent = Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]);
    if (parent === process.pid && command.includes('jobProcess')) found.push(Number(pid));
  }
  return found;
}

describe('a job', () => {
  test('is begun, followed, and its result is what the call answers', async () => {
    const job = await begin(hand.ben, 'cable-list', list(3));
    expect(job).toMatchObject({ call: 'POST /projects/:project/cable-list', refusal: null });
    expect(await over(hand.ben, job)).toMatchObject({ state: 'done', ahead: 0 });
    const { body } = await result(hand.ben, job);
    const waited = await hand.ben.call('POST', hand.at('cable-list'), list(3));
    expect(body).toEqual(waited.body);
    expect(body.results).toHaveLength(3);
    const own = await hand.ben.call<Job[]>('GET', '/jobs');
    // What was answered to whoever waited is not kept.
    expect(own.body.map(({ id }) => id)).toEqual([job.id]);
  });

  test('is nobody else’s', async () => {
    const job = await begin(hand.ben, 'cable-list', list(1));
    await over(hand.ben, job);
    for (const path of [`/jobs/${job.id}`, `/jobs/${job.id}/result`])
      expect((await hand.anna.call('GET', path)).status).toBe(404);
    expect((await hand.anna.call('DELETE', `/jobs/${job.id}`)).status).toBe(404);
    expect((await hand.ben.call('GET', '/jobs/no-such-job')).status).toBe(404);
    expect((await hand.rita.call('POST', hand.at('cable-list'), list(1), atOnce)).status).toBe(403);
  });

  test('tells the windows of the person how far it is', async () => {
    const url = `${server.url.replace('http', 'ws')}/api/v1${hand.at('live')}`;
    const told: { type: string; job: string; state: string; done: number; of: number }[] = [];
    const others: string[] = [];
    const [mine, theirs] = [hand.ben, hand.anna].map(
      (who) => new WebSocket(url, { headers: { Cookie: who.cookies } }),
    );
    mine?.on('message', (data: Buffer) => told.push(JSON.parse(String(data)) as (typeof told)[number]));
    theirs?.on('message', (data: Buffer) => others.push(String(data)));
    await Promise.all([mine, theirs].map((one) => new Promise((open) => one?.once('open', open))));
    const job = await begin(hand.ben, 'cable-list', list(20_000));
    await over(hand.ben, job);
    const mineOf = (): typeof told => told.filter((note) => note.type === 'job' && note.job === job.id);
    // The last word comes by the socket, at its own time.
    while (mineOf().at(-1)?.state !== 'done') await new Promise((heard) => mine?.once('message', heard));
    const notes = mineOf();
    expect(notes[0]).toMatchObject({ state: 'waiting', done: 0 });
    expect(notes.some(({ state, done }) => state === 'running' && done >= 1000)).toBe(true);
    expect(notes.at(-1)).toMatchObject({ state: 'done' });
    expect(others.filter((text) => text.includes(job.id))).toEqual([]);
    for (const one of [mine, theirs]) one?.close();
  });

  test('is stopped: nothing is written, and the next one is done', async () => {
    const before = (await hand.network()).count('cable');
    const job = await begin(
      hand.ben,
      'cable-list?write=1',
      list(60_000, 'X,kq-acc-1:gi1/40,kq-acc-2:gi1/41,1\n'),
    );
    for (let turn = 0; turn < 100 && (await of(hand.ben, job)).state === 'waiting'; turn++)
      await new Promise((done) => setTimeout(done, 20));
    const held = await begin(hand.ben, 'cable-list', list(1));
    expect((await hand.ben.call('DELETE', `/jobs/${job.id}`)).status).toBe(204);
    expect((await over(hand.ben, held)).state).toBe('done');
    expect((await of(hand.ben, job)).state).toBe('cancelled');
    expect((await result(hand.ben, job)).status).toBe(410);
    await server.store.refresh(hand.projectId, null);
    expect((await hand.network()).count('cable')).toBe(before);
  });

  test('of one person waits for their own alone: nobody’s five are done before another’s first', async () => {
    const five = [];
    for (let count = 0; count < 5; count++) five.push(await begin(hand.ben, 'cable-list', list(4000)));
    const one = await begin(hand.anna, 'cable-list', list(1));
    await over(hand.anna, one);
    for (const job of five) expect((await over(hand.ben, job)).state).toBe('done');
    // While the other's waited, the one that was under way ended, and at most the one that was queued before it.
    const between = await server
      .knex('job')
      .whereIn(
        'id',
        five.map(({ id }) => id),
      )
      .whereBetween('endedAt', [
        server.knex('job').select('madeAt').where({ id: one.id }),
        server.knex('job').select('endedAt').where({ id: one.id }),
      ])
      .select('id');
    expect(between.length).toBeLessThanOrEqual(2);
  });

  test('beyond thirty of one person is refused', async () => {
    const jobs: Job[] = [];
    let status = 202;
    for (let count = 0; count < 40 && status === 202; count++) {
      const reply = await hand.rita.call<Job>(
        'POST',
        hand.at('missing-glyphs'),
        { sheetIds: [hand.projectId] },
        atOnce,
      );
      ({ status } = reply);
      if (status === 202) jobs.push(reply.body);
      // They end as fast as they come: the first is kept from ending.
      if (count === 0) await server.knex('job').where({ id: reply.body.id }).update({ state: 'held' });
    }
    expect([status, jobs.length]).toEqual([429, 30]);
    for (const { id } of jobs) expect((await hand.rita.call('DELETE', `/jobs/${id}`)).status).toBe(204);
  });

  test('goes on after its process was killed, and is given up when that happens again and again', async () => {
    const job = await begin(hand.ben, 'cable-list', list(60_000));
    while ((await of(hand.ben, job)).state === 'waiting') await new Promise((done) => setTimeout(done, 20));
    for (const pid of await processes()) process.kill(pid, 'SIGKILL');
    expect((await over(hand.ben, job)).state).toBe('done');
    const { tries } = await server.knex('job').where({ id: job.id }).first<{ tries: number }>('tries');
    expect(tries).toBe(2);
    const doomed = await begin(hand.ben, 'cable-list', list(60_000));
    await server.knex('job').where({ id: doomed.id }).update({ tries: 3 });
    while ((await of(hand.ben, doomed)).state === 'waiting')
      await new Promise((done) => setTimeout(done, 20));
    for (const pid of await processes()) process.kill(pid, 'SIGKILL');
    expect(await over(hand.ben, doomed)).toMatchObject({ state: 'failed', refusal: { status: 503 } });
  });
});

test('what was asked of a server that ended is done by the next one', async () => {
  const idle = await testServer({ workers: { short: 0, long: 0 } });
  try {
    const here = await atHand(idle);
    const reply = await here.ben.call<Job>('POST', here.at('cable-list'), list(2), atOnce);
    // As a server leaves it that is killed while it works: taken, and its session gone.
    await idle
      .knex('job')
      .where({ id: reply.body.id })
      .update({ state: 'running', server: 'visograph server gone', tries: 1 });
    await idle.knex.raw(`UPDATE pgboss.job SET state = 'active' WHERE id = ?`, [reply.body.id]);
    const next = await idle.second({ workers: { short: 0, long: 1 } });
    await next.jobs.open();
    expect((await over(here.ben, reply.body)).state).toBe('done');
  } finally {
    await idle.end();
  }
}, 60_000);

test('a job that takes more memory than it may is ended, and told so', async () => {
  const small = await testServer({ jobMegabytes: 40 });
  try {
    const here = await atHand(small);
    const reply = await here.ben.call<{ detail: string }>('POST', here.at('cable-list'), list(10_000));
    expect([reply.status, reply.body.detail]).toEqual([422, expect.stringContaining('more than the 40 MB')]);
    expect((await here.ben.call('GET', '/session')).status).toBe(200);
  } finally {
    await small.end();
  }
}, 60_000);

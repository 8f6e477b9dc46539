/** The order of jobs where servers end, or whoever asked is quicker than they are: the test does their work by hand. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { newId } from '@visograph/core/model';
import { pino } from 'pino';
import { connect } from '../database/connect.ts';
import { JobRow } from '../database/rows.ts';
import { accountOf, atHand, testDatabase, testServer, type AtHand, type TestServer } from '../testServer.ts';
import type { JobBook } from './jobBook.ts';
import { JobQueue } from './queue.ts';

let server: TestServer;
let hand: AtHand;
let book: JobBook;
beforeAll(async () => {
  server = await testServer({ workers: { short: 0, long: 0 } });
  hand = await atHand(server);
  await server.jobs.open();
  book = server.jobs.book;
}, 60_000);
afterAll(async () => server.end());

const begin = (accountId: string): Promise<string> =>
  book.begin({
    ...{ call: 'GET /projects/:project/findings', accountId, projectId: hand.projectId },
    ...{ params: {}, query: {}, body: null },
  });
const take = (): Promise<string | null> => book.take('short', 'a server that is not there');
/** As the process of a job does it, which knows nothing of the queue. */
const done = (id: string): Promise<number> =>
  JobRow.query(server.knex)
    .findById(id)
    .patch({ state: 'done', result: Buffer.from('[]') })
    .then();

test('a result that is forgotten before its process told of it lets the next one go', async () => {
  const account = await accountOf(hand.anna);
  const [first, second] = [await begin(account), await begin(account)];
  expect(await take()).toBe(first);
  expect(await take()).toBeNull();
  await done(first);
  await book.stop(account, first);
  await book.ended('short', first);
  expect(await take()).toBe(second);
  await done(second);
  await book.ended('short', second);
  expect(await take()).toBeNull();
});

test('what a server that ended let wait goes on, one of each person, the first first', async () => {
  const [anna, ben] = [await accountOf(hand.anna), await accountOf(hand.ben)];
  const begun = [];
  for (const who of [anna, anna, anna, ben, ben]) begun.push(await begin(who));
  const [a1, a2, a3, b1, b2] = begun;
  expect([await take(), await take(), await take()]).toEqual([a1, b1, null]);
  // Both were done, and the server was killed before it heard.
  await done(a1 ?? '');
  await done(b1 ?? '');
  expect(await take()).toBeNull();
  await Promise.all([book.recover(), book.recover()]);
  expect([await take(), await take(), await take()].sort()).toEqual([a2, b2, null].sort());
  // These two are a server's that is not there: they are done again.
  await book.recover();
  expect([await take(), await take(), await take()].sort()).toEqual([a2, b2, null].sort());
  const of = async (id?: string): Promise<unknown> =>
    JobRow.query(server.knex)
      .findById(id ?? '')
      .select('state', 'tries');
  expect([await of(a2), await of(a3)]).toEqual([
    { state: 'running', tries: 2 },
    { state: 'held', tries: 0 },
  ]);
});

test('what cannot be marked as taken is still in the queue', async () => {
  const account = await accountOf(hand.rita);
  const id = await begin(account);
  const name = `fails_${newId().replaceAll('-', '')}`;
  await server.knex.raw(`ALTER TABLE job ADD CONSTRAINT ${name} CHECK (server <> '${name}')`);
  await expect(book.take('short', name)).rejects.toThrow(name);
  await server.knex.raw(`ALTER TABLE job DROP CONSTRAINT ${name}`);
  expect(await take()).toBe(id);
});

test('three servers make the tables of the queue at the same moment', async () => {
  for (let round = 0; round < 3; round++) {
    const { url, end } = await testDatabase();
    const knex = [0, 1, 2].map(() => connect(url));
    const queues = knex.map((one) => new JobQueue(one, url, pino({ level: 'silent' })));
    await Promise.all(queues.map((queue) => queue.open()));
    for (const queue of queues) await queue.close();
    for (const one of knex) await one.destroy();
    await end();
  }
}, 60_000);

/** Several servers on one database: what one wrote every other one answers with, and each may be exchanged meanwhile. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { blankPlace, newId } from '@visograph/core/model';
import { lehmer } from './testing/fromSchema.ts';
import { atHand, Caller, testServer, type AtHand, type TestServer } from './testServer.ts';

jest.setTimeout(120_000);
let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
});
afterAll(async () => server.end());

const addition = (name: string, id = newId()) => ({
  ...{ id: newId(), sentence: `Added ${name}` },
  changes: [
    { op: 'create', kind: 'place', id, after: { ...blankPlace, id, name, kind: 'site', parentId: null } },
  ],
});
/** Their answers are held against the contract elsewhere: here there are many, and large ones. */
const at = (url: string, email: string): Promise<Caller> => new Caller(url, false).signIn(email);

test('what a person wrote at one server they read at the next, at once; all answer the same', async () => {
  const others = [await server.second(), await server.second()];
  const anna = await Promise.all([server, ...others].map(({ url }) => at(url, 'anna@marrow.example')));
  const next = lehmer(18);
  const any = (): Caller => anna[Math.floor(next() * anna.length)] ?? hand.anna;
  const plan = (await any().call<{ id: string }>('POST', hand.at('plans'), { name: 'Between' })).body.id;
  // All have it in memory.
  for (const who of anna) await who.call('GET', hand.at('network'));
  let stale = 0;
  for (let round = 0; round < 60; round++) {
    const line = round % 3 === 0 ? `?plan=${plan}` : '';
    const name = `Pier ${round}`;
    const wrote = await any().call<{ revision: number }>(
      'POST',
      `${hand.at('changes')}${line}`,
      addition(name),
    );
    expect(wrote.status).toBe(200);
    const read = await any().call<{ revision: number }>('GET', `${hand.at('network')}${line}`);
    if (read.body.revision < wrote.body.revision || !read.text.includes(`"${name}"`)) stale++;
  }
  expect(stale).toBe(0);
  for (const line of ['', `?plan=${plan}`]) {
    const replies = await Promise.all(
      anna.map((who) => who.call<{ rows: Record<string, object[]> }>('GET', hand.at(`network${line}`))),
    );
    // In which order rows are sent is nobody's promise.
    const rows = replies.map(({ body }) =>
      JSON.stringify(Object.values(body.rows).map((list) => list.map((row) => JSON.stringify(row)).sort())),
    );
    expect([line, new Set(rows).size]).toEqual([line, 1]);
  }
  // Nor in which order a finding names its things.
  const findings = await Promise.all(
    anna.map((who) => who.call<{ rule: string; rows: { id: string }[] }[]>('GET', hand.at('findings'))),
  );
  const told = findings.map(({ body }) =>
    JSON.stringify(body.map(({ rule, rows }) => [rule, ...rows.map(({ id }) => id).sort()].join(' ')).sort()),
  );
  expect(new Set(told).size).toBe(1);
  for (const path of ['changes', 'reports/cables?format=csv', `reports/cables?plan=${plan}`, 'sheets']) {
    const replies = await Promise.all(anna.map((who) => who.call('GET', hand.at(path))));
    expect([path, new Set(replies.map(({ text }) => text)).size, replies[0]?.status]).toEqual([path, 1, 200]);
  }
});

test('the servers are exchanged one after the other: every edit is made once, nobody is told of a fault', async () => {
  const running = [await server.second(), await server.second()];
  const statuses = new Map<number, number>();
  const made: string[] = [];
  let going = true;
  /** Told of every edit that was made. */
  let onMade = (): void => undefined;
  const moreMade = async (count: number): Promise<void> => {
    const wanted = made.length + count;
    while (made.length < wanted) await new Promise<void>((told) => (onMade = told));
  };
  // Sends as a window does: what did not arrive, or could not be done now, is sent again with its id.
  const person = async (who: number): Promise<void> => {
    for (let turn = 0; going; turn++) {
      const name = `Rolling ${who} ${turn}`;
      const wish = addition(name);
      for (let tries = 0; ; tries++) {
        const { url } = running[(turn + tries) % running.length] ?? server;
        const reply = await at(url, 'ben@marrow.example')
          .then((caller) => caller.call('POST', hand.at('changes'), wish))
          .catch(() => null);
        const status = reply?.status ?? 0;
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
        if (status === 200) break;
        if (status !== 0 && status !== 503) throw new Error(`${status}: ${reply?.text ?? ''}`);
        if (tries > 200) throw new Error('never came through');
      }
      made.push(name);
      onMade();
    }
  };
  const people = [0, 1, 2, 3].map(person);
  for (const place of [0, 1]) {
    await moreMade(10);
    const leaving = running[place];
    // The new one is ready before the old one goes.
    running[place] = await server.second();
    await leaving?.stop();
  }
  await moreMade(10);
  going = false;
  await Promise.all(people);
  const { body } = await hand.anna.call<{ rows: { place: { name: string }[] } }>('GET', hand.at('network'));
  const names = body.rows.place.map(({ name }) => name).filter((name) => name.startsWith('Rolling'));
  expect(names.sort()).toEqual([...made].sort());
  expect([...statuses.keys()].filter((status) => ![0, 200, 503].includes(status))).toEqual([]);
});

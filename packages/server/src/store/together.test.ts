import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { create, remove, update, type Change, type JournalEntry } from '@visograph/core/change';
import { blankPlace, kindNames, newId, type Device, type Network } from '@visograph/core/model';
import { atHand, testServer, type AtHand, type TestServer } from '../testServer.ts';
import type { Written } from './journal.ts';

let server: TestServer;
let here: AtHand;
jest.setTimeout(60_000);
beforeAll(async () => {
  server = await testServer();
  here = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

const content = (network: Network): string =>
  JSON.stringify(
    kindNames.map((kind) =>
      [...network.all(kind)].map((row) => JSON.stringify(Object.entries(row).sort())).sort(),
    ),
  );
const write = (changes: readonly (Change | null)[], id = newId()): Promise<Written> =>
  server.store.write(
    here.projectId,
    null,
    { id: null, name: 'Test' },
    {
      id,
      sentence: `Wish ${id}`,
      changes: changes.filter((change) => change !== null),
    },
  );
const codes = (written: readonly Written[]): string[] =>
  written.map((one) => (one.ok ? `r${one.entry.revision}` : (one.problems[0]?.code ?? '?')));

test('many at the same moment: each with its own revision, told in order, as the tables have them', async () => {
  const before = await server.store.read(here.projectId);
  const devices = [...before.network.all('device')].slice(0, 30);
  const told: JournalEntry[] = [];
  const stop = server.store.listen({ entry: (_project, entry) => told.push(entry), unread: () => undefined });
  const results = await Promise.all(
    devices.map((device, at) => write([update('device', device, { serial: `S-${at}` })])),
  );
  stop();
  expect(codes(results)).toEqual(devices.map((_, at) => `r${before.revision + 1 + at}`));
  expect(told.map(({ revision }) => revision)).toEqual(devices.map((_, at) => before.revision + 1 + at));
  const now = await server.store.read(here.projectId);
  expect(now.revision).toBe(before.revision + 30);
  // Another server reads from the tables, and from the journal, what this one has in memory.
  const other = await server.second();
  expect(content((await other.store.read(here.projectId)).network)).toBe(content(now.network));
  expect(content((await other.store.at(here.projectId, null, before.revision)).network)).toBe(
    content(before.network),
  );
});

test('among them some that are refused, one sent twice, one undone: the rest is written all the same', async () => {
  const { network, revision } = await server.store.read(here.projectId);
  const [a, b, c] = [...network.all('device')] as [Device, Device, Device];
  const twice = newId();
  const fresh = {
    ...a,
    id: newId(),
    rackId: null,
    unit: null,
    placeId: [...network.all('place')][0]?.id ?? '',
  };
  const results = await Promise.all([
    write([update('device', a, { serial: 'one' })]),
    write([update('device', a, { serial: 'other' })]),
    write([update('device', b, { serial: 'twice' })], twice),
    write([update('device', b, { serial: 'twice' })], twice),
    write([create('device', { ...fresh, name: b.name })]),
    write([create('device', { ...fresh, name: 'brand-new-1' })]),
    write([update('device', { ...fresh, name: 'brand-new-1' }, { serial: 'later' })]),
    write([remove('device', { ...fresh, name: 'brand-new-1', serial: 'later' })]),
    write([update('device', c, { serial: 'last' })]),
  ]);
  expect(codes(results)).toMatchObject(
    [/^r/, 'conflict', /^r/, /^r/, 'duplicate', /^r/, /^r/, /^r/, /^r/].map((want) =>
      typeof want === 'string' ? want : expect.stringMatching(want),
    ),
  );
  const [, , first, second] = results;
  expect(first?.ok === true && second?.ok === true && first.entry.revision === second.entry.revision).toBe(
    true,
  );
  const now = await server.store.read(here.projectId);
  expect(now.revision).toBe(revision + 6);
  expect([a, b, c].map(({ id }) => now.network.get('device', id)?.serial)).toEqual(['one', 'twice', 'last']);
  expect(now.network.findOne('deviceByName', 'brand-new-1')).toBeNull();
  const other = await server.second();
  expect(content((await other.store.read(here.projectId)).network)).toBe(content(now.network));
});

test('on two servers at once nothing is lost and no revision is given twice', async () => {
  const other = await server.second();
  const { network, revision } = await server.store.read(here.projectId);
  const devices = [...network.all('device')].slice(0, 24);
  const results = await Promise.all(
    devices.map((device, at) =>
      (at % 2 === 0 ? server : other).store.write(
        here.projectId,
        null,
        { id: null, name: 'Test' },
        {
          id: newId(),
          sentence: 'From both',
          changes: [update('device', device, { notes: `n-${at}` })].filter((change) => change !== null),
        },
      ),
    ),
  );
  const revisions = results.flatMap((one) => (one.ok ? [one.entry.revision] : []));
  expect([...revisions].sort((a, b) => a - b)).toEqual(devices.map((_, at) => revision + 1 + at));
  for (const { store } of [server, other]) {
    await store.notice(here.projectId, null);
    const seen = (await store.read(here.projectId)).network;
    expect(devices.map(({ id }) => seen.get('device', id)?.notes)).toEqual(devices.map((_, at) => `n-${at}`));
  }
});

const places = (count: number, prefix: string): Change[] =>
  Array.from({ length: count }, (_, at) => {
    const id = newId();
    return create('place', { ...blankPlace, id, name: `${prefix} ${at}`, kind: 'site', parentId: null });
  });

test('thousands of rows are written while others go on: nobody waits for all of it, nothing is lost', async () => {
  const other = await server.second();
  const start = await server.store.read(here.projectId);
  await other.store.read(here.projectId);
  const devices = [...start.network.all('device')].slice(0, 20);
  const large = write(places(6000, 'Large'));
  let left = true;
  void large.then(() => (left = false));
  const small: Written[] = [];
  for (let at = 0; left && at < 2000; at++) {
    const device = devices[at % devices.length];
    if (device === undefined) throw new Error('no device');
    const now = (await other.store.read(here.projectId)).network.get('device', device.id);
    if (now === null) throw new Error('the device is gone');
    const change = update('device', now, { notes: `Beside ${at}` });
    const changes = change === null ? [] : [change];
    const wish = { id: newId(), sentence: `Beside ${at}`, changes };
    small.push(await other.store.write(here.projectId, null, { id: null, name: 'Other' }, wish));
  }
  const landed = await large;
  expect(landed.ok).toBe(true);
  expect(small.every(({ ok }) => ok)).toBe(true);
  // Some were made while the many were on their way.
  const revision = landed.ok ? landed.entry.revision : 0;
  expect(small.filter((one) => one.ok && one.entry.revision < revision).length).toBeGreaterThan(0);
  await server.store.refresh(here.projectId, null);
  await other.store.refresh(here.projectId, null);
  const [one, two] = [await server.store.read(here.projectId), await other.store.read(here.projectId)];
  expect(one.revision).toBe(start.revision + small.length + 1);
  expect(two.revision).toBe(one.revision);
  const fresh = await server.second();
  const read = content((await fresh.store.read(here.projectId)).network);
  expect(content(one.network)).toBe(read);
  expect(content(two.network)).toBe(read);
  expect(content((await fresh.store.at(here.projectId, null, start.revision)).network)).toBe(
    content(start.network),
  );
});

test('of thousands of rows and one that take the same name, one is made and the other told', async () => {
  const other = await server.second();
  await other.store.read(here.projectId);
  const large = write(places(5000, 'Same'));
  const [twin] = places(1, 'Same');
  const wish = { id: newId(), sentence: 'Twin', changes: twin === undefined ? [] : [twin] };
  const single = await other.store.write(here.projectId, null, { id: null, name: 'Other' }, wish);
  const landed = await large;
  expect([landed.ok, single.ok].filter(Boolean)).toHaveLength(1);
  await server.store.refresh(here.projectId, null);
  const named = [...(await here.network()).all('place')].filter(({ name }) => name === 'Same 0');
  expect(named).toHaveLength(1);
});

test('a database that was put back to an earlier state is believed', async () => {
  const before = await server.store.read(here.projectId);
  const [lost] = places(1, 'Lost');
  const wish = { id: newId(), sentence: 'Lost', changes: lost === undefined ? [] : [lost] };
  expect((await server.store.write(here.projectId, null, { id: null, name: 'Test' }, wish)).ok).toBe(true);
  await server.knex.transaction(async (transaction) => {
    await transaction.raw('DELETE FROM place WHERE project_id = ? AND id = ?', [
      here.projectId,
      lost?.id ?? '',
    ]);
    await transaction.raw('DELETE FROM change_set WHERE project_id = ? AND id = ?', [
      here.projectId,
      wish.id,
    ]);
    await transaction.raw('UPDATE project SET revision = ? WHERE id = ?', [before.revision, here.projectId]);
  });
  const after = await write(places(1, 'After'));
  expect(after).toMatchObject({ ok: true, entry: { revision: before.revision + 1 } });
  const names = [...(await here.network()).all('place')].map(({ name }) => name);
  expect([names.includes('After 0'), names.includes('Lost 0')]).toEqual([true, false]);
});

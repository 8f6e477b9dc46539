/** What whoever runs a server does by the command line: people, and one project put away and brought back. */
import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { newId } from '@visograph/core/model';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { contents, tool } from '../testing/operate.ts';
import { atHand, Caller, testServer, type AtHand, type TestServer } from '../testServer.ts';

jest.setTimeout(120_000);
let server: TestServer;
let hand: AtHand;
let folder: string;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
  folder = await mkdtemp(join(tmpdir(), 'visograph-operator-'));
});
afterAll(async () => {
  await server.end();
  await rm(folder, { recursive: true, force: true });
});

const standing = (who: Caller, project: string, wish: string) =>
  who.call('PUT', `/projects/${project}/standing`, { standing: wish });

describe('one project', () => {
  test('put away, deleted for good and brought back, holds every row; undo and the plan go on', async () => {
    const device = [...(await hand.network()).all('device')][0];
    const note = 'Two\nlines\twith a tab, a \\ and “quotes”';
    const change = {
      ...{ op: 'update', kind: 'device', id: device?.id },
      ...{ before: { notes: device?.notes }, after: { notes: note } },
    };
    const body = { id: newId(), sentence: 'Before it was put away', changes: [change] };
    expect((await hand.ben.call('POST', hand.at('changes'), body)).status).toBe(200);
    const plan = await hand.anna.call<{ id: string }>('POST', hand.at('plans'), { name: 'A plan of it' });
    const inPlan = {
      ...{ id: newId(), sentence: 'In the plan' },
      changes: [{ ...change, before: { notes: note }, after: { notes: 'Planned' } }],
    };
    expect((await hand.anna.call('POST', `${hand.at('changes')}?plan=${plan.body.id}`, inPlan)).status).toBe(
      200,
    );
    await hand.rita.call('PUT', hand.at('seen'), { revision: 1 });
    const other = (await hand.rita.call<{ id: string }>('POST', '/projects', { name: 'Stays' })).body.id;
    const before = await contents(server.databaseUrl);

    const file = join(folder, 'marrow.visograph-project');
    const made = await tool(server.databaseUrl, 'archive', 'Marrow Sound Ferries', '--to', file);
    expect([made.code, made.told]).toEqual([0, expect.stringMatching(/Marrow Sound Ferries, \d+ rows/)]);
    const text = gunzipSync(await readFile(file)).toString('utf8');
    // No password of anybody is in it, nor a row of another project.
    expect([text.includes('argon2'), text.includes(other)]).toEqual([false, false]);
    // The same project gives the same file.
    const second = join(folder, 'second');
    await tool(server.databaseUrl, 'archive', hand.projectId.toUpperCase(), '--to', second);
    expect(gunzipSync(await readFile(second)).toString('utf8')).toBe(text);

    const there = await tool(server.databaseUrl, 'restore-project', '--from', file);
    expect([there.code, there.told]).toEqual([2, expect.stringContaining('Delete it for good first')]);
    await standing(hand.anna, hand.projectId, 'deleted');
    expect((await hand.anna.call('DELETE', `/projects/${hand.projectId}`)).status).toBe(204);
    expect((await contents(server.databaseUrl)).get('device')).toEqual([]);
    expect(await tool(server.databaseUrl, 'restore-project', '--from', file)).toMatchObject({ code: 0 });
    const after = await contents(server.databaseUrl);
    for (const [table, rows] of before) expect([table, after.get(table)]).toEqual([table, rows]);
    const undone = await hand.ben.call<{ sentence: string }>('POST', hand.at('undo'), {});
    expect([undone.status, undone.body.sentence]).toEqual([200, 'Undid: Before it was put away']);
    const planned = await hand.anna.call('GET', `${hand.at('network')}?plan=${plan.body.id}`);
    expect([planned.status, planned.text.includes('"Planned"')]).toEqual([200, true]);
  });

  test('goes to another server: people come with their address, and set a password by a link', async () => {
    const elsewhere = await testServer({ demo: false });
    try {
      const first = await elsewhere.caller();
      // Ben is there already, with another id; he keeps his account.
      const ben = { name: 'Ben', email: 'ben@marrow.example', password: 'another-word-12' };
      const own = await first.call<{ account: { id: string } }>('POST', '/first-account', ben);
      const file = join(folder, 'move');
      await tool(server.databaseUrl, 'archive', hand.projectId, '--to', file);
      expect(await tool(elsewhere.databaseUrl, 'restore-project', '--from', file)).toMatchObject({ code: 0 });
      const [project] = (await first.call<{ id: string; role: string }[]>('GET', '/projects')).body;
      expect(project).toMatchObject({ id: hand.projectId, role: 'editor' });
      const anna = await elsewhere.caller();
      for (const password of ['ferry-lamp-seven', 'none', ''])
        expect(
          (await anna.call('POST', '/session', { email: 'anna@marrow.example', password })).status,
        ).toBeGreaterThan(399);
      const told = await tool(elsewhere.databaseUrl, 'new-password', 'Anna@Marrow.example');
      const key = /\/reset#([\w-]+)/.exec(told.told)?.[1] ?? '';
      expect((await anna.call('PUT', '/password-resets', { key, password: 'quay-light-nine' })).status).toBe(
        200,
      );
      const rows = async (who: Caller): Promise<Map<string, string[]>> => {
        const { body } = await who.call<{ rows: Record<string, object[]> }>('GET', hand.at('network'));
        const lists = Object.entries(body.rows);
        return new Map(lists.map(([kind, list]) => [kind, list.map((row) => JSON.stringify(row)).sort()]));
      };
      const here = await rows(hand.anna);
      for (const [kind, list] of await rows(anna)) expect([kind, list]).toEqual([kind, here.get(kind)]);
      // What Ben did, he takes back: history is his.
      const mine = await elsewhere.knex('change_set').where({ authorId: own.body.account.id });
      expect(mine.length).toBeGreaterThan(0);
    } finally {
      await elsewhere.end();
    }
  });

  test('what is no archive, is cut off or of another version is told, and leaves nothing', async () => {
    const file = join(folder, 'whole');
    await tool(server.databaseUrl, 'archive', hand.projectId, '--to', file);
    const elsewhere = await testServer({ demo: false });
    try {
      const text = gunzipSync(await readFile(file)).toString('utf8');
      const spoilt: [string, string | Buffer, RegExp][] = [
        ['none', 'hello', /incorrect header|no archive/],
        ['empty', gzipSync(''), /no archive of a project/],
        ['cut', gzipSync(text.slice(0, text.length / 2)), /cut off/],
        ['newer', gzipSync(text.replace(/"steps":\d+/, '"steps":999')), /another version/],
        ['table', gzipSync(text.replace('COPY device [', 'COPY device ["extra",')), /not as it is here/],
        [
          'foreign',
          gzipSync(text.replaceAll('\nCOPY port ', '\nCOPY knex_migrations ')),
          /knex_migrations that is not/,
        ],
      ];
      const before = await contents(elsewhere.databaseUrl);
      for (const [name, content, words] of spoilt) {
        const path = join(folder, name);
        await writeFile(path, content);
        const reply = await tool(elsewhere.databaseUrl, 'restore-project', '--from', path);
        expect([name, reply.code === 0, words.test(reply.told) || reply.told]).toEqual([name, false, true]);
      }
      expect(await contents(elsewhere.databaseUrl)).toEqual(before);
    } finally {
      await elsewhere.end();
    }
    const target = join(folder, 'never');
    const none = await tool(server.databaseUrl, 'archive', 'No such', '--to', target);
    expect([none.code, none.told]).toEqual([2, expect.stringContaining('There is no project No such')]);
    await Promise.all([1, 2].map(() => hand.anna.call('POST', '/projects', { name: 'Twins' })));
    expect((await tool(server.databaseUrl, 'archive', 'Twins', '--to', target)).told).toContain(
      'say the id of one',
    );
    expect(existsSync(target)).toBe(false);
    expect((await tool(server.databaseUrl, 'archive', 'Twins')).told).toContain('--to FILE');
  });
});

test('people are listed, and removed when no project is left without an owner', async () => {
  const list = await tool(server.databaseUrl, 'people');
  expect(list.told).toMatch(/anna@marrow\.example\tAnna Kerr\t.*Marrow Sound Ferries \(owner\)/);
  const only = await tool(server.databaseUrl, 'remove-account', 'anna@marrow.example');
  expect([only.code, only.told]).toEqual([2, expect.stringContaining('would be without an owner')]);
  expect((await hand.ben.call('GET', '/projects')).status).toBe(200);
  expect(await tool(server.databaseUrl, 'remove-account', 'BEN@marrow.example')).toMatchObject({ code: 0 });
  expect((await hand.ben.call('GET', '/projects')).status).toBe(401);
  expect((await tool(server.databaseUrl, 'new-password', 'ben@marrow.example')).told).toContain(
    'There is no account',
  );
});

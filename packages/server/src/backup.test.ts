/** What is backed up comes back row by row, history and all, and goes on. */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { newId } from '@visograph/core/model';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startServer } from './server.ts';
import { contents, tool } from './testing/operate.ts';
import { atHand, Caller, testDatabase, testServer, type AtHand, type TestServer } from './testServer.ts';

jest.setTimeout(120_000);
let server: TestServer;
let hand: AtHand;
let folder: string;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
  folder = await mkdtemp(join(tmpdir(), 'visograph-backup-'));
});
afterAll(async () => {
  await server.end();
  await rm(folder, { recursive: true, force: true });
});

test('a backup, restored into an empty database, holds every row, and undo goes on in it', async () => {
  const file = join(folder, 'all.visograph-backup');
  const device = [...(await hand.network()).all('device')][0];
  const body = {
    ...{ id: newId(), sentence: 'Before the backup' },
    changes: [
      {
        op: 'update',
        kind: 'device',
        id: device?.id,
        before: { notes: device?.notes },
        after: { notes: 'Kept' },
      },
    ],
  };
  expect((await hand.anna.call('POST', hand.at('changes'), body)).status).toBe(200);
  const plan = await hand.anna.call('POST', hand.at('plans'), { name: 'Kept too' });
  expect(plan.status).toBe(200);
  const made = await tool(server.databaseUrl, 'backup', '--to', file);
  expect([made.code, made.told]).toEqual([
    0,
    expect.stringMatching(/3 people, 1 projects, \d+ steps of history/),
  ]);
  const before = await contents(server.databaseUrl);

  const database = await testDatabase();
  try {
    expect(await tool(database.url, 'restore', '--from', file)).toMatchObject({ code: 0 });
    const after = await contents(database.url);
    expect([...after.keys()]).toEqual([...before.keys()]);
    for (const [table, rows] of before) expect([table, after.get(table)]).toEqual([table, rows]);
    const restored = await startServer({
      ...{ databaseUrl: database.url, port: 0, logLevel: 'silent', workers: { short: 1, long: 0 } },
    });
    try {
      const anna = await new Caller(restored.url).signIn('anna@marrow.example');
      const undone = await anna.call<{ sentence: string }>('POST', hand.at('undo'), {});
      expect([undone.status, undone.body.sentence]).toEqual([200, 'Undid: Before the backup']);
      // Jobs, whose queue is no part of the backup, work too.
      expect((await anna.call('GET', hand.at('findings'))).status).toBe(200);
    } finally {
      await restored.stop();
    }
    // A second time it would be written over what is there.
    const again = await tool(database.url, 'restore', '--from', file);
    expect([again.code, again.told]).toEqual([2, expect.stringContaining('not empty')]);
  } finally {
    await database.end();
  }
});

test('what is no backup, or cannot be made, is told, and leaves nothing half done', async () => {
  const database = await testDatabase();
  try {
    const text = join(folder, 'text');
    await writeFile(text, 'hello');
    expect(await tool(database.url, 'restore', '--from', text)).toMatchObject({
      ...{ code: 1, told: expect.stringContaining('Nothing was restored') },
    });
    expect(await tool(database.url, 'restore', '--from', join(folder, 'none'))).toMatchObject({ code: 2 });
    expect((await tool(database.url, 'restore')).told).toContain('--from FILE');
    const cut = join(folder, 'cut');
    const whole = join(folder, 'all.visograph-backup');
    await writeFile(cut, (await readFile(whole)).subarray(0, 20_000));
    expect((await tool(database.url, 'restore', '--from', cut)).code).toBe(1);
    expect((await contents(database.url)).size).toBe(0);
    const away = new URL(database.url);
    away.port = '1';
    const target = join(folder, 'never');
    expect((await tool(away.href, 'backup', '--to', target)).code).not.toBe(0);
    expect([existsSync(target), existsSync(`${target}.part`)]).toEqual([false, false]);
  } finally {
    await database.end();
  }
});

/**
 * Server and database are killed while people edit: whatever was acknowledged is there, once, and nothing else is half
 * there. Three times with the other tests; `VISOGRAPH_KILLS=30 npm run jest -- crash` for longer.
 */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { blankPlace, kindNames, newId } from '@visograph/core/model';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import pg from 'pg';
import { connect } from '../database/connect.ts';
import { clusterPid, endCluster, holdCluster, type HeldCluster } from '../testing/ownCluster.ts';
import { lehmer } from '../testing/fromSchema.ts';
import { ProjectStore, storeChannel } from './projectStore.ts';

const kills = Number(process.env['VISOGRAPH_KILLS'] ?? 3);
jest.setTimeout(60_000 + kills * 15_000);
const name = `crash-test-${randomBytes(3).toString('hex')}`;
let cluster: HeldCluster;
let databaseUrl: string;
let port: number;
let server: ChildProcess;
const random = lehmer(20261130);

async function startServer(): Promise<void> {
  const main = join(dirname(process.env['VISOGRAPH_JOB_PROCESS'] ?? ''), 'main.mjs');
  // While the database comes back a start may fail: whoever runs it starts it again.
  for (let turn = 0; turn < 60; turn++) {
    server = spawn(process.execPath, [main], {
      env: {
        ...process.env,
        ...{ DATABASE_URL: databaseUrl, PORT: String(port), VISOGRAPH_LOG: 'silent' },
        ...{ VISOGRAPH_SHORT_WORKERS: '0', VISOGRAPH_LONG_WORKERS: '0' },
      },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const ready = new Promise<boolean>((resolve) => {
      server.stdout?.on('data', (data: Buffer) => String(data).includes('is ready') && resolve(true));
      server.once('exit', () => resolve(false));
    });
    if (await ready) return;
    await wait(250);
  }
  throw new Error('the server does not start');
}

beforeAll(async () => {
  cluster = await holdCluster(name);
  const client = new pg.Client({ connectionString: cluster.url });
  await client.connect();
  await client.query('CREATE DATABASE crash');
  await client.end();
  databaseUrl = Object.assign(new URL(cluster.url), { pathname: '/crash' }).href;
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const address = probe.address();
  port = typeof address === 'object' && address !== null ? address.port : 0;
  probe.close();
  await startServer();
});
afterAll(async () => {
  server.kill('SIGKILL');
  await endCluster(name, [cluster]);
});

let cookie = '';
async function call(method: string, path: string, body: object): Promise<{ status: number; text: string }> {
  const response = await fetch(`http://127.0.0.1:${port}/api/v1${path}`, {
    method,
    headers: { 'Content-Type': 'application/json', ...(cookie === '' ? {} : { Cookie: cookie }) },
    body: JSON.stringify(body),
  });
  cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
  return { status: response.status, text: await response.text() };
}

test(`${kills} kills of server and database while four people edit: nothing that was acknowledged is lost`, async () => {
  await call('POST', '/first-account', {
    name: 'Crash',
    email: 'crash@marrow.example',
    password: 'a long password',
  });
  const { id: projectId } = JSON.parse((await call('POST', '/projects', { name: 'Crash' })).text) as {
    id: string;
  };
  const acknowledged = new Set<string>();
  const strange: string[] = [];
  let going = true;
  const editor = async (who: number): Promise<void> => {
    for (let count = 0; going; count++) {
      const id = newId();
      const place = `Place ${who}.${count}`;
      const after = { ...blankPlace, id, name: place, kind: 'site', parentId: null };
      const body = {
        id: newId(),
        sentence: `Added ${place}`,
        changes: [{ op: 'create', kind: 'place', id, after }],
      };
      // As a window does: the same edit again until there is an answer.
      for (;;) {
        const reply = await call('POST', `/projects/${projectId}/changes`, body).catch(() => null);
        if (reply?.status === 200) {
          acknowledged.add(place);
          break;
        }
        if (reply !== null && reply.status !== 503) strange.push(`${reply.status} ${reply.text}`);
        if (!going) break;
        await wait(30);
      }
    }
  };
  const editors = [0, 1, 2, 3].map(editor);
  for (let kill = 0; kill < kills; kill++) {
    await wait(300 + random() * 700);
    if (kill % 3 === 2) process.kill(await clusterPid(cluster), 'SIGKILL');
    else {
      server.kill('SIGKILL');
      await once(server, 'exit');
      await startServer();
    }
    // Work goes on after each: beyond what each of the four may have been told of just before.
    const enough = acknowledged.size + 8;
    for (let turn = 0; turn < 600 && acknowledged.size < enough; turn++) await wait(50);
    expect(acknowledged.size).toBeGreaterThanOrEqual(enough);
  }
  going = false;
  await Promise.all(editors);
  expect(strange).toEqual([]);
  const knex = connect(databaseUrl);
  try {
    const store = new ProjectStore(knex, storeChannel, newId());
    const { network, revision } = await store.read(projectId);
    const names = [...network.all('place')].map((place) => place.name);
    expect(new Set(names).size).toBe(names.length);
    expect([...acknowledged].filter((place) => !names.includes(place))).toEqual([]);
    // At most the four that were on their way at the end were made without a word.
    expect(names.length - acknowledged.size).toBeLessThanOrEqual(4);
    const { rows } = await knex.raw<{ rows: { count: number; newest: number }[] }>(
      'SELECT count(*) AS count, max(revision) AS newest FROM change_set WHERE project_id = ?',
      [projectId],
    );
    expect(rows).toEqual([{ count: revision, newest: revision }]);
    // Rows and journal say the same: taken back to its beginning nothing is left.
    const begun = (await store.at(projectId, null, 1)).network;
    expect(
      kindNames.filter((kind) => kind !== 'project' && kind !== 'model' && begun.count(kind) > 0),
    ).toEqual([]);
  } finally {
    await knex.destroy();
  }
});

import { afterAll, expect, jest, test } from '@jest/globals';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import pg from 'pg';
import { endCluster, holdCluster, type HeldCluster } from '../testing/ownCluster.ts';

jest.setTimeout(120_000);
const name = `cluster-test-${randomBytes(3).toString('hex')}`;
const held: HeldCluster[] = [];

async function answers(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 500 });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query('SELECT 1');
    return true;
  } catch {
    return false;
  } finally {
    await client.end().catch(() => undefined);
  }
}
const soon = async (holds: () => Promise<boolean>): Promise<boolean> => {
  for (let turn = 0; turn < 200; turn++) {
    if (await holds()) return true;
    await new Promise((done) => setTimeout(done, 100));
  }
  return false;
};

afterAll(async () => endCluster(name, held));

test('a database that outlived its start is taken over, and started again when it dies', async () => {
  const first = await holdCluster(name, { careless: true });
  held.push(first);
  expect(await answers(first.url)).toBe(true);
  first.holder.kill('SIGKILL');
  await once(first.holder, 'exit');
  expect(await answers(first.url)).toBe(true);
  const second = await holdCluster(name, { careless: true });
  held.push(second);
  expect([second.url, second.pid]).toEqual([first.url, first.pid]);
  process.kill(second.pid, 'SIGKILL');
  expect(await soon(async () => !(await answers(second.url)))).toBe(true);
  expect(await soon(() => answers(second.url))).toBe(true);
});

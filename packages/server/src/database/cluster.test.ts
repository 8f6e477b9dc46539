import { afterAll, expect, jest, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pg from 'pg';

jest.setTimeout(120_000);
const root = fileURLToPath(new URL('../../../../', import.meta.url));
const name = `cluster-test-${randomBytes(3).toString('hex')}`;
const started: ChildProcess[] = [];

interface Opened {
  holder: ChildProcess;
  url: string;
  pid: number;
}
/** A process of its own that opens the private database and holds it. */
async function open(): Promise<Opened> {
  const script = `import { openCluster } from ${JSON.stringify(join(root, 'scripts/postgres.mjs'))};
    const cluster = await openCluster(${JSON.stringify(name)}, { careless: true });
    process.on('SIGTERM', () => void cluster.stop().then(() => process.exit(0)));
    console.log(JSON.stringify({ url: cluster.url('postgres'), pid: cluster.pid() }));
    setInterval(() => undefined, 1000);`;
  const holder = spawn(process.execPath, ['--input-type=module', '-e', script], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  started.push(holder);
  const told = await new Promise<string>((resolve, reject) => {
    holder.stdout?.on('data', (data: Buffer) => resolve(String(data)));
    holder.once('exit', (code) => reject(new Error(`it ended with ${code}`)));
  });
  return { holder, ...(JSON.parse(told) as { url: string; pid: number }) };
}
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

afterAll(async () => {
  for (const holder of started.filter(
    ({ exitCode, signalCode }) => exitCode === null && signalCode === null,
  )) {
    holder.kill('SIGTERM');
    await once(holder, 'exit');
  }
  await rm(join(root, '.visograph', name), { recursive: true, force: true });
});

test('a database that outlived its start is taken over, and started again when it dies', async () => {
  const first = await open();
  expect(await answers(first.url)).toBe(true);
  first.holder.kill('SIGKILL');
  await once(first.holder, 'exit');
  expect(await answers(first.url)).toBe(true);
  const second = await open();
  expect(second).toMatchObject({ url: first.url, pid: first.pid });
  process.kill(second.pid, 'SIGKILL');
  expect(await soon(async () => !(await answers(second.url)))).toBe(true);
  expect(await soon(() => answers(second.url))).toBe(true);
});

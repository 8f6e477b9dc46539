/** A server in a process of its own, on a database of its own: what others notice of it is measured from outside. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:net';
import pg from 'pg';

export interface OwnServer {
  child: ChildProcess;
  port: number;
  base: string;
  stop: () => Promise<void>;
}

/** Makes a database anew; needs VISOGRAPH_TEST_DATABASE. @returns its address */
async function freshDatabase(name: string): Promise<string> {
  const admin = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  return Object.assign(new URL(admin), { pathname: `/${name}` }).href;
}

async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const address = probe.address();
  probe.close();
  return typeof address === 'object' && address !== null ? address.port : 0;
}

/** Starts the built server (VISOGRAPH_SERVER) on an empty database of this name. */
export async function ownServer(database: string, env: Record<string, string> = {}): Promise<OwnServer> {
  const [databaseUrl, port] = [await freshDatabase(database), await freePort()];
  const child = spawn(process.execPath, ['--enable-source-maps', process.env['VISOGRAPH_SERVER'] ?? ''], {
    env: { ...process.env, ...env, DATABASE_URL: databaseUrl, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((ready, fail) => {
    child.stdout.on('data', (data: Buffer) => {
      if (String(data).includes('is ready')) ready();
    });
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}`)));
  });
  return {
    ...{ child, port, base: `http://127.0.0.1:${port}/api/v1` },
    stop: async () => {
      if (child.exitCode !== null || child.signalCode !== null) return;
      child.kill('SIGTERM');
      await once(child, 'exit');
    },
  };
}

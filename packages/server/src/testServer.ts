/** A real server on a database of its own, for tests. Needs VISOGRAPH_TEST_DATABASE: see scripts/test.mjs. */
import { expect } from '@jest/globals';
import { contract, schemas, type Endpoint, type Name } from '@visograph/api';
import type { Network } from '@visograph/core/model';
import type { z } from 'zod';
import { createHash, randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { demoPassword, loadDemo } from './people/demo.ts';
import { startServer, type RunningServer, type ServerOptions } from './server.ts';

export const demoFile = fileURLToPath(new URL('../../../demo/marrow-sound-ferries.json', import.meta.url));

export interface Reply<T = unknown> {
  status: number;
  body: T;
  text: string;
  bytes: Uint8Array;
  headers: Headers;
}

const known = (Object.keys(contract) as Name[]).map((name) => {
  const [method = '', path = ''] = name.split(' ');
  const endpoint: Endpoint = contract[name];
  return {
    method,
    path: new RegExp(`^${path.replaceAll(/:\w+/g, '[^/]+')}$`),
    endpoint,
  };
});

/** Every reply that a test gets is held against the contract: nothing else, nothing more. */
function judged(method: string, path: string, { status, text, body, headers }: Reply): void {
  const type = headers.get('content-type') ?? '';
  const [plain = ''] = path.split('?');
  const called = known.find((one) => one.method === method && one.path.test(plain));
  if (called === undefined) throw new Error(`${method} ${plain} is not in the contract.`);
  const { answers } = called.endpoint;
  const judge = (schema: z.ZodType | undefined, value: unknown): void => {
    const read = schema?.safeParse(value);
    if (read?.success !== true)
      throw new Error(
        `${method} ${plain} does not answer what the contract says: ${read?.error.message ?? text}`,
      );
    expect(read.data).toEqual(value);
  };
  if (status === 202) judge(schemas.job, body);
  else if (type.startsWith('application/json') && called.endpoint.files === undefined) judge(answers, body);
}

/** A signed-in (or anonymous) caller of the API. */
export class Caller {
  private cookie = '';
  constructor(
    readonly base: string,
    /** Replies are held against the contract; not those of a server that was built from other sources. */
    private readonly contracted = true,
  ) {}

  get cookies(): string {
    return this.cookie;
  }

  async call<T = Record<string, unknown>>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Reply<T>> {
    const bytes = body instanceof Uint8Array;
    const type = bytes
      ? 'application/octet-stream'
      : typeof body === 'string'
        ? 'text/plain'
        : 'application/json';
    const sent = bytes ? Buffer.from(body) : typeof body === 'string' ? body : JSON.stringify(body);
    const response = await fetch(`${this.base}/api/v1${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': type }),
        ...(this.cookie === '' ? {} : { Cookie: this.cookie }),
        // What is done as a job is waited for.
        Prefer: 'wait=110',
        ...headers,
      },
      body: body === undefined ? undefined : sent,
      redirect: 'manual',
    });
    const set = response.headers.get('set-cookie');
    if (set !== null) this.cookie = set.split(';')[0] ?? '';
    const received = new Uint8Array(await response.arrayBuffer());
    const text = new TextDecoder().decode(received);
    const contentType = response.headers.get('content-type') ?? '';
    const read: unknown = /[/+]json/.test(contentType) && text !== '' ? JSON.parse(text) : {};
    const { status, headers: its } = response;
    const reply = { status, body: read as T, text, bytes: received, headers: its };
    if (response.ok && this.contracted) judged(method, path, reply);
    return reply;
  }

  async signIn(email: string, password = demoPassword): Promise<this> {
    const reply = await this.call('POST', '/session', { email, password });
    if (reply.status !== 200) throw new Error(`sign-in failed: ${reply.text}`);
    return this;
  }
}

export interface TestServer extends RunningServer {
  databaseUrl: string;
  caller: (email?: string) => Promise<Caller>;
  /** Another server on the same database. */
  second: (options?: Partial<ServerOptions>) => Promise<RunningServer>;
  end: () => Promise<void>;
}

async function admin(work: (client: pg.Client) => Promise<unknown>): Promise<string> {
  const url = process.env['VISOGRAPH_TEST_DATABASE'];
  if (url === undefined) throw new Error('VISOGRAPH_TEST_DATABASE is not set: run npm test');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await work(client);
  await client.end();
  return url;
}

/** A database of its own for a test: empty, or as another one is; `end` removes it. */
export async function testDatabase(
  like: string | null = null,
): Promise<{ url: string; end: () => Promise<void> }> {
  const name = `test_${randomBytes(6).toString('hex')}`;
  const url = new URL(
    await admin((client) =>
      client.query(`CREATE DATABASE ${name}${like === null ? '' : ` TEMPLATE ${like}`}`),
    ),
  );
  url.pathname = `/${name}`;
  return {
    url: url.href,
    end: async () => void (await admin((client) => client.query(`DROP DATABASE ${name} WITH (FORCE)`))),
  };
}

/** Of the demo as its file is now. */
const demoDatabase = `test_like_${createHash('sha256').update(readFileSync(demoFile)).digest('hex').slice(0, 12)}`;
/** By which those who would make it at the same time wait for each other. */
const demoLock = 20_261;

/** A database that holds the demo, read once for all tests of a cluster: each of them begins with a copy of it. */
async function demoCopied(): Promise<string> {
  await admin(async (client) => {
    await client.query('SELECT pg_advisory_lock($1)', [demoLock]);
    const { rows } = await client.query<{ datistemplate: boolean }>(
      'SELECT datistemplate FROM pg_database WHERE datname = $1',
      [demoDatabase],
    );
    if (rows[0]?.datistemplate === true) return;
    // One that was begun and not finished is of no use.
    await client.query(`DROP DATABASE IF EXISTS ${demoDatabase} WITH (FORCE)`);
    await client.query(`CREATE DATABASE ${demoDatabase}`);
    const url = new URL(process.env['VISOGRAPH_TEST_DATABASE'] ?? '');
    url.pathname = `/${demoDatabase}`;
    const server = await startServer({
      databaseUrl: url.href,
      port: 0,
      logLevel: 'silent',
      workers: { short: 0, long: 0 },
      prepare: (knex, store) => loadDemo(knex, store, demoFile),
    });
    await server.stop();
    await client.query(`ALTER DATABASE ${demoDatabase} IS_TEMPLATE true`);
  });
  return demoDatabase;
}

export async function testServer(
  options: Partial<ServerOptions> & { demo?: boolean } = {},
): Promise<TestServer> {
  const database = await testDatabase(options.demo === false ? null : await demoCopied());
  const databaseUrl = database.url;
  const start = (more: Partial<ServerOptions> = {}): Promise<RunningServer> =>
    startServer({
      databaseUrl,
      port: 0,
      logLevel: 'silent',
      workers: { short: 1, long: 1 },
      signInTries: 1000,
      ...options,
      ...more,
    });
  const server = await start();
  const others: RunningServer[] = [];
  return {
    ...server,
    databaseUrl,
    caller: async (email) =>
      email === undefined ? new Caller(server.url) : new Caller(server.url).signIn(email),
    second: async (more) => {
      const other = await start(more);
      others.push(other);
      return other;
    },
    end: async () => {
      for (const other of others) await other.stop();
      await server.stop();
      await database.end();
    },
  };
}

export const accountOf = async (who: Caller): Promise<string> =>
  (await who.call<{ account: { id: string } }>('GET', '/session')).body.account.id;

/** Brings somebody into a project as they come: by a link that an owner hands on. */
export async function bringIn(owner: Caller, project: string, who: Caller, role: string): Promise<void> {
  const invited = await owner.call<{ key: string }>('POST', `/projects/${project}/invitations`, {
    email: `${randomBytes(4).toString('hex')}@marrow.example`,
    role,
  });
  const { status, text } = await who.call('POST', '/invitations/accept', { key: invited.body.key });
  if (status !== 200) throw new Error(`did not come in: ${text}`);
}

/** The demo project as its people see it: an owner, an editor, a reader. */
export interface AtHand {
  projectId: string;
  anna: Caller;
  ben: Caller;
  rita: Caller;
  /** A path of the API below the project. */
  at: (what: string) => string;
  network: (line?: string | null) => Promise<Network>;
}

export async function atHand(server: TestServer): Promise<AtHand> {
  const [anna, ben, rita] = await Promise.all([
    server.caller('anna@marrow.example'),
    server.caller('ben@marrow.example'),
    server.caller('rita@marrow.example'),
  ]);
  const [project] = (await anna.call<{ id: string }[]>('GET', '/projects')).body;
  if (project === undefined) throw new Error('the demo is not there');
  const projectId = project.id;
  return {
    ...{ projectId, anna, ben, rita },
    at: (what) => `/projects/${projectId}/${what}`,
    network: async (line = null) => (await server.store.read(projectId, line)).network,
  };
}

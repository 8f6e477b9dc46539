import type { Lane } from '@visograph/api';
import { newId } from '@visograph/core/model';
import { readFile } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino, type Logger } from 'pino';
import type { Knex } from 'knex';
import { connect } from './database/connect.ts';
import { migrate } from './database/schema.ts';
import { makeApp } from './http/app.ts';
import { Refusal } from './http/problem.ts';
import { sessions } from './people/session.ts';
import { accessChannel, accessNoteSchema } from './people/accessNews.ts';
import { SignInLimit } from './people/signInLimit.ts';
import { Live } from './live/live.ts';
import { listen } from './store/listen.ts';
import { Jobs } from './jobs/jobs.ts';
import { jobChannel, type JobNote } from './jobs/messages.ts';
import { ProjectStore, storeChannel } from './store/projectStore.ts';

export interface ServerOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  webFolder?: string | null;
  /** The exchange file that new projects can begin with as an example. */
  exampleFile?: string;
  logLevel?: string;
  /** Failed sign-ins in 15 minutes of one source at one account; five times as many of one source, or at one account. */
  signInTries?: number;
  trustedProxies?: readonly string[];
  /** Rows of networks kept in memory, all projects together. */
  cacheRows?: number;
  /** Processes for the jobs of each lane; left out: two for what is over soon, one for what takes long. */
  workers?: Readonly<Record<Lane, number>>;
  /** Megabytes of memory that one job may take. */
  jobMegabytes?: number;
  /** Run on the migrated database before anybody is served. */
  prepare?: (knex: Knex, store: ProjectStore) => Promise<unknown>;
}

export interface RunningServer {
  url: string;
  knex: Knex;
  store: ProjectStore;
  jobs: Jobs;
  stop: () => Promise<void>;
}

/** Milliseconds that a statement of the web process may take. */
const statementPatience = 30_000;

const openPort = (http: Server, port: number): Promise<number> =>
  new Promise((resolve, reject) => {
    http.once('error', reject);
    http.listen(port, '127.0.0.1', () => {
      http.off('error', reject);
      resolve((http.address() as AddressInfo).port);
    });
  });

/** Starts one server on one database, on loopback only. Several may share a database. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const log: Logger = pino({ level: options.logLevel ?? 'info' });
  // An upgrade takes as long as it takes.
  const upgrade = connect(options.databaseUrl, { most: 2 });
  try {
    await migrate(upgrade);
  } finally {
    await upgrade.destroy();
  }
  const knex = connect(options.databaseUrl, { patience: statementPatience });
  const instance = newId();
  const store = new ProjectStore(knex, storeChannel, instance, options.cacheRows);
  await options.prepare?.(knex, store);
  const live = new Live();
  store.listen({
    entry: (projectId, entry) => live.send(projectId, entry),
    unread: (projectId, line) => live.sendReload(projectId, line),
  });
  const session = await sessions(knex, options.databaseUrl);
  const named = `visograph server ${instance}`;
  const { workers = { short: 2, long: 1 }, jobMegabytes = 1500 } = options;
  const jobs = new Jobs({
    ...{ knex, store, databaseUrl: options.databaseUrl, server: named, log, workers },
    limits: { megabytes: jobMegabytes },
  });
  jobs.onNote((note) => live.sendJob(note));
  const listener = listen(options.databaseUrl, named, log, {
    channels: {
      [storeChannel]: (note) => store.heard(note),
      [jobChannel]: (note) => jobs.heard(note as JobNote),
      [accessChannel]: (note) => live.dropAccess(accessNoteSchema.parse(note)),
    },
    opened: () => store.noticeAll(),
  });
  const { exampleFile } = options;
  const example = async (): Promise<unknown> => {
    if (exampleFile === undefined)
      throw new Refusal(
        404,
        'No example',
        'This server has no example network. Begin an empty project instead.',
      );
    return JSON.parse(await readFile(exampleFile, 'utf8'));
  };
  const signInLimit = new SignInLimit(knex, options.signInTries ?? 10);
  const services = { signInLimit, knex, store, live, jobs, example, log };
  const app = makeApp({
    services,
    session: session.handler,
    webFolder: options.webFolder ?? null,
    trustedProxies: options.trustedProxies ?? [],
  });
  const http = createServer(app);
  live.attach(http, session.handler, knex);
  const stop = async (): Promise<void> => {
    live.close();
    http.closeAllConnections();
    await new Promise<void>((resolve) => http.close(() => resolve()));
    await jobs.close();
    await listener.stop();
    await session.close();
    await knex.destroy();
  };
  try {
    const port = await openPort(http, options.port);
    return { url: `http://127.0.0.1:${port}`, knex, store, jobs, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

import type { Lane } from '@visograph/api';
import { newId } from '@visograph/core/model';
import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { pino, type Logger } from 'pino';
import type { Knex } from 'knex';
import { connect } from './database/connect.ts';
import { migrate } from './database/schema.ts';
import { Metrics } from './http/metrics.ts';
import { makeApp } from './http/app.ts';
import { sessions } from './people/session.ts';
import { accessChannel, accessNoteSchema } from './people/accessNews.ts';
import { Mail, type MailOptions } from './people/mail.ts';
import { SignInLimit } from './people/signInLimit.ts';
import { Live } from './live/live.ts';
import { purge } from './project/standing.ts';
import { listen } from './store/listen.ts';
import { Jobs } from './jobs/jobs.ts';
import { jobChannel, type JobNote } from './jobs/messages.ts';
import { ProjectStore, storeChannel } from './store/projectStore.ts';

export interface ServerOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  host?: string;
  /** Certificate chain and key (PEM) for TLS at this server. */
  tls?: { cert: string; key: string };
  /** Whether cookies are sent over TLS alone; auto: where the request came over it. */
  secureCookies?: 'auto' | 'always' | 'never';
  /** Where `/metrics` is served, apart from people. */
  metrics?: { host: string; port: number };
  webFolder?: string | null;
  /** The exchange file that new projects can begin with as an example. */
  exampleFile?: string;
  logLevel?: string;
  /** Failed sign-ins in 15 minutes of one source at one account; five times as many of one source, or at one account. */
  signInTries?: number;
  trustedProxies?: readonly string[];
  mail?: MailOptions;
  /** Days that a deleted project can be brought back. */
  deletedDays?: number;
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
  /** Where metrics are, if they are served. */
  metricsUrl: string | null;
  knex: Knex;
  store: ProjectStore;
  jobs: Jobs;
  stop: () => Promise<void>;
}

/** Milliseconds that a statement of the web process may take. */
const statementPatience = 30_000;

/** How long a connection stays open that says nothing: longer than proxies keep theirs, so that none is cut under way. */
const idlePatience = 75_000;

/** How long what is under way may take at the end, in milliseconds. */
const lastPatience = 10_000;

const openPort = (http: Server, host: string, port: number): Promise<number> =>
  new Promise((resolve, reject) => {
    http.once('error', reject);
    http.listen(port, host, () => {
      http.off('error', reject);
      resolve((http.address() as AddressInfo).port);
    });
  });

/** Takes no more, and lets what is under way come to its end. */
async function finish(http: Server): Promise<void> {
  const closed = new Promise<void>((resolve) => http.close(() => resolve()));
  http.closeIdleConnections();
  const late = setTimeout(() => http.closeAllConnections(), lastPatience);
  const idle = setInterval(() => http.closeIdleConnections(), 50);
  await closed;
  clearTimeout(late);
  clearInterval(idle);
}

function everyHour(work: () => Promise<void>, log: Logger): NodeJS.Timeout {
  const once = (): void =>
    void work().catch((error: unknown) => log.warn({ error: String(error) }, 'could not be done this hour'));
  once();
  return setInterval(once, 60 * 60 * 1000).unref();
}

/** Starts one server on one database, on loopback unless it is told otherwise. Several may share a database. */
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
  const session = await sessions(knex, options.databaseUrl, options.secureCookies);
  const named = `visograph server ${instance}`;
  const { workers = { short: 2, long: 1 }, jobMegabytes = 1500, exampleFile = null } = options;
  const jobs = new Jobs({
    ...{ knex, store, databaseUrl: options.databaseUrl, server: named, log, workers },
    exampleFile,
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
  const signInLimit = new SignInLimit(knex, options.signInTries ?? 10);
  const resetLimit = new SignInLimit(knex, 3, { prefix: 'reset ', what: 'wishes for a new password' });
  const mail = new Mail(options.mail ?? null, log);
  const { deletedDays = 30 } = options;
  const purging = everyHour(() => purge(knex, deletedDays), log);
  const services = { signInLimit, resetLimit, mail, deletedDays, knex, store, live, jobs, exampleFile, log };
  const metrics = new Metrics({ knex, windows: () => live.size, rows: () => store.rowsInMemory });
  const app = makeApp({
    metrics,
    services,
    session: session.handler,
    webFolder: options.webFolder ?? null,
    trustedProxies: options.trustedProxies ?? [],
    overTlsOnly: options.tls !== undefined || options.secureCookies === 'always',
  });
  const { tls, host = '127.0.0.1', metrics: wanted } = options;
  const http: Server = tls === undefined ? createServer(app) : createSecureServer(tls, app);
  http.keepAliveTimeout = idlePatience;
  let measured: { url: string; close: () => Promise<void> } | null = null;
  live.attach(http, session.handler, knex);
  const end = async (): Promise<void> => {
    clearInterval(purging);
    mail.close();
    live.close();
    await finish(http);
    await measured?.close();
    await jobs.close();
    await listener.stop();
    await session.close();
    await knex.destroy();
  };
  let ending: Promise<void> | null = null;
  const stop = (): Promise<void> => (ending ??= end());
  try {
    const port = await openPort(http, host, options.port);
    measured = wanted === undefined ? null : await metrics.serve(wanted.host, wanted.port);
    const shown = host.includes(':') ? `[${host}]` : host;
    const url = `${tls === undefined ? 'http' : 'https'}://${shown}:${port}`;
    return { url, metricsUrl: measured?.url ?? null, knex, store, jobs, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

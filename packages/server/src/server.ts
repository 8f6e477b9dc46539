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
import { Live } from './live/live.ts';
import { Press } from './sheets/printing/press.ts';
import { listen } from './store/listen.ts';
import { ProjectStore } from './store/projectStore.ts';

export interface ServerOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  webFolder?: string | null;
  /** The exchange file that new projects can begin with as an example. */
  exampleFile?: string;
  logLevel?: string;
  signInTries?: number;
  /** Run on the migrated database before anybody is served. */
  prepare?: (knex: Knex, store: ProjectStore) => Promise<unknown>;
}

export interface RunningServer {
  url: string;
  knex: Knex;
  store: ProjectStore;
  stop: () => Promise<void>;
}

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
  const knex = connect(options.databaseUrl);
  try {
    await migrate(knex);
  } catch (error) {
    await knex.destroy();
    throw error;
  }
  const instance = newId();
  const channel = 'visograph';
  const store = new ProjectStore(knex, channel, instance);
  await options.prepare?.(knex, store);
  const live = new Live();
  store.onEntry((projectId, entry) => live.send(projectId, entry));
  const session = await sessions(knex, options.databaseUrl);
  const listener = listen(options.databaseUrl, channel, instance, store, log);
  const press = new Press();
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
  const services = { knex, store, live, press, example, log };
  const app = makeApp({
    services,
    session: session.handler,
    webFolder: options.webFolder ?? null,
    signInTries: options.signInTries ?? 10,
  });
  const http = createServer(app);
  live.attach(http, session.handler, knex);
  const stop = async (): Promise<void> => {
    live.close();
    http.closeAllConnections();
    await new Promise<void>((resolve) => http.close(() => resolve()));
    await listener.stop();
    await session.close();
    await press.close();
    await knex.destroy();
  };
  try {
    const port = await openPort(http, options.port);
    return { url: `http://127.0.0.1:${port}`, knex, store, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

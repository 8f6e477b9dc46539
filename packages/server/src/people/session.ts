import connectPgSimple from 'connect-pg-simple';
import session from 'express-session';
import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import type { RequestHandler } from 'express';
import pg from 'pg';

declare module 'express-session' {
  interface SessionData {
    accountId?: string;
    /** When the person signed in, and with what program by its own word. */
    since?: string;
    agent?: string;
  }
}

/** The key that signs session cookies: made once, kept in the database, the same for every server on it. */
async function signingKey(knex: Knex): Promise<string> {
  await knex('setting')
    .insert({ key: 'session key', value: randomBytes(32).toString('base64url') })
    .onConflict('key')
    .ignore();
  const row: { value: string } | undefined = await knex('setting').where({ key: 'session key' }).first();
  return row?.value ?? '';
}

const week = 7 * 24 * 60 * 60 * 1000;

/** Sessions in PostgreSQL, named by an HttpOnly, SameSite=Lax cookie that lasts a week. Using one writes nothing. */
export async function sessions(
  knex: Knex,
  databaseUrl: string,
  secure: 'auto' | 'always' | 'never' = 'auto',
): Promise<{ handler: RequestHandler; close: () => Promise<void> }> {
  const pool = new pg.Pool({
    connectionString: databaseUrl,
    max: 8,
    connectionTimeoutMillis: 5000,
    statement_timeout: 10_000,
    query_timeout: 12_000,
  });
  pool.on('error', () => undefined);
  const Store = connectPgSimple(session);
  const store = new Store({ pool, tableName: 'session', pruneSessionInterval: 3600, disableTouch: true });
  const handler = session({
    name: 'visograph',
    secret: await signingKey(knex),
    store,
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: {
      ...{ httpOnly: true, sameSite: 'lax', maxAge: week },
      secure: secure === 'auto' ? 'auto' : secure === 'always',
    },
  });
  return {
    handler,
    close: async () => {
      store.close();
      await pool.end();
    },
  };
}

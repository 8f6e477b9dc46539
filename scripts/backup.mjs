/**
 * npm run visograph -- backup --to FILE, and restore --from FILE: the whole installation (accounts, projects, plans,
 * history), by PostgreSQL's own tools. Sessions and jobs are left out: people sign in again.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensurePostgres } from './install.mjs';
import { withDatabase } from './postgres.mjs';
import { say, stopWith } from './say.mjs';

const usage = `visograph backup --to FILE       the whole installation into one file
visograph restore --from FILE    the whole installation out of it, into an empty database

Both work on the database of DATABASE_URL, or else on the private one of this folder.`;

/** Kept for some minutes or an hour: nothing that belongs to a backup. */
const passing = ['session', 'sign_in_try', 'job'];

function wishOf(verb, args) {
  try {
    const { values } = parseArgs({ args, options: { to: { type: 'string' }, from: { type: 'string' } } });
    const path = verb === 'backup' ? values.to : values.from;
    if (path !== undefined) return resolve(path);
  } catch (error) {
    say(error.message);
  }
  return stopWith(usage, 2);
}

/** The address goes by the environment, where no list of processes shows its password. */
function tool(name, url, args) {
  const { hostname, port, pathname, username, password } = new URL(url);
  const env = {
    ...process.env,
    ...{
      PGHOST: hostname,
      PGPORT: port === '' ? '5432' : port,
      PGDATABASE: decodeURIComponent(pathname.slice(1)),
    },
    ...{ PGUSER: decodeURIComponent(username), PGPASSWORD: decodeURIComponent(password) },
  };
  return spawnSync(join(ensurePostgres(), name), args, {
    env,
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

async function ask(url, question) {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(question)).rows;
  } finally {
    await client.end();
  }
}

const contents = async (url) => {
  const [row] = await ask(
    url,
    'SELECT (SELECT count(*) FROM account)::int AS people, (SELECT count(*) FROM project)::int AS projects, (SELECT count(*) FROM change_set)::int AS entries',
  );
  return `${row.people} people, ${row.projects} projects, ${row.entries} steps of history`;
};

/** Written aside and then moved: a backup that broke off is none. */
const backup = (path) =>
  withDatabase(async (url) => {
    const part = `${path}.part`;
    const made = tool('pg_dump', url, [
      '--format=custom',
      '--no-owner',
      '--no-privileges',
      '--exclude-schema=pgboss',
      ...passing.map((table) => `--exclude-table-data=public.${table}`),
      `--file=${part}`,
    ]);
    if (made.status !== 0) {
      rmSync(part, { force: true });
      return stopWith(`The backup was not made:\n${made.stderr.trim()}`);
    }
    const read = tool('pg_restore', url, ['--list', part]);
    if (read.status !== 0) return stopWith(`The backup cannot be read again:\n${read.stderr.trim()}`);
    renameSync(part, path);
    say(`${path}: ${await contents(url)}, ${Math.ceil(statSync(path).size / 1024)} kB.`);
  });

const restore = (path) =>
  withDatabase(async (url) => {
    if (!existsSync(path)) return stopWith(`There is no file ${path}.`, 2);
    const [{ tables }] = await ask(
      url,
      `SELECT count(*)::int AS tables FROM information_schema.tables WHERE table_schema = 'public'`,
    );
    if (tables > 0)
      return stopWith(
        `The database is not empty (${tables} tables): nothing was restored. Stop Visograph, make an empty database, and name it by DATABASE_URL.`,
        2,
      );
    const made = tool('pg_restore', url, [
      '--no-owner',
      '--no-privileges',
      '--exit-on-error',
      '--single-transaction',
      `--dbname=${decodeURIComponent(new URL(url).pathname.slice(1))}`,
      path,
    ]);
    if (made.status !== 0) return stopWith(`Nothing was restored:\n${made.stderr.trim()}`);
    say(`Restored: ${await contents(url)}. Start Visograph on it; people sign in again.`);
  });

export async function run(verb, args) {
  const path = wishOf(verb, args);
  await (verb === 'backup' ? backup(path) : restore(path));
}

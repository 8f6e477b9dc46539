import { noPassword } from '../people/passwords.ts';
import { rawLines } from '../store/copiedLines.ts';
import { createReadStream, createWriteStream } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { once } from 'node:events';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { PassThrough } from 'node:stream';
import pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { z } from 'zod';

/** What a file of a project begins with: it names the step of the database's history that its rows are of. */
const headSchema = z.object({
  format: z.literal('visograph-project'),
  version: z.literal(1),
  steps: z.int(),
  project: z.object({ id: z.uuid(), name: z.string() }),
});
type Head = z.infer<typeof headSchema>;
const columnsSchema = z.array(z.string());

/** Kept for some minutes; or made by the database itself out of other rows. */
const leftOut = new Set(['job', 'invitation', 'cable_end']);
/** Before what refers to them; what else there is refers within the project, which is judged at the end. */
const before = ['project', 'line', 'membership'];
const ofAccounts = new Set(['account_id', 'author_id']);

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** The tables that hold rows of projects, each with the columns that are written. */
async function tablesOf(client: pg.Client): Promise<{ table: string; columns: string[] }[]> {
  const { rows } = await client.query<{ table: string; columns: string[] }>(
    `SELECT c.table_name AS "table", array_agg(c.column_name::text ORDER BY c.ordinal_position) AS columns
     FROM information_schema.columns c JOIN information_schema.tables t USING (table_schema, table_name)
     WHERE c.table_schema = 'public' AND t.table_type = 'BASE TABLE' AND c.is_generated = 'NEVER'
     GROUP BY c.table_name HAVING c.table_name = 'project' OR bool_or(c.column_name = 'project_id')
     ORDER BY c.table_name COLLATE "C"`,
  );
  const rank = ({ table }: { table: string }): number =>
    (before.indexOf(table) + before.length + 1) % (before.length + 1);
  return rows.filter(({ table }) => !leftOut.has(table)).sort((a, b) => rank(a) - rank(b));
}

async function stepsOf(client: pg.Client): Promise<number> {
  const there = await client.query<{ name: string | null }>(`SELECT to_regclass('knex_migrations') AS name`);
  if (there.rows[0]?.name === null)
    throw new CannotDo('The database has no tables yet: start Visograph on it once, then try again.');
  const { rows } = await client.query<{ count: string }>('SELECT count(*) FROM knex_migrations');
  return Number(rows[0]?.count ?? 0);
}

async function inOne<T>(client: pg.Client, begin: string, work: () => Promise<T>): Promise<T> {
  await client.query(begin);
  try {
    const result = await work();
    await client.query('COMMIT');
    return result;
  } catch (error) {
    await client.query('ROLLBACK').catch(() => undefined);
    throw error;
  }
}

async function withClient<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Why it cannot be done, for whoever runs the server. */
export class CannotDo extends Error {}

/** The project of a name or an id. @throws CannotDo when there is none, or several */
async function projectNamed(client: pg.Client, said: string): Promise<Head['project']> {
  const { rows } = await client.query<Head['project']>(
    'SELECT id, name FROM project WHERE id::text = lower($1) OR name = $1 ORDER BY id',
    [said],
  );
  const [one, ...others] = rows;
  if (one === undefined)
    throw new CannotDo(`There is no project ${said}. Say its name as it is written, or its id.`);
  if (others.length > 0)
    throw new CannotDo(
      `Several projects are called ${said}: say the id of one of them: ${rows.map(({ id }) => id).join(', ')}.`,
    );
  return one;
}

/**
 * Writes a project with members, plans and history into a file: gzip (RFC 1952) of lines; a head in JSON, then for each
 * table its columns and rows in the text format of COPY. All as of one moment, while others go on.
 *
 * @returns how many rows
 */
export const archiveProject = (
  url: string,
  said: string,
  path: string,
): Promise<{ name: string; rows: number }> =>
  withClient(url, (client) =>
    inOne(client, 'BEGIN ISOLATION LEVEL REPEATABLE READ READ ONLY', async () => {
      const project = await projectNamed(client, said);
      const part = `${path}.part`;
      const lines = new PassThrough();
      const written = pipeline(lines, createGzip(), createWriteStream(part));
      // Told where it is waited for.
      written.catch(() => undefined);
      const say = async (text: string): Promise<void> => {
        if (!lines.write(`${text}\n`)) await Promise.race([once(lines, 'drain'), written]);
      };
      let rows = 0;
      try {
        const head: Head = { format: 'visograph-project', version: 1, steps: await stepsOf(client), project };
        await say(JSON.stringify(head));
        const copy = async (table: string, columns: string[], where: string): Promise<void> => {
          const names = columns.map(quoted).join(', ');
          await say(`COPY ${table} ${JSON.stringify(columns)}`);
          const question = `SELECT ${names} FROM ${quoted(table)} WHERE ${where} ORDER BY ${quoted(table)}::text COLLATE "C"`;
          for await (const some of rawLines(client, question)) {
            rows += some.length;
            await say(some.join('\n'));
          }
          await say('\\.');
        };
        const people = `id IN (SELECT account_id FROM membership WHERE project_id = '${project.id}' UNION SELECT author_id FROM change_set WHERE project_id = '${project.id}')`;
        await copy('account', ['id', 'email', 'name'], people);
        for (const { table, columns } of await tablesOf(client))
          await copy(table, columns, `${table === 'project' ? 'id' : 'project_id'} = '${project.id}'`);
        lines.end();
        await written;
      } catch (error) {
        lines.destroy();
        await rm(part, { force: true });
        throw error;
      }
      await rename(part, path);
      return { name: project.name, rows };
    }),
  );

function headOf(line: string): Head {
  let read: unknown = null;
  try {
    read = JSON.parse(line);
  } catch {
    // Told below, as what has the wrong form is.
  }
  const head = headSchema.safeParse(read);
  if (!head.success) throw new CannotDo('The file is no archive of a project (or of a newer Visograph).');
  return head.data;
}

/** People come back with the account that has their id or address; whoever has none gets one that no password opens. */
async function bringPeople(client: pg.Client, lines: AsyncIterator<string>): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (let next = await lines.next(); next.done !== true && next.value !== '\\.'; next = await lines.next()) {
    const [id = '', email = '', name = ''] = next.value.split('\t');
    const known = await client.query<{ id: string }>(
      'SELECT id FROM account WHERE id = $1 OR email = $2 ORDER BY id = $1 DESC',
      [id, email],
    );
    if (known.rows[0] === undefined)
      await client.query('INSERT INTO account (id, email, name, password_hash) VALUES ($1, $2, $3, $4)', [
        ...[id, email, name],
        noPassword,
      ]);
    ids.set(id, known.rows[0]?.id ?? id);
  }
  return ids;
}

async function* until(lines: AsyncIterator<string>, each: (line: string) => string): AsyncGenerator<string> {
  for (let next = await lines.next(); next.value !== '\\.'; next = await lines.next()) {
    if (next.done === true) throw new CannotDo('The file ends in the middle: it is cut off.');
    yield `${each(next.value)}\n`;
  }
}

/** Brings a project back out of its archive, with its ids. @throws CannotDo and nothing is written */
export const restoreProject = (url: string, path: string): Promise<{ name: string; rows: number }> =>
  withClient(url, (client) =>
    inOne(client, 'BEGIN', async () => {
      const file = createReadStream(path).pipe(createGunzip());
      const lines = createInterface({ input: file, crlfDelay: Infinity })[Symbol.asyncIterator]();
      const first = await lines.next();
      const head = headOf(first.done === true ? '' : first.value);
      const steps = await stepsOf(client);
      if (head.steps !== steps)
        throw new CannotDo(
          `The archive is of another version of Visograph (database step ${head.steps}, here ${steps}). Restore it with that version, then upgrade.`,
        );
      const { rows: there } = await client.query<{ name: string }>('SELECT name FROM project WHERE id = $1', [
        head.project.id,
      ]);
      if (there[0] !== undefined)
        throw new CannotDo(
          `The project ${there[0].name} is there, perhaps deleted and not gone yet. Delete it for good first.`,
        );
      const known = new Map((await tablesOf(client)).map(({ table, columns }) => [table, columns]));
      await client.query('SET CONSTRAINTS ALL DEFERRED');
      let people = new Map<string, string>();
      let rows = 0;
      for (let next = await lines.next(); next.done !== true; next = await lines.next()) {
        const [, table = '', said = '[]'] = /^COPY (\w+) (\[.*\])$/.exec(next.value) ?? [];
        if (table === 'account') {
          people = await bringPeople(client, lines);
          continue;
        }
        const columns = columnsSchema.parse(JSON.parse(said));
        const here = known.get(table);
        if (here === undefined || columns.join() !== here.join())
          throw new CannotDo(`The archive holds a table ${table || '(unnamed)'} that is not as it is here.`);
        const persons = columns.flatMap((column, at) => (ofAccounts.has(column) ? [at] : []));
        const each = (line: string): string => {
          rows++;
          if (persons.length === 0) return line;
          const values = line.split('\t');
          for (const at of persons) values[at] = people.get(values[at] ?? '') ?? values[at] ?? '\\N';
          return values.join('\t');
        };
        const into = `COPY ${quoted(table)} (${columns.map(quoted).join(', ')}) FROM STDIN`;
        await pipeline(until(lines, each), client.query(copyFrom(into)));
      }
      await client.query('SET CONSTRAINTS ALL IMMEDIATE');
      return { name: head.project.name, rows: rows + people.size };
    }),
  );

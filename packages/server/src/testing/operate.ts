/** What whoever runs a server does by the command line, and what lies in its database then. */
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import pg from 'pg';

const script = fileURLToPath(new URL('../../../../scripts/visograph.mjs', import.meta.url));

export const tool = (
  databaseUrl: string,
  ...args: string[]
): Promise<{ code: number | null; told: string }> =>
  new Promise((resolve) => {
    const child = spawn(process.execPath, [script, ...args], {
      env: { ...process.env, DATABASE_URL: databaseUrl },
    });
    let told = '';
    child.stdout.on('data', (data: Buffer) => (told += String(data)));
    child.stderr.on('data', (data: Buffer) => (told += String(data)));
    child.once('exit', (code) => resolve({ code, told }));
  });

/** All rows of all tables as text, without what lasts for some minutes. */
export async function contents(url: string): Promise<Map<string, string[]>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' ORDER BY 1`,
  );
  const found = new Map<string, string[]>();
  for (const { name } of rows.filter((table) => !['session', 'sign_in_try', 'job'].includes(table.name))) {
    const { rows: lines } = await client.query<{ line: string }>(
      `SELECT t::text AS line FROM "${name}" t ORDER BY 1`,
    );
    found.set(
      name,
      lines.map(({ line }) => line),
    );
  }
  await client.end();
  return found;
}

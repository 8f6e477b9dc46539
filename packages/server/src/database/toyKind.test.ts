/**
 * The house is asked whether a kind is one file and its entry in the list: a copy of the sources gets a kind that
 * nobody has heard of, is built and started, and the kind is used through the API and in a file.
 */
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { newId } from '@visograph/core/model';
import { build } from 'esbuild';
import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { cp, mkdir, readFile, rm, symlink, writeFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import { Caller, demoFile } from '../testServer.ts';

jest.setTimeout(120_000);
const root = fileURLToPath(new URL('../../../../', import.meta.url));
const copy = join(root, '.visograph/toy', randomBytes(4).toString('hex'));

const padlock = `import { z } from 'zod';
import { idField, nameField, countField, refField, textField } from '../../fields/field.ts';
import { ipField } from '../../fields/ipField.ts';
import { defineKind, uniqueBy } from '../../fields/kind.ts';

export const padlockSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  rackId: idField('Rack'),
  spareOfId: refField('Spare of'),
  keys: countField('Keys', 1, 99),
  places: z.array(z.string()),
  controller: ipField('Controller').nullable(),
  notes: textField('Notes'),
});

export const padlockKind = defineKind({
  schema: padlockSchema,
  one: 'padlock',
  many: 'padlocks',
  refs: {
    rackId: { to: 'rack', index: 'padlocksByRack', onRemove: 'goes' },
    spareOfId: { to: 'padlock', index: 'padlocksBySpareOf', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [uniqueBy<z.infer<typeof padlockSchema>>('name')],
  nameOf: (row) => row.name,
  facts: { name: 'names', places: 'notes', controller: 'addresses', notes: 'notes' },
  blank: { spareOfId: null, keys: 2, places: [], controller: null, notes: null },
  section: 'padlocks',
});
`;

const freePort = async (): Promise<number> => {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = server.address();
  server.close();
  return typeof address === 'object' && address !== null ? address.port : 0;
};
const sql = async (text: string): Promise<string> => {
  const url = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(text);
  await client.end();
  return url;
};

const coreBundle = join(copy, 'core/dist/core.mjs');

/** A part of the house as it stands in the copy, made into one file. */
const bundled = (entry: string, outfile: string): Promise<unknown> =>
  build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'warning',
    jsx: 'automatic',
    plugins: [
      {
        name: 'the copies',
        setup(api) {
          api.onResolve({ filter: /^[^./]/ }, ({ path, kind }) => {
            const [, name, part] = /^@visograph\/(\w+)\/?(\w*)$/.exec(path) ?? [];
            if (kind === 'entry-point') return undefined;
            if (name === undefined) return { path, external: true };
            const file =
              part === '' || part === undefined
                ? 'index.ts'
                : name === 'core'
                  ? `${part}/index.ts`
                  : `${part}.ts`;
            return { path: join(copy, name, 'src', file) };
          });
        },
      },
    ],
  });

/** What core says of rows, asked in a process of its own: this one has the house without the padlock. */
async function asked(rows: unknown, question: string): Promise<unknown> {
  const script = `import * as core from ${JSON.stringify(coreBundle)};
    import { readFileSync } from 'node:fs';
    const network = core.Network.of(JSON.parse(readFileSync(0, 'utf8')));
    console.log(JSON.stringify(${question}));`;
  const node = spawn(process.execPath, ['--input-type=module', '-e', script], {
    cwd: root,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  let told = '';
  node.stdout.on('data', (data: Buffer) => (told += data.toString('utf8')));
  node.stdin.end(JSON.stringify(rows));
  await once(node, 'close');
  return JSON.parse(told);
}

let child: ChildProcess;
let anna: Caller;
let projectId: string;
const database = `toy_${randomBytes(6).toString('hex')}`;

beforeAll(async () => {
  const packages = ['core', 'api', 'drawing', 'typeface', 'server'];
  for (const name of packages)
    await cp(join(root, 'packages', name, 'src'), join(copy, name, 'src'), { recursive: true });
  // What the server alone needs of a package in a version of its own lies beside it.
  const own = join(root, 'packages/server/node_modules');
  if (existsSync(own)) await symlink(own, join(copy, 'server/node_modules'));
  await writeFile(join(copy, 'core/src/model/kinds/equipment/padlock.ts'), padlock);
  const list = join(copy, 'core/src/model/kinds.ts');
  const before = await readFile(list, 'utf8');
  const after = before
    .replace(
      "import { kitKind } from './kinds/equipment/kit.ts';",
      "import { kitKind } from './kinds/equipment/kit.ts';\nimport { padlockKind } from './kinds/equipment/padlock.ts';",
    )
    .replace('  kit: kitKind,\n', '  padlock: padlockKind,\n  kit: kitKind,\n');
  expect(after.length - before.length).toBeGreaterThan(60);
  await writeFile(list, after);
  const main = join(copy, 'server/dist/main.mjs');
  await mkdir(join(copy, 'server/dist'), { recursive: true });
  await bundled(join(copy, 'server/src/main.ts'), main);
  const jobProcess = join(copy, 'server/dist/jobProcess.mjs');
  await bundled(join(copy, 'server/src/jobs/jobProcess.ts'), jobProcess);
  const asking = join(copy, 'core/src/asking.ts');
  await writeFile(
    asking,
    ['model', 'lens', 'commands'].map((entry) => `export * from './${entry}/index.ts';\n`).join(''),
  );
  await bundled(asking, coreBundle);
  const url = new URL(await sql(`CREATE DATABASE ${database}`));
  url.pathname = `/${database}`;
  const port = await freePort();
  child = spawn(process.execPath, [main], {
    cwd: root,
    env: {
      ...process.env,
      ...{ DATABASE_URL: url.href, PORT: String(port), VISOGRAPH_DEMO: demoFile },
      VISOGRAPH_JOB_PROCESS: jobProcess,
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((done, fail) => {
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}`)));
    child.stdout?.on('data', (data: Buffer) => String(data).includes('is ready') && done());
  });
  anna = await new Caller(`http://127.0.0.1:${port}`, false).signIn('anna@marrow.example');
  projectId = (await anna.call<{ id: string }[]>('GET', '/projects')).body[0]?.id ?? '';
});
afterAll(async () => {
  if (child.exitCode === null) {
    const gone = once(child, 'exit');
    child.kill('SIGTERM');
    await gone;
  }
  await sql(`DROP DATABASE ${database} WITH (FORCE)`);
  await rm(copy, { recursive: true, force: true });
});

interface File {
  padlocks?: Record<string, unknown>[];
  racks: { name: string }[];
}
const file = async (): Promise<File> =>
  (await anna.call<File & Record<string, unknown>>('GET', `/projects/${projectId}/exchange`)).body;
const send = (changes: unknown[], sentence: string) =>
  anna.call<{ detail?: string; problems?: { message: string }[]; revision?: number }>(
    'POST',
    `/projects/${projectId}/changes`,
    { id: newId(), changes, sentence },
  );
const create = (row: Record<string, unknown> & { id: string }) => ({
  op: 'create',
  kind: 'padlock',
  id: row.id,
  after: { spareOfId: null, keys: 2, places: ['safe'], controller: null, notes: null, ...row },
});

test('a kind of one file: in the API, the journal, the file, the database, undo and removal', async () => {
  const padlocks = async () => (await file()).padlocks;
  const { rows } = (
    await anna.call<{ rows: { rack: { id: string; name: string }[] } }>(
      'GET',
      `/projects/${projectId}/network`,
    )
  ).body;
  const rack = rows.rack.find(({ name }) => name === 'KQ-A1')?.id ?? '';
  expect(rack).not.toBe('');
  const [first, second] = [newId(), newId()];

  // It is described, written, refused by field and by name, and referred to.
  const description = (await anna.call<{ components: { schemas: object } }>('GET', '/openapi.json')).body;
  expect(Object.keys(description.components.schemas)).toContain('padlock');
  expect((await send([create({ id: first, name: 'Brass', rackId: rack })], 'Hung a padlock')).status).toBe(
    200,
  );
  const twice = await send([create({ id: newId(), name: 'BRASS', rackId: rack })], 'Hung it again');
  expect([twice.status, twice.body.problems?.[0]?.message]).toEqual([
    422,
    'There is already a padlock with the name BRASS. Choose another name.',
  ]);
  const many = await send([create({ id: newId(), name: 'Iron', rackId: rack, keys: 100 })], 'Too many keys');
  expect(many.body.problems?.[0]?.message).toBe('padlock Iron: Keys is above 99.');
  const nowhere = await send([create({ id: newId(), name: 'Iron', rackId: newId() })], 'Nowhere');
  expect(nowhere.body.problems?.[0]?.message).toBe('padlock Iron: Rack refers to a rack that is not there.');
  await send([create({ id: second, name: 'Steel', rackId: rack, spareOfId: first })], 'Hung a spare');

  // In a file it stands by names, and the file makes the same again.
  expect(await padlocks()).toEqual([
    { name: 'Brass', rack: 'KQ-A1', places: ['safe'] },
    { name: 'Steel', rack: 'KQ-A1', spareOf: 'Brass', places: ['safe'] },
  ]);
  const other = (await anna.call<{ id: string }>('POST', '/projects', { name: 'Other' })).body.id;
  const whole = await file();
  const imported = await anna.call('POST', `/projects/${other}/exchange`, JSON.stringify(whole));
  expect([imported.status, imported.text.slice(0, 300)]).toEqual([200, imported.text.slice(0, 300)]);
  const again = (await anna.call<File & Record<string, unknown>>('GET', `/projects/${other}/exchange`)).body;
  expect(again.padlocks).toEqual(whole.padlocks);
  const wrong = await anna.call(
    'POST',
    `/projects/${other}/exchange`,
    JSON.stringify({
      format: 'visograph-exchange',
      version: 1,
      padlocks: [{ name: 'Tin', rack: 'Z9' }],
    }),
  );
  expect(wrong.text).toContain('There is no rack “Z9”');

  // A row goes with its rack or is cleared, by what it says of itself; undone, all is back.
  const spare = await send(
    [
      {
        op: 'update',
        kind: 'padlock',
        id: second,
        before: { spareOfId: first },
        after: { spareOfId: null },
      },
      {
        op: 'delete',
        kind: 'padlock',
        id: first,
        before: {
          id: first,
          name: 'Brass',
          rackId: rack,
          spareOfId: null,
          keys: 2,
          places: ['safe'],
          controller: null,
          notes: null,
        },
      },
    ],
    'Took Brass away',
  );
  expect(spare.status).toBe(200);
  expect((await padlocks())?.map(({ name }) => name)).toEqual(['Steel']);
  const undone = await anna.call('POST', `/projects/${projectId}/undo`, {});
  expect(undone.status).toBe(200);
  expect((await padlocks())?.map(({ name }) => name)).toEqual(['Brass', 'Steel']);
  const history = (await anna.call('GET', `/projects/${projectId}/changes`)).text;
  expect(history).toContain('Took Brass away');

  // It has a schedule, is found by its name, has a title and facts for its record, and keeps its secrets.
  const csv = (await anna.call('GET', `/projects/${projectId}/reports/padlock?format=csv`)).text;
  expect(csv.split('\r\n')).toEqual([
    'Name,Rack,Spare of,Keys,Controller,Notes',
    'Brass,KQ-A1,,2,,',
    'Steel,KQ-A1,Brass,2,,',
    '',
  ]);
  const after = (await anna.call<{ rows: object }>('GET', `/projects/${projectId}/network`)).body.rows;
  expect(await asked(after, "core.findAnything(network, 'stee')")).toEqual([
    { kind: 'padlock', id: second, title: 'Steel', detail: '' },
  ]);
  expect(await asked(after, `core.titleOf(network, 'padlock', '${first}')`)).toBe('Brass');
  expect(await asked(after, "core.factFieldsOf('padlock').map(({ label, form }) => [label, form])")).toEqual([
    ['Name', 'text'],
    ['Rack', 'row'],
    ['Spare of', 'row'],
    ['Keys', 'number'],
    ['Controller', 'text'],
    ['Notes', 'text'],
  ]);
  expect(await asked(after, "core.addressFieldsOf('padlock')")).toEqual(['controller']);
  const nameless = "[...core.seenBy(network, { sees: new Set(['models', 'notes']) }).all('padlock')]";
  expect(await asked(after, `${nameless}.map(({ name }) => name).sort()`)).toEqual([
    'padlock 1',
    'padlock 2',
  ]);
  // A plan can hang one; another plan is refused its name.
  const plans = await Promise.all(
    ['One', 'Two'].map((name) => anna.call<{ id: string }>('POST', `/projects/${projectId}/plans`, { name })),
  );
  const hang = (plan: string) =>
    anna.call<{ detail?: string }>('POST', `/projects/${projectId}/changes?plan=${plan}`, {
      id: newId(),
      changes: [create({ id: newId(), name: 'Chrome', rackId: rack })],
      sentence: 'Hung Chrome',
    });
  const [one, two] = plans.map(({ body }) => body.id);
  expect((await hang(one ?? '')).status).toBe(200);
  expect((await hang(two ?? '')).body.detail).toBe(
    'The plan “One” keeps the padlock Chrome for itself. Choose another: Chrome-2 is free.',
  );
});

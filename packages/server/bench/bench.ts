/** npm run bench: speed against the budgets of docs/architecture.md, on a generated network of 10,000 devices. */
import {
  connect,
  findFreePorts,
  nextCableLabel,
  readCableList,
  traceRun,
  waysToJoin,
} from '@visograph/core/cabling';
import { builtInModels } from '@visograph/core/catalogue';
import { applyChanges, type Change, create, remove } from '@visograph/core/change';
import { findingsOf } from '@visograph/core/check';
import { editRow } from '@visograph/core/commands';
import {
  type Device,
  isCage,
  isFree,
  modelTitle,
  Network,
  newId,
  newProject,
  portTitle,
} from '@visograph/core/model';
import { whereFits } from '@visograph/core/racks';
import pg from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { startServer } from '../src/server.ts';
import { addAccount, setMember } from '../src/people/accounts.ts';
import { ProjectRow } from '../src/database/rows.ts';
import { measured, median, percentile, Report, time } from './figures.ts';
import { generate, type Generated } from './generate.ts';
import { rackRoom } from './rackRoom.ts';

const report = new Report();
const note = report.note.bind(report);
const repeat = async (count: number, work: (turn: number) => unknown): Promise<number> => {
  const times: number[] = [];
  for (let turn = 0; turn < count; turn++) times.push((await time(() => work(turn)))[1]);
  return median(times);
};

const admin = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
const sql = async (text: string, url = admin): Promise<void> => {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(text);
  await client.end();
};
await sql('DROP DATABASE IF EXISTS bench WITH (FORCE)');
await sql('CREATE DATABASE bench');
const databaseUrl = Object.assign(new URL(admin), { pathname: '/bench' }).href;
const server = await startServer({ databaseUrl, port: 0, logLevel: 'silent' });
const { knex, store } = server;

const rowsOf = (data: Generated): Change[] => [
  ...data.place.map((row) => create('place', row)),
  ...data.rack.map((row) => create('rack', row)),
  ...data.model.map((row) => create('model', row)),
  ...data.device.map((row) => create('device', row)),
  ...data.port.map((row) => create('port', row)),
];
const project = async (id: string): Promise<void> =>
  void (await ProjectRow.query(knex).insert({ ...newProject('Bench', id), labelDigits: 6 }));

// The large network, written through the journal, then read as a starting server would.
const projectId = newId();
await project(projectId);
const data = generate(10_000, 100_000, projectId);
if (!process.argv.includes('--json'))
  console.log(
    `network: ${data.device.length} devices, ${data.port.length} ports, ${data.cable.length} cables\n`,
  );
const author = { id: null, name: 'Bench' };
await store.write(projectId, null, author, {
  id: newId(),
  sentence: 'Generated devices',
  changes: rowsOf(data),
});

const [imported, importMs] = await time(() =>
  store.write(projectId, null, author, {
    id: newId(),
    sentence: 'Generated cables',
    changes: data.cable.map((row) => create('cable', row)),
  }),
);
if (!imported.ok) throw new Error(imported.problems[0]?.message);
await sql(
  'CREATE TABLE bare (id uuid, label text, type uuid, length float8, status text, a uuid, b uuid)',
  databaseUrl,
);
const [, bareMs] = await time(async () => {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const lines = data.cable.map(
    (row) =>
      `${row.id}\t${row.label}\t${row.typeId ?? ''}\t3\tactive\t${row.aPortId ?? ''}\t${row.bPortId ?? ''}\n`,
  );
  await pipeline(Readable.from(lines), client.query(copyFrom('COPY bare FROM STDIN')));
  await client.end();
});
note(
  `write ${data.cable.length.toLocaleString('en')} cables: checked, journaled, one transaction`,
  importMs / 1000,
  's',
  30,
  measured('bare COPY of the same rows', bareMs),
);
note('  against a bare COPY of the same rows into a table without constraints', importMs / bareMs, 'x', 6);

store.forget(projectId);
globalThis.gc?.();
const heapBefore = process.memoryUsage().heapUsed;
const [{ network }, loadMs] = await time(() => store.read(projectId));
globalThis.gc?.();
/** What it takes PostgreSQL to send all of these rows. */
const [, sentMs] = await time(async () => {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  for (const kind of ['place', 'rack', 'model', 'device', 'port', 'cable'])
    for await (const chunk of client.query(
      copyTo(`COPY (SELECT * FROM ${kind} WHERE project_id = '${projectId}') TO STDOUT`),
    ))
      void chunk;
  await client.end();
});
note(
  'load 10,000 devices from PostgreSQL into the cache',
  loadMs / 1000,
  's',
  6,
  measured('PostgreSQL sending the rows', sentMs),
);
note('  against PostgreSQL sending the rows', loadMs / sentMs, 'x', 3);
note('  heap it takes', (process.memoryUsage().heapUsed - heapBefore) / 1e6, 'MB', 1000);

const starts = data.port.filter((port) => port.name === 'te1/25').map((port) => port.id);
const longest = starts.find((id) => traceRun(network, id).hops.length >= 19) ?? starts[0] ?? '';
note(
  `trace a run of ${traceRun(network, longest).hops.length} hops, six pass-throughs`,
  await repeat(500, () => traceRun(network, longest)),
  'ms',
  1,
);

const devices = data.device;
const edits = (count: number, mark: string): Change[] =>
  devices
    .slice(0, count)
    .flatMap((row) => editRow(network, 'device', row, { serial: `${row.name}-${mark}` }).changes);
applyChanges(network, edits(1, 'warm'));
note(
  'apply a change set of 1 change',
  await repeat(200, (turn) => applyChanges(network, edits(1, String(turn)))),
  'ms',
  1,
);
const thousand = edits(1000, 'x');
note(
  'apply a change set of 1,000 changes',
  await repeat(30, () => applyChanges(network, thousand)),
  'ms',
  30,
);
note('all checks', (await time(() => findingsOf(network)))[1] / 1000, 's', 2);

// After an edit, of every sort that an engineer makes all day, one upon the other.
{
  const { device, cable } = data;
  const [box, moved, cut, laid] = [device[40], device[60], cable[500], cable[900]];
  if (box === undefined || moved === undefined || cut === undefined || laid === undefined)
    throw new Error('too small a network');
  const set = (row: Device, fields: Partial<Device>) => (now: Network) =>
    editRow(now, 'device', now.get('device', row.id) ?? row, fields).changes;
  const stepsOf = (turn: number): ((now: Network) => Change[])[] => [
    set(box, { serial: `S-${turn}` }),
    set(box, { name: `bn-acc-other-${turn}` }),
    set(moved, turn === 0 ? { rackId: null, unit: null } : { rackId: moved.rackId, unit: moved.unit }),
    () => [remove('cable', cut)],
    () => [create('cable', cut)],
    (now) => {
      const port = now.get('port', laid.aPortId);
      return port === null ? [] : editRow(now, 'port', port, { speedBps: turn * 1e9 + 1e9 }).changes;
    },
    set(box, { status: 'retired' }),
    set(box, { status: 'active' }),
  ];
  const after = async (start: Network, turn: number): Promise<[Network, number[]]> => {
    let now = start;
    const times: number[] = [];
    for (const step of stepsOf(turn)) {
      const applied = applyChanges(now, step(now));
      if (!applied.ok) throw new Error(applied.problems[0]?.message);
      now = applied.network;
      const edited = now;
      times.push((await time(() => findingsOf(edited)))[1]);
    }
    return [now, times];
  };
  // The first time around builds indexes that nobody has asked for before.
  const [warm] = await after(network, 0);
  const [, times] = await after(warm, 1);
  note('  again after one edit: median', median(times), 'ms', 100);
  note('  again after one edit: the longest of eight', Math.max(...times), 'ms', 100);
}

// What fits between two cages of different switches, with the whole catalogue in stock.
const catalogue = network.draft();
for (const model of builtInModels())
  if (network.findOne('modelByTitle', modelTitle(model).toLowerCase()) === null)
    catalogue.put('model', model);
const stocked = catalogue.finish();
const cages = data.port.filter((port) => isCage(port.connector) && isFree(stocked, port.id)).slice(0, 400);
const [firstCage] = cages;
const farCage = cages.find((port) => port.deviceId !== firstCage?.deviceId);
if (firstCage !== undefined && farCage !== undefined)
  note(
    'what fits between two cages, optics in pairs',
    await repeat(100, () => waysToJoin(stocked, firstCage, farCage, 11.4)),
    'ms',
    5,
  );
const portWish = {
  connector: 'SFP+',
  speedBps: 1e10,
  withOptic: false,
  poeClass: null,
  panels: false,
} as const;
const somewhere = data.place.at(-1)?.id ?? null;
note(
  'two free SFP+ on different switches near a room',
  await repeat(50, () =>
    findFreePorts(network, { ...portWish, count: 2, differentDevices: true, nearPlaceId: somewhere }),
  ),
  'ms',
  50,
);
note(
  '  when there are none in the whole network',
  (
    await time(() =>
      findFreePorts(network, {
        ...portWish,
        connector: 'coax',
        count: 2,
        differentDevices: true,
        nearPlaceId: somewhere,
      }),
    )
  )[1],
  'ms',
  100,
);
// A cable list of the same 100,000 cables as a spreadsheet, onto a network without any.
const readList = (): number => {
  const uncabled = network.draft();
  for (const row of data.cable) uncabled.drop('cable', row.id);
  const without = uncabled.finish();
  const listed = [
    ['Label', 'Length', 'A end', 'B end'],
    ...data.cable.map((row) => [
      row.label,
      '3',
      portTitle(network, row.aPortId),
      portTitle(network, row.bPortId),
    ]),
  ];
  const start = performance.now();
  readCableList(without, listed);
  return performance.now() - start;
};
note(
  `read and judge a cable list of ${data.cable.length.toLocaleString('en')} rows`,
  readList() / 1000,
  's',
  30,
);
globalThis.gc?.();
note('the next free label', await repeat(50, () => nextCableLabel(network, firstCage ?? null)), 'ms', null);

// A thousand racks with 30 devices each.
const racks = Network.of(rackRoom(1000, 30, false));
const allRacks = [...racks.all('rack')];
const nearPlaceId = allRacks[500]?.placeId ?? null;
note(
  'where do 4 U, 28 kg, 900 W fit, over 1,000 racks and 30,000 devices',
  await repeat(15, () => whereFits(racks, allRacks, { units: 4, massKg: 28, maxW: 900, nearPlaceId })),
  'ms',
  50,
);

// Twenty editors at once.
const people = await Promise.all(
  Array.from({ length: 20 }, (_, at) =>
    addAccount(knex, { email: `p${at}@bench.example`, name: `P${at}`, password: 'bench bench bench' }),
  ),
);
for (const person of people) await setMember(knex, projectId, person.id, 'editor');
const cookies = await Promise.all(
  people.map(async (person) => {
    const reply = await fetch(`${server.url}/api/v1/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ email: person.email, password: 'bench bench bench' }),
    });
    return (reply.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
  }),
);
/** Sends a change set as a browser does; milliseconds until the answer is read. */
async function send(cookie: string, set: { changes: Change[]; sentence: string }): Promise<number> {
  const body = JSON.stringify({ id: newId(), changes: set.changes, sentence: set.sentence });
  const [reply, ms] = await time(() =>
    fetch(`${server.url}/api/v1/projects/${projectId}/changes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Cookie: cookie },
      body,
    }),
  );
  if (reply.status !== 200) throw new Error(`${reply.status} ${await reply.text()}`);
  await reply.arrayBuffer();
  return ms;
}
// What was measured before leaves much behind in this process, which is the server as well.
globalThis.gc?.();
const trips: number[] = [];
await Promise.all(
  cookies.map(async (cookie, who) => {
    await new Promise((done) => setTimeout(done, Math.random() * 250));
    for (let turn = 0; turn < 15; turn++) {
      const row = devices[who * 100 + turn];
      if (row === undefined) continue;
      const set = editRow(network, 'device', row, { notes: `edit ${turn}` });
      trips.push(await send(cookie, set));
      await new Promise((done) => setTimeout(done, 150 + Math.random() * 100));
    }
  }),
);
// Connecting over HTTP, by all at once.
const joins: number[] = [];
const freePorts = data.port.filter(
  (port) => port.role !== 'powerIn' && port.role !== 'panel' && isFree(network, port.id),
);
await Promise.all(
  cookies.map(async (cookie, who) => {
    for (let turn = 0; turn < 10; turn++) {
      const [a, b] = [freePorts[(who * 10 + turn) * 2], freePorts[(who * 10 + turn) * 2 + 1]];
      if (a === undefined || b === undefined) continue;
      const set = connect(network, {
        aPortId: a.id,
        bPortId: b.id,
        label: `BX-${who}-${turn}`,
        typeId: null,
        lengthM: 2,
      });
      joins.push(await send(cookie, set));
      await new Promise((done) => setTimeout(done, 150 + Math.random() * 100));
    }
  }),
);
note('connect over HTTP, p95, 20 editors at once', percentile(joins, 0.95), 'ms', 100);
note('a single edit over HTTP, median, 20 editors at once', median(trips), 'ms', null);
note('a single edit over HTTP, p95, 20 editors at once', percentile(trips, 0.95), 'ms', 100);

// A long history: 100,000 entries of the journal, read back.
const { revision: before } = await store.read(projectId);
await knex.raw(
  `INSERT INTO change_set (id, project_id, revision, author, sentence, changes)
   SELECT gen_random_uuid(), ?, ? + n, 'bench', 'Changed a note', jsonb_build_array(jsonb_build_object(
     'op', 'update', 'kind', 'device', 'id', d.id, 'before', jsonb_build_object('notes', 'old ' || n),
     'after', jsonb_build_object('notes', 'new')))
   FROM generate_series(1, 100000) n JOIN (SELECT id, row_number() OVER (ORDER BY id) AS at FROM device) d
     ON d.at = 1 + n % 10000`,
  [projectId, before],
);
await ProjectRow.query(knex)
  .patch({ revision: before + 100_000 })
  .where({ id: projectId });
store.forget(projectId);
await store.read(projectId);
const [, farMs] = await time(() => store.at(projectId, null, before));
note('the network 100,000 entries ago, asked for the first time', farMs / 1000, 's', null);
const [, nearMs] = await time(() => store.at(projectId, null, before + 47_500));
note('the network of another moment in between, after that', nearMs / 1000, 's', 1);

await server.stop();
await sql('DROP DATABASE bench WITH (FORCE)');
report.finish();
process.exit(0);

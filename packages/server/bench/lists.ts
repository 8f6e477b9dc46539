/** Part of npm run bench: what an engineer already has, brought in: an equipment list and a table of links, 50,000 rows. */
import { readCableRows } from '@visograph/core/cabling';
import { builtInModels } from '@visograph/core/catalogue';
import type { Change } from '@visograph/core/change';
import { Network, newId, newProject } from '@visograph/core/model';
import { readEquipmentRows, type EquipmentWish } from '@visograph/core/racks';
import pg from 'pg';
import { addAccount, addProject } from '../src/people/accounts.ts';
import { startServer } from '../src/server.ts';
import { Report, time } from './figures.ts';

const report = new Report();
const count = 50_000;
const start = Network.of({
  project: [newProject('Lists')],
  model: builtInModels().map((model) => ({ ...model, id: newId() })),
});

/** Of five devices one is a switch in a rack, the others stand in rooms: phones, cameras and computers. */
const kinds = ['AX-2424P', 'Generic phone', 'Generic camera', 'Generic workstation', 'Generic phone'];
const equipment: string[][] = [
  ['Name', 'Model', 'Site', 'Rack', 'Unit', 'Serial', 'Status', 'Bought on', 'Price', 'Cost centre'],
  ...Array.from({ length: count }, (_, at) => {
    const racked = at % 5 === 0;
    const rack = Math.floor(at / 5 / 40);
    return [
      `d-${at}`,
      kinds[at % 5] ?? '',
      `Site ${at % 100}/Room ${racked ? `R${rack}` : at % 1000}`.replace(/^Site \d+/, (site) =>
        racked ? `Site ${rack % 100}` : site,
      ),
      racked ? `K-${rack}` : '',
      racked ? String(1 + ((at / 5) % 40)) : '',
      ...[`S${1_000_000 + at}`, 'active', '2025-03-18', '125.00 EUR', String(4000 + (at % 50))],
    ];
  }),
];
const wish: EquipmentWish = {
  ...{ columns: null, models: {}, makePlaces: true, managementVid: null, placeId: null },
};
const run = <R>(steps: Generator<number, R>): R => {
  let step = steps.next();
  while (step.done !== true) step = steps.next();
  return step.value;
};

const [list, readMs] = await time(() => run(readEquipmentRows(start, equipment, wish)));
const wrong = list.results.find((row) => row.does === 'cannot');
if (wrong !== undefined) throw new Error(`row ${wrong.row}: ${wrong.detail}`);
report.note(`read and judge an equipment list of ${count.toLocaleString('en')} rows`, readMs / 1000, 's', 30);

const links = Array.from({ length: count }, (_, at) => [
  `sw-${Math.floor(at / 48)}`,
  `gi1/${(at % 48) + 1}`,
  `ph-${at}`,
  'eth0',
]);
const [table, linksMs] = await time(() => run(readCableRows(start, links, null, { placeId: null })));
if (table.results.some((row) => row.does === 'cannot')) throw new Error('a link cannot be taken');
report.note(
  `read a table of ${count.toLocaleString('en')} links, its devices and ports made`,
  linksMs / 1000,
  's',
  30,
);

const admin = process.env['VISOGRAPH_TEST_DATABASE'] ?? '';
const client = new pg.Client({ connectionString: admin });
await client.connect();
await client.query('DROP DATABASE IF EXISTS bench WITH (FORCE)');
await client.query('CREATE DATABASE bench');
await client.end();
const databaseUrl = Object.assign(new URL(admin), { pathname: '/bench' }).href;
const server = await startServer({ databaseUrl, port: 0, logLevel: 'silent' });
const owner = await addAccount(server.knex, {
  ...{ email: 'bench@example.org', name: 'Bench', password: 'a long password' },
});
const made = await addProject(server.knex, server.store, owner, { name: 'Lists' });
if (!made.ok) throw new Error('no project');
const { network } = await server.store.read(made.projectId);
const own = run(readEquipmentRows(network, equipment, wish));
const changes: readonly Change[] = own.set.changes;
const [written, writeMs] = await time(() =>
  server.store.write(made.projectId, null, { id: owner.id, name: 'Bench' }, { id: newId(), ...own.set }),
);
if (!written.ok) throw new Error(written.problems[0]?.message);
report.note(
  `write it: ${changes.length.toLocaleString('en')} rows, one transaction`,
  writeMs / 1000,
  's',
  120,
);
report.finish();
await server.stop();

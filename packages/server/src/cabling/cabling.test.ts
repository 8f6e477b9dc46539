import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { connect } from '@visograph/core/cabling';
import { create, type Change } from '@visograph/core/change';
import { findPort, newId, portTitle, type Network } from '@visograph/core/model';
import { testServer, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let ben: Caller;
let rita: Caller;
let projectId: string;

const network = async (): Promise<Network> => (await server.store.read(projectId)).network;
const port = async (device: string, name: string) => {
  const found = findPort(await network(), device, name);
  if (found === null) throw new Error(`${device}:${name}`);
  return found;
};
const send = (who: Caller, changes: Change[]) =>
  who.call<{ detail: string }>('POST', `/projects/${projectId}/changes`, {
    id: newId(),
    changes,
    sentence: 'test',
  });
interface Told {
  results: { row: number; does: string; detail: string }[];
  written: boolean;
  problem: string | null;
}
async function list(who: Caller, text: string, query = '') {
  const bytes = new TextEncoder().encode(text);
  const { status, body } = await who.call<Told>('POST', `/projects/${projectId}/cable-list${query}`, bytes);
  return { status, result: status === 200 ? body : undefined };
}

beforeAll(async () => {
  server = await testServer();
  [ben, rita] = await Promise.all([
    server.caller('ben@marrow.example'),
    server.caller('rita@marrow.example'),
  ]);
  const projects = await ben.call<{ id: string }[]>('GET', '/projects');
  projectId = projects.body[0]?.id ?? '';
}, 60_000);
afterAll(async () => server.end());

describe('a cable list', () => {
  const good = 'Label,A end,B end,Length\nKQ-00900,kq-acc-1:gi1/1,kq-acc-2:gi1/1,5\n';
  const mixed = `${good}KQ-00901,kq-acc-1:gi1/2,nowhere:1,5\n`;

  test('is told row by row and writes nothing until asked', async () => {
    const before = (await network()).count('cable');
    const { result } = await list(ben, mixed);
    expect(result?.results.map((row) => row.does)).toEqual(['new', 'cannot']);
    expect(result?.written).toBe(false);
    expect((await network()).count('cable')).toBe(before);
  });

  test('all or nothing when all are asked for; otherwise the good rows in one entry of the journal', async () => {
    const before = (await network()).count('cable');
    expect((await list(ben, mixed, '?write=1&all=1')).result).toMatchObject({ written: false });
    expect((await network()).count('cable')).toBe(before);
    expect((await list(ben, mixed, '?write=1')).result).toMatchObject({ written: true });
    expect((await network()).count('cable')).toBe(before + 1);
    expect((await list(ben, good)).result?.results[0]?.does).toBe('same');
  });

  test('is refused to readers, and told in words when it is no list or its columns are none', async () => {
    expect((await list(rita, good)).status).toBe(403);
    expect((await list(ben, '')).status).toBe(422);
    expect((await list(ben, good, '?columns=nonsense')).status).toBe(422);
    expect((await list(ben, 'colour,price\nblue,3\n')).result?.problem).toContain('A end');
  });
});

describe('what the database itself refuses', () => {
  const raw = (sql: string) => server.knex.raw(sql);

  test('one thing in a port, be it a cable, a leg or a circuit', async () => {
    const a = await port('kq-acc-3', 'gi1/40');
    const b = await port('kq-acc-3', 'gi1/41');
    const made = await send(
      ben,
      connect(await network(), {
        aPortId: a.id,
        bPortId: b.id,
        label: 'KQ-00950',
        typeId: null,
        lengthM: null,
      }).changes,
    );
    expect(made.status).toBe(200);
    await expect(
      raw(
        `INSERT INTO circuit (id, project_id, number, kind, status, a_port_id)
         VALUES ('${newId()}', '${projectId}', 'N-1', 'internet', 'active', '${a.id}')`,
      ),
    ).rejects.toThrow(/one_cable_per_port/);
    const cable = (await network()).findOne('cableByLabel', 'kq-00950');
    await expect(
      raw(
        `INSERT INTO leg (id, project_id, cable_id, side, number, port_id)
         VALUES ('${newId()}', '${projectId}', '${cable?.id ?? ''}', 'b', 2, '${a.id}')`,
      ),
    ).rejects.toThrow(/one_cable_per_port/);
  });

  test('a negative length, a circuit that ends where it begins, strands without a common port', async () => {
    const a = await port('kq-acc-3', 'gi1/44');
    await expect(raw(`UPDATE cable SET length_m = -1 WHERE label = 'KQ-00001'`)).rejects.toThrow(/length/);
    await expect(
      raw(
        `INSERT INTO circuit (id, project_id, number, kind, status, a_port_id, b_port_id)
         VALUES ('${newId()}', '${projectId}', 'N-2', 'internet', 'active', '${a.id}', '${a.id}')`,
      ),
    ).rejects.toThrow(/circuit_ends_differ/);
    await expect(raw(`UPDATE port SET leads_to_strand = 3 WHERE id = '${a.id}'`)).rejects.toThrow(
      /port_strand_of/,
    );
  });
});

test('breakouts, circuits, pathways, transceivers and reservations are kept and read back as they were', async () => {
  const now = await network();
  const [a, b, c] = [
    await port('kq-core-1', 'hu1/25'),
    await port('kq-core-1', 'te1/20'),
    await port('kq-core-1', 'te1/23'),
  ];
  const type = now.findOne('modelByTitle', 'breakout 100g to 4 × 25g');
  const set = connect(now, {
    aPortId: a.id,
    bPortId: b.id,
    label: 'KQ-00960',
    typeId: type?.id ?? null,
    lengthM: 1,
    bLegs: [c],
  });
  const [place, other] = [...now.all('place')];
  const made = await send(ben, [
    ...set.changes,
    create('pathway', {
      id: newId(),
      name: 'Test duct',
      kind: 'duct',
      aPlaceId: place?.id ?? '',
      bPlaceId: other?.id ?? '',
      lengthM: 12,
      notes: null,
    }),
  ]);
  expect(made.status).toBe(200);
  server.store.forget(projectId);
  const read = await network();
  const leg = [...read.all('leg')][0];
  expect([leg?.side, leg?.number, portTitle(read, leg?.portId ?? null)]).toEqual([
    'b',
    2,
    'kq-core-1:te1/23',
  ]);
  expect([...read.all('pathway')].some((one) => one.name === 'Test duct' && one.lengthM === 12)).toBe(true);
  expect([...read.all('circuit')].length).toBeGreaterThan(4);
  expect([...read.all('project')][0]?.cabling.labelScheme).toBe('{site}-{number}');
  const twice = await send(
    ben,
    connect(read, {
      aPortId: c.id,
      bPortId: (await port('kq-core-1', 'te1/24')).id,
      label: 'KQ-00961',
      typeId: null,
      lengthM: null,
    }).changes,
  );
  expect(twice.status).toBe(422);
  expect(twice.body.detail).toContain('leg 2 of cable KQ-00960');
});

test('every schedule comes as a workbook too', async () => {
  const reply = await ben.call('GET', `/projects/${projectId}/reports/patch-list?format=xlsx`);
  expect(reply.status).toBe(200);
  expect(reply.headers.get('content-type')).toContain('spreadsheetml');
  expect(reply.text.startsWith('PK')).toBe(true);
});

test('an elevation goes out with its cables where they are shown', async () => {
  const rack = (await network()).findOne('rackByName', 'kq-a3');
  const path = `/projects/${projectId}/racks/${rack?.id ?? ''}/svg`;
  const plain = await ben.call('GET', path);
  const cabled = await ben.call('GET', `${path}?cables=1`);
  expect(plain.text).not.toContain('#3D6FB4');
  expect(cabled.text.split('#3D6FB4').length).toBeGreaterThan(20);
});

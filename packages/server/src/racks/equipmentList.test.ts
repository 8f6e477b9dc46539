import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Network } from '@visograph/core/model';
import type { EquipmentWish } from '@visograph/core/racks';
import { testServer, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let ben: Caller;
let rita: Caller;
let projectId: string;

interface Told {
  results: { row: number; does: string; detail: string }[];
  unknown: { key: string; rows: number }[];
  alsoMade: string;
  written: boolean;
  problem: string | null;
}
const plain: EquipmentWish = {
  ...{ columns: null, models: {}, makePlaces: true, managementVid: null, placeId: null },
};
const network = async (): Promise<Network> => (await server.store.read(projectId)).network;
async function list(
  who: Caller,
  text: string,
  asked: { write?: boolean; all?: boolean; wish?: object } = {},
) {
  const { wish, ...rest } = asked;
  const { status, body } = await who.call<Told>('POST', `/projects/${projectId}/equipment-list`, {
    ...{ write: false, all: false },
    ...rest,
    file: Buffer.from(text).toString('base64'),
    wish: { ...plain, ...wish },
  });
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

describe('an equipment list', () => {
  const mixed =
    'Name;Model;Site;Rack;U\nnq-1;Norvane AX-2448P;North Quay/Hut;NQ-1;3\nnq-2;Norvane AX-2448P;North Quay/Hut;NQ-1;3\n';

  test('is told row by row and writes nothing until asked', async () => {
    const before = await network();
    const { result } = await list(ben, mixed);
    expect(result?.results.map((row) => row.does)).toEqual(['new', 'cannot']);
    expect(result?.results[1]?.detail).toContain('nq-1 fills U3');
    expect(result).toMatchObject({ written: false, alsoMade: '2 places, 1 rack' });
    expect((await network()).count('device')).toBe(before.count('device'));
  });

  test('all or nothing when all are asked for; otherwise the good rows as one step', async () => {
    const before = await network();
    expect((await list(ben, mixed, { write: true, all: true })).result).toMatchObject({
      written: false,
      problem: 'Some rows cannot be taken.',
    });
    const done = await list(ben, mixed, { write: true });
    expect(done.result).toMatchObject({ written: true });
    const after = await network();
    expect(after.count('device')).toBe(before.count('device') + 1);
    expect(after.findOne('rackByName', 'nq-1')).not.toBeNull();
    const journal = await ben.call<{ sentence: string }[]>('GET', `/projects/${projectId}/changes`);
    expect(journal.body[0]?.sentence).toBe('Imported an equipment list: 1 new, 0 changed');
    expect((await list(ben, 'Name,Model\nnq-1,Norvane AX-2448P')).result?.results[0]?.does).toBe('same');
  });

  test('models that are asked are made once they are answered', async () => {
    const text = 'Name,Maker,Model\nz-1,Orlo,Q-12\nz-2,Orlo,Q-12';
    const asked = (await list(ben, text)).result;
    expect(asked?.unknown).toMatchObject([{ key: 'orlo q-12', rows: 2 }]);
    const wish = { models: { 'orlo q-12': { role: 'SW', units: 1, ports: '8 RJ45 1G' } } };
    expect((await list(ben, text, { wish, write: true, all: true })).result).toMatchObject({
      written: true,
      alsoMade: '1 model',
    });
    const device = (await network()).findOne('deviceByName', 'z-2');
    expect((await network()).find('portsByDevice', device?.id ?? '')).toHaveLength(8);
  });

  test('what has no port stays as an own field; inventory reaches the database and comes back', async () => {
    const text = 'Name,Asset tag,Warranty end,Price,Responsible\nnq-1,A-9,31.12.2030,1250 EUR,Ilse Brandt\n';
    expect((await list(ben, text, { write: true })).result?.written).toBe(true);
    const { rows } = await server.knex.raw<{ rows: object[] }>(
      `SELECT asset_number, warranty_until, price_minor, currency, responsible FROM device WHERE name = 'nq-1'`,
    );
    expect(rows).toEqual([
      {
        ...{ asset_number: 'A-9', warranty_until: '2030-12-31', price_minor: 125000 },
        ...{ currency: 'EUR', responsible: 'Ilse Brandt' },
      },
    ]);
  });

  test('is refused to readers, and told in words when it is no list', async () => {
    expect((await list(rita, mixed)).status).toBe(403);
    expect(await list(ben, '')).toMatchObject({ status: 422 });
    expect((await list(ben, mixed, { wish: { managementVid: 5000 } })).status).toBe(400);
    expect((await list(ben, 'Colour,Weight\nred,5\nred,5')).result?.problem).toContain('No column');
  });
});

describe('a table of links', () => {
  test('makes the devices and ports that it names, in a given place, when that is asked', async () => {
    const text = 'lt-1,te1/1,lt-2,te1/1\nlt-1,te1/2,lt-3,te1/1\n';
    const site = [...(await network()).all('place')].find((place) => place.parentId === null);
    const send = async (query: string) => {
      const bytes = new TextEncoder().encode(text);
      return (await ben.call<Told>('POST', `/projects/${projectId}/cable-list${query}`, bytes)).body;
    };
    expect((await send('')).written).toBe(false);
    expect(await send(`?make=1&place=${site?.id ?? ''}&write=1&all=1`)).toMatchObject({
      written: true,
      alsoMade: '3 devices, 4 ports',
    });
    expect((await network()).findOne('deviceByName', 'lt-3')?.placeId).toBe(site?.id);
  });
});

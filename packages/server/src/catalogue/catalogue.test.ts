import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { shareModel } from '@visograph/core/catalogue';
import { create, type Change } from '@visograph/core/change';
import { blankRack, modelTitle, newId, type CatalogueModel, type Network } from '@visograph/core/model';
import { addDevice, moveDevice } from '@visograph/core/racks';
import excel from 'exceljs';
import { testServer, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let anna: Caller;
let ben: Caller;
let projectId: string;

const network = async (): Promise<Network> => (await server.store.read(projectId)).network;
const modelNamed = async (title: string): Promise<CatalogueModel> => {
  const found = (await network()).findOne('modelByTitle', title.toLowerCase());
  if (found === null) throw new Error(title);
  return found;
};
const send = (who: Caller, set: { changes: Change[]; sentence: string }) =>
  who.call<{ detail: string }>('POST', `/projects/${projectId}/changes`, { id: newId(), ...set });

beforeAll(async () => {
  server = await testServer();
  [anna, ben] = await Promise.all([
    server.caller('anna@marrow.example'),
    server.caller('ben@marrow.example'),
  ]);
  const projects = await anna.call<{ id: string }[]>('GET', '/projects');
  projectId = projects.body[0]?.id ?? '';
}, 60_000);
afterAll(async () => server.end());

describe('models for the whole organisation', () => {
  test('an editor offers, an owner alone accepts; then every signed-in person sees it', async () => {
    const base = await network();
    const model = await modelNamed('Norvane ER-810');
    expect((await send(ben, shareModel(base, model, 'offered'))).status).toBe(200);
    const refused = await send(
      ben,
      shareModel(await network(), await modelNamed('Norvane ER-810'), 'accepted'),
    );
    expect(refused.status).toBe(403);
    expect(refused.body.detail).toContain('only an owner accepts a model');
    expect((await anna.call('GET', '/catalogue/shared')).body).toEqual([]);
    expect(
      (await send(anna, shareModel(await network(), await modelNamed('Norvane ER-810'), 'accepted'))).status,
    ).toBe(200);
    const shared = await ben.call<{ project: string; model: CatalogueModel }[]>('GET', '/catalogue/shared');
    expect(shared.body.map((one) => [one.project, modelTitle(one.model), one.model.slots.length])).toEqual([
      ['Marrow Sound Ferries', 'Norvane ER-810', 2],
    ]);
    const takenBack = await send(
      ben,
      shareModel(await network(), await modelNamed('Norvane ER-810'), 'draft'),
    );
    expect(takenBack.status).toBe(403);
    expect((await (await server.caller()).call('GET', '/catalogue/shared')).status).toBe(401);
  });

  test('an import cannot accept one either', async () => {
    const file = {
      format: 'visograph-exchange',
      version: 1,
      models: [{ name: 'Sneaky', role: 'SW', sharing: 'accepted' }],
    };
    const refused = await ben.call<{ detail: string }>(
      'POST',
      `/projects/${projectId}/exchange`,
      JSON.stringify(file),
    );
    expect(refused.status).toBe(403);
    expect((await network()).findOne('modelByTitle', 'sneaky')).toBeNull();
  });

  test('a picture with a script does not get in by the API', async () => {
    const model = await modelNamed('Norvane WA-31');
    const picture = `data:image/svg+xml;base64,${btoa('<svg><script>alert(1)</script></svg>')}`;
    const reply = await send(ben, {
      changes: [{ op: 'update', kind: 'model', id: model.id, before: { picture: null }, after: { picture } }],
      sentence: 'Picture',
    });
    expect([reply.status, reply.body.detail]).toEqual([
      422,
      expect.stringContaining('holds a script, which is not kept'),
    ]);
  });
});

describe('spreadsheets', () => {
  const upload = (bytes: Uint8Array) =>
    ben.call<{ rows: string[][]; detail: string }>('POST', `/projects/${projectId}/spreadsheet`, bytes);

  test('a workbook comes back as plain cells: numbers, dates and formulas as they are seen', async () => {
    const book = new excel.Workbook();
    const sheet = book.addWorksheet('Racks');
    sheet.addRow(['Path', 'Rack', 'Units', 'Notes']);
    sheet.addRow(['Pier', 'PI-A1', 42, new Date(Date.UTC(2026, 2, 1))]);
    sheet.addRow([
      'Pier',
      'PI-A2',
      { formula: 'C2/2', result: 21 },
      { richText: [{ text: 'by ' }, { text: 'the door' }] },
    ]);
    const reply = await upload(new Uint8Array(await book.xlsx.writeBuffer()));
    expect(reply.body.rows).toEqual([
      ['Path', 'Rack', 'Units', 'Notes'],
      ['Pier', 'PI-A1', '42', '2026-03-01'],
      ['Pier', 'PI-A2', '21', 'by the door'],
    ]);
  });

  test('semicolons, a byte-order mark, quotes; and what is no sheet at all', async () => {
    const text = new TextEncoder();
    const csv = await upload(text.encode('\uFEFFPath;Notes\r\n"A;B";"said ""so"""\r\n'));
    expect(csv.body.rows).toEqual([
      ['Path', 'Notes'],
      ['A;B', 'said "so"'],
    ]);
    expect(await upload(text.encode('PK not a workbook'))).toMatchObject({
      status: 422,
      body: { detail: expect.stringContaining('not a workbook, or it is damaged') },
    });
    expect((await upload(new Uint8Array())).status).toBe(422);
  });
});

describe('space in the database', () => {
  test('half-width gear shares a unit; a second one on the same side is refused, also at the same moment', async () => {
    const base = await network();
    const place = [...base.all('place')].find((one) => one.name === 'Offices');
    const rackId = newId();
    const rack = create('rack', { ...blankRack, id: rackId, name: 'HW-1', placeId: place?.id ?? '' });
    expect((await send(anna, { changes: [rack], sentence: 'Rack' })).status).toBe(200);
    const wish = (name: string, side: 'left' | 'right', modelId: string) =>
      ({ name, modelId, rackId, placeId: null, unit: 10, side }) as const;
    const { id: half } = await modelNamed('Norvane AX-1208P');
    const add = async (who: Caller, name: string, side: 'left' | 'right') => {
      const set = addDevice(await network(), wish(name, side, half));
      if (set === null) throw new Error('no set');
      return send(who, { changes: set.changes, sentence: set.sentence });
    };
    const together = await Promise.all([add(anna, 'half-l', 'left'), add(ben, 'half-r', 'right')]);
    expect(together.map((reply) => reply.status)).toEqual([200, 200]);
    const again = await Promise.all([add(anna, 'half-x', 'left'), add(ben, 'half-y', 'left')]);
    expect(again.map((reply) => reply.status)).toEqual([422, 422]);
    expect(again[0]?.body.detail).toContain('half-l fills U10 at the left');
    const device = (await network()).findOne('deviceByName', 'half-l');
    if (device === null) throw new Error('gone');
    const tooFar = await send(anna, moveDevice(await network(), device, { rackId, unit: 10.25 }));
    expect(tooFar.status).toBe(422);
    await expect(server.knex('device').where({ name: 'half-r' }).update({ side: 'left' })).rejects.toThrow(
      /device_space/,
    );
  });
});

import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { contract, type Endpoint, type Name } from '@visograph/api';
import { connect } from '@visograph/core/cabling';
import { type Change, type JournalEntry } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { writeExchange } from '@visograph/core/exchange';
import { Network, newId, type Network as NetworkType } from '@visograph/core/model';
import { addDevice, moveDevice } from '@visograph/core/racks';
import { readFile } from 'node:fs/promises';
import { isDoneByJob } from '../jobs/jobNames.ts';
import { accountOf, bringIn, demoFile, testServer, type Caller, type TestServer } from '../testServer.ts';

interface Described {
  openapi: string;
  paths: Record<
    string,
    Record<
      string,
      {
        parameters: { in: string; name: string }[];
        responses: Record<string, { content?: Record<string, { schema?: object }> }>;
      }
    >
  >;
}

let server: TestServer;
let anna: Caller;
let ben: Caller;
let rita: Caller;
let projectId: string;

const network = async (): Promise<NetworkType> => (await server.store.read(projectId)).network;
const device = async (name: string) => {
  const found = (await network()).findOne('deviceByName', name);
  if (found === null) throw new Error(name);
  return found;
};
const send = (who: Caller, set: { changes: Change[]; sentence: string }, id = newId()) =>
  who.call<JournalEntry & { detail: string; problems: { field: string; mine: unknown; theirs: unknown }[] }>(
    'POST',
    `/projects/${projectId}/changes`,
    { id, changes: set.changes, sentence: set.sentence },
  );

beforeAll(async () => {
  server = await testServer();
  [anna, ben, rita] = await Promise.all([
    server.caller('anna@marrow.example'),
    server.caller('ben@marrow.example'),
    server.caller('rita@marrow.example'),
  ]);
  const projects = await anna.call<{ id: string; name: string }[]>('GET', '/projects');
  projectId = projects.body[0]?.id ?? '';
}, 60_000);
afterAll(async () => server.end());

describe('signing in', () => {
  test('an unknown address and a wrong password get the same words', async () => {
    const nobody = await server.caller();
    const unknown = await nobody.call('POST', '/session', { email: 'nobody@marrow.example', password: 'x' });
    const wrong = await nobody.call('POST', '/session', { email: 'anna@marrow.example', password: 'x' });
    expect([unknown.status, wrong.status]).toEqual([401, 401]);
    expect(unknown.body['detail']).toBe(wrong.body['detail']);
  });

  test('the cookie is HttpOnly and SameSite=Lax', async () => {
    const fresh = await server.caller();
    const reply = await fresh.call('POST', '/session', {
      email: 'anna@marrow.example',
      password: 'ferry-lamp-seven',
    });
    expect(reply.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Lax/i);
  });

  test('failed tries are limited for one address', async () => {
    const strict = await server.second({ signInTries: 3 });
    const statuses: number[] = [];
    for (let turn = 0; turn < 5; turn++) {
      const reply = await fetch(`${strict.url}/api/v1/session`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ email: 'ben@marrow.example', password: 'wrong' }),
      });
      statuses.push(reply.status);
    }
    expect(statuses).toEqual([401, 401, 401, 429, 429]);
  });

  test('a session that ended is told apart, and the first account cannot be made twice', async () => {
    const gone = await server.caller('ben@marrow.example');
    await gone.call('DELETE', '/session');
    expect(await gone.call('GET', '/projects')).toMatchObject({
      status: 401,
      body: { detail: expect.stringContaining('session has ended') },
    });
    const first = await gone.call('POST', '/first-account', {
      name: 'Eve',
      email: 'eve@marrow.example',
      password: 'long enough here',
    });
    expect(first.status).toBe(409);
  });
});

describe('who may do what', () => {
  const rank = { public: 0, signedIn: 1, reader: 2, editor: 3, owner: 4 } as const;
  const callers = async (): Promise<{ who: string; caller: Caller; rank: number }[]> => {
    const outsider = await server.caller();
    await server
      .knex('account')
      .insert({
        id: newId(),
        email: 'olaf@marrow.example',
        name: 'Olaf',
        passwordHash: (await server.knex('account').first('passwordHash')).passwordHash,
      })
      .onConflict('email')
      .ignore();
    await outsider.signIn('olaf@marrow.example');
    return [
      { who: 'anonymous', caller: await server.caller(), rank: 0 },
      { who: 'outsider', caller: outsider, rank: 1 },
      { who: 'reader', caller: rita, rank: 2 },
      { who: 'editor', caller: ben, rank: 3 },
    ];
  };

  test('every route x role below what it needs is refused, and outsiders learn nothing', async () => {
    let refused = 0;
    for (const { who, caller, rank: has } of await callers()) {
      for (const name of Object.keys(contract) as Name[]) {
        if (has >= rank[contract[name].access]) continue;
        const [method = '', path = ''] = name.split(' ');
        const at = path.replace(':project', projectId).replaceAll(/:\w+/g, newId());
        const reply = await caller.call(method, at, method === 'GET' ? undefined : {});
        const expected = who === 'anonymous' ? 401 : who === 'outsider' ? 404 : 403;
        expect([who, name, reply.status]).toEqual([who, name, expected]);
        refused++;
      }
    }
    expect(refused).toBeGreaterThan(30);
  });

  test('a reader reads the network but writes nothing', async () => {
    expect((await rita.call('GET', `/projects/${projectId}/network`)).status).toBe(200);
    const before = (await server.store.read(projectId)).revision;
    const set = editRow(await network(), 'device', await device('kq-acc-1'), { serial: 'by rita' });
    expect((await send(rita, set)).status).toBe(403);
    expect((await server.store.read(projectId)).revision).toBe(before);
  });

  test('a write from a page of another origin is refused', async () => {
    const reply = await anna.call(
      'POST',
      `/projects/${projectId}/undo`,
      {},
      { Origin: 'http://elsewhere.example' },
    );
    expect(reply.status).toBe(403);
  });

  test('an owner brings somebody in and takes them out again', async () => {
    const person = await server.caller('olaf@marrow.example');
    await bringIn(anna, projectId, person, 'reader');
    expect((await person.call('GET', `/projects/${projectId}/network`)).status).toBe(200);
    const path = `/projects/${projectId}/members/${await accountOf(person)}`;
    expect((await anna.call('DELETE', path)).status).toBe(204);
    expect((await person.call('GET', `/projects/${projectId}/network`)).status).toBe(404);
  });
});

describe('changes', () => {
  test('an edit is journaled with its sentence and lands in the tables', async () => {
    const target = await device('kq-acc-2');
    const reply = await send(ben, editRow(await network(), 'device', target, { serial: 'NV-42' }));
    expect(reply.body).toMatchObject({ author: 'Ben Adair', sentence: 'Set serial of kq-acc-2 to NV-42' });
    expect(await server.knex('device').where({ id: target.id }).first('serial')).toEqual({ serial: 'NV-42' });
    const history = await ben.call<{ sentence: string }[]>(
      'GET',
      `/projects/${projectId}/changes?row=${target.id}`,
    );
    expect(history.body[0]?.sentence).toBe('Set serial of kq-acc-2 to NV-42');
  });

  test('sent twice with one id it is made once', async () => {
    const id = newId();
    const set = editRow(await network(), 'device', await device('kq-acc-3'), { serial: 'once' });
    const first = await send(ben, set, id);
    const again = await send(ben, set, id);
    expect([first.status, again.status]).toEqual([200, 200]);
    expect(again.body.revision).toBe(first.body.revision);
  });

  test('two edits of one field: the second gets 409 with both values', async () => {
    const target = await device('kq-acc-4');
    const base = await network();
    await send(anna, editRow(base, 'device', target, { serial: 'hers' }));
    const late = await send(ben, editRow(base, 'device', target, { serial: 'his' }));
    expect(late.status).toBe(409);
    expect(late.body.problems[0]).toMatchObject({ field: 'serial', mine: 'his', theirs: 'hers' });
    expect((await send(ben, editRow(base, 'device', target, { notes: 'other field' }))).status).toBe(200);
  });

  test('two people dropping a device into one unit at once: one wins, the other gets the reason', async () => {
    const base = await network();
    const rack = base.findOne('rackByName', 'kq-a3');
    const model = base.findOne('modelByTitle', 'norvane ax-2448p');
    const wish = (name: string) => {
      const set = addDevice(base, {
        name,
        modelId: model?.id ?? '',
        rackId: rack?.id ?? '',
        placeId: null,
        unit: 20,
      });
      if (set === null) throw new Error('no model');
      return set;
    };
    const replies = await Promise.all([send(anna, wish('drop-a')), send(ben, wish('drop-b'))]);
    expect(replies.map((reply) => reply.status).sort()).toEqual([200, 422]);
    expect(replies.find((reply) => reply.status === 422)?.body.detail).toMatch(
      /cannot stand at U20 of KQ-A3: drop-[ab] fills U20/,
    );
  });

  test('a set with one bad change is not written at all', async () => {
    const base = await network();
    const before = (await server.store.read(projectId)).revision;
    const good = editRow(base, 'device', await device('kq-srv-1'), { serial: 'good' });
    const bad = editRow(base, 'device', await device('kq-srv-2'), { name: 'kq-srv-3' });
    const reply = await send(ben, { changes: [...good.changes, ...bad.changes], sentence: 'mixed' });
    expect(reply.status).toBe(422);
    expect(reply.body.detail).toContain('already a device with the name kq-srv-3');
    expect((await server.store.read(projectId)).revision).toBe(before);
    expect((await device('kq-srv-1')).serial).not.toBe('good');
  });

  test('undo and redo follow the person, step by step, and a swap of units survives the database', async () => {
    const base = await network();
    const rackId = base.findOne('rackByName', 'kq-a1')?.id ?? '';
    const [firewall, edge] = [await device('kq-fw-1'), await device('kq-edge-1')];
    const swap = {
      sentence: 'Swapped',
      changes: [
        ...moveDevice(base, firewall, { rackId, unit: 33 }).changes,
        ...moveDevice(base, edge, { rackId, unit: 35 }).changes,
      ],
    };
    expect((await send(anna, swap)).status).toBe(200);
    await send(ben, editRow(await network(), 'device', await device('kq-srv-4'), { notes: 'his' }));
    const undone = await anna.call<JournalEntry>('POST', `/projects/${projectId}/undo`, {});
    expect(undone.body.sentence).toBe('Undid: Swapped');
    expect((await device('kq-fw-1')).unit).toBe(35);
    expect((await device('kq-srv-4')).notes).toBe('his');
    const redone = await anna.call<JournalEntry>('POST', `/projects/${projectId}/redo`, {});
    expect(redone.body.sentence).toBe('Redid: Swapped');
    expect((await device('kq-fw-1')).unit).toBe(33);
    expect((await anna.call('POST', `/projects/${projectId}/redo`, {})).status).toBe(409);
  });

  test('an undo that somebody else has built upon is refused with the reason', async () => {
    const target = await device('kq-st-1');
    await send(anna, editRow(await network(), 'device', target, { serial: 'A' }));
    await send(ben, editRow(await network(), 'device', await device('kq-st-1'), { serial: 'B' }));
    const reply = await anna.call('POST', `/projects/${projectId}/undo`, {});
    expect(reply.status).toBe(409);
    expect(reply.body['detail']).toContain('changed by somebody else');
    expect((await device('kq-st-1')).serial).toBe('B');
  });

  test('requests that are no changes are told what is wrong', async () => {
    const path = `/projects/${projectId}/changes`;
    expect(await anna.call('POST', path, { id: 'x', sentence: '', changes: [] })).toMatchObject({
      status: 400,
    });
    expect(
      (await anna.call('POST', path, 'not json', { 'Content-Type': 'application/json' })).body['detail'],
    ).toContain('not JSON');
    const huge = JSON.stringify({ id: newId(), sentence: 'x'.repeat(17 * 1024 * 1024), changes: [] });
    expect((await anna.call('POST', path, huge, { 'Content-Type': 'application/json' })).status).toBe(413);
  });
});

describe('the database is the last line of defence', () => {
  const refusedBy = async (work: () => Promise<unknown>): Promise<string> => {
    try {
      await work();
    } catch (error) {
      return (error as { constraint?: string }).constraint ?? String(error);
    }
    return 'nothing';
  };

  test('two devices in one unit, two cables in one port, a cable within one port', async () => {
    const { knex } = server;
    const [a, b] = [await device('kq-core-1'), await device('kq-acc-1')];
    expect(
      await refusedBy(() => knex('device').where({ id: b.id }).update({ unit: a.unit, rackId: a.rackId })),
    ).toBe('device_space');
    const base = await network();
    const cable = base.findOne('cableByLabel', 'kq-00001');
    const other = base.findOne('cableByLabel', 'kq-00002');
    expect(
      await refusedBy(() => knex('cable').where({ id: cable?.id }).update({ aPortId: other?.bPortId })),
    ).toBe('one_cable_per_port');
    expect(
      await refusedBy(() => knex('cable').where({ id: cable?.id }).update({ aPortId: cable?.bPortId })),
    ).toContain('cable_ends_differ');
    expect(await refusedBy(() => knex('device').where({ id: a.id }).update({ name: 'KQ-ACC-1' }))).toBe(
      'device_name',
    );
    const rows = await knex('address').whereNotNull('port_id').orderBy('id').limit(2);
    const [first, second] = rows as { id: string; address: string; portId: string }[];
    expect(
      await refusedBy(() =>
        knex('address').where({ id: second?.id }).update({ address: first?.address, portId: first?.portId }),
      ),
    ).toBe('address_is_one');
  });
});

describe('files', () => {
  test('the export is the demo file as it was, before anything was edited', async () => {
    const fresh = await testServer();
    const caller = await fresh.caller('rita@marrow.example');
    const [project] = (await caller.call<{ id: string }[]>('GET', '/projects')).body;
    const reply = await caller.call('GET', `/projects/${project?.id ?? ''}/exchange`);
    const exported = JSON.parse(reply.text) as { devices: unknown; cables: unknown; racks: unknown };
    const file = JSON.parse(await readFile(demoFile, 'utf8')) as typeof exported;
    expect(exported.devices).toEqual(file.devices);
    expect(exported.cables).toEqual(file.cables);
    expect(exported.racks).toEqual(file.racks);
    await fresh.end();
  }, 30_000);

  test('an import is all or nothing, and a preview writes nothing', async () => {
    const path = `/projects/${projectId}/exchange`;
    const before = (await server.store.read(projectId)).revision;
    const file = {
      format: 'visograph-exchange',
      version: 1,
      devices: [{ name: 'imp-1', role: 'SW', ports: [{ name: '1' }] }],
    };
    expect((await ben.call('POST', `${path}?preview=1`, JSON.stringify(file))).body).toMatchObject({
      created: 2,
      updated: 0,
    });
    const broken = { ...file, cables: [{ label: 'IMP-1', a: 'imp-1:9' }] };
    const refused = await ben.call<{ detail: string; problems: unknown[] }>(
      'POST',
      path,
      JSON.stringify(broken),
    );
    expect([refused.status, refused.body.problems]).toEqual([
      422,
      [{ path: '$.cables[0].a', message: 'imp-1 has no port “9”. Add it, or correct the name.' }],
    ]);
    expect((await server.store.read(projectId)).revision).toBe(before);
    expect((await ben.call('POST', path, JSON.stringify(file))).status).toBe(200);
    expect((await device('imp-1')).role).toBe('SW');
  });

  test('junk: not JSON, and 50 MB of it', async () => {
    const path = `/projects/${projectId}/exchange`;
    expect((await ben.call('POST', path, 'hello')).body['detail']).toContain('not JSON');
    expect((await ben.call('POST', path, 'x'.repeat(50 * 1024 * 1024))).status).toBe(413);
  });

  test('schedules as CSV, drawings as SVG with text and fonts', async () => {
    const csv = await rita.call('GET', `/projects/${projectId}/reports/cables?format=csv`);
    expect(csv.text.split('\r\n')[0]).toContain('Label,Type,Length (m),A device');
    expect(csv.headers.get('content-disposition')).toContain('attachment');
    const [sheet] = [...(await network()).all('sheet')];
    const svg = await rita.call('GET', `/projects/${projectId}/sheets/${sheet?.id ?? ''}/svg`);
    expect(svg.text).toContain('>kq-core-1</text>');
    expect(svg.text).toContain("@font-face{font-family:'Atkinson Hyperlegible Mono'");
    const rack = (await network()).findOne('rackByName', 'kq-a1');
    expect((await rita.call('GET', `/projects/${projectId}/racks/${rack?.id ?? ''}/svg`)).text).toContain(
      '>KQ-A1 · front</text>',
    );
  });

  test('a network read again at the same revision is not sent again', async () => {
    const first = await rita.call('GET', `/projects/${projectId}/network`);
    const again = await rita.call('GET', `/projects/${projectId}/network`, undefined, {
      'If-None-Match': first.headers.get('etag') ?? '',
    });
    expect(again.status).toBe(304);
  });

  test('the API describes itself', async () => {
    const { body } = await rita.call<Described>('GET', '/openapi.json');
    expect(body.openapi).toBe('3.1.0');
    expect(Object.keys(body.paths)).toContain('/api/v1/projects/{project}/changes');
    // Every call of the contract is there, with what it answers and what the query may say.
    for (const name of Object.keys(contract) as Name[]) {
      const [method = '', path = ''] = name.split(' ');
      const told = body.paths[`/api/v1${path.replaceAll(/:(\w+)/g, '{$1}')}`]?.[method.toLowerCase()];
      expect([name, Object.keys(told?.responses ?? {}).sort()]).toEqual([
        name,
        [
          expect.stringMatching(/^20[04]$/),
          ...(isDoneByJob(name) && method !== 'GET' ? ['202'] : []),
          'default',
        ],
      ]);
      const { answers, files, network: which } = contract[name] as Endpoint;
      const content = told?.responses['200']?.content ?? {};
      expect(content['application/json']?.schema === undefined).toBe(answers === undefined);
      for (const type of files ?? []) expect(Object.keys(content)).toContain(type);
      const asked = (told?.parameters ?? []).filter((one) => one.in === 'query').map((one) => one.name);
      expect(asked.includes('plan')).toBe(which !== undefined);
      expect(asked.includes('at')).toBe(which === 'read');
    }
    const changes = body.paths['/api/v1/projects/{project}/changes']?.['post']?.responses['200']?.content;
    expect(changes?.['application/json']?.schema).toMatchObject({
      required: expect.arrayContaining(['revision', 'line', 'base', 'changes']),
    });
  });
});

describe("a project of one's own", () => {
  test('begins with the catalogue', async () => {
    const made = await anna.call<{ id: string }>('POST', '/projects', { name: 'Second' });
    const own = (await server.store.read(made.body.id)).network;
    expect(own.findOne('modelByTitle', 'norvane ax-2448p')).not.toBeNull();
    expect(own).toBeInstanceOf(Network);
    expect(writeExchange(own).devices).toEqual([]);
    expect((await ben.call('GET', `/projects/${made.body.id}/network`)).status).toBe(404);
  });

  test('a bulk of 1,200 new rows goes through COPY and back', async () => {
    const made = await anna.call<{ id: string }>('POST', '/projects', { name: 'Bulk' });
    const devices = Array.from({ length: 100 }, (_, at) => ({
      name: `sw-${at}`,
      role: 'SW',
      notes: 'tab\there, back\\slash, line\nbreak',
      ports: Array.from({ length: 12 }, (_unused, port) => ({ name: `p${port}` })),
    }));
    const reply = await anna.call(
      'POST',
      `/projects/${made.body.id}/exchange`,
      JSON.stringify({ format: 'visograph-exchange', version: 1, devices }),
    );
    expect(reply.body).toMatchObject({ created: 1300 });
    server.store.forget(made.body.id);
    const loaded = (await server.store.read(made.body.id)).network;
    expect(loaded.count('port')).toBe(1200);
    expect(loaded.findOne('deviceByName', 'sw-42')?.notes).toBe('tab\there, back\\slash, line\nbreak');
  });

  test('a connection made through the API is found from both ports', async () => {
    const base = await network();
    const free = (name: string) =>
      base
        .find('portsByDevice', base.findOne('deviceByName', name)?.id ?? '')
        .find((port) => port.connector === 'RJ45' && base.countOf('cablesByPort', port.id) === 0)?.id ?? '';
    const aPortId = free('kq-acc-1');
    const set = connect(base, {
      aPortId,
      bPortId: free('kq-acc-2'),
      label: 'KQ-09999',
      typeId: null,
      lengthM: 3,
    });
    expect((await send(ben, set)).status).toBe(200);
    const now = await network();
    expect(now.findOne('cablesByPort', aPortId)?.label).toBe('KQ-09999');
    expect(now.findOne('cableByLabel', 'kq-09999')?.lengthM).toBe(3);
  });
});

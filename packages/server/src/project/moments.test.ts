import { afterAll, beforeAll, describe, expect, jest, test } from '@jest/globals';
import { type ChangeSet } from '@visograph/core/change';
import { type Finding } from '@visograph/core/check';
import { editRow } from '@visograph/core/commands';
import { newId, type Network } from '@visograph/core/model';
import { deleteDevice } from '@visograph/core/racks';
import { readPdf } from '../sheets/printing/testPdf.ts';
import { testServer, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let ben: Caller;
let rita: Caller;
let projectId: string;
/** The exchange file as it was given out at each revision, when it was the newest. */
const files = new Map<number, string>();
jest.setTimeout(60_000);

const network = async (): Promise<Network> => (await server.store.read(projectId)).network;
const at = (what: string): string => `/projects/${projectId}/${what}`;
const exported = async (who: Caller, query = ''): Promise<string> =>
  (await who.call('GET', at(`exchange${query}`))).text;

async function send({ changes, sentence }: ChangeSet): Promise<void> {
  const reply = await ben.call<{ revision: number }>('POST', at('changes'), {
    id: newId(),
    changes,
    sentence,
  });
  expect(reply.status).toBe(200);
  files.set(reply.body.revision, await exported(ben));
}

beforeAll(async () => {
  server = await testServer();
  [ben, rita] = await Promise.all([
    server.caller('ben@marrow.example'),
    server.caller('rita@marrow.example'),
  ]);
  projectId = (await ben.call<{ id: string }[]>('GET', '/projects')).body[0]?.id ?? '';
  files.set((await server.store.read(projectId)).revision, await exported(ben));
  const named = async (name: string) => {
    const found = (await network()).findOne('deviceByName', name);
    if (found === null) throw new Error(name);
    return found;
  };
  await send(editRow(await network(), 'device', await named('kq-core-1'), { serial: 'X-1' }));
  await send(deleteDevice(await network(), await named('kq-fw-2')));
  await send(editRow(await network(), 'device', await named('kq-core-1'), { name: 'kq-core-one' }));
  await ben.call('POST', at('undo'), {});
  files.set((await server.store.read(projectId)).revision, await exported(ben));
}, 60_000);
afterAll(async () => server.end());

describe('the project as it was', () => {
  test('every revision gives the file that was given then, byte for byte, also to another server', async () => {
    const other = await server.second();
    const revisions = [...files.keys()];
    expect(revisions.length).toBe(5);
    for (const revision of [...revisions].reverse()) {
      expect(await exported(rita, `?at=${revision}`)).toBe(files.get(revision));
      const elsewhere = await other.store.at(projectId, null, revision);
      expect(elsewhere.network.count('device')).toBe(
        (await server.store.at(projectId, null, revision)).network.count('device'),
      );
    }
    const first = Math.min(...revisions);
    const reply = await rita.call<{ revision: number; rows: { device: { name: string }[] } }>(
      'GET',
      at(`network?at=${first}`),
    );
    expect(reply.body.revision).toBe(first);
    expect(reply.body.rows.device.some(({ name }) => name === 'kq-fw-2')).toBe(true);
  });

  test('findings and prints are of that moment, and say of which', async () => {
    const first = Math.min(...files.keys());
    const sheet = [...(await network()).all('sheet')].find(({ name }) => name === 'Data room · cabling');
    const text = async (query: string): Promise<string> =>
      (await readPdf((await rita.call('GET', at(`sheets/${sheet?.id ?? ''}/pdf${query}`))).bytes)).pages[0]
        ?.text ?? '';
    expect(await text('')).not.toContain('kq-fw-2');
    const then = await text(`?at=${first}`);
    expect(then).toContain('kq-fw-2');
    expect(then).toMatch(new RegExp(`r${first}\\s+·`));
    const findings = async (query: string): Promise<number> =>
      (await rita.call<Finding[]>('GET', at(`findings${query}`))).body.length;
    expect(await findings(`?at=${first}`)).not.toBe(await findings(''));
  });

  test('a revision that is not there is refused with what there is; what was cannot be changed', async () => {
    const newest = Math.max(...files.keys());
    for (const asked of ['0', String(newest + 1), '-1', '1.5', 'first']) {
      const reply = await rita.call<{ detail: string }>('GET', at(`network?at=${asked}`));
      expect([asked, reply.status, reply.body.detail]).toEqual([
        asked,
        404,
        `There is no revision ${asked}: the history goes from 1 to ${newest}.`,
      ]);
    }
    const written = await ben.call<{ detail: string }>('POST', at('changes?at=1'), {
      id: newId(),
      changes: [],
      sentence: 'Nothing',
    });
    expect([written.status, written.body.detail]).toEqual([
      409,
      'You look at an earlier moment of the project. Go back to now to change it.',
    ]);
    const stranger = await server.caller();
    expect((await stranger.call('GET', at('network?at=1'))).status).toBe(401);
  });
});

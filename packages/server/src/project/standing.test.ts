/** Projects that are archived, deleted, brought back, and gone for good. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { WebSocket } from 'ws';
import {
  accept,
  begin,
  placeIn,
  projectsOf,
  type Project,
  type Sent,
  type Told,
} from '../testing/membership.ts';
import { atHand, testServer, type AtHand, type Caller, type TestServer } from '../testServer.ts';
import { purge } from './standing.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

const invite = (who: Caller, project: string, email: string) =>
  who.call<Sent>('POST', `/projects/${project}/invitations`, { email, role: 'editor' });
const stand = (who: Caller, project: string, standing: string) =>
  who.call<Project & Told>('PUT', `/projects/${project}/standing`, { standing });

test('a project that is archived is read by all and changed by nobody, until it is brought back', async () => {
  const project = await begin(hand.anna, 'Old quay');
  await accept(hand.ben, (await invite(hand.anna, project, 'b@marrow.example')).body.key);
  await placeIn(hand.ben, project, 'Before');
  expect((await stand(hand.ben, project, 'archived')).status).toBe(403);
  expect((await stand(hand.anna, project, 'archived')).body).toMatchObject({
    standing: 'archived',
    until: null,
  });
  expect(await placeIn(hand.ben, project, 'After')).toMatchObject({
    status: 409,
    body: { detail: expect.stringContaining('Old quay is archived') },
  });
  // Work outside the web process as well.
  const list = await hand.ben.call('POST', `/projects/${project}/exchange`, '{}');
  expect(list.status).toBe(409);
  expect((await hand.ben.call('GET', `/projects/${project}/network`)).status).toBe(200);
  expect((await hand.ben.call('GET', `/projects/${project}/reports/cables`)).status).toBe(200);
  expect(await projectsOf(hand.ben)).toContainEqual(
    expect.objectContaining({ id: project, standing: 'archived' }),
  );
  expect((await stand(hand.anna, project, 'active')).body.standing).toBe('active');
  expect((await placeIn(hand.ben, project, 'After')).status).toBe(200);
});

test('a project that is deleted is gone for all but its owners, who bring it back as it was', async () => {
  const project = await begin(hand.anna, 'Gone quay');
  await accept(hand.ben, (await invite(hand.anna, project, 'b@marrow.example')).body.key);
  await placeIn(hand.ben, project, 'Kept');
  const pending = (await invite(hand.anna, project, 'pending@marrow.example')).body;
  const before = (await hand.anna.call('GET', `/projects/${project}/network`)).text;
  const other = await server.second();
  const socket = new WebSocket(`${other.url.replace('http', 'ws')}/api/v1/projects/${project}/live`, {
    headers: { Cookie: hand.ben.cookies },
  });
  await new Promise((open) => socket.once('open', open));
  const closed = new Promise((resolve) => socket.once('close', resolve));
  const deleted = await stand(hand.anna, project, 'deleted');
  const days = (new Date(deleted.body.until ?? 0).getTime() - Date.now()) / 86_400_000;
  expect([deleted.body.standing, Math.round(days)]).toEqual(['deleted', 30]);
  expect(await closed).toBe(4001);
  for (const who of [hand.anna, hand.ben])
    expect((await who.call('GET', `/projects/${project}/network`)).status).toBe(404);
  expect((await projectsOf(hand.ben)).some(({ id }) => id === project)).toBe(false);
  expect((await projectsOf(hand.anna)).find(({ id }) => id === project)?.standing).toBe('deleted');
  expect((await hand.rita.call('POST', '/invitations/look', { key: pending.key })).status).toBe(410);
  const again = new WebSocket(`${server.url.replace('http', 'ws')}/api/v1/projects/${project}/live`, {
    headers: { Cookie: hand.anna.cookies },
  });
  const refused = await new Promise<string>((resolve) =>
    again.once('error', (error) => resolve(error.message)),
  );
  expect(refused).toContain('404');
  await stand(hand.anna, project, 'active');
  expect((await hand.anna.call('GET', `/projects/${project}/network`)).text).toBe(before);
  expect((await hand.ben.call('GET', `/projects/${project}/network`)).status).toBe(200);
});

test('a project is gone for good after its term, or when an owner says so, and not before', async () => {
  const [early, late, kept] = await Promise.all(
    ['Early', 'Late', 'Kept'].map((name) => begin(hand.anna, name)),
  );
  const rows = async (project: string): Promise<number> =>
    (await server.knex('change_set').where({ projectId: project })).length;
  await placeIn(hand.anna, late ?? '', 'Quay');
  expect(await hand.anna.call('DELETE', `/projects/${late ?? ''}`)).toMatchObject({
    status: 409,
    body: { detail: expect.stringContaining('Late is in use') },
  });
  for (const project of [early, late, kept]) await stand(hand.anna, project ?? '', 'deleted');
  const longAgo = new Date(Date.now() - 31 * 86_400_000);
  await server.knex('project').where({ id: early }).update({ deletedAt: longAgo });
  await Promise.all([purge(server.knex, 30), purge(server.knex, 30)]);
  expect(
    (await projectsOf(hand.anna)).filter(({ standing }) => standing === 'deleted').map(({ name }) => name),
  ).toEqual(['Kept', 'Late']);
  expect((await hand.ben.call('DELETE', `/projects/${late ?? ''}`)).status).toBe(404);
  expect((await hand.anna.call('DELETE', `/projects/${late ?? ''}`)).status).toBe(204);
  expect([await rows(early ?? ''), await rows(late ?? ''), (await rows(kept ?? '')) > 0]).toEqual([
    0,
    0,
    true,
  ]);
  expect((await stand(hand.anna, late ?? '', 'active')).status).toBe(404);
});

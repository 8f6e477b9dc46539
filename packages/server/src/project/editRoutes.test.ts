/** Edits so large that others would wait for them are judged outside the web process, and answer the same. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Job } from '@visograph/api';
import type { JournalEntry } from '@visograph/core/change';
import { blankPlace, newId } from '@visograph/core/model';
import { begin } from '../testing/membership.ts';
import { atHand, testServer, type AtHand, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

const notWaiting = { Prefer: 'respond-async' };
const sites = (count: number, named: string) => ({
  ...{ id: newId(), sentence: `Added ${count} sites` },
  changes: Array.from({ length: count }, (_, at) => {
    const id = newId();
    const after = { ...blankPlace, id, name: `${named} ${at}`, kind: 'site', parentId: null };
    return { op: 'create', kind: 'place', id, after };
  }),
});
const placesNow = async (who: Caller, line = ''): Promise<string[]> => {
  const { body } = await who.call<{ rows: { place: { name: string }[] } }>('GET', hand.at(`network${line}`));
  return body.rows.place.map(({ name }) => name);
};
/** Begun as a job, then what came of it. */
async function asJob<T>(who: Caller, path: string, body: object): Promise<{ status: number; body: T }> {
  const begun = await who.call<Job>('POST', hand.at(path), body, notWaiting);
  expect([path, begun.status]).toEqual([path, 202]);
  expect(await server.jobs.finished(begun.body.id, 60_000, new AbortController().signal)).toBe(true);
  return who.call<T>('GET', `/jobs/${begun.body.id}/result`);
}

describe('a large edit', () => {
  const many = sites(3000, 'Pier');

  test('is a job, and its entry is what a small one answers', async () => {
    const before = (await placesNow(hand.ben)).length;
    const { status, body } = await asJob<JournalEntry>(hand.ben, 'changes', many);
    expect([status, body.id, body.sentence, body.changes.length]).toEqual([
      200,
      many.id,
      many.sentence,
      3000,
    ]);
    expect(await placesNow(hand.anna)).toHaveLength(before + 3000);
    // Sent once more, as a window does that did not hear the answer: made once.
    const again = await asJob<JournalEntry>(hand.ben, 'changes', many);
    expect([again.status, again.body.revision]).toEqual([200, body.revision]);
    expect(await placesNow(hand.ben)).toHaveLength(before + 3000);
  });

  test('is taken back and made again as a job, small ones at once', async () => {
    const before = (await placesNow(hand.ben)).length;
    const undone = await asJob<JournalEntry>(hand.ben, 'undo', { id: newId() });
    expect([undone.status, undone.body.sentence]).toEqual([200, `Undid: ${many.sentence}`]);
    expect(await placesNow(hand.ben)).toHaveLength(before - 3000);
    const redone = await asJob<JournalEntry>(hand.ben, 'redo', {});
    expect([redone.status, redone.body.redoes]).toEqual([200, undone.body.revision - 1]);
    expect(await placesNow(hand.ben)).toHaveLength(before);

    const one = await hand.ben.call('POST', hand.at('changes'), sites(1, 'Small'), notWaiting);
    const back = await hand.ben.call('POST', hand.at('undo'), {}, notWaiting);
    const forth = await hand.ben.call('POST', hand.at('redo'), {}, notWaiting);
    expect([one.status, back.status, forth.status]).toEqual([200, 200, 200]);
    // Whoever waits has the entry itself.
    const waited = await hand.ben.call('POST', hand.at('undo'), {});
    expect(waited.status).toBe(200);
    const large = await hand.ben.call<JournalEntry>('POST', hand.at('undo'), {});
    expect([large.status, large.body.sentence]).toEqual([200, `Undid: ${many.sentence}`]);
  });

  test('is undone once, however often that is sent: here the only step there is', async () => {
    const project = await begin(hand.ben, 'Sent twice');
    for (const [edit, line] of [
      [sites(1, 'Quay'), ''],
      [sites(1, 'Quay'), `?plan=`],
    ] as const) {
      const plan =
        line === ''
          ? ''
          : (await hand.ben.call<{ id: string }>('POST', `/projects/${project}/plans`, { name: 'P' })).body
              .id;
      const at = (path: string): string => `/projects/${project}/${path}${line}${plan}`;
      expect((await hand.ben.call('POST', at('changes'), edit)).status).toBe(200);
      const id = newId();
      const [first, again] = [
        await hand.ben.call<JournalEntry>('POST', at('undo'), { id }),
        await hand.ben.call<JournalEntry>('POST', at('undo'), { id }),
      ];
      expect([first.status, again.status, again.body.revision]).toEqual([200, 200, first.body.revision]);
    }
  });

  test('is refused as a small one is, with nothing written', async () => {
    const before = (await placesNow(hand.ben)).length;
    const twice = sites(3000, 'Twice');
    twice.changes.push(...sites(1, 'Twice').changes);
    const refused = await asJob<{ problems: { message: string }[] }>(hand.ben, 'changes', twice);
    expect(refused.status).toBe(422);
    expect(refused.body.problems[0]?.message).toContain('Twice 0');
    // What an owner alone decides an editor does not decide in a large edit either.
    const { network } = await server.store.read(hand.projectId);
    const [model] = network.all('model');
    const theirs = {
      ...sites(3000, 'Model'),
      changes: [
        ...sites(3000, 'Model').changes,
        {
          op: 'update',
          kind: 'model',
          id: model?.id,
          before: { sharing: model?.sharing },
          after: { sharing: 'accepted' },
        },
      ],
    };
    expect((await hand.ben.call('POST', hand.at('changes'), theirs)).status).toBe(403);
    expect((await hand.rita.call('POST', hand.at('changes'), sites(3000, 'Reader'), notWaiting)).status).toBe(
      403,
    );
    expect(await placesNow(hand.ben)).toHaveLength(before);
  });

  test('is made in a plan too', async () => {
    const plan = (await hand.ben.call<{ id: string }>('POST', hand.at('plans'), { name: 'Many' })).body.id;
    const before = (await placesNow(hand.ben, `?plan=${plan}`)).length;
    const { body } = await asJob<JournalEntry>(hand.ben, `changes?plan=${plan}`, sites(3000, 'Planned'));
    expect([body.line, body.changes.length]).toEqual([plan, 3000]);
    expect(await placesNow(hand.ben, `?plan=${plan}`)).toHaveLength(before + 3000);
    expect((await asJob(hand.ben, `undo?plan=${plan}`, {})).status).toBe(200);
    expect(await placesNow(hand.ben, `?plan=${plan}`)).toHaveLength(before);
  });
});

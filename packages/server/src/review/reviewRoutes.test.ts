/** What the checks find, over the API: on a day, since a revision, waived; and whose step brought it. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Answer } from '@visograph/api';
import type { JournalEntry } from '@visograph/core/change';
import { factMark, findingsOf } from '@visograph/core/check';
import { blankCable, blankDevice, isFree, newId } from '@visograph/core/model';
import { atHand, testServer, type AtHand, type Caller, type TestServer } from '../testServer.ts';

let server: TestServer;
let hand: AtHand;
beforeAll(async () => {
  server = await testServer();
  hand = await atHand(server);
}, 60_000);
afterAll(async () => server.end());

type Findings = Answer<'GET /projects/:project/findings'>;
type Origin = Answer<'POST /projects/:project/findings/origin'>;
const found = async (query = ''): Promise<Findings> =>
  (await hand.anna.call<Findings>('GET', hand.at(`findings${query}`))).body;
const about = (findings: Findings): string[] =>
  findings.map(({ rule, about: [first] }) => `${rule} ${first ?? ''}`);
const write = async (who: Caller, sentence: string, changes: object[]): Promise<JournalEntry> => {
  const { status, body } = await who.call<JournalEntry>('POST', hand.at('changes'), {
    id: newId(),
    sentence,
    changes,
  });
  expect([sentence, status]).toEqual([sentence, 200]);
  return body;
};
const openCable = (label: string, aPortId: string) => {
  const id = newId();
  return { op: 'create', kind: 'cable', id, after: { ...blankCable, id, label, aPortId } };
};
const freePorts = async (): Promise<string[]> => {
  const now = await hand.network();
  const device = now.findOne('deviceByName', 'kq-acc-5');
  return now
    .find('portsByDevice', device?.id ?? '')
    .filter((port) => port.connector === 'RJ45' && isFree(now, port.id))
    .map(({ id }) => id);
};

describe('findings', () => {
  test('of the demo: its faults, and with what is meant where that is asked for', async () => {
    const open = await found();
    expect(open).toHaveLength(12);
    expect(open.every(({ waiver }) => waiver === null)).toBe(true);
    const all = await found('?waived=1');
    expect(all.filter(({ waiver }) => waiver !== null).map(({ rule, waiver }) => [rule, waiver?.by])).toEqual(
      [
        ['inlets-one-feed', 'Anna Kerr'],
        ['single-fed', 'Anna Kerr'],
      ],
    );
    // A waiver holds through its last day.
    expect(about(await found('?on=2027-06-30'))).not.toContain('single-fed device ah-edge-1');
    expect(about(await found('?on=2027-07-01'))).toContain('single-fed device ah-edge-1');
  });

  test('new since a revision, and whose step brought one, past steps that have nothing to do with it', async () => {
    const { revision: before } = await write(hand.anna, 'Added a spare', [
      (() => {
        const id = newId();
        return {
          op: 'create',
          kind: 'device',
          id,
          after: { ...blankDevice, id, name: 'spare-1', role: 'XX', status: 'planned' },
        };
      })(),
    ]);
    const [one = '', two = ''] = await freePorts();
    const brought = await write(hand.ben, 'Pulled KQ-09001', [openCable('KQ-09001', one)]);
    await write(hand.anna, 'Pulled KQ-09002', [openCable('KQ-09002', two)]);
    const fresh = await found(`?since=${before}`);
    expect(about(fresh).filter((one) => one.startsWith('cable-one-end'))).toEqual([
      'cable-one-end cable KQ-09001',
      'cable-one-end cable KQ-09002',
    ]);
    expect(await found(`?since=${brought.revision + 1}`)).toEqual([]);
    const [first] = fresh.filter((one) => one.about[0] === 'cable KQ-09001');
    const origin = await hand.rita.call<Origin>('POST', hand.at('findings/origin'), {
      rule: 'cable-one-end',
      about: first?.rows,
    });
    expect([
      origin.status,
      origin.body.entry?.revision,
      origin.body.entry?.author,
      origin.body.entry?.sentence,
    ]).toEqual([200, brought.revision, 'Ben Adair', 'Pulled KQ-09001']);
  });

  test('of a moment before: the step is sought from there', async () => {
    const [fault] = (await found()).filter(({ rule }) => rule === 'rack-over-limit');
    const { body } = await hand.anna.call<Origin>('POST', hand.at('findings/origin?at=1'), {
      rule: 'rack-over-limit',
      about: fault?.rows,
    });
    expect(body).toMatchObject({ entry: { revision: 1 }, searchedFrom: 1 });
  });

  test('what is no day, no revision, no rule or is not found is told', async () => {
    const told = async (path: string, body?: object): Promise<[number, string]> => {
      const reply = await hand.anna.call<{ detail: string }>(
        body === undefined ? 'GET' : 'POST',
        hand.at(path),
        body,
      );
      return [reply.status, reply.body.detail];
    };
    expect(await told('findings?on=2027-02-30')).toEqual([
      400,
      'on is 2027-02-30, not a day such as 2027-03-01.',
    ]);
    expect(await told('findings?since=yesterday')).toEqual([
      400,
      'since is yesterday, not a revision such as 12.',
    ]);
    expect((await told('findings?since=99999'))[0]).toBe(404);
    const rows = [{ kind: 'device', id: newId() }];
    expect((await told('findings/origin', { rule: 'nonsense', about: rows }))[0]).toBe(404);
    expect((await told('findings/origin', { rule: 'cable-one-end', about: rows }))[0]).toBe(404);
    expect((await told('findings/origin', { rule: 'cable-one-end', about: [] }))[0]).toBe(400);
  });
});

describe('waivers and grades', () => {
  test('a waiver is written by an editor as any row, and goes with its undo', async () => {
    const now = await hand.network();
    const finding = findingsOf(now).find(({ rule }) => rule === 'poe-over-budget');
    if (finding === undefined) throw new Error('nothing is over its budget');
    const id = newId();
    const after = {
      ...{ id, rule: finding.rule, about: finding.subjects, facts: factMark(finding.facts) },
      ...{ reason: 'two cameras are dark at night', by: 'Ben Adair', madeOn: '2026-11-30', until: null },
    };
    await write(hand.ben, 'Waived 1 finding', [{ op: 'create', kind: 'waiver', id, after }]);
    expect((await found()).map(({ rule }) => rule)).not.toContain('poe-over-budget');
    expect((await hand.ben.call('POST', hand.at('undo'), { id: newId() })).status).toBe(200);
    expect((await found()).map(({ rule }) => rule)).toContain('poe-over-budget');
  });

  test('a rule is graded by an owner alone; a waiver without a reason is refused at its field', async () => {
    const id = newId();
    const grade = [
      { op: 'create', kind: 'ruleGrade', id, after: { id, rule: 'label-gap', grade: 'off', reason: null } },
    ];
    const wish = { id: newId(), sentence: 'Set a rule to off', changes: grade };
    const ben = await hand.ben.call<{ detail: string }>('POST', hand.at('changes'), wish);
    expect([ben.status, ben.body.detail]).toEqual([
      403,
      'You are editor of this project; only an owner grades rules or switches them off. Waive single findings instead.',
    ]);
    await write(hand.anna, 'Set a rule to off', grade);
    expect((await found()).map(({ rule }) => rule)).not.toContain('label-gap');
    const waiver = newId();
    const bare = {
      id: waiver,
      rule: 'label-gap',
      about: [],
      facts: '0'.repeat(32),
      reason: ' ',
      by: 'Ben',
      madeOn: '2026-11-30',
      until: null,
    };
    const refused = await hand.ben.call<{ problems: { field: string; message: string }[] }>(
      'POST',
      hand.at('changes'),
      {
        id: newId(),
        sentence: 'Waived',
        changes: [{ op: 'create', kind: 'waiver', id: waiver, after: bare }],
      },
    );
    expect([refused.status, refused.body.problems[0]?.field]).toEqual([422, 'reason']);
  });
});

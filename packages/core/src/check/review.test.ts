import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../change/apply.ts';
import { invert } from '../change/invert.ts';
import { writeExchange } from '../exchange/write.ts';
import type { Attempt } from '../commands/attempt.ts';
import type { Network } from '../model/network/network.ts';
import { everything } from '../testing/testKinds.ts';
import { content } from '../testing/testEdits.ts';
import { foundIn, testDay } from '../testing/testFindings.ts';
import { networkOf } from '../testing/testNetwork.ts';
import { access, switched, trunk } from '../testing/testSwitching.ts';
import { mendAll, waysOf } from './commands/mendAll.ts';
import { endWaivers, gradeRule, waive, type WaiverWish } from './commands/waivers.ts';
import { findingKey, type Finding } from './finding.ts';
import { isFound, origin } from './origin.ts';
import { findingsOf, rulesByKey } from './registry.ts';
import { reviewOf } from './review.ts';
import { freshIn } from './sinceThen.ts';
import { meantIn } from './told.ts';

/** Switches with cables that end nowhere, and ports in VLANs that nobody defined. */
const faulty = networkOf({
  places: [{ path: 'Kelder Quay', kind: 'site', code: 'KQ' }],
  devices: [
    {
      name: 'kq-acc-1',
      role: 'SW',
      place: 'Kelder Quay',
      ports: [1, 2, 3, 4].map((at) => ({ name: `${at}` })),
    },
  ],
  cables: [1, 2, 3].map((at) => ({ label: `KQ-0000${at}`, a: `kq-acc-1:${at}` })),
});
const said: WaiverWish = { reason: 'kept for the pier', until: null, by: 'Anna', on: testDay };

function after(network: Network, attempt: Attempt): Network {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
}
const why = (attempt: Attempt): string => (attempt.ok ? 'it can be done' : attempt.why);
const about = (network: Network, text: string): Finding => {
  const found = reviewOf(network, testDay).open.find(({ finding }) =>
    finding.subjects.some(({ kind, id }) => kind === 'cable' && network.get('cable', id)?.label === text),
  );
  if (found === undefined) throw new Error(`nothing is found about ${text}`);
  return found.finding;
};
const labels = (network: Network): string[] =>
  foundIn(network)
    .filter(({ rule }) => rule === 'cable-one-end')
    .map(({ about: [first] }) => first ?? '');

describe('waivers', () => {
  const waived = after(faulty, waive(faulty, [about(faulty, 'KQ-00002')], said));

  test('hold back one finding, which is listed with the reason; undone, it is to be mended again', () => {
    expect(labels(waived)).toEqual(['cable KQ-00001', 'cable KQ-00003']);
    expect(meantIn(waived, testDay)).toMatchObject([
      {
        about: ['cable KQ-00002', 'device kq-acc-1'],
        waiver: { reason: 'kept for the pier', by: 'Anna', madeOn: testDay, until: null },
      },
    ]);
    const ended = after(waived, endWaivers(waived, [...waived.all('waiver')]));
    expect(content(ended)).toBe(content(faulty));
  });

  test('end by themselves when the fact changes, and hold again when it is as it was', () => {
    const cable = waived.findOne('cableByLabel', 'kq-00002');
    const free = [...waived.all('port')].find(({ name }) => name === '4');
    if (cable === null || free === undefined) throw new Error('no cable');
    const moved = applyChanges(waived, [
      {
        op: 'update',
        kind: 'cable',
        id: cable.id,
        before: { aPortId: cable.aPortId },
        after: { aPortId: free.id },
      },
    ]);
    if (!moved.ok) throw new Error('it cannot be moved');
    expect(labels(moved.network)).toEqual(['cable KQ-00001', 'cable KQ-00002', 'cable KQ-00003']);
    expect(reviewOf(moved.network, testDay).ended.map((one) => one.why)).toEqual(['the fact has changed']);
    const back = applyChanges(moved.network, invert(moved.changes));
    expect(back.ok && labels(back.network)).toEqual(labels(waived));
  });

  test('a name is no fact: what is called otherwise is still meant', () => {
    const cable = waived.findOne('cableByLabel', 'kq-00002');
    const renamed = applyChanges(waived, [
      {
        op: 'update',
        kind: 'cable',
        id: cable?.id ?? '',
        before: { label: 'KQ-00002' },
        after: { label: 'KQ-00009' },
      },
    ]);
    expect(renamed.ok && labels(renamed.network)).toEqual(['cable KQ-00001', 'cable KQ-00003']);
  });

  test('hold through their last day and no longer', () => {
    const term = after(faulty, waive(faulty, [about(faulty, 'KQ-00002')], { ...said, until: '2027-02-28' }));
    expect(reviewOf(term, '2027-02-28').meant).toHaveLength(1);
    expect(reviewOf(term, '2027-03-01').meant).toHaveLength(0);
    expect(reviewOf(term, '2027-03-01').ended.map((one) => one.why)).toEqual(['its day has come']);
    expect(reviewOf(term, '2027-02-28').ended).toEqual([]);
  });

  test('said again, what was said before is replaced', () => {
    const again = after(
      waived,
      waive(waived, [{ ...reviewOf(waived, testDay).meant[0]?.finding } as Finding], {
        ...said,
        reason: 'for the ferry',
      }),
    );
    expect([...again.all('waiver')].map(({ reason }) => reason)).toEqual(['for the ferry']);
  });

  test('without a reason, and ending before they begin, are refused', () => {
    const one = [about(faulty, 'KQ-00001')];
    expect(why(waive(faulty, one, { ...said, reason: '  ' }))).toBe(
      'Say why it is meant to be so: the reason is empty.',
    );
    expect(why(waive(faulty, one, { ...said, until: '2026-11-29' }))).toContain(
      '2026-11-29, before it begins',
    );
    expect(why(waive(faulty, one, { ...said, reason: 'x'.repeat(501) }))).toContain('longer than 500');
  });

  test('go into a file and come back with other ids, also one that has ended', () => {
    const cable = about(waived, 'KQ-00003');
    const two = after(waived, waive(waived, [cable], { ...said, until: '2027-01-31', by: 'Ben' }));
    const file = writeExchange(two);
    expect(file.waivers).toMatchObject([
      {
        rule: 'cable-one-end',
        about: ['cable KQ-00002', 'device kq-acc-1'],
        reason: 'kept for the pier',
        by: 'Anna',
        since: testDay,
      },
      { rule: 'cable-one-end', about: ['cable KQ-00003', 'device kq-acc-1'], until: '2027-01-31' },
    ]);
    const read = networkOf({ ...file, project: undefined });
    expect(labels(read)).toEqual(['cable KQ-00001']);
    expect(writeExchange(read).waivers).toEqual(file.waivers);
    // The facts are others there: it is kept, and holds nothing back.
    const [first, second] = file.waivers ?? [];
    if (first === undefined || second === undefined) throw new Error('no waivers');
    const other = networkOf({
      ...file,
      project: undefined,
      waivers: [{ ...first, facts: '0'.repeat(32) }, second],
    });
    expect(labels(other)).toEqual(['cable KQ-00001', 'cable KQ-00002']);
    expect(reviewOf(other, testDay).ended).toHaveLength(1);
    expect(writeExchange(other).waivers?.[0]?.about).toEqual(['cable KQ-00002', 'device kq-acc-1']);
  });

  test('a file read twice gives no second waiver', () => {
    const file = writeExchange(waived);
    expect(networkOf({ ...file, project: undefined }).count('waiver')).toBe(1);
    const entries = [
      ...(file.waivers ?? []),
      { rule: 'no-such-rule', about: [], facts: 'a'.repeat(32), reason: 'old', by: 'Ben', since: testDay },
    ];
    const odd = networkOf({ ...file, project: undefined, waivers: entries });
    expect(reviewOf(odd, testDay).ended.map(({ waiver }) => waiver.rule)).toEqual(['no-such-rule']);
  });
});

describe('grades', () => {
  test('a rule that is off finds nothing, one that is graded finds it as told, and taken as it is all is as before', () => {
    const off = after(faulty, gradeRule(faulty, 'cable-one-end', 'off', 'a building site'));
    expect(labels(off)).toEqual([]);
    const mild = after(off, gradeRule(off, 'cable-one-end', 'warn'));
    expect(mild.count('ruleGrade')).toBe(1);
    expect(new Set(foundIn(mild).map(({ severity }) => severity))).toEqual(new Set(['warn']));
    const plain = after(mild, gradeRule(mild, 'cable-one-end', null));
    expect(content(plain)).toBe(content(faulty));
    expect(why(gradeRule(faulty, 'nonsense', 'off'))).toBe('There is no rule nonsense.');
  });

  test('a waiver of a rule that is off has ended', () => {
    const waived = after(faulty, waive(faulty, [about(faulty, 'KQ-00002')], said));
    const off = after(waived, gradeRule(waived, 'cable-one-end', 'off'));
    expect(reviewOf(off, testDay).ended.map((one) => one.why)).toEqual(['the rule is off']);
  });
});

describe('mending all alike', () => {
  test('offers each way once, with those it is for; done, they are gone in one step that is undone as one', () => {
    const all = findingsOf(faulty).filter(({ rule }) => rule === 'cable-one-end');
    expect([...waysOf(faulty, all)].map(([way, of]) => [way, of.length])).toEqual([['Remove the cable', 3]]);
    const { attempt, mended, left } = mendAll(faulty, all.slice(0, 2), 'Remove the cable');
    expect([mended.length, left.length, attempt.ok && attempt.set.sentence]).toEqual([
      2,
      0,
      'Mended 2 findings: remove the cable',
    ]);
    const done = after(faulty, attempt);
    expect(done.count('cable')).toBe(1);
  });

  test('one that goes along with another is mended too; a way that none has is refused', () => {
    const network = switched(
      {
        a: { ports: [trunk('1', [10, 40]), access('2', 40)] },
        b: { ports: [trunk('1', [10]), access('2', 40), trunk('3', [10, 20])] },
        c: { ports: [trunk('1', [10]), access('2', 20)] },
      },
      [
        ['a:1', 'b:1'],
        ['b:3', 'c:1'],
      ],
    );
    const stops = findingsOf(network).filter(({ rule }) => rule === 'vlan-stops');
    expect(stops.length).toBeGreaterThan(1);
    const done = mendAll(network, stops, 'Carry the VLAN at both ends');
    const mended = after(network, done.attempt);
    expect(findingsOf(mended).filter(({ rule }) => rule === 'vlan-stops')).toEqual([]);
    expect(done.left).toEqual([]);
    expect(why(mendAll(network, stops, 'Paint it').attempt)).toBe(
      'None of them can be mended like this any more.',
    );
  });
});

describe('where a finding came from', () => {
  const cable = faulty.findOne('cableByLabel', 'kq-00003');
  if (cable === null) throw new Error('no cable');
  const renamed = {
    op: 'update',
    kind: 'cable',
    id: cable.id,
    before: { notes: null },
    after: { notes: 'x' },
  } as const;
  const made = { op: 'create', kind: 'cable', id: cable.id, after: cable } as const;
  const sought = {
    rule: rulesByKey.get('cable-one-end') ?? fail(),
    about: [
      { kind: 'device' as const, id: [...faulty.all('device')][0]?.id ?? '' },
      { kind: 'cable' as const, id: cable.id },
    ],
  };
  function fail(): never {
    throw new Error('no rule');
  }

  test('the entry before which it was not there, past others that have nothing to do with it', () => {
    const noted = { ...cable, notes: 'x' };
    const now = applyChanges(faulty, [renamed]);
    if (!now.ok) throw new Error('it cannot be noted');
    expect(isFound(now.network, sought)).toBe(true);
    expect(now.network.get('cable', cable.id)).toEqual(noted);
    const search = origin(now.network, sought, [[renamed], [made]]);
    expect(search.broughtBy).toBe(1);
    expect(search.network.get('cable', cable.id)).toBeNull();
    const short = origin(now.network, sought, [[renamed]]);
    expect([short.broughtBy, isFound(short.network, sought)]).toEqual([null, true]);
  });

  test('what is new since an earlier moment', () => {
    const gone = applyChanges(faulty, [{ op: 'delete', kind: 'cable', id: cable.id, before: cable }]);
    if (!gone.ok) throw new Error('it cannot go');
    const fresh = freshIn(reviewOf(gone.network, testDay), reviewOf(faulty, testDay));
    expect(fresh.map(({ finding }) => finding.subjects[0]?.id)).toEqual([cable.id]);
    expect(freshIn(reviewOf(faulty, testDay), reviewOf(gone.network, testDay))).toEqual([]);
    const mild = after(faulty, gradeRule(faulty, 'cable-one-end', 'warn'));
    expect(freshIn(reviewOf(mild, testDay), reviewOf(faulty, testDay))).toHaveLength(3);
  });
});

test('property: what is open and what is meant together are all that is found, whichever are waived', () => {
  const all = findingsOf(everything);
  for (let some = 0; some < all.length; some += 3) {
    const chosen = all.filter((_one, at) => at % 7 === some % 7);
    const network = after(everything, waive(everything, chosen, said));
    const { open, meant, ended } = reviewOf(network, testDay);
    expect(ended).toEqual(reviewOf(everything, testDay).ended);
    expect([...open, ...meant].map(({ finding }) => findingKey(finding)).sort()).toEqual(
      all.map(findingKey).sort(),
    );
    expect(meant.map(({ finding }) => findingKey(finding)).sort()).toEqual(chosen.map(findingKey).sort());
  }
});

import { describe, expect, test } from '@jest/globals';
import { applyChanges } from '../../change/apply.ts';
import { writeExchange } from '../../exchange/write.ts';
import type { Attempt } from '../../commands/attempt.ts';
import { kinds } from '../../model/kinds.ts';
import { requirementKinds } from '../../model/kinds/review/requirement.ts';
import type { Network } from '../../model/network/network.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { content } from '../../testing/testEdits.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import {
  addRequirement,
  beginRequirements,
  removeRequirement,
  requirementText,
  usualRequirements,
  type RequirementWish,
} from '../commands/requirements.ts';
import { completenessOf } from './completeness.ts';
import { askedFacts } from './facts.ts';
import { askingWithin, gapTable, notAsked } from './gapTable.ts';

const feed = (name: string) => ({ name, volts: 230, amps: 32, phases: 1 as const, derating: 0.8 });
/** A site with a rack of two feeds: a switch with one cord of two, one that is planned, a camera, a switch nowhere. */
const harbour = networkOf({
  places: [
    { path: 'Quay', kind: 'site', code: 'Q', address: '1 Harbour Road' },
    { path: 'Quay/Room', kind: 'room' },
    { path: 'Pier', kind: 'site' },
  ],
  racks: [{ name: 'R1', place: 'Quay/Room', units: 20, feeds: [feed('A'), feed('B')] }],
  devices: [
    { name: 'pda', model: 'Brackwater PS-16', rack: 'R1', feed: 'A' },
    { name: 'srv-1', model: 'Tessmark T2-Rack', rack: 'R1', unit: 1, serial: 'TE-1' },
    { name: 'srv-2', model: 'Tessmark T2-Rack', rack: 'R1', unit: 4, status: 'planned' },
    { name: 'srv-3', model: 'Tessmark T2-Rack', rack: 'R1', unit: 7, status: 'retired' },
    { name: 'cam-1', model: 'Pellane Domus 4', place: 'Pier' },
    { name: 'loose', role: 'SV' },
  ],
  cables: [{ label: 'P-1', a: 'pda:o1', b: 'srv-1:psu1' }],
});
const after = (network: Network, attempt: Attempt): Network => {
  const applied = attempt.ok ? applyChanges(network, attempt.set.changes) : null;
  if (applied?.ok !== true) throw new Error(attempt.ok ? 'it cannot be applied' : attempt.why);
  return applied.network;
};
const asking = (...wishes: RequirementWish[]): Network =>
  wishes.reduce((network, wish) => after(network, addRequirement(network, wish)), harbour);
const of = (
  fact: string,
  role: RequirementWish['role'] = 'any',
  status: RequirementWish['status'] = 'any',
  on: RequirementWish['on'] = 'device',
): RequirementWish => ({ on, role, status, fact });
const gaps = (network: Network): Record<string, string[]> =>
  Object.fromEntries(
    completenessOf(network)
      .gaps.map(({ kind, id, missing }): [string, string[]] => {
        const row = network.get(kind, id);
        return [row === null ? '' : kinds[kind].nameOf(row as never), missing];
      })
      .sort(),
  );

test('before anything is asked for nothing is missing', () => {
  expect(completenessOf(harbour)).toMatchObject({ asked: 0, met: 0, gaps: [] });
});

describe('what is missing', () => {
  test('by role and by status; what is retired is asked for nothing', () => {
    expect(gaps(asking(of('serial', 'SV')))).toEqual({ loose: ['serial'], 'srv-2': ['serial'] });
    expect(gaps(asking(of('serial', 'SV', 'active')))).toEqual({ loose: ['serial'] });
    expect(gaps(asking(of('serial', 'CM')))).toEqual({ 'cam-1': ['serial'] });
  });

  test('asked for twice, once for all and once for a role, it is counted once', () => {
    const network = asking(of('serial'), of('serial', 'SV'));
    expect(completenessOf(network)).toMatchObject({ asked: 5, met: 1 });
  });

  test('two feeds are asked of what has two inlets, and traced to the feeds', () => {
    expect(gaps(asking(of('twoFeeds', 'any', 'active')))).toEqual({ 'srv-1': ['twoFeeds'] });
  });

  test('places, types, feeds, ends, addresses', () => {
    expect(gaps(asking(of('place')))).toEqual({ loose: ['place'] });
    expect(gaps(asking(of('address', 'any', 'any', 'place')))).toEqual({ Pier: ['address'] });
    expect(gaps(asking(of('type', 'any', 'any', 'cable'), of('lengthM', 'any', 'any', 'cable')))).toEqual({
      'P-1': ['type', 'lengthM'],
    });
    expect(gaps(asking(of('bothEnds', 'any', 'any', 'cable')))).toEqual({});
    expect(
      gaps(asking(of('twoFeeds', 'any', 'any', 'rack'), of('massLimitKg', 'any', 'any', 'rack'))),
    ).toEqual({ R1: ['massLimitKg'] });
    expect(gaps(asking(of('managementAddress', 'CM')))).toEqual({ 'cam-1': ['managementAddress'] });
  });

  test('is counted by place, inner ones with the outer', () => {
    const network = asking(of('serial'));
    const { places, asked, met } = completenessOf(network);
    expect([asked, met]).toEqual([5, 1]);
    const share = (name: string | null) =>
      places.get(
        name === null ? null : ([...network.all('place')].find((one) => one.name === name)?.id ?? ''),
      );
    // Strip, two servers and no retired one in the room; a camera on the pier; one server nowhere.
    expect([share('Quay'), share('Room'), share('Pier'), share(null)]).toEqual([
      { asked: 3, met: 1 },
      { asked: 3, met: 1 },
      { asked: 1, met: 0 },
      { asked: 1, met: 0 },
    ]);
  });
});

describe('asking', () => {
  test('is done and taken back as steps; twice the same is refused, and so is what cannot be asked', () => {
    const wish = of('serial', 'SV', 'active');
    const network = asking(wish);
    const again = addRequirement(network, wish);
    expect(again.ok ? '' : again.why).toMatch(/taken|already|twice/);
    const [row] = network.all('requirement');
    if (row === undefined) throw new Error('nothing is asked for');
    expect(content(after(network, removeRequirement(network, row)))).toBe(content(harbour));
    const odd = addRequirement(harbour, of('colour'));
    expect(odd.ok ? '' : odd.why).toBe('devices have no fact colour that can be asked for.');
    const role = addRequirement(harbour, of('feeds', 'SW', 'any', 'rack'));
    expect(role.ok ? '' : role.why).toContain('only devices have one');
  });

  test('is said in words', () => {
    expect([of('serial', 'SW', 'active'), of('type', 'any', 'any', 'cable')].map(requirementText)).toEqual([
      'Serial of all active switches',
      'Type of all cables',
    ]);
  });

  test('the usual facts are asked for once; each can be asked for', () => {
    const network = after(harbour, beginRequirements(harbour));
    expect(network.count('requirement')).toBe(usualRequirements.length);
    const again = beginRequirements(network);
    expect(again.ok ? '' : again.why).toBe('All of it is asked for already.');
  });

  test('goes into a file and comes back', () => {
    const network = after(harbour, beginRequirements(harbour));
    const file = writeExchange(network);
    const read = networkOf({ ...file, project: undefined });
    const asked = (written: object): unknown => new Map(Object.entries(written)).get('requirements');
    expect(asked(file)).toHaveLength(usualRequirements.length);
    expect(asked(writeExchange(read))).toEqual(asked(file));
    expect(gaps(read)).toEqual(gaps(network));
  });
});

test('every fact of every kind can be asked of the demo, and says what is there where it is there', () => {
  const demo = demoNetwork();
  for (const kind of requirementKinds)
    for (const fact of askedFacts[kind]) {
      const rows = [...demo.all(kind)];
      for (const row of rows) {
        const has = fact.has(demo, row as never);
        if (has === true && fact.key !== 'bothEnds')
          expect([fact.key, fact.text(demo, row as never)]).not.toEqual([fact.key, '']);
      }
    }
});

test('the work list: what is missing as rows, what is not asked for told apart from what is', () => {
  const network = asking(of('serial', 'SV'), of('assetNumber', 'any', 'active'), of('model'));
  const { gaps: all } = completenessOf(network);
  const { columns, rows } = gapTable(network, 'device', all, new Set(['model', 'serial', 'assetNumber']));
  expect(columns).toEqual([
    { key: 'model', label: 'Model', editable: false },
    { key: 'serial', label: 'Serial', editable: true },
    { key: 'assetNumber', label: 'Asset number', editable: true },
  ]);
  expect(rows.map(({ name, place, cells }) => [name, place, cells])).toEqual([
    ['cam-1', 'Pier', { model: 'Domus 4', serial: notAsked, assetNumber: '' }],
    ['loose', '', { model: '', serial: '', assetNumber: '' }],
    ['pda', 'Quay/Room', { model: 'PS-16', serial: notAsked, assetNumber: '' }],
    ['srv-1', 'Quay/Room', { model: 'T2-Rack', serial: 'TE-1', assetNumber: '' }],
    ['srv-2', 'Quay/Room', { model: 'T2-Rack', serial: '', assetNumber: notAsked }],
  ]);
  const pier = [...network.all('place')].find(({ name }) => name === 'Pier')?.id ?? null;
  expect(askingWithin(network, all, pier)).toHaveLength(1);
  expect(gapTable(network, 'rack', all, new Set())).toEqual({ columns: [], rows: [] });
});

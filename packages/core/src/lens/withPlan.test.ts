import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyChanges } from '../change/apply.ts';
import { create, update, type Change } from '../change/change.ts';
import { diff } from '../change/diff.ts';
import { removal } from '../change/removal.ts';
import { newId } from '../model/values/ids.ts';
import { blankAddress } from '../model/kinds/logical/address.ts';
import { blankCable } from '../model/kinds/lines/cable.ts';
import { blankDevice } from '../model/kinds/equipment/device.ts';
import { kindNames, type Kind } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { content, edit, edited } from '../testing/testEdits.ts';
import { everything } from '../testing/testKinds.ts';
import { deviceNamed, portId } from '../testing/testNetwork.ts';
import { runs } from '../testing/testRuns.ts';
import { reservations, standing, withPlan, type PlanEntry } from './withPlan.ts';

const step = (
  revision: number,
  changes: readonly (Change | null)[],
  of: { undoes?: number; redoes?: number } = {},
): PlanEntry => ({
  revision,
  sentence: `Step ${revision}`,
  changes: changes.filter((change) => change !== null),
  undoes: of.undoes ?? null,
  redoes: of.redoes ?? null,
});
const made = (network: Network, changes: readonly (Change | null)[]): Network => {
  const applied = applyChanges(network, step(1, changes).changes);
  if (!applied.ok) throw new Error(applied.problems.map(({ message }) => message).join(' '));
  return applied.network;
};
const rack = (network: Network, name = 'R1'): string =>
  network.findOne('rackByName', name.toLowerCase())?.id ?? '';
const newDevice = (name: string, unit: number, id = newId()): Change =>
  create('device', { ...blankDevice, id, name, role: 'SW', rackId: rack(everything), unit });
const a = deviceNamed(everything, 'a');
const b = deviceNamed(everything, 'b');

describe('a plan over what it was made on', () => {
  test('is its entries one after the other, without those taken back', () => {
    const one = step(1, [update('device', a, { unit: 8 })]);
    const two = step(2, [newDevice('c', 15)]);
    const plan = [
      one,
      two,
      step(3, [], { undoes: 1 }),
      step(4, [], { undoes: 2 }),
      step(5, [], { redoes: 1 }),
    ];
    expect(standing(plan)).toEqual([one]);
    const { network, conflicts } = withPlan(everything, plan);
    expect(conflicts).toEqual([]);
    expect(deviceNamed(network, 'a').unit).toBe(8);
    expect(network.count('device')).toBe(everything.count('device'));
    expect(withPlan(everything, [])).toEqual({ network: everything, conflicts: [] });
  });
});

describe('a plan over what has moved on', () => {
  test('a field that as built changed: the plan holds, both values are told', () => {
    const plan = [step(1, [update('device', a, { unit: 8, serial: 'P-1' })])];
    const base = made(everything, [update('device', a, { unit: 12 })]);
    const { network, conflicts } = withPlan(base, plan);
    expect(deviceNamed(network, 'a')).toMatchObject({ unit: 8, serial: 'P-1' });
    expect(conflicts).toMatchObject([
      { revision: 1, code: 'conflict', field: 'unit', mine: 8, theirs: 12, outcome: 'kept' },
    ]);
    expect(conflicts[0]?.message).toBe(
      'device a: Unit was 3 when this was planned and is 12 as built. The plan says 8.',
    );
  });

  test('a row that another field refers to is told by its name', () => {
    const plan = [step(1, [update('device', a, { rackId: rack(everything, 'R2'), unit: 9 })])];
    const base = made(everything, [
      update('device', a, { rackId: null, unit: null, placeId: [...everything.all('place')][0]?.id ?? '' }),
    ]);
    const { conflicts } = withPlan(base, plan);
    expect(conflicts.map(({ message }) => message)).toContain(
      'device a: Rack was R1 when this was planned and is nothing as built. The plan says R2.',
    );
  });

  test('a port that was taken: the cable is left out, and all that needs it, the rest is made', () => {
    const [id, legs] = [newId(), newId()];
    const cable = {
      ...blankCable,
      id,
      label: 'P-1',
      aPortId: portId(everything, 'a:3'),
      bPortId: portId(everything, 'b:3'),
    };
    const plan = [
      step(1, [create('cable', cable), newDevice('c', 15)]),
      step(2, [update('cable', cable, { notes: 'blue' }), update('device', a, { serial: 'P-1' })]),
    ];
    const free = made(
      everything,
      [...everything.all('circuit')].map((one) => update('circuit', one, { aPortId: null })),
    );
    expect(withPlan(free, plan).conflicts).toEqual([]);
    const base = made(free, [create('cable', { ...cable, id: legs, label: 'K-77', bPortId: null })]);
    const { network, conflicts } = withPlan(base, plan);
    expect(network.get('cable', id)).toBeNull();
    expect(deviceNamed(network, 'c').unit).toBe(15);
    expect(deviceNamed(network, 'a').serial).toBe('P-1');
    expect(conflicts.map(({ revision, kind, outcome }) => [revision, kind, outcome])).toEqual([
      [1, 'cable', 'left out'],
      [2, 'cable', 'left out'],
    ]);
    // The port is free again: nothing is in the way any more.
    expect(
      withPlan(made(base, removal(base, [{ kind: 'cable', id: legs }]).changes), plan).conflicts,
    ).toEqual([]);
  });

  test('a row that is gone as built: what builds on it is told, nothing else is lost', () => {
    const plan = [
      step(1, [
        create('address', {
          ...blankAddress,
          id: newId(),
          address: '10.1.0.77/24',
          portId: portId(everything, 'b:lo'),
        }),
        newDevice('c', 15),
      ]),
      step(2, [update('device', b, { serial: 'P-2' })]),
    ];
    const base = made(everything, removal(everything, [{ kind: 'device', id: b.id }]).changes);
    const { network, conflicts } = withPlan(base, plan);
    expect(deviceNamed(network, 'c').unit).toBe(15);
    expect(network.get('device', b.id)).toBeNull();
    expect(conflicts.map(({ revision, code, outcome }) => [revision, code, outcome])).toEqual([
      [1, 'missing', 'left out'],
      [2, 'absent', 'left out'],
    ]);
  });

  test('taking out is done whole or not at all; what is gone already is nothing to decide', () => {
    const plan = [
      step(1, [...removal(everything, [{ kind: 'device', id: b.id }]).changes, newDevice('c', 15)]),
    ];
    expect(withPlan(everything, plan).network.get('device', b.id)).toBeNull();
    const port = [...everything.find('portsByDevice', b.id)][0];
    if (port === undefined) throw new Error('no port');
    const base = made(everything, [
      create('port', { ...port, id: newId(), name: 'added later', ordinal: 99 }),
    ]);
    const held = withPlan(base, plan);
    expect(content(held.network)).toBe(content(base));
    expect(held.conflicts).toMatchObject([{ code: 'inUse', outcome: 'left out' }]);
    const gone = made(everything, removal(everything, [{ kind: 'device', id: b.id }]).changes);
    const done = withPlan(gone, plan);
    expect([done.conflicts, done.network.count('device') - gone.count('device')]).toEqual([[], 1]);
  });

  test('a name that was taken comes with a free one', () => {
    const plan = [step(1, [newDevice('sw-09', 15)]), step(2, [newDevice('lone', 17)])];
    const taken = [newDevice('SW-09', 7), newDevice('sw-10', 9), newDevice('lone', 11)];
    const { conflicts } = withPlan(made(everything, taken), plan);
    expect(conflicts.map(({ code, free, outcome }) => [code, free, outcome])).toEqual([
      ['duplicate', 'sw-11', 'left out'],
      ['duplicate', 'lone-2', 'left out'],
    ]);
    // Nor one that a later step of the plan itself wants.
    const more = withPlan(made(everything, taken), [...plan, step(3, [newDevice('sw-11', 19)])]);
    expect(more.conflicts[0]?.free).toBe('sw-12');
  });
});

describe('what a plan keeps for itself', () => {
  const keys = (plan: PlanEntry[], base = everything): string[] =>
    reservations(base, plan).map(({ kind, what, value }) => `${kind} ${what} ${value}`);

  test('names, labels and addresses that it gives; not those of as built, nor ports of a device it makes', () => {
    const id = newId();
    const plan = [
      step(1, [
        newDevice('c', 15, id),
        create('port', {
          ...([...everything.find('portsByDevice', a.id)][0] as never as object),
          id: newId(),
          deviceId: id,
          name: '1',
        } as never),
        create('cable', { ...blankCable, id: newId(), label: 'P-1', aPortId: null, bPortId: null }),
        create('address', {
          ...blankAddress,
          id: newId(),
          address: '10.1.0.77/24',
          portId: portId(everything, 'a:lo'),
        }),
        update('device', a, { serial: 'X' }),
      ]),
    ];
    expect(keys(plan)).toEqual(['address address 10.1.0.77/24', 'cable label P-1', 'device name c']);
    expect(keys([...plan, step(2, [], { undoes: 1 })])).toEqual([]);
    const renamed = [
      step(1, [update('device', a, { name: 'core' })]),
      step(2, [update('device', { ...a, name: 'core' }, { name: 'a' })]),
    ];
    expect(keys(renamed.slice(0, 1))).toEqual(['device name core']);
    expect(keys(renamed)).toEqual([]);
  });
});

/** Edits as entries of a journal, each made on what the ones before came to. */
function history(
  start: Network,
  edits: readonly [string, number, string][],
): { entries: PlanEntry[]; network: Network } {
  const entries: PlanEntry[] = [];
  let network = start;
  for (const one of edits) {
    const next = edited(network, one);
    const changes = diff(network, next);
    if (changes.length > 0) entries.push(step(entries.length + 1, changes));
    network = next;
  }
  return { entries, network };
}

describe('properties', () => {
  const edits = (most: number): fc.Arbitrary<[string, number, string][]> =>
    fc.array(edit, { minLength: 1, maxLength: most });

  test('property: over what it was made on, a plan is what was seen while it was made', () => {
    fc.assert(
      fc.property(edits(10), (plan) => {
        const { entries, network } = history(everything, plan);
        const planned = withPlan(everything, entries);
        expect(planned.conflicts).toEqual([]);
        expect(content(planned.network)).toBe(content(network));
      }),
      { numRuns: runs(40) },
    );
  });

  test('property: over anything that happened meanwhile, every wish of the plan holds or is told', () => {
    fc.assert(
      fc.property(edits(8), edits(8), (plan, meanwhile) => {
        const { entries } = history(everything, plan);
        const base = history(everything, meanwhile).network;
        const { network, conflicts } = withPlan(base, entries);
        const toldOf = new Set(conflicts.map(({ id }) => id));
        const toldIn = new Set(
          conflicts.filter(({ outcome }) => outcome === 'left out').map(({ revision }) => revision),
        );
        // What each row is to be in the end, read from the entries alone.
        const wished = new Map<
          string,
          { kind: Kind; fields: Record<string, unknown> | null; revisions: number[] }
        >();
        for (const { revision, changes } of entries)
          for (const change of changes) {
            const known = wished.get(change.id);
            const fields = change.op === 'delete' ? null : { ...known?.fields, ...(change.after as object) };
            wished.set(change.id, {
              kind: change.kind,
              fields,
              revisions: [...(known?.revisions ?? []), revision],
            });
          }
        for (const [id, { kind, fields, revisions }] of wished) {
          if (toldOf.has(id) || revisions.some((revision) => toldIn.has(revision))) continue;
          const row = network.get(kind, id) as Record<string, unknown> | null;
          if (fields === null) expect(row).toBeNull();
          else expect(row).toMatchObject(fields);
        }
        // Rows that the plan says nothing of are as they are as built.
        for (const kind of kindNames)
          for (const row of base.all(kind))
            if (!wished.has(row.id)) expect(network.get(kind, row.id)).toEqual(row);
      }),
      { numRuns: runs(60) },
    );
  });

  test('property: the answer depends on nothing but the base and the entries', () => {
    fc.assert(
      fc.property(edits(5), edits(5), (plan, meanwhile) => {
        const { entries } = history(everything, plan);
        const base = history(everything, meanwhile).network;
        const [one, other] = [withPlan(base, entries), withPlan(base, structuredClone(entries))];
        expect(content(other.network)).toBe(content(one.network));
        expect(other.conflicts).toEqual(one.conflicts);
      }),
      { numRuns: runs(15) },
    );
  });
});

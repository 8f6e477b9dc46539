import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { allFactSorts, type FactSort } from '../model/values/facts.ts';
import { newId } from '../model/values/ids.ts';
import { kindNames, kinds, leads, refsOf, type Kind } from '../model/kinds.ts';
import { Network } from '../model/network/network.ts';
import { columnsOf } from '../model/fields/storage.ts';
import { edit, edited } from '../testing/testEdits.ts';
import { everything } from '../testing/testKinds.ts';
import { runs } from '../testing/testRuns.ts';
import { allSeeing, seenBy } from './seenBy.ts';

type Fields = Record<string, unknown> & { id: string };
const rowsOf = (network: Network): { kind: Kind; row: Fields }[] =>
  kindNames.flatMap((kind) => [...network.all(kind)].map((row) => ({ kind, row: row })));
const withoutSorts = (...hidden: FactSort[]) => ({
  sees: new Set(allFactSorts.filter((sort) => !hidden.includes(sort))),
});
const factOf = (kind: Kind, field: string): FactSort | undefined =>
  (kinds[kind].facts as Record<string, FactSort>)[field];

/** A text that is nowhere else, in every field that takes one, by the sort of fact it is. */
function marked(network: Network): Network {
  const draft = network.draft();
  let count = 0;
  for (const { kind, row } of rowsOf(network)) {
    const fields = Object.keys(row).flatMap((field): [string, string][] => {
      const sort = factOf(kind, field);
      const mark = `zq${sort ?? ''}${++count}`;
      const fits = sort !== undefined && kinds[kind].schema.shape[field]?.safeParse(mark).success === true;
      return fits ? [[field, mark]] : [];
    });
    const changed = { ...row, ...Object.fromEntries(fields) };
    if (kinds[kind].schema.safeParse(changed).success) draft.put(kind, changed as never);
  }
  return draft.finish();
}
const text = (network: Network): string => JSON.stringify(rowsOf(network).map(({ row }) => row));

describe('what an audience sees', () => {
  test('whoever sees all sees the network itself', () => {
    expect(seenBy(everything, allSeeing)).toBe(everything);
    expect(seenBy(everything, withoutSorts('names'))).toBe(seenBy(everything, withoutSorts('names')));
  });

  test('every field of free text or data says what sort of fact it is', () => {
    const undecided = kindNames.flatMap((kind) =>
      columnsOf(kind)
        .filter(
          ({ field, storage }) =>
            (storage === 'text' || storage === 'json') && factOf(kind, field) === undefined,
        )
        // Words of a fixed list say nothing of their own, nor do numbers and settings of how a thing is drawn.
        .filter(({ field }) => kinds[kind].schema.shape[field]?.safeParse('zq 1').success === true)
        .map(({ field }) => `${kind}.${field}`),
    );
    expect(undecided).toEqual([]);
    for (const kind of kindNames)
      for (const field of Object.keys(kinds[kind].facts))
        expect(Object.keys(kinds[kind].schema.shape)).toContain(field);
  });

  test('names are numbers in the order of what is seen; addresses and what hangs on them are not there', () => {
    const nameless = seenBy(everything, withoutSorts('names'));
    expect(new Set([...nameless.all('device')].map(({ name }) => name))).toEqual(
      new Set(Array.from({ length: everything.count('device') }, (_, at) => `device ${at + 1}`)),
    );
    expect([...nameless.all('place')].every(({ code }) => code === null)).toBe(true);
    expect(nameless.count('address')).toBe(everything.count('address'));
    const bare = seenBy(everything, withoutSorts('addresses'));
    expect([
      bare.count('address'),
      bare.count('prefix'),
      bare.count('route'),
      bare.count('bgpSession'),
    ]).toEqual([0, 0, 0, 0]);
    expect([bare.count('device'), bare.count('cable')]).toEqual([
      everything.count('device'),
      everything.count('cable'),
    ]);
    // Without VLANs there is no VLAN interface, and no address on one.
    const untagged = seenBy(everything, withoutSorts('vlans'));
    const names = (of: Network): string[] => [...of.all('port')].map(({ name }) => name);
    expect(names(everything)).toContain('vlan20');
    expect(names(untagged)).not.toContain('vlan20');
    expect(untagged.count('vlan')).toBe(0);
  });

  test('property: of hidden sorts not a letter is left; what is left is whole', () => {
    fc.assert(
      fc.property(
        fc.array(edit, { maxLength: 6 }),
        fc.subarray([...allFactSorts], { minLength: 1 }),
        (edits, hidden) => {
          const network = marked(
            edits.reduce((one, step) => edited(one, step as [string, number, string]), everything),
          );
          const seen = seenBy(network, withoutSorts(...hidden));
          const told = text(seen);
          for (const sort of hidden) expect(told).not.toContain(`zq${sort}`);
          if (hidden.includes('addresses')) expect(told).not.toMatch(/\b10\.\d+\.\d+\.\d+/);
          for (const { kind, row } of rowsOf(seen)) {
            expect([kind, kinds[kind].schema.safeParse(row).error?.issues]).toEqual([kind, undefined]);
            for (const [field, lead] of refsOf(kind)) {
              const id = row[field];
              if (typeof id === 'string' && leads(row, lead))
                expect([kind, field, seen.get(lead.to, id) !== null]).toEqual([kind, field, true]);
            }
            // Structure is as it was: nothing is made up.
            const whole = network.get(kind, row.id) as unknown as Fields;
            for (const [field, value] of Object.entries(row))
              if (factOf(kind, field) === undefined && refsOf(kind).every(([one]) => one !== field))
                expect(value).toEqual(whole[field]);
          }
          for (const kind of kindNames)
            expect(
              kinds[kind].unique.every((rule) => {
                const keys = [...seen.all(kind)]
                  .map((row) => rule.key(row as never).toLowerCase())
                  .filter((key) => key !== '');
                return new Set(keys).size === keys.length;
              }),
            ).toBe(true);
        },
      ),
      { numRuns: runs(25) },
    );
  });

  test('the same answer whatever the ids and the order of the rows', () => {
    const ids = new Map(rowsOf(everything).map(({ row }) => [row.id, newId()]));
    const other = JSON.parse(
      text(everything).replaceAll(/[0-9a-f]{8}-[0-9a-f-]{27}/g, (id) => ids.get(id) ?? id),
    ) as Fields[];
    const kindOf = new Map(rowsOf(everything).map(({ kind, row }) => [ids.get(row.id) ?? '', kind]));
    const lists: Record<string, Fields[]> = {};
    for (const row of [...other].reverse()) (lists[kindOf.get(row.id) ?? ''] ??= []).push(row);
    const shuffled = Network.of(lists);
    const told = (network: Network): unknown =>
      ['place', 'rack', 'device', 'sheet'].map((kind) =>
        [...seenBy(network, withoutSorts('names', 'models')).all(kind as 'device')]
          .map((row) => JSON.stringify({ ...row, id: '' }).replaceAll(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ''))
          .sort(),
      );
    expect(told(shuffled)).toEqual(told(everything));
  });
});

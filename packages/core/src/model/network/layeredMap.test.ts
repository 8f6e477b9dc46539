import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../testing/testRuns.ts';
import { LayeredMap } from './layeredMap.ts';
import { RowIndex } from './rowIndex.ts';

type Step = readonly [key: number, value: number | null];
const applied = (map: LayeredMap<number>, steps: readonly Step[]): LayeredMap<number> => {
  const draft = map.draft();
  for (const [key, value] of steps) {
    if (value === null) draft.delete(`k${key}`);
    else draft.set(`k${key}`, value);
  }
  return draft.finish();
};
const appliedPlainly = (map: ReadonlyMap<string, number>, steps: readonly Step[]): Map<string, number> => {
  const next = new Map(map);
  for (const [key, value] of steps) {
    if (value === null) next.delete(`k${key}`);
    else next.set(`k${key}`, value);
  }
  return next;
};
const sorted = (entries: Iterable<[string, number]>): [string, number][] =>
  [...entries].sort(([a], [b]) => (a < b ? -1 : 1));
const step = fc.tuple(fc.nat(40), fc.option(fc.nat(9), { freq: 3 }));

describe('a layered map', () => {
  test('property: after any rounds of changes it is the plain map, and the maps before are as they were', () => {
    fc.assert(
      fc.property(
        fc.nat(30),
        fc.array(fc.array(step, { maxLength: 12 }), { maxLength: 8 }),
        (many, rounds) => {
          let plain = new Map(Array.from({ length: many }, (_, at): [string, number] => [`k${at}`, at]));
          let map = LayeredMap.of(plain);
          const all: [LayeredMap<number>, Map<string, number>][] = [[map, plain]];
          for (const steps of rounds) {
            [map, plain] = [applied(map, steps), appliedPlainly(plain, steps)];
            all.push([map, plain]);
          }
          for (const [one, wanted] of all) {
            expect(one.size).toBe(wanted.size);
            expect(sorted(one.entries())).toEqual(sorted(wanted));
            expect([...one.keys()].sort()).toEqual([...wanted.keys()].sort());
            expect([...one.values()].sort()).toEqual([...wanted.values()].sort());
            for (let at = 0; at < 45; at++) expect(one.get(`k${at}`)).toBe(wanted.get(`k${at}`));
          }
        },
      ),
      { numRuns: runs(150) },
    );
  });

  test('through all its layers: thousands of changes a few at a time, and at once', () => {
    let plain = new Map(Array.from({ length: 6000 }, (_, at): [string, number] => [`k${at}`, at]));
    let map = LayeredMap.of(plain);
    for (let round = 0; round < 60; round++) {
      const size = round % 20 === 19 ? 3000 : 97;
      const steps = Array.from({ length: size }, (_, at): Step => {
        const key = (round * 131 + at * 7) % 9000;
        return [key, (round + at) % 5 === 0 ? null : round];
      });
      [map, plain] = [applied(map, steps), appliedPlainly(plain, steps)];
      expect(map.size).toBe(plain.size);
    }
    expect(sorted(map.entries())).toEqual(sorted(plain));
  });

  test('in a draft: what was set is read, what was taken out is not there, and may come back', () => {
    const draft = LayeredMap.of([['a', 1]]).draft();
    draft.delete('a');
    draft.delete('a');
    draft.set('b', 2);
    expect([draft.get('a'), draft.get('b'), draft.size]).toEqual([undefined, 2, 1]);
    draft.set('a', 3);
    expect([...draft.finish().entries()]).toEqual([
      ['a', 3],
      ['b', 2],
    ]);
    const none = LayeredMap.empty<number>().draft();
    none.set('x', 1);
    none.delete('x');
    expect([none.finish().size, [...none.finish().entries()]]).toEqual([0, []]);
  });
});

describe('an index of rows', () => {
  interface Row {
    id: string;
    keys: readonly string[];
  }
  const row = (id: number, keys: readonly number[]): Row => ({
    id: `r${id}`,
    keys: keys.map((key) => `k${key}`),
  });

  test('property: with buckets of one, a few and very many it finds what reading all rows finds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 90 }),
        fc.array(fc.tuple(fc.nat(99), fc.option(fc.uniqueArray(fc.nat(3), { maxLength: 3 }), { freq: 3 })), {
          maxLength: 60,
        }),
        (many, edits) => {
          const rows = new Map(
            Array.from({ length: many }, (_, at): [string, Row] => [
              `r${at}`,
              row(
                at,
                [0, at % 4].filter((key, which) => which === 0 || key !== 0),
              ),
            ]),
          );
          let index = RowIndex.build((one: Row) => one.keys, rows.values());
          const half = Math.floor(edits.length / 2);
          for (const part of [edits.slice(0, half), edits.slice(half)]) {
            const draft = index.draft();
            for (const [id, keys] of part) {
              const before = rows.get(`r${id}`);
              const after = keys === null ? undefined : row(id, keys);
              if (before !== undefined && after !== undefined) draft.replace(before, after);
              else if (before !== undefined) draft.remove(before);
              else if (after !== undefined) draft.add(after);
              if (after === undefined) rows.delete(`r${id}`);
              else rows.set(`r${id}`, after);
            }
            index = draft.seal();
          }
          for (const key of ['k0', 'k1', 'k2', 'k3', 'k9']) {
            const wanted = [...rows.values()].filter((one) => one.keys.includes(key)).map(({ id }) => id);
            expect([...index.ids(key)].sort()).toEqual(wanted.sort());
            expect(index.count(key)).toBe(wanted.length);
            expect(index.first(key) === null).toBe(wanted.length === 0);
          }
        },
      ),
      { numRuns: runs(150) },
    );
  });
});

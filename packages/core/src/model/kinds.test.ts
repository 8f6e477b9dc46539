import { describe, expect, test } from '@jest/globals';
import { everything } from '../testing/testKinds.ts';
import { creationOrder, KindCircle } from './fields/kind.ts';
import { isKind, kindNames, kinds, leads, refsOf } from './kinds.ts';
import { referrers } from './network/network.ts';

describe('what a kind says of itself', () => {
  test('every row of every kind is there to be tested', () => {
    expect(kindNames.filter((kind) => everything.count(kind) === 0)).toEqual([]);
  });

  test('references are fields of the kind and lead to kinds; all that ends in Id is one', () => {
    for (const kind of kindNames) {
      const fields = Object.keys(kinds[kind].schema.shape);
      const references = [...new Set(refsOf(kind).map(([field]) => field))];
      for (const [field, { to }] of refsOf(kind)) {
        expect([kind, fields.includes(field)]).toEqual([kind, true]);
        expect([kind, isKind(to)]).toEqual([kind, true]);
      }
      // One that may lead to several kinds leads to exactly one in each row.
      for (const row of everything.all(kind))
        for (const field of references) {
          const leading = refsOf(kind).filter(([one, lead]) => one === field && leads(row, lead));
          expect([kind, field, leading.length]).toEqual([kind, field, 1]);
        }
      expect([kind, fields.filter((field) => /[a-z]Id$/.test(field) && field !== 'routerId').sort()]).toEqual(
        [kind, [...references].sort()],
      );
    }
  });

  test('the index of a reference finds what a search through all rows finds, for every row of every kind', () => {
    for (const { kind, fields, refersTo, index } of referrers)
      for (const { id } of everything.all(refersTo)) {
        const found = everything.find(index, id).map((row) => row.id);
        const searched = [...everything.all(kind)]
          .filter((row) => fields.some((field) => (row as unknown as Record<string, unknown>)[field] === id))
          .map((row) => row.id);
        expect([index, found.filter((one) => searched.includes(one)).sort()]).toEqual([
          index,
          searched.sort(),
        ]);
        expect(new Set(found).size).toBe(found.length);
      }
  });

  test('what a row refers to is created before it', () => {
    for (const kind of kindNames)
      for (const [, { to }] of refsOf(kind))
        expect([kind, to, kindNames.indexOf(to) <= kindNames.indexOf(kind)]).toEqual([kind, to, true]);
  });

  test('kinds that refer to each other in a circle are refused by name', () => {
    const to = (kind: string) => ({ refs: { otherId: { to: kind } } });
    expect(creationOrder({ a: to('b'), b: { refs: {} }, c: to('c') })).toEqual(['b', 'a', 'c']);
    expect(() => creationOrder({ a: to('b'), b: to('c'), c: to('b') })).toThrow(KindCircle);
    expect(() => creationOrder({ a: to('b'), b: to('c'), c: to('b') })).toThrow(
      'The kinds b → c → b refer to each other in a circle.',
    );
  });
});

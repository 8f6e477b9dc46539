import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { RowIndex } from './rowIndex.ts';

interface Row {
  id: string;
  keys: readonly string[];
}
const keyOf = ({ keys }: Row): string | readonly string[] | null =>
  keys.length === 0 ? null : keys.length === 1 ? (keys[0] ?? null) : keys;

/** What an index says, written down plainly: for each key the ids of the rows that have it. */
const plainly = (rows: Iterable<Row>): Map<string, Set<string>> => {
  const found = new Map<string, Set<string>>();
  for (const { id, keys } of rows)
    for (const key of keys) found.set(key, (found.get(key) ?? new Set()).add(id));
  return found;
};
const row = fc.record({
  id: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
  keys: fc.uniqueArray(fc.constantFrom('x', 'y', 'z'), { maxLength: 3 }),
});
const says = (index: RowIndex<Row>, rows: Map<string, Row>): void => {
  const want = plainly(rows.values());
  for (const key of ['x', 'y', 'z', 'none']) {
    const ids = want.get(key) ?? new Set<string>();
    expect(new Set(index.ids(key))).toEqual(ids);
    expect(index.count(key)).toBe(ids.size);
    const first = index.first(key);
    expect(first === null ? ids.size === 0 : ids.has(first)).toBe(true);
  }
};

describe('an index of rows', () => {
  test('property: after any puts and drops it says what the rows say, and the earlier one what they said', () => {
    fc.assert(
      fc.property(
        fc.array(row, { maxLength: 8 }),
        fc.array(fc.tuple(fc.boolean(), row), { maxLength: 25 }),
        (begin, steps) => {
          const rows = new Map<string, Row>(begin.map((one) => [one.id, one]));
          const before = new Map(rows);
          const start = RowIndex.build<Row>(keyOf, rows.values());
          const draft = start.draft();
          for (const [put, one] of steps) {
            const now = rows.get(one.id);
            if (put && now === undefined) draft.add(one);
            else if (put && now !== undefined) draft.replace(now, one);
            else if (now !== undefined) draft.remove(now);
            if (put) rows.set(one.id, one);
            else rows.delete(one.id);
          }
          says(draft.seal(), rows);
          says(start, before);
        },
      ),
    );
  });

  test('a key of very many rows is kept apart, and shrinks again', () => {
    const many = Array.from({ length: 600 }, (_, at): Row => ({ id: `r${at}`, keys: ['x'] }));
    const index = RowIndex.build(keyOf, many);
    expect(index.count('x')).toBe(600);
    expect(new Set(index.ids('x')).size).toBe(600);
    const draft = index.draft();
    for (const one of many.slice(1)) draft.remove(one);
    const left = draft.seal();
    expect([...left.ids('x')]).toEqual(['r0']);
    expect(left.first('x')).toBe('r0');
    const gone = left.draft();
    gone.remove(many[0] as Row);
    expect(gone.seal().count('x')).toBe(0);
    expect(index.count('x')).toBe(600);
  });

  test('a key grows past what is kept as a list, one by one', () => {
    let index = RowIndex.build<Row>(keyOf, []);
    for (let at = 0; at < 300; at++) {
      const draft = index.draft();
      draft.add({ id: `r${at}`, keys: ['x', 'y'] });
      draft.add({ id: `r${at}`, keys: ['x', 'y'] });
      index = draft.seal();
    }
    expect([index.count('x'), index.count('y')]).toEqual([300, 300]);
  });

  test('several are built in one way over the rows', () => {
    const rows: Row[] = [
      { id: 'a', keys: ['x'] },
      { id: 'b', keys: ['x', 'y'] },
    ];
    const [byKey, byId] = RowIndex.buildAll<Row>([keyOf, ({ id }) => id], rows);
    expect([byKey?.count('x'), byKey?.count('y'), byId?.first('b')]).toEqual([2, 1, 'b']);
  });
});

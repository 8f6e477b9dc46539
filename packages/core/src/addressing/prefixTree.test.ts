import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  formatPrefix,
  holds,
  lastOf,
  overlaps,
  parsePrefix,
  prefixAround,
  sizeOf,
  type IpPrefix,
} from '../model/values/ip.ts';
import { around, PrefixTree, rangeAsPrefixes, summarise } from './prefixTree.ts';

const at = (text: string): IpPrefix => {
  const prefix = parsePrefix(text);
  if (prefix === null) throw new Error(text);
  return prefix;
};
const treeOf = (texts: readonly string[]): PrefixTree => PrefixTree.of(texts.map((text) => [at(text), text]));
const said = (prefixes: readonly IpPrefix[]): string[] => prefixes.map(formatPrefix);

/** Prefixes inside 10.0.0.0/16, small enough that they often touch. */
const inner = fc
  .tuple(fc.integer({ min: 0, max: 0xffff }), fc.integer({ min: 17, max: 32 }))
  .map(([host, length]) => prefixAround({ family: 4, value: (10n << 24n) | BigInt(host) }, length));
const pool = at('10.0.0.0/16');
const many = fc.array(inner, { maxLength: 40 });
const keyed = (prefixes: readonly IpPrefix[]): [IpPrefix, string][] =>
  prefixes.map((prefix, index) => [prefix, String(index)]);

describe('a pool of the ferries', () => {
  const tree = treeOf([
    '10.40.0.0/14',
    '10.40.0.0/16',
    '10.40.0.0/19',
    '10.40.0.0/24',
    '10.40.1.0/25',
    '10.40.32.0/19',
  ]);

  test('an address is in the smallest prefix that holds it', () => {
    expect(tree.longest(at('10.40.1.9/32'))?.ids).toEqual(['10.40.1.0/25']);
    expect(tree.longest(at('10.40.1.200/32'))?.ids).toEqual(['10.40.0.0/19']);
    expect(tree.longest(at('10.44.0.1/32'))).toBeNull();
    expect(tree.around(at('10.40.1.9/32')).map((entry) => entry.ids[0])).toEqual([
      '10.40.0.0/14',
      '10.40.0.0/16',
      '10.40.0.0/19',
      '10.40.1.0/25',
    ]);
  });

  test('next free: what is taken inside a child is not the business of the pool around it', () => {
    const next = (outer: string, length: number): string | null => {
      const found = tree.nextFree(at(outer), length);
      return found === null ? null : formatPrefix(found);
    };
    expect(next('10.40.0.0/16', 19)).toBe('10.40.64.0/19');
    expect(next('10.40.0.0/19', 25)).toBe('10.40.1.128/25');
    expect(next('10.40.0.0/19', 24)).toBe('10.40.2.0/24');
    expect(next('10.40.0.0/14', 16)).toBe('10.41.0.0/16');
    expect(next('10.40.0.0/16', 16)).toBeNull();
    expect(next('10.40.0.0/16', 17)).toBe('10.40.128.0/17');
  });

  test('next free at or after an address', () => {
    expect(formatPrefix(tree.nextFree(at('10.40.0.0/16'), 19, at('10.40.130.0/32').value) ?? pool)).toBe(
      '10.40.160.0/19',
    );
  });

  test('what is free is told in the largest blocks', () => {
    expect(said(tree.free(at('10.40.0.0/16')))).toEqual(['10.40.64.0/18', '10.40.128.0/17']);
    expect(said(tree.free(at('10.40.1.0/24')))).toEqual(['10.40.1.128/25']);
  });

  test('children and everything inside', () => {
    expect(tree.children(at('10.40.0.0/16')).map((entry) => entry.ids[0])).toEqual([
      '10.40.0.0/19',
      '10.40.32.0/19',
    ]);
    expect(tree.children(null).map((entry) => entry.ids[0])).toEqual(['10.40.0.0/14']);
    expect([...tree.inside(at('10.40.0.0/19'))].map((entry) => entry.ids[0])).toEqual([
      '10.40.0.0/24',
      '10.40.1.0/25',
    ]);
    expect(tree.countInside(at('10.40.0.0/16'))).toBe(4);
  });
});

describe('counted without looking at each', () => {
  test('property: children and covered addresses are those that a walk finds', () => {
    fc.assert(
      fc.property(many, (prefixes) => {
        const tree = PrefixTree.of(keyed(prefixes));
        const children = tree.children(pool);
        expect(tree.countChildren(pool)).toBe(children.length);
        expect(tree.coveredInside(pool)).toBe(children.reduce((sum, { prefix }) => sum + sizeOf(prefix), 0n));
      }),
    );
  });
});

describe('properties', () => {
  test('built at once, or one by one in any order, or with others put in and taken out: the same', () => {
    fc.assert(
      fc.property(many, many, (kept, passing) => {
        const once = PrefixTree.of(keyed(kept));
        let step = PrefixTree.empty;
        passing.forEach((prefix, index) => (step = step.with(prefix, `p${index}`)));
        [...keyed(kept)].reverse().forEach(([prefix, id]) => (step = step.with(prefix, id)));
        passing.forEach((prefix, index) => (step = step.without(prefix, `p${index}`)));
        const told = (tree: PrefixTree): string[] =>
          [...tree.inside(pool)].map(
            (entry) => `${formatPrefix(entry.prefix)} ${[...entry.ids].sort().join()}`,
          );
        expect(told(step)).toEqual(told(once));
        expect(step.size).toBe(kept.length);
        expect(said(step.free(pool))).toEqual(said(once.free(pool)));
      }),
    );
  });

  test('what is free and what is taken are exactly the pool', () => {
    fc.assert(
      fc.property(many, (prefixes) => {
        const tree = PrefixTree.of(keyed(prefixes));
        const free = tree.free(pool);
        for (const block of free) for (const prefix of prefixes) expect(overlaps(block, prefix)).toBe(false);
        const taken = summarise(prefixes);
        const sum = [...free, ...taken].reduce((total, block) => total + sizeOf(block), 0n);
        expect(sum).toBe(sizeOf(pool));
      }),
    );
  });

  test('next free is the first block of its length that is free, as trying each one tells', () => {
    fc.assert(
      fc.property(many, fc.integer({ min: 17, max: 26 }), (prefixes, length) => {
        const found = PrefixTree.of(keyed(prefixes)).nextFree(pool, length);
        const step = 1n << BigInt(32 - length);
        let first: IpPrefix | null = null;
        for (let value = pool.value; value <= lastOf(pool).value && first === null; value += step) {
          const block: IpPrefix = { family: 4, value, length };
          if (!prefixes.some((prefix) => overlaps(prefix, block))) first = block;
        }
        expect(found).toEqual(first);
      }),
    );
  });

  test('taking the next free again and again fills the pool and never overlaps', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 20, max: 26 }), { maxLength: 60 }), (lengths) => {
        let tree = PrefixTree.empty;
        const given: IpPrefix[] = [];
        for (const length of lengths) {
          const next = tree.nextFree(pool, length);
          if (next === null) continue;
          for (const other of given) expect(overlaps(other, next)).toBe(false);
          expect(holds(pool, next)).toBe(true);
          given.push(next);
          tree = tree.with(next, String(given.length));
        }
      }),
    );
  });

  test('a summary holds exactly what it sums up, in the fewest blocks', () => {
    fc.assert(
      fc.property(many, (prefixes) => {
        const sum = summarise(prefixes);
        for (const prefix of prefixes) expect(sum.some((block) => holds(block, prefix))).toBe(true);
        const tree = PrefixTree.of(keyed(prefixes));
        const free = tree.free(pool).reduce((total, block) => total + sizeOf(block), 0n);
        expect(sum.reduce((total, block) => total + sizeOf(block), 0n)).toBe(sizeOf(pool) - free);
        expect(summarise(sum)).toEqual(sum);
        sum.forEach((block, index) => {
          const next = sum[index + 1];
          const joined = next === undefined ? null : around([block, next]);
          expect(joined !== null && joined.length === block.length - 1 && next?.length === block.length).toBe(
            false,
          );
        });
      }),
    );
  });

  test('a range in prefixes is that range', () => {
    fc.assert(
      fc.property(fc.nat({ max: 5000 }), fc.nat({ max: 5000 }), (start, count) => {
        const first = { family: 4 as const, value: pool.value + BigInt(start) };
        const last = { family: 4 as const, value: first.value + BigInt(count) };
        const blocks = rangeAsPrefixes(first, last);
        expect(blocks[0]?.value).toBe(first.value);
        blocks.forEach((block, index) => {
          const next = blocks[index + 1];
          expect(lastOf(block).value).toBe(next === undefined ? last.value : next.value - 1n);
        });
        expect(summarise(blocks)).toEqual(blocks);
      }),
    );
  });
});

test('four sites of /26 make one /24; three make two summaries', () => {
  const sites = ['10.1.0.0/26', '10.1.0.64/26', '10.1.0.128/26', '10.1.0.192/26'].map(at);
  expect(said(summarise(sites))).toEqual(['10.1.0.0/24']);
  expect(said(summarise(sites.slice(0, 3)))).toEqual(['10.1.0.0/25', '10.1.0.128/26']);
});

test('IPv6: /64s of a /48, by number', () => {
  const tree = treeOf(['2001:db8:40::/48', '2001:db8:40::/64', '2001:db8:40:1::/64']);
  expect(formatPrefix(tree.nextFree(at('2001:db8:40::/48'), 64) ?? pool)).toBe('2001:db8:40:2::/64');
});

test('the free space of a pool without anything in it is one block', () => {
  const pool = parsePrefix('10.40.0.0/14');
  if (pool === null) throw new Error('no prefix');
  const free = (tree: PrefixTree): string[] => tree.free(pool).map(formatPrefix);
  expect(free(PrefixTree.of([[pool, 'pool']]))).toEqual(['10.40.0.0/14']);
  expect(free(PrefixTree.of([]))).toEqual(['10.40.0.0/14']);
  const inner = parsePrefix('10.40.0.0/15');
  if (inner === null) throw new Error('no prefix');
  const both = PrefixTree.of([
    [pool, 'pool'],
    [inner, 'inner'],
  ]);
  expect(free(both)).toEqual(['10.42.0.0/15']);
});

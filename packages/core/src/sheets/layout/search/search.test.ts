import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../../testing/testRuns.ts';
import type { GraphLink, GraphNode, SheetGraph } from '../../graph/sheetGraph.ts';
import { anneal, chance } from './chance.ts';
import { Field } from './field.ts';
import { groupsOf, measureRows } from './groups.ts';
import { orderRows, rowsCost } from './orderRows.ts';

const node = (id: string): GraphNode => ({
  ...{ id, form: 'device', deviceIds: [id], subjects: [id], role: 'SW', code: 'SW', name: id, lines: [] },
  ...{ containerId: null, outside: false, planned: false, retired: false, symbol: null, sheetId: null },
  shade: { scale: 'role', family: 'forwarding' },
});
const link = (a: string, b: string): GraphLink => ({
  ...{ id: `${a}-${b}`, cables: [], a, b, aPort: '', bPort: '', ties: [null, null], aOrdinal: 0 },
  ...{ medium: 'copper', jacket: null, shade: null, text: '', management: false },
});
const graphOf = (ids: readonly string[], pairs: readonly (readonly [string, string])[]): SheetGraph => ({
  nodes: ids.map(node),
  links: pairs.map(([a, b]) => link(a, b)),
  ...{ stubs: [], containers: [] },
});
const sizes = (ids: readonly string[]) =>
  new Map(ids.map((id) => [id, { width: 112, height: 40, reachUp: 24, reachDown: 24 }]));
const measures = (ids: readonly string[]) => ({
  sizes: sizes(ids),
  pairGap: () => 136,
  titleWidth: () => 0,
});

describe('chance', () => {
  test('the same after the same seed, between nought and one', () => {
    const [one, other] = [chance(7), chance(7)];
    const drawn = Array.from({ length: 100 }, one);
    expect(Array.from({ length: 100 }, other)).toEqual(drawn);
    expect(drawn.every((value) => value >= 0 && value < 1)).toBe(true);
    expect(new Set(drawn).size).toBeGreaterThan(95);
  });

  test('annealing finds the least of a row of numbers with a hollow in the way', () => {
    const heights = [5, 4, 3, 4, 5, 6, 5, 3, 1, 0, 2];
    let at = 2;
    let best = at;
    const random = chance(3);
    anneal(
      () => {
        const was = at;
        const to = at + (random() < 0.5 ? -1 : 1);
        if (heights[to] === undefined) return null;
        at = to;
        return { by: (heights[to] ?? 0) - (heights[was] ?? 0), undo: () => void (at = was) };
      },
      () => void (best = at),
      { steps: 2000, heat: 3, random },
    );
    expect(heights[best]).toBe(0);
  });
});

/** Whether two pieces cross, by where their ends lie of each other: written anew, with whole numbers. */
function cross(
  p: readonly number[],
  q: readonly number[],
  r: readonly number[],
  s: readonly number[],
): boolean {
  const side = (a: readonly number[], b: readonly number[], c: readonly number[]): number =>
    Math.sign(
      ((b[0] ?? 0) - (a[0] ?? 0)) * ((c[1] ?? 0) - (a[1] ?? 0)) -
        ((b[1] ?? 0) - (a[1] ?? 0)) * ((c[0] ?? 0) - (a[0] ?? 0)),
    );
  return side(p, q, r) * side(p, q, s) < 0 && side(r, s, p) * side(r, s, q) < 0;
}

test('property: two lines of the field cross where their pieces do', () => {
  const ids = ['a', 'b', 'c', 'd'];
  const spot = fc.record({ x: fc.integer({ min: 0, max: 900 }), y: fc.integer({ min: 0, max: 900 }) });
  fc.assert(
    fc.property(fc.tuple(spot, spot, spot, spot), (spots) => {
      const field = new Field(
        graphOf(ids, [
          ['a', 'b'],
          ['c', 'd'],
        ]),
        new Map(),
        sizes(ids),
      );
      spots.forEach(({ x, y }, at) => {
        field.x[at] = x;
        field.y[at] = y;
      });
      field.draw(0);
      field.draw(1);
      const ends = (pull: number): [number[], number[]] => [
        [field.x1[pull] ?? 0, field.y1[pull] ?? 0],
        [field.x2[pull] ?? 0, field.y2[pull] ?? 0],
      ];
      const [[p, q], [r, s]] = [ends(0), ends(1)];
      expect(field.crossing(0, 1)).toBe(cross(p, q, r, s) ? 1 : 0);
    }),
    { numRuns: runs(300) },
  );
});

/** Plates in two rows, upper and lower, and what joins them. */
function twoRows(upper: number, lower: number, pairs: readonly (readonly [number, number])[]) {
  const ids = [
    ...Array.from({ length: upper }, (_, at) => `u${at}`),
    ...Array.from({ length: lower }, (_, at) => `v${at}`),
  ];
  const graph = graphOf(
    ids,
    pairs.map(([a, b]) => [`u${a % upper}`, `v${b % lower}`]),
  );
  const bands = new Map(ids.map((id) => [id, id.startsWith('u') ? 3 : 4]));
  const field = new Field(graph, bands, sizes(ids));
  const frame = { aspect: 1.85, folding: 99 };
  const { root, around } = groupsOf(graph, field, measures(ids), new Map(), ({ id }) => id, frame);
  measureRows(around, root);
  return { field, root, around };
}

/**
 * The least that any order of two rows of four costs, found by trying all: crossings, each as heavy as its lines, and
 * three thousandths of how far each line leads sideways. Plates are 112 wide and 40 apart.
 */
function leastCost(pairs: readonly (readonly [number, number])[]): number {
  const orders = (count: number): number[][] =>
    count === 0
      ? [[]]
      : orders(count - 1).flatMap((order) =>
          Array.from({ length: count }, (_, at) => [...order.slice(0, at), count - 1, ...order.slice(at)]),
        );
  const counted = new Map<string, number>();
  for (const [a, b] of pairs) counted.set(`${a} ${b}`, Math.min(3, (counted.get(`${a} ${b}`) ?? 0) + 1));
  const lines = [...counted].map(([key, weight]) => {
    const [a = 0, b = 0] = key.split(' ').map(Number);
    return { a, b, weight };
  });
  let least = Infinity;
  for (const top of orders(4))
    for (const bottom of orders(4)) {
      let cost = 0;
      lines.forEach(({ a, b, weight }, at) => {
        cost += 0.003 * weight * 152 * Math.abs(top.indexOf(a) - bottom.indexOf(b));
        for (const other of lines.slice(at + 1))
          if ((top.indexOf(a) - top.indexOf(other.a)) * (bottom.indexOf(b) - bottom.indexOf(other.b)) < 0)
            cost += weight * other.weight;
      });
      least = Math.min(least, cost);
    }
  return least;
}

describe('the order in rows', () => {
  const pairs = fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { minLength: 1, maxLength: 9 });

  test('property: of a few tries the best is hardly dearer than the best of all orders', () => {
    fc.assert(
      fc.property(pairs, (joined) => {
        const found = [1, 2, 3, 4, 5, 6].map((seed) => {
          const { root, around } = twoRows(4, 4, joined);
          const random = chance(seed);
          for (let round = 0; round < 3; round++) orderRows(around, root, random, round > 0);
          return rowsCost(around, root);
        });
        expect(Math.min(...found)).toBeLessThanOrEqual(leastCost(joined) + 2);
      }),
      { numRuns: runs(20) },
    );
  });

  test('property: never worse than it was, no plate lost, none on another', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(8), fc.nat(8)), { maxLength: 24 }), (joined) => {
        const { field, root, around } = twoRows(9, 9, joined);
        const before = rowsCost(around, root);
        orderRows(around, root, chance(5));
        expect(rowsCost(around, root)).toBeLessThanOrEqual(before + 1e-6);
        const all = root.rows.flatMap(({ units }) => units.flat());
        expect([...all].sort((a, b) => a - b)).toEqual(field.ids.map((_, at) => at));
        for (const { units } of root.rows) {
          const row = units.flat();
          row.slice(1).forEach((plate, at) => {
            const left = row[at] ?? 0;
            expect((field.x[plate] ?? 0) - (field.x[left] ?? 0)).toBeGreaterThanOrEqual(112);
          });
        }
      }),
      { numRuns: runs(25) },
    );
  });
});

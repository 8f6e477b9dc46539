import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { runs } from '../../testing/testRuns.ts';
import type { Box, Point } from '../scene/scene.ts';
import { Router, corners, type Leg } from './router.ts';

const down = { x: 0, y: 1 };
const up = { x: 0, y: -1 };
const leg = (id: string, start: Point, goal: Point, rest: Partial<Leg> = {}): Leg => ({
  ...{ id, start, heading: down, goal, arriving: up, zones: [], inside: false },
  ...rest,
});
const area: Box = { x: 0, y: 0, width: 800, height: 640 };
const wayOf = (router: Router, line: string, link = line): Point[] =>
  corners(router.points(router.laid(line).ways.get(link) ?? []));

/** Points of the lattice that a way passes, by their place. */
const passed = (points: readonly Point[]): string[] =>
  points.slice(1).flatMap((to, at) => {
    const from = points[at] ?? to;
    const many = (Math.abs(to.x - from.x) + Math.abs(to.y - from.y)) / 8;
    return Array.from(
      { length: many },
      (_, step) =>
        `${from.x + ((to.x - from.x) * (step + 1)) / many} ${from.y + ((to.y - from.y) * (step + 1)) / many}`,
    );
  });

describe('lines over the lattice', () => {
  test('straight down where nothing is in the way', () => {
    const router = new Router(area);
    expect(router.lay('a', [leg('a', { x: 80, y: 40 }, { x: 80, y: 400 })])).toBe(true);
    expect(wayOf(router, 'a')).toEqual([
      { x: 80, y: 40 },
      { x: 80, y: 400 },
    ]);
  });

  test('around a plate, and never through one even where it is walled in by labels', () => {
    const router = new Router(area);
    const plate = { x: 40, y: 160, width: 160, height: 80 };
    router.blockPlate(plate);
    router.block({ x: 0, y: 300, width: 800, height: 16 });
    router.lay('a', [leg('a', { x: 120, y: 40 }, { x: 120, y: 400 })]);
    const way = wayOf(router, 'a');
    expect(way.at(-1)).toEqual({ x: 120, y: 400 });
    for (const spot of passed(way)) {
      const [x = 0, y = 0] = spot.split(' ').map(Number);
      expect(x > 40 && x < 200 && y > 160 && y < 240).toBe(false);
    }
  });

  test('around a container that it has no part in, through one that it has', () => {
    for (const own of [false, true]) {
      const router = new Router(area);
      const zone = router.enclose({ x: 160, y: 160, width: 160, height: 240 });
      router.lay('a', [leg('a', { x: 240, y: 40 }, { x: 240, y: 560 }, own ? { zones: [zone] } : {})]);
      expect(wayOf(router, 'a').length > 2).toBe(!own);
    }
  });

  test('a bundle is a tree: three legs share their way from the hub and part where they must', () => {
    const router = new Router(area);
    const hub = { x: 400, y: 40 };
    const goals = [160, 400, 640].map((x) => ({ x, y: 400 }));
    router.lay(
      'b',
      goals.map((goal, at) => leg(`l${at}`, hub, goal)),
    );
    const ways = goals.map((goal, at) => {
      const way = wayOf(router, 'b', `l${at}`);
      expect(way[0]).toEqual(hub);
      expect(way.at(-1)).toEqual(goal);
      return passed(way);
    });
    // Whatever two legs pass both, they reach the same way: from one place before it only.
    const before = new Map<string, string>();
    for (const way of ways)
      way.forEach((spot, at) => {
        const from = way[at - 1] ?? 'hub';
        expect(before.get(spot) ?? from).toBe(from);
        before.set(spot, from);
      });
    const total = new Set(ways.flat()).size;
    expect(total).toBeLessThan(ways.flat().length);
    expect(router.judge('b')).toMatchObject({ crossings: 0, shared: 0 });
  });

  test('two lines that must cross do so once; both are told, and asked about each other', () => {
    const router = new Router(area);
    // No way around either start or either goal.
    router.block({ x: -48, y: -48, width: 900, height: 80 });
    router.block({ x: -48, y: 568, width: 900, height: 120 });
    router.lay('a', [leg('a', { x: 80, y: 40 }, { x: 640, y: 560 })]);
    router.lay('b', [leg('b', { x: 640, y: 40 }, { x: 80, y: 560 })]);
    expect(router.judge('a').crossings + router.judge('b').crossings).toBe(2);
    expect(router.cross('a', 'b')).toBe(true);
    const taken = router.takeUp('b');
    expect(router.judge('a').crossings).toBe(0);
    router.putBack('b', taken);
    expect(router.judge('a').crossings).toBe(1);
  });
});

test('property: every line ends where it should, level and upright, and lies in no plate', () => {
  const box = fc.record({
    x: fc.integer({ min: 4, max: 70 }).map((at) => at * 8),
    y: fc.integer({ min: 10, max: 50 }).map((at) => at * 8),
    width: fc.integer({ min: 4, max: 20 }).map((at) => at * 8),
    height: fc.integer({ min: 3, max: 10 }).map((at) => at * 8),
  });
  const line = fc.tuple(fc.integer({ min: 0, max: 99 }), fc.integer({ min: 0, max: 99 }));
  fc.assert(
    fc.property(
      fc.array(box, { maxLength: 8 }),
      fc.array(line, { minLength: 1, maxLength: 8 }),
      (plates, lines) => {
        const router = new Router(area);
        for (const plate of plates) router.blockPlate(plate);
        lines.forEach(([from, to], at) => {
          const [start, goal] = [
            { x: from * 8, y: 0 },
            { x: to * 8, y: 632 },
          ];
          router.open(start);
          router.open(goal);
          router.lay(`${at}`, [leg(`${at}`, start, goal)]);
          const way = wayOf(router, `${at}`);
          expect([way[0], way.at(-1)]).toEqual([start, goal]);
          for (const spot of passed(way)) {
            const [x = 0, y = 0] = spot.split(' ').map(Number);
            for (const plate of plates)
              expect(
                x > plate.x && x < plate.x + plate.width && y > plate.y && y < plate.y + plate.height,
              ).toBe(false);
          }
        });
      },
    ),
    { numRuns: runs(40) },
  );
});

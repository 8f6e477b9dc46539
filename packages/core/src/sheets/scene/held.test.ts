import { describe, expect, test } from '@jest/globals';
import { gallery } from '../../testing/testGallery.ts';
import { planOf } from '../projection/plan.ts';
import { tidyPositions } from './afresh.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import type { Box, Plate, Point, Scene } from './scene.ts';
import { sceneOf } from './sceneOf.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.6;
const planFor = (name: string): DrawingPlan => {
  const made = gallery[name];
  if (made === undefined) throw new Error(`no ${name} in the gallery`);
  const { network, sheet } = made();
  return planOf(network, sheet, { today: '2026-11-30' });
};
const without = (plan: DrawingPlan, gone: ReadonlySet<string>): DrawingPlan => ({
  ...plan,
  graph: {
    ...plan.graph,
    nodes: plan.graph.nodes.filter(({ id }) => !gone.has(id)),
    links: plan.graph.links.filter(({ a, b }) => !gone.has(a) && !gone.has(b)),
  },
});
const standing = ({ plates }: Scene): Map<string, Point> =>
  new Map(plates.map(({ id, box: { x, y } }) => [id, { x, y }]));
/** Pairs of boxes that lie on each other, by area: told without the help of the layout. */
function lyingOn(boxes: readonly Box[]): number {
  let count = 0;
  boxes.forEach((one, at) => {
    for (const other of boxes.slice(at + 1)) {
      const across = Math.min(one.x + one.width, other.x + other.width) - Math.max(one.x, other.x);
      const down = Math.min(one.y + one.height, other.y + other.height) - Math.max(one.y, other.y);
      if (across > 0 && down > 0) count++;
    }
  });
  return count;
}
const boxesOf = (plates: readonly Plate[]): Box[] => plates.map(({ box }) => box);
/** Plates that lie in the outline of a place that they are not in. */
const strays = ({ plates, containers }: Scene): number =>
  containers.reduce(
    (sum, { box, plateIds }) =>
      sum + plates.filter((plate) => !plateIds.includes(plate.id) && lyingOn([plate.box, box]) > 0).length,
    0,
  );

/** A plate with the most links, and one with the fewest. */
function someOf({ graph }: DrawingPlan): string[] {
  const count = ({ id }: { id: string }): number =>
    graph.links.filter(({ a, b }) => a === id || b === id).length;
  const sorted = [...graph.nodes].sort((a, b) => count(a) - count(b) || (a.name < b.name ? -1 : 1));
  return [sorted[0]?.id ?? '', sorted.at(-1)?.id ?? '', sorted[Math.floor(sorted.length / 2)]?.id ?? ''];
}

describe.each(['star', 'tree', 'campus-24', 'campus-60', 'two-sites', 'thirty-vlans'])(
  'a drawing that nobody arranged, %s',
  (name) => {
    const plan = planFor(name);
    const whole = sceneOf(plan, { measure });

    test('stays where it is when one of its plates goes', () => {
      for (const gone of someOf(plan)) {
        const scene = sceneOf(without(plan, new Set([gone])), { measure, held: standing(whole) });
        expect(scene.plates).toHaveLength(whole.plates.length - 1);
        for (const plate of scene.plates)
          expect(plate.box).toMatchObject(standing(whole).get(plate.id) ?? { x: 'new' });
      }
    });

    test('keeps a new plate near, and nothing else moves; places reach over no others', () => {
      for (const added of someOf(plan)) {
        const before = sceneOf(without(plan, new Set([added])), { measure });
        const scene = sceneOf(plan, { measure, held: standing(before) });
        for (const plate of scene.plates)
          if (plate.id !== added)
            expect([plate.name, plate.box.x, plate.box.y]).toEqual([
              plate.name,
              ...Object.values(standing(before).get(plate.id) ?? {}),
            ]);
        expect(lyingOn(boxesOf(scene.plates))).toBe(0);
        expect(strays(scene)).toBe(strays(before));
      }
    });

    test('some of it is laid out afresh while all others stay', () => {
      const ids = new Set(plan.graph.nodes.filter((_, at) => at % 3 === 0).map(({ id }) => id));
      const found = tidyPositions(plan, whole, ids, measure);
      expect(new Set(found.keys())).toEqual(ids);
      const boxes = whole.plates.map(({ id, box }) => ({ ...box, ...found.get(id) }));
      expect(lyingOn(boxes)).toBe(0);
      expect(tidyPositions(plan, whole, ids, measure)).toEqual(found);
    });
  },
);

describe('what stays and what does not', () => {
  const plan = planFor('campus-24');
  const whole = sceneOf(plan, { measure });
  const fresh = (of: DrawingPlan): Scene => sceneOf(of, { measure });

  test('where half of it is gone, the rest is laid out afresh', () => {
    const few = without(plan, new Set(plan.graph.nodes.slice(0, 14).map(({ id }) => id)));
    expect(sceneOf(few, { measure, held: standing(whole) })).toEqual(fresh(few));
  });

  test('plates that have grown onto each other are laid out afresh', () => {
    const wide = new Map(
      [...plan.plates].map(([id, wish]) => [id, { ...wish, width: 640, height: 200 }] as const),
    );
    const grown = { ...plan, plates: wide };
    expect(sceneOf(grown, { measure, held: standing(whole) })).toEqual(fresh(grown));
  });

  test('on a sheet that was arranged what was placed by hand counts', () => {
    const { network, sheet } = (
      gallery['arranged'] ??
      (() => {
        throw new Error('none');
      })
    )();
    const arranged = planOf(network, sheet, { today: '2026-11-30' });
    const scene = fresh(arranged);
    const elsewhere = new Map(scene.plates.map(({ id }) => [id, { x: 4000, y: 4000 }]));
    expect(sceneOf(arranged, { measure, held: elsewhere })).toEqual(scene);
  });

  test('a place that is new comes as a block beside what is there', () => {
    const membersOf = (containerId: string): string[] =>
      plan.graph.nodes.flatMap((node) => (node.containerId === containerId ? [node.id] : []));
    const [smallest] = plan.graph.containers
      .map(({ id }) => membersOf(id))
      .filter(({ length }) => length > 1)
      .sort((a, b) => a.length - b.length);
    const members = new Set(smallest);
    expect(members.size).toBeGreaterThan(1);
    const before = fresh(without(plan, members));
    const scene = sceneOf(plan, { measure, held: standing(before) });
    expect(lyingOn(boxesOf(scene.plates))).toBe(0);
    expect(strays(scene)).toBe(0);
    for (const plate of before.plates)
      expect(standing(scene).get(plate.id)).toEqual(standing(before).get(plate.id));
  });

  test('locked plates are not laid out afresh', () => {
    const [first, second] = whole.plates;
    const locked = {
      plates: whole.plates.map((plate) => ({ ...plate, locked: plate.id === first?.id })),
    };
    const found = tidyPositions(plan, locked, new Set([first?.id ?? '', second?.id ?? '']), measure);
    expect([...found.keys()]).toEqual([second?.id]);
    expect(tidyPositions(plan, locked, new Set(), measure).size).toBe(0);
  });

  test('all of it laid out afresh reads like a fresh drawing: as many places in order, no larger by half', () => {
    const found = tidyPositions(plan, whole, new Set(whole.plates.map(({ id }) => id)), measure);
    const boxes = whole.plates.map(({ id, box }) => ({ ...box, ...found.get(id) }));
    const width = (of: readonly Box[]): number =>
      Math.max(...of.map((box) => box.x + box.width)) - Math.min(...of.map((box) => box.x));
    expect(lyingOn(boxes)).toBe(0);
    expect(width(boxes)).toBeLessThan(1.5 * width(boxesOf(whole.plates)));
  });
});

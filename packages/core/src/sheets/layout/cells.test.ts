import { describe, expect, test } from '@jest/globals';
import { projectionNatures } from '../../model/kinds/drawings/projections.ts';
import { blankSheet, plainReading } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { cloudOfMany } from '../../testing/testCloudOfMany.ts';
import { cloudOfEverything, everyCloud } from '../../testing/testCloud.ts';
import { demoNetwork } from '../../testing/testDemo.ts';
import { planOf } from '../projection/plan.ts';
import type { DrawingPlan } from '../scene/drawingPlan.ts';
import { overlap, type Box, type Container, type Scene } from '../scene/scene.ts';
import { sceneOf } from '../scene/sceneOf.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.6;
const planFor = (network: Network): DrawingPlan =>
  planOf(
    network,
    {
      ...blankSheet,
      ...{ id: newId(), name: 'Cells', projection: 'cloud', show: [...projectionNatures.cloud.usual] },
      reading: { ...plainReading, unfolded: true, arrows: 'none' },
    },
    { today: '2026-12-01' },
  );
const draw = (network: Network): Scene => sceneOf(planFor(network), { measure });

const holdsBox = (outer: Box, inner: Box): boolean =>
  inner.x >= outer.x &&
  inner.y >= outer.y &&
  inner.x + inner.width <= outer.x + outer.width &&
  inner.y + inner.height <= outer.y + outer.height;

const clouds: [string, Network][] = [
  ['the demo', demoNetwork()],
  ['a row of every kind', everyCloud()],
  ...[
    { networks: 1, zones: 1, tiers: 1, instances: 0 },
    { networks: 1, zones: 3, tiers: 4, instances: 7 },
    { networks: 5, zones: 2, tiers: 2, instances: 1 },
    { networks: 2, zones: 4, tiers: 3, instances: 25 },
  ].map((size): [string, Network] => [JSON.stringify(size), cloudOfMany(size)]),
];

describe.each(clouds)('the cells of %s', (_name, network) => {
  const plan = planFor(network);
  const scene = sceneOf(plan, { measure });
  const boxes = new Map(scene.containers.map((one) => [one.id, one]));
  const parentsOf = (one: Container): Container[] => {
    const parent = boxes.get(one.parentId ?? '');
    return parent === undefined ? [] : [parent, ...parentsOf(parent)];
  };

  test('are inside each other as they are nested', () => {
    const out = scene.containers.flatMap((one) =>
      parentsOf(one)
        .filter((outer) => !holdsBox(outer.box, one.box))
        .map((outer) => [one.title, outer.title]),
    );
    expect(out).toEqual([]);
  });

  test('lie beside each other where neither is in the other', () => {
    const met = scene.containers.flatMap((one, at) =>
      scene.containers
        .slice(at + 1)
        .filter((other) => !parentsOf(one).includes(other) && !parentsOf(other).includes(one))
        .filter((other) => overlap(one.box, other.box))
        .map((other) => [one.title, other.title]),
    );
    expect(met).toEqual([]);
  });

  test('no plate lies on another', () => {
    const met = scene.plates.flatMap((one, at) =>
      scene.plates
        .slice(at + 1)
        .filter((other) => overlap(one.box, other.box))
        .map((other) => [one.name, other.name]),
    );
    expect(met).toEqual([]);
  });

  test('what stands on a border stands half inside and half outside', () => {
    for (const { id, border } of plan.graph.nodes) {
      const [box, plate] = [boxes.get(border?.of ?? '')?.box, scene.plates.find((one) => one.id === id)?.box];
      if (border === undefined || box === undefined || plate === undefined) continue;
      const middle = { x: plate.x + plate.width / 2, y: plate.y + plate.height / 2 };
      const off =
        border.side === 'top'
          ? middle.y - box.y
          : border.side === 'bottom'
            ? middle.y - box.y - box.height
            : border.side === 'left'
              ? middle.x - box.x
              : middle.x - box.x - box.width;
      expect(Math.abs(off)).toBeLessThanOrEqual(8);
    }
  });

  test('the first subnets of a tier are level in all zones, and zones stand beside each other', () => {
    const rowOf = new Map(plan.graph.containers.map(({ id, row }) => [id, row ?? 0]));
    for (const one of scene.containers.filter(({ form }) => form === 'network')) {
      const zones = scene.containers.filter(({ parentId, form }) => parentId === one.id && form === 'zone');
      const across = zones.map(({ box }) => [box.x, box.x + box.width] as const).sort(([x], [y]) => x - y);
      expect(across.every(([x], at) => at === 0 || x >= (across[at - 1]?.[1] ?? 0))).toBe(true);
      const tops = new Map<number, Set<number>>();
      for (const zone of zones) {
        const first = new Map<number, number>();
        for (const { id, box } of scene.containers.filter(({ parentId }) => parentId === zone.id)) {
          const row = rowOf.get(id) ?? 0;
          first.set(row, Math.min(first.get(row) ?? Infinity, box.y));
        }
        for (const [row, y] of first) tops.set(row, (tops.get(row) ?? new Set()).add(y));
      }
      expect([...tops.values()].every(({ size }) => size === 1)).toBe(true);
    }
  });
});

test('the same cloud gives the same picture, whatever its ids and the order of its rows are', () => {
  const turned: Record<string, unknown[]> = Object.fromEntries(
    Object.entries(cloudOfEverything).flatMap(([section, rows]) =>
      section === 'vrfs'
        ? []
        : [
            [
              section,
              // Places stand behind those that they are in.
              section === 'places' ? rows : [...rows].reverse(),
            ],
          ],
    ),
  );
  const seen = (scene: Scene): string =>
    JSON.stringify([
      scene.plates.map(({ name, lines, box }) => [name, lines, box]),
      scene.containers.map(({ title, box }) => [title, box]),
      scene.links.map(({ points, medium }) => [points, medium]),
    ]);
  expect(seen(draw(everyCloud(turned)))).toBe(seen(draw(everyCloud())));
});

describe('a cloud that was arranged by hand', () => {
  const network = everyCloud();
  const plan = planFor(network);
  const scene = sceneOf(plan, { measure });

  test('keeps what was put somewhere; ends of peerings go with their network', () => {
    const shifted = new Map(
      scene.plates
        .filter(({ subjects }) => subjects.length > 0)
        .map(({ id, box }) => [id, { x: box.x + 800, y: box.y + 160 }]),
    );
    const after = sceneOf(plan, { measure, moved: shifted });
    for (const { id, box, name } of after.plates) {
      const before = scene.plates.find((one) => one.id === id)?.box;
      expect([name, box.x - (before?.x ?? 0), box.y - (before?.y ?? 0)]).toEqual([name, 800, 160]);
    }
  });

  test('a new subnet finds room by itself', () => {
    const [gone, ...rest] = plan.graph.nodes.filter(
      ({ form, border }) => form === 'subnet' && border === undefined,
    );
    if (gone === undefined) throw new Error('no subnet');
    const stood = new Map(
      scene.plates
        .filter(({ id, subjects }) => id !== gone.id && subjects.length > 0)
        .map(({ id, box }) => [id, { x: box.x, y: box.y }]),
    );
    const after = sceneOf(plan, { measure, moved: stood });
    expect(rest.length).toBeGreaterThan(0);
    const own = after.plates.find(({ id }) => id === gone.id);
    expect(
      after.plates.filter((other) => own !== undefined && other !== own && overlap(own.box, other.box)),
    ).toEqual([]);
  });
});

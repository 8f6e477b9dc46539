import { describe, expect, test } from '@jest/globals';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import { leafAndSpine, star } from '../../testing/testGallery.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import { sceneFigures } from '../metric/sceneFigures.ts';
import { planOf } from '../projection/plan.ts';
import type { DrawingPlan } from '../scene/drawingPlan.ts';
import type { Scene } from '../scene/scene.ts';
import { sceneOf } from '../scene/sceneOf.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.63;
const planFor = (network: Parameters<typeof planOf>[0]): DrawingPlan =>
  planOf(network, { ...blankSheet, id: newId(), name: 'Bad' }, { today: '2026-11-29' });
const draw = (plan: DrawingPlan): Scene => sceneOf(plan, { measure });
const clean = { overlappingPlates: 0, throughPlates: 0 };

const room = (names: readonly string[], place = 'Room') => ({
  places: [{ path: place }],
  devices: names.map((name) => ({ name, role: 'SW' as const, place, ports: [{ name: '1' }, { name: '2' }] })),
});

describe('drawings of what nobody would draw', () => {
  test('a plate with 300 links: one bundle, nothing through anything', () => {
    const scene = draw(planFor(star(300)));
    expect(scene.plates).toHaveLength(301);
    expect(scene.bundles[0]?.linkIds).toHaveLength(300);
    expect(sceneFigures(scene)).toMatchObject(clean);
  });

  test('hubs that lead to everything', () => {
    expect(sceneFigures(draw(planFor(leafAndSpine(12, 24))))).toMatchObject(clean);
  });

  test('2,000 devices without links stand in rows that fit the window', () => {
    const plan = planFor(networkOf(room(Array.from({ length: 30 }, (_, at) => `sw-${at}`))));
    const [first] = plan.graph.nodes;
    if (first === undefined) throw new Error('no plate');
    const nodes = Array.from({ length: 2000 }, (_, at) => ({
      ...first,
      ...{ id: `n${at}`, name: `lone-${at}`, subjects: [`n${at}`] },
    }));
    const scene = draw({ ...plan, graph: { ...plan.graph, nodes, links: [], stubs: [] }, plates: new Map() });
    expect(scene.plates).toHaveLength(2000);
    const corners = new Set(scene.plates.map(({ box }) => `${box.x} ${box.y}`));
    expect(corners.size).toBe(2000);
    const aspect = scene.box.width / scene.box.height;
    expect(aspect).toBeGreaterThan(1);
    expect(aspect).toBeLessThan(4);
  });

  test('names of 80 characters make plates wide, and no more', () => {
    const names = Array.from({ length: 8 }, (_, at) => `${'long-'.repeat(15)}${at}`.slice(-80));
    const network = networkOf({
      ...room(names),
      cables: names
        .slice(1)
        .map((name, at) => ({ label: `C-${at}`, a: `${names[at] ?? ''}:2`, b: `${name}:1` })),
    });
    expect(sceneFigures(draw(planFor(network)))).toMatchObject(clean);
  });

  test('places ten deep are one container with the name of the innermost', () => {
    const path = Array.from({ length: 10 }, (_, at) => `Level ${at + 1}`).join('/');
    const network = networkOf({
      ...room(['a', 'b'], path),
      cables: [{ label: 'C-1', a: 'a:1', b: 'b:1' }],
    });
    const scene = draw(planFor(network));
    expect(scene.containers.map(({ title }) => title)).toEqual(['Level 10']);
    expect(sceneFigures(scene)).toMatchObject(clean);
  });

  test('places of one name are told apart by the place around them, and only those', () => {
    const devices = ['East/Comms room', 'West/Comms room', 'West/Store'].map((place, at) => ({
      ...{ name: `sw-${at}`, role: 'SW' as const, place },
      ports: [{ name: '1' }, { name: '2' }],
    }));
    const network = networkOf({
      devices,
      cables: [
        { label: 'C-1', a: 'sw-0:1', b: 'sw-1:1' },
        { label: 'C-2', a: 'sw-1:2', b: 'sw-2:1' },
      ],
    });
    const titles = draw(planFor(network)).containers.map(({ title }) => title);
    expect(titles.sort()).toEqual(['East › Comms room', 'Store', 'West › Comms room']);
  });

  test('a loop of containers: everything is drawn once, nothing hangs', () => {
    const plan = planFor(star(6));
    const [container] = plan.graph.containers;
    if (container === undefined) throw new Error('no container');
    const loop = [
      { ...container, parentId: 'other' },
      { ...container, id: 'other', parentId: container.id },
    ];
    const { graph } = plan;
    const scene = draw({ ...plan, graph: { ...graph, containers: loop } });
    expect(scene.plates).toHaveLength(7);
    expect(sceneFigures(scene).overlappingPlates).toBe(0);
  });

  test('a plate put by hand on another stays there; the others keep off both', () => {
    const plan = planFor(star(6));
    const [first, second] = plan.graph.nodes;
    if (first === undefined || second === undefined) throw new Error('no plates');
    const wish = { at: { x: 80, y: 80 }, width: null, height: null, locked: false };
    const plates = new Map(plan.plates);
    plates.set(first.id, wish);
    plates.set(second.id, wish);
    const scene = draw({ ...plan, plates, arranged: true });
    const boxOf = (id: string) => scene.plates.find((plate) => plate.id === id)?.box;
    expect(boxOf(first.id)).toMatchObject({ x: 80, y: 80 });
    expect(boxOf(second.id)).toMatchObject({ x: 80, y: 80 });
    expect(sceneFigures(scene).overlappingPlates).toBe(1);
  });

  test('nothing at all', () => {
    const scene = draw(planFor(networkOf({})));
    expect(scene).toMatchObject({ plates: [], links: [], bundles: [], containers: [] });
  });
});

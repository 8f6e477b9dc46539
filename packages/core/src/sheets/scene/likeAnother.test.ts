import { describe, expect, test } from '@jest/globals';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { gallery } from '../../testing/testGallery.ts';
import { networkOf } from '../../testing/testNetwork.ts';
import { counterparts } from '../graph/likeness.ts';
import { planOf } from '../projection/plan.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { alike, leastAlike, likeAnother } from './likeAnother.ts';
import { sceneOf } from './sceneOf.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.6;
const planFor = (network: Network): DrawingPlan =>
  planOf(
    network,
    { ...blankSheet, id: newId(), name: 'One', projection: 'cabling' },
    { today: '2026-11-30' },
  );

interface Wish {
  servers: number;
  /** Rooms beside the one of the pair, each with a switch. */
  rooms?: readonly string[];
  called?: (site: string, what: string) => string;
}
/** A site with a redundant pair, servers on both, and rooms with a switch each. */
function siteOf(
  site: string,
  { servers, rooms = [], called = (of, what) => `${of}-${what}` }: Wish,
): Network {
  const used = new Map<string, number>();
  const cables: { label: string; a: string; b: string }[] = [];
  const ports = Array.from({ length: 40 }, (_, at) => ({ name: String(at + 1) }));
  const device = (name: string, role: 'SW' | 'SV', place: string) => ({ name, role, place, ports });
  const next = (name: string): string => {
    const number = (used.get(name) ?? 0) + 1;
    used.set(name, number);
    return `${name}:${number}`;
  };
  const join = (a: string, b: string): void => {
    cables.push({ label: `XX-${String(cables.length + 1).padStart(5, '0')}`, a: next(a), b: next(b) });
  };
  const cores = [called(site, 'core-1'), called(site, 'core-2')];
  const devices = cores.map((name) => device(name, 'SW', `${site}/Hall`));
  join(cores[0] ?? '', cores[1] ?? '');
  const both = (name: string): void => cores.forEach((core) => join(core, name));
  for (let number = 1; number <= servers; number++) {
    const name = called(site, `srv-${number}`);
    devices.push(device(name, 'SV', `${site}/Hall`));
    both(name);
  }
  for (const room of rooms) {
    const name = called(site, `acc-${room}`);
    devices.push(device(name, 'SW', `${site}/Room ${room}`));
    both(name);
  }
  return networkOf({
    places: [
      { path: site },
      { path: `${site}/Hall` },
      ...rooms.map((room) => ({ path: `${site}/Room ${room}` })),
    ],
    devices,
    cables,
  });
}
/** Counterparts by name. */
function named(from: DrawingPlan, to: DrawingPlan): Record<string, string> {
  const nameIn = ({ graph }: DrawingPlan, id: string): string =>
    graph.nodes.find((node) => node.id === id)?.name ?? '';
  return Object.fromEntries(
    [...counterparts(from.graph, to.graph)].map(([one, other]) => [nameIn(to, one), nameIn(from, other)]),
  );
}
const drawnAs = (plan: DrawingPlan) => sceneOf(plan, { measure }).plates;

describe('which plate stands for which', () => {
  test.each(Object.keys(gallery))('on a sheet like itself each stands for itself, %s', (name) => {
    const made = gallery[name]?.();
    if (made === undefined) throw new Error(name);
    const plan = planOf(made.network, made.sheet, { today: '2026-11-30' });
    const found = counterparts(plan.graph, plan.graph);
    expect(found.size).toBe(plan.graph.nodes.length);
    const names = plan.graph.nodes.map((node) => node.name);
    if (new Set(names).size === names.length) for (const [one, other] of found) expect(one).toBe(other);
  });

  test('the site in a name does not count', () => {
    const found = named(
      planFor(siteOf('kq', { servers: 3, rooms: ['a', 'b'] })),
      planFor(siteOf('ah', { servers: 2, rooms: ['b', 'c'] })),
    );
    expect(found).toEqual({
      'ah-core-1': 'kq-core-1',
      'ah-core-2': 'kq-core-2',
      'ah-srv-1': 'kq-srv-1',
      'ah-srv-2': 'kq-srv-2',
      'ah-acc-b': 'kq-acc-b',
      // Of another name, but of the same role and on the same pair.
      'ah-acc-c': 'kq-acc-a',
    });
  });

  test('without names in common, role and neighbours tell', () => {
    const words = ['oak', 'elm', 'ash', 'fir', 'yew', 'bay'];
    let next = 0;
    const given = new Map<string, string>();
    const called = (_site: string, what: string): string => {
      const name = given.get(what) ?? `${words[next++] ?? ''}`;
      given.set(what, name);
      return name;
    };
    const from = planFor(siteOf('kq', { servers: 2, rooms: ['a'] }));
    const to = planFor(siteOf('ah', { servers: 2, rooms: ['a'], called }));
    const found = named(from, to);
    expect(Object.keys(found)).toHaveLength(5);
    expect(found[given.get('acc-a') ?? '']).toBe('kq-acc-a');
    expect(found[given.get('srv-1') ?? '']).toMatch(/^kq-srv-/);
  });

  test('a role that is not there has no counterpart; neither has an empty sheet', () => {
    const [one, other] = [planFor(siteOf('kq', { servers: 0 })), planFor(siteOf('ah', { servers: 4 }))];
    expect(alike(one.graph, other.graph)).toBeCloseTo(2 / 6);
    expect(alike(one.graph, other.graph)).toBeLessThan(leastAlike);
    expect(alike(other.graph, one.graph)).toBe(1);
    expect(alike(one.graph, planFor(networkOf({})).graph)).toBe(0);
  });
});

describe('an arrangement carried over', () => {
  test.each(['tree', 'campus-24', 'two-sites', 'arranged'])('to itself it changes nothing, %s', (name) => {
    const made = gallery[name]?.();
    if (made === undefined) throw new Error(name);
    const plan = planOf(made.network, made.sheet, { today: '2026-11-30' });
    const plates = drawnAs(plan);
    const { at, matched } = likeAnother(plan.graph, plates, plan, measure);
    expect(matched).toBe(plates.length);
    for (const { id, box } of plates) expect(at.get(id)).toEqual({ x: box.x, y: box.y });
  });

  test('site by site: what has a counterpart stands like it, the rest beside it, on nothing', () => {
    const from = planFor(siteOf('kq', { servers: 4, rooms: ['a', 'b'] }));
    const to = planFor(siteOf('ah', { servers: 6, rooms: ['a', 'b', 'c'] }));
    const plates = drawnAs(from);
    const { at, matched } = likeAnother(from.graph, plates, to, measure);
    expect(matched).toBe(8);
    expect(at.size).toBe(11);
    const middle = (name: string): number[] => {
      const box = plates.find((plate) => plate.name === name)?.box;
      return box === undefined ? [] : [box.x + box.width / 2, box.y + box.height / 2];
    };
    const moved = new Map(at);
    const scene = sceneOf(to, { measure, moved });
    const own = (name: string): number[] => {
      const box = scene.plates.find((plate) => plate.name === name)?.box;
      return box === undefined ? [] : [box.x + box.width / 2, box.y + box.height / 2];
    };
    for (const what of ['core-1', 'core-2', 'srv-1', 'srv-4', 'acc-a', 'acc-b']) {
      const [[x, y], [ownX, ownY]] = [middle(`kq-${what}`), own(`ah-${what}`)];
      // The names are as long, so that nothing had to be spread.
      expect([ownX, ownY]).toEqual([x, y]);
    }
    scene.plates.forEach((one, index) => {
      for (const other of scene.plates.slice(index + 1)) {
        const across = one.box.x < other.box.x + other.box.width && other.box.x < one.box.x + one.box.width;
        const down = one.box.y < other.box.y + other.box.height && other.box.y < one.box.y + one.box.height;
        expect([one.name, other.name, across && down]).toEqual([one.name, other.name, false]);
      }
    });
  });

  test('much longer names spread it: order stays, nothing lies on anything', () => {
    const from = planFor(siteOf('kq', { servers: 4 }));
    const called = (site: string, what: string): string => `${site}-${what}-${'long-'.repeat(9)}`;
    const to = planFor(siteOf('ah', { servers: 4, called }));
    const plates = drawnAs(from);
    const { at, matched } = likeAnother(from.graph, plates, to, measure);
    expect(matched).toBe(6);
    const scene = sceneOf(to, { measure, moved: at });
    const order = (
      list: readonly { name: string; box: { x: number; y: number; width: number } }[],
    ): string[] =>
      list
        .filter(({ name }) => name.includes('srv'))
        .sort((a, b) => a.box.y - b.box.y || a.box.x + a.box.width / 2 - b.box.x - b.box.width / 2)
        .map(({ name }) => /srv-\d/.exec(name)?.[0] ?? '');
    expect(order(scene.plates)).toEqual(order(plates));
  });

  test('locked plates stay where they are', () => {
    const from = planFor(siteOf('kq', { servers: 2 }));
    const to = planFor(siteOf('ah', { servers: 2 }));
    const [first] = to.graph.nodes;
    const wish = { at: { x: -800, y: -800 }, width: null, height: null, locked: true };
    const held = { ...to, plates: new Map([...to.plates, [first?.id ?? '', wish]]) };
    const { at, matched } = likeAnother(from.graph, drawnAs(from), held, measure);
    expect(at.has(first?.id ?? '')).toBe(false);
    expect(matched).toBe(3);
  });
});

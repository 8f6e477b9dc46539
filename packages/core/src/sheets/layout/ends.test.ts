import { describe, expect, test } from '@jest/globals';
import type { GraphLink, GraphNode, SheetGraph } from '../graph/sheetGraph.ts';
import type { Box, Side } from '../scene/scene.ts';
import { bundleOfLink, bundlesOf } from './bundles.ts';
import { placeEnds, sidesOf } from './ends.ts';

const measure = (text: string, _face: string, size: number): number => text.length * size * 0.63;
const node = (id: string, role: GraphNode['role'] = 'SW', containerId: string | null = null): GraphNode => ({
  ...{ id, form: 'device', deviceIds: [id], subjects: [id], role, code: role, name: id, lines: [] },
  ...{ containerId, outside: false, planned: false, retired: false, symbol: null, sheetId: null },
  shade: { scale: 'role', family: 'forwarding' },
});
const link = (a: string, b: string, ports: [string, string] = ['', '']): GraphLink => ({
  ...{ id: `${a}-${b}`, cables: [], a, b, aPort: ports[0], bPort: ports[1], ties: [null, null], aOrdinal: 0 },
  ...{ medium: 'copper', jacket: null, shade: null, text: '', management: false },
});
const graphOf = (nodes: GraphNode[], links: GraphLink[]): SheetGraph => ({
  nodes,
  links,
  stubs: [],
  containers: [],
});
const box = (x: number, y: number, width = 112, height = 40): Box => ({ x, y, width, height });
const always: Parameters<typeof bundlesOf>[2] = { drawn: () => 'closed', alone: new Set() };
const bands = new Map<string, number>();

function endsOf(graph: SheetGraph, boxes: ReadonlyMap<string, Box>) {
  const sides = sidesOf(graph, bands, boxes);
  const sideOf = ({ id }: GraphLink, end: 'a' | 'b'): Side => sides.get(id)?.[end === 'a' ? 0 : 1] ?? 'top';
  const bundles = bundleOfLink(bundlesOf(graph, sideOf, always));
  return { sides, ends: placeEnds(graph, boxes, sides, bundles, measure) };
}

describe('where links leave their plates', () => {
  const wide = new Map([
    ['hub', box(200, 0, 400)],
    ['a', box(0, 200)],
    ['b', box(344, 200)],
    ['c', box(700, 200)],
  ]);

  test('in the order of their far ends, not of their ports', () => {
    const graph = graphOf(
      [node('hub'), node('a', 'AP'), node('b', 'CM'), node('c', 'PH')],
      [link('hub', 'c', ['1', '9']), link('hub', 'a', ['2', '9']), link('hub', 'b', ['3', '9'])],
    );
    const { ends } = endsOf(graph, wide);
    const at = (id: string): number => ends.get(`hub-${id}`)?.a.at.x ?? NaN;
    expect(at('a')).toBeLessThan(at('b'));
    expect(at('b')).toBeLessThan(at('c'));
    for (const { a, b } of ends.values()) expect([a.side, b?.side]).toEqual(['bottom', 'top']);
  });

  test('a bundle leaves its hub at one spot, with its number; the far ends keep their ports', () => {
    const graph = graphOf(
      [node('hub'), node('a', 'SV'), node('b', 'ST'), node('c', 'SV')],
      ['a', 'b', 'c'].map((id) => link('hub', id, [`te1/${id}`, 'eno1'])),
    );
    const { ends } = endsOf(graph, wide);
    const spots = [...ends.values()].map(({ a }) => `${a.at.x} ${a.at.y}`);
    expect(new Set(spots).size).toBe(1);
    expect([...ends.values()].flatMap(({ a }) => a.label?.text ?? [])).toEqual(['×3']);
    expect([...ends.values()].map(({ b }) => b?.label?.text)).toEqual(['eno1', 'eno1', 'eno1']);
  });

  test('a single end is moved onto the line of the other where it can be', () => {
    const boxes = new Map([
      ['hub', box(200, 0, 400)],
      ['a', box(232, 200)],
    ]);
    const { ends } = endsOf(graphOf([node('hub'), node('a', 'AP')], [link('hub', 'a')]), boxes);
    const { a, b } = ends.get('hub-a') ?? {};
    expect(a?.at.x).toBe(b?.at.x);
  });

  test('labels of different lengths lie level beside each other where their sum fits the plate', () => {
    const graph = graphOf(
      [node('hub'), node('a', 'AP'), node('b', 'CM'), node('c', 'PH')],
      [
        link('hub', 'a', ['10.0.0.1/24 · 100', '']),
        link('hub', 'b', ['.1', '']),
        link('hub', 'c', ['.2', '']),
      ],
    );
    const boxes = new Map([...wide, ['hub', box(300, 0, 176)] as const]);
    const labels = [...endsOf(graph, boxes).ends.values()].flatMap(({ a }) => a.label ?? []);
    expect(labels).toHaveLength(3);
    expect(labels.every(({ turned }) => !turned)).toBe(true);
    const sorted = labels.map(({ box: one }) => one).sort((p, q) => p.x - q.x);
    sorted
      .slice(1)
      .forEach((one, at) =>
        expect(one.x).toBeGreaterThanOrEqual((sorted[at]?.x ?? 0) + (sorted[at]?.width ?? 0)),
      );
  });

  test('a label that would lie on another plate is left out', () => {
    const boxes = new Map([
      ['a', box(0, 0)],
      ['b', box(0, 400)],
      ['near', box(0, 48)],
    ]);
    const graph = graphOf([node('a'), node('b'), node('near', 'PC')], [link('a', 'b', ['te1/1', 'te1/2'])]);
    const { a, b } = endsOf(graph, boxes).ends.get('a-b') ?? {};
    expect(a?.label).toBeNull();
    expect(b?.label?.text).toBe('te1/2');
  });
});

describe('sideways between containers', () => {
  const graph = graphOf([node('rt', 'RT', 'one'), node('sw', 'SW', 'two')], [link('rt', 'sw')]);
  const levels = new Map([
    ['rt', 1],
    ['sw', 4],
  ]);

  test('a plate that should stand below and does not is reached from the side', () => {
    const beside = new Map([
      ['rt', box(0, 0)],
      ['sw', box(600, 48)],
    ]);
    expect(sidesOf(graph, levels, beside).get('rt-sw')).toEqual(['right', 'left']);
  });

  test('one far below is reached from below, as ever', () => {
    const below = new Map([
      ['rt', box(0, 0)],
      ['sw', box(600, 300)],
    ]);
    expect(sidesOf(graph, levels, below).get('rt-sw')).toEqual(['bottom', 'top']);
  });

  test('no more leave a side than have room for their labels above each other', () => {
    const others = ['p', 'q', 'r', 's'];
    const many = graphOf(
      [node('rt', 'RT', 'one'), ...others.map((id) => node(id, 'SW', `of ${id}`))],
      others.map((id) => link('rt', id)),
    );
    const boxes = new Map([
      ['rt', box(0, 400)],
      ...others.map((id, at) => [id, box(600, 448 - 72 * at)] as const),
    ]);
    const all = new Map([['rt', 1], ...others.map((id) => [id, 4] as const)]);
    const right = [...sidesOf(many, all, boxes).values()].filter(([a]) => a === 'right');
    // 40 units of height: two labels of 14 with room between them.
    expect(right.length).toBeLessThanOrEqual(2);
  });
});

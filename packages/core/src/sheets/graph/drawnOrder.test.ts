import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { blankSheet } from '../../model/kinds/drawings/sheet.ts';
import { newId } from '../../model/values/ids.ts';
import { campus } from '../../testing/testCampus.ts';
import { runs } from '../../testing/testRuns.ts';
import { planOf } from '../projection/plan.ts';
import { inDrawnOrder } from './drawnOrder.ts';
import type { SheetGraph } from './sheetGraph.ts';

const { graph } = planOf(campus(24), { ...blankSheet, id: newId(), name: 'All' }, { today: '2026-11-29' });

/** The same graph with other ids, its lists in another order. */
function disguised(of: SheetGraph, order: readonly number[]): SheetGraph {
  const ids = new Map(
    [...of.nodes, ...of.containers].map(({ id }, at) => [id, `x${(at * 7919 + (order[0] ?? 0)) % 100_003}`]),
  );
  const named = (id: string): string => ids.get(id) ?? id;
  const mixed = <T>(list: readonly T[]): T[] =>
    list
      .map((one, at) => ({ one, by: order[at % order.length] ?? 0, at }))
      .sort((a, b) => a.by - b.by || b.at - a.at)
      .map(({ one }) => one);
  return {
    nodes: mixed(
      of.nodes.map((node) => ({
        ...node,
        id: named(node.id),
        containerId: node.containerId === null ? null : named(node.containerId),
      })),
    ),
    links: mixed(of.links.map((link, at) => ({ ...link, id: `l${at}`, a: named(link.a), b: named(link.b) }))),
    stubs: mixed(of.stubs.map((stub) => ({ ...stub, a: named(stub.a) }))),
    containers: mixed(
      of.containers.map((container) => ({
        ...container,
        id: named(container.id),
        parentId: container.parentId === null ? null : named(container.parentId),
      })),
    ),
  };
}

/** What is seen of a graph, in its order. */
const seen = ({ nodes, links, containers }: SheetGraph): unknown => {
  const names = new Map(nodes.map(({ id, name, lines }) => [id, `${name} ${lines.join(' ')}`]));
  return {
    nodes: nodes.map(({ id }) => names.get(id)),
    links: links.map(({ a, b, aPort, bPort }) => [names.get(a), aPort, names.get(b), bPort]),
    containers: containers.map(({ title }) => title),
  };
};

describe('the order that follows from what is seen', () => {
  test('names as people count, links by their ends and ports', () => {
    const ordered = inDrawnOrder(graph);
    const switches = ordered.nodes.map(({ name }) => name).filter((name) => name.startsWith('cx-acc-1-'));
    expect(switches).toEqual(['cx-acc-1-1', 'cx-acc-1-2', 'cx-acc-1-3', 'cx-acc-1-4']);
  });

  test('property: whatever the ids and the order of rows', () => {
    const expected = seen(inDrawnOrder(graph));
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9999 }), { minLength: 3, maxLength: 40 }), (order) => {
        expect(seen(inDrawnOrder(disguised(graph, order)))).toEqual(expected);
      }),
      { numRuns: runs(25) },
    );
  });

  test('where names are hidden, by what each is joined to', () => {
    const blank = { ...graph, nodes: graph.nodes.map((node) => ({ ...node, name: '', lines: [] })) };
    const degrees = (of: SheetGraph): number[] =>
      of.nodes.map(({ id }) => of.links.filter(({ a, b }) => a === id || b === id).length);
    expect(degrees(inDrawnOrder(disguised(blank, [5, 3, 9, 1])))).toEqual(degrees(inDrawnOrder(blank)));
  });
});

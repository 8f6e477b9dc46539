import type { GraphLink, SheetGraph } from '../graph/sheetGraph.ts';
import type { Point } from '../scene/scene.ts';
import { snap, type Measures } from './lattice.ts';
import { alignAll } from './search/align.ts';
import { roomOf, shelfSearch } from './search/arrangeShelves.ts';
import { chance } from './search/chance.ts';
import { Field } from './search/field.ts';
import type { Frame } from './search/frame.ts';
import { groupsOf, leavesOf, measureRows, shelvedIn, type Group } from './search/groups.ts';
import { orderRows, rowsCost } from './search/orderRows.ts';

/** How often the order in rows and the place of containers are sought in turn. */
const rounds = 3;
const roundsOfMany = 2;
const roundsOfVeryMany = 1;
/** Above so many plates there is time for one try. */
const fewPlates = 120;
const veryManyPlates = 1000;

/** What is tried: different searches find different pictures, and how they read is seen only when they are drawn. */
type Try = Pick<Frame, 'fit' | 'folding'> & { seed: number };
const tries: readonly Try[] = [
  { fit: 60, folding: 1.2, seed: 4 },
  { fit: 60, folding: 1.6, seed: 4 },
  { fit: 40, folding: 0.9, seed: 3 },
];
/** For a sheet of few plates there is time for more. */
const moreTries: readonly Try[] = [
  ...tries,
  { fit: 40, folding: 1.2, seed: 1 },
  { fit: 40, folding: 1.6, seed: 4 },
  { fit: 60, folding: 1.6, seed: 2 },
  { fit: 60, folding: 0.9, seed: 1 },
];
const veryFewPlates = 20;
const tryOfMany: Try = { fit: 50, folding: 1.3, seed: 1 };
/** By which the tries are compared. */
const usualFit = 50;

/** What each plate is linked to; links for management say nothing about order. */
export function neighboursOf(graph: SheetGraph): Map<string, string[]> {
  const near = new Map<string, string[]>();
  const note = (from: string, to: string): void => {
    const list = near.get(from);
    if (list === undefined) near.set(from, [to]);
    else list.push(to);
  };
  for (const link of graph.links) {
    if (link.management) continue;
    note(link.a, link.b);
    note(link.b, link.a);
  }
  return near;
}

interface Placed {
  at: Map<string, Point>;
  cost: number;
}

function placeOnce(
  graph: SheetGraph,
  bands: ReadonlyMap<string, number>,
  measures: Measures,
  lineOf: (link: GraphLink) => string,
  aspect: number,
  { seed, ...way }: Try,
): Placed {
  const frame: Frame = { ...way, aspect };
  const near = neighboursOf(graph);
  const field = new Field(graph, bands, measures.sizes);
  const { root, around } = groupsOf(graph, field, measures, near, lineOf, frame);
  const random = chance(seed);
  const leaves = leavesOf(root);
  for (const leaf of leaves) measureRows(around, leaf);
  const pairGap = (a: number, b: number): number => measures.pairGap(field.ids[a] ?? '', field.ids[b] ?? '');
  const shelved = new Map(shelvedIn(root).map((group) => [group, shelfSearch(field, group, pairGap, frame)]));
  /** Rows of one band may have exchanged plates, and be as tall as others now. */
  const order = (leaf: Group, again: boolean): void => {
    orderRows(around, leaf, random, again);
    measureRows(around, leaf);
  };
  const count = graph.nodes.length;
  const often = count > veryManyPlates ? roundsOfVeryMany : count > fewPlates ? roundsOfMany : rounds;
  for (let round = 0; round < often; round++) {
    for (const leaf of leaves) order(leaf, round > 0);
    for (const search of shelved.values()) search.search(random, round > 0);
  }
  for (const leaf of leaves) order(leaf, true);
  for (const search of shelved.values()) search.lay();
  alignAll(around, root, (group) => shelved.get(group)?.gap ?? (() => 0));
  const onShelves = shelved.get(root)?.cost(usualFit) ?? usualFit * Math.log(roomOf(root, aspect));
  return {
    at: new Map(
      field.ids.map((id, plate) => [id, { x: snap(field.x[plate] ?? 0), y: snap(field.y[plate] ?? 0) }]),
    ),
    cost: onShelves + leaves.reduce((sum, leaf) => sum + rowsCost(around, leaf), 0),
  };
}

/**
 * Positions for all plates, the most promising first: rows by band inside each container, containers on shelves, both
 * sought by simulated annealing so that few lines cross, and the whole fits a frame well. Which is best is seen when
 * they are drawn. The same graph always gives the same positions. Plates never overlap.
 *
 * @param lineOf which links are drawn as one line
 * @param aspect width to height of the frame
 */
export function arrangements(
  graph: SheetGraph,
  bands: ReadonlyMap<string, number>,
  measures: Measures,
  lineOf: (link: GraphLink) => string,
  aspect: number,
): Map<string, Point>[] {
  const many = graph.nodes.length;
  return (many <= veryFewPlates ? moreTries : many <= fewPlates ? tries : [tryOfMany])
    .map((way) => placeOnce(graph, bands, measures, lineOf, aspect, way))
    .sort((a, b) => a.cost - b.cost)
    .map(({ at }) => at);
}

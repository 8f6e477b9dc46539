import { cellPositions, onBorders, standsInCells } from '../layout/cells.ts';
import { snap } from '../layout/lattice.ts';
import { placeNewcomers } from '../layout/newcomers.ts';
import { arrangements } from '../layout/placement.ts';
import { blockAfresh } from './afresh.ts';
import { containersOf } from './containers.ts';
import { boxAround, overlap, type Box, type Point } from './scene.ts';
import { measuresOf, type Setting } from './setting.ts';

/** Of so few of its plates that are left, a drawing is not the same any more. */
const leastLeft = 0.5;

/**
 * Where plates stood that are still there, for a drawing that nobody arranged to keep its order while others come and
 * go. None where too little of it is left, or where plates have grown onto each other since.
 */
function stillStanding(
  { plan: { graph }, sizes }: Setting,
  held: ReadonlyMap<string, Point>,
): Map<string, Point> {
  const left = new Map<string, Point>();
  const boxes: Box[] = [];
  for (const { id } of graph.nodes) {
    const at = held.get(id);
    if (at === undefined) continue;
    const { width = 0, height = 0 } = sizes.get(id) ?? {};
    left.set(id, at);
    boxes.push({ ...at, width, height });
  }
  if (left.size < leastLeft * Math.max(graph.nodes.length, held.size)) return new Map();
  boxes.sort((a, b) => a.x - b.x);
  for (const [which, box] of boxes.entries())
    for (const other of boxes.slice(which + 1)) {
      if (other.x >= box.x + box.width) break;
      if (overlap(box, other)) return new Map();
    }
  return left;
}

/** Below what a new place is linked to. */
const below = 96;

/** Places of which nothing stood on the sheet yet, each laid out as a block near what it is linked to. */
function placeNewPlaces(setting: Setting, kept: ReadonlyMap<string, Point>): Map<string, Point> {
  const { plan, sizes } = setting;
  const { nodes, links, containers } = plan.graph;
  const placed = new Map(kept);
  const boxes = new Map<string, Box>();
  const note = (id: string, at: Point): void => {
    const { width = 0, height = 0 } = sizes.get(id) ?? {};
    boxes.set(id, { ...at, width, height });
  };
  for (const [id, at] of kept) note(id, at);
  const parents = new Map(containers.map(({ id, parentId }) => [id, parentId]));
  const platesIn = new Map<string, Set<string>>();
  const known = new Set<string>();
  for (const { id, containerId } of nodes) {
    const chain: string[] = [];
    for (
      let at = containerId;
      at !== null && parents.has(at) && !chain.includes(at);
      at = parents.get(at) ?? null
    )
      chain.push(at);
    if (kept.has(id)) for (const one of chain) known.add(one);
    for (const one of chain) platesIn.set(one, (platesIn.get(one) ?? new Set()).add(id));
  }
  const isNew = (id: string | null): boolean => id !== null && platesIn.has(id) && !known.has(id);
  for (const { id, parentId } of containers) {
    const ids = platesIn.get(id);
    if (ids === undefined || ids.size < 2 || !isNew(id) || isNew(parentId)) continue;
    const linked = links.flatMap(({ a, b }) =>
      ids.has(a) && !ids.has(b)
        ? (boxes.get(b) ?? [])
        : ids.has(b) && !ids.has(a)
          ? (boxes.get(a) ?? [])
          : [],
    );
    const around = boxAround(linked.length > 0 ? linked : [...boxes.values()]);
    const near = { x: around.x + around.width / 2, y: around.y + around.height + below };
    for (const [plate, at] of blockAfresh(setting, ids, boxes, near)) {
      placed.set(plate, at);
      note(plate, at);
    }
  }
  return placed;
}

/** Places for all plates of which none is known, near what they belong to, while those that are known stay. */
export const positionsAround = (setting: Setting, kept: ReadonlyMap<string, Point>): Map<string, Point> =>
  placeNewcomers(setting.plan.graph, setting.sizes, placeNewPlaces(setting, kept));

/** Where plates stand of containers in rows and columns: those on a border go with its outline, wherever that is. */
function positionsInCells(setting: Setting, moved: ReadonlyMap<string, Point>): Map<string, Point> {
  const { plan, sizes, measure } = setting;
  const { graph } = plan;
  const kept = new Map<string, Point>();
  for (const { id } of graph.nodes) {
    const at = moved.get(id) ?? plan.plates.get(id)?.at;
    if (at != null) kept.set(id, { x: snap(at.x), y: snap(at.y) });
  }
  if (kept.size === 0) return cellPositions(graph, measuresOf(setting), plan.aspect);
  const within = { ...graph, nodes: graph.nodes.filter(({ border }) => border === undefined) };
  const at = positionsAround({ ...setting, plan: { ...plan, graph: within } }, kept);
  const boxes = new Map(
    graph.nodes.flatMap(({ id }): [string, Box][] => {
      const { width = 0, height = 0 } = sizes.get(id) ?? {};
      const there = at.get(id) ?? { x: 0, y: 0 };
      return [[id, { ...there, width, height }]];
    }),
  );
  const outlines = containersOf(plan, boxes, measure);
  for (const [id, point] of onBorders(graph.nodes, sizes, new Map(outlines.map((one) => [one.id, one.box]))))
    at.set(id, point);
  return at;
}

/**
 * Where the plates of a drawing may stand, the most promising first. Hand-made positions stay; the rest is laid out, or
 * placed near what it connects to once anything was moved.
 *
 * @param moved positions that stand for those stored
 * @param held where plates stood that nobody placed: as long as most are there, they stay
 */
export function positionsOf(
  setting: Setting,
  moved: ReadonlyMap<string, Point>,
  held: ReadonlyMap<string, Point>,
): Map<string, Point>[] {
  const { plan, bands, lineOf } = setting;
  const { graph } = plan;
  if (standsInCells(graph)) return [positionsInCells(setting, moved)];
  const standing = plan.arranged || held.size === 0 ? null : stillStanding(setting, held);
  const kept = new Map<string, Point>();
  for (const node of graph.nodes) {
    const at = moved.get(node.id) ?? plan.plates.get(node.id)?.at ?? standing?.get(node.id);
    if (at !== undefined) kept.set(node.id, { x: snap(at.x), y: snap(at.y) });
  }
  if (kept.size === graph.nodes.length) return [kept];
  if (plan.arranged || (standing?.size ?? 0) > 0) return [positionsAround(setting, kept)];
  const found = arrangements(graph, bands, measuresOf(setting), lineOf, plan.aspect);
  for (const positions of found) for (const [id, at] of kept) positions.set(id, at);
  return found;
}

import type { SheetGraph } from '../graph/sheetGraph.ts';
import { grid, padding, snap, titleHeight } from '../layout/lattice.ts';
import { fourOf } from '../layout/nearestFree.ts';
import { arrangements } from '../layout/placement.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { boxAround, overlap, type Box, type Plate, type Point } from './scene.ts';
import { measuresOf, settingOf, type Setting } from './setting.ts';

const { abs, max, min } = Math;

/** Room between what is laid out afresh and what stays, beside the outlines of places. */
const gap = 24;
/** So far from its middle a block is moved to find free ground, in steps of it. */
const mostSteps = 160;
const step = 2 * grid;
/** No block is wider or taller than this in proportion. */
const mostStretched = 3;

/** The part of a graph that some plates and the links between them are. */
export function partOf(graph: SheetGraph, ids: ReadonlySet<string>): SheetGraph {
  const nodes = graph.nodes.filter(({ id }) => ids.has(id));
  const held = new Set(nodes.map(({ containerId }) => containerId));
  const parents = new Map(graph.containers.map(({ id, parentId }) => [id, parentId]));
  for (const id of held) {
    const parent = parents.get(id ?? '') ?? null;
    if (parent !== null) held.add(parent);
  }
  return {
    ...graph,
    nodes,
    links: graph.links.filter(({ a, b }) => ids.has(a) && ids.has(b)),
    containers: graph.containers.filter(({ id }) => held.has(id)),
    stubs: graph.stubs.filter(({ a }) => ids.has(a)),
  };
}

type Segment = readonly [Point, Point];
const turn = (a: Point, b: Point, c: Point): number =>
  Math.sign((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
const cross = ([a, b]: Segment, [c, d]: Segment): boolean =>
  turn(a, b, c) * turn(a, b, d) < 0 && turn(c, d, a) * turn(c, d, b) < 0;
/** What one crossing weighs against links that are longer, in sheet units. */
const crossingWorth = 240;
/** Links of more than this are not crossed with each other. */
const mostCrossed = 400;

/** How badly a block stands to all others: crossings of its links as straight lines, and how far they lead out. */
function strain(
  { links }: SheetGraph,
  block: ReadonlyMap<string, Box>,
  others: ReadonlyMap<string, Box>,
): number {
  const middle = ({ x, y, width, height }: Box): Point => ({ x: x + width / 2, y: y + height / 2 });
  let length = 0;
  const segments: Segment[] = [];
  for (const { a, b } of links) {
    if (!block.has(a) && !block.has(b)) continue;
    const [from, to] = [block.get(a) ?? others.get(a), block.get(b) ?? others.get(b)];
    if (from === undefined || to === undefined) continue;
    const [p, q] = [middle(from), middle(to)];
    segments.push([p, q]);
    length += abs(p.x - q.x) + abs(p.y - q.y);
  }
  if (segments.length > mostCrossed) return length;
  const crossings = segments.reduce(
    (sum, one, at) => sum + segments.slice(at + 1).filter((other) => cross(one, other)).length,
    0,
  );
  return length + crossingWorth * crossings;
}

const moved = (boxes: ReadonlyMap<string, Box>, { x, y }: Point): Map<string, Box> =>
  new Map([...boxes].map(([id, box]) => [id, { ...box, x: box.x + x, y: box.y + y }]));

/** The same from right to left. */
function mirrored(boxes: ReadonlyMap<string, Box>): Map<string, Box> {
  const { x, width } = boxAround([...boxes.values()]);
  return new Map([...boxes].map(([id, box]) => [id, { ...box, x: 2 * x + width - box.x - box.width }]));
}

/** The least step after which a block lies on nothing: the nearest, of equally near ones the upper, then the left one. */
function clear(block: readonly Box[], taken: readonly Box[]): Point {
  const around = boxAround(block);
  const free = (by: Point): boolean => {
    const there = taken.filter((box) =>
      overlap(box, { ...around, x: around.x + by.x, y: around.y + by.y }, gap),
    );
    return (
      there.length === 0 ||
      block.every(
        (box) => !there.some((other) => overlap(other, { ...box, x: box.x + by.x, y: box.y + by.y }, gap)),
      )
    );
  };
  for (let ring = 0; ring <= mostSteps; ring++) {
    const found: Point[] = [];
    for (let along = -ring; along <= ring; along++)
      for (const [x, y] of fourOf(ring, along))
        if (free({ x: x * step, y: y * step })) found.push({ x: x * step, y: y * step });
    const [first] = found.sort((a, b) => abs(a.x) + abs(a.y) - abs(b.x) - abs(b.y) || a.y - b.y || a.x - b.x);
    if (first !== undefined) return first;
  }
  return { x: 0, y: max(...taken.map((box) => box.y + box.height)) + 64 - around.y };
}

/**
 * Some plates laid out afresh as one block, all others where they are: in the shape of the ground they had, mirrored
 * where that brings them nearer to what they are linked to, moved aside where they would lie on others.
 *
 * @param standing boxes of all plates, in sheet units; of those that are new none, then `near` says where
 */
export function blockAfresh(
  setting: Setting,
  ids: ReadonlySet<string>,
  standing: ReadonlyMap<string, Box>,
  near: Point | null = null,
): Map<string, Point> {
  const { plan, bands, sizes, lineOf } = setting;
  const part = partOf(plan.graph, ids);
  if (part.nodes.length === 0) return new Map();
  const before = part.nodes.flatMap(({ id }) => standing.get(id) ?? []);
  const ground = boxAround(before);
  const shape = before.length < 2 ? plan.aspect : ground.width / max(1, ground.height);
  const aspect = min(mostStretched, max(1 / mostStretched, shape));
  const [at] = arrangements(part, bands, measuresOf(setting), lineOf, aspect);
  const laid = new Map(
    part.nodes.map(({ id }): [string, Box] => {
      const { width = 0, height = 0 } = sizes.get(id) ?? {};
      return [id, { ...(at?.get(id) ?? { x: 0, y: 0 }), width, height }];
    }),
  );
  const middle = near ?? { x: ground.x + ground.width / 2, y: ground.y + ground.height / 2 };
  const own = boxAround([...laid.values()]);
  const there = moved(laid, {
    x: snap(middle.x - own.x - own.width / 2),
    y: snap(middle.y - own.y - own.height / 2),
  });
  const others = new Map([...standing].filter(([id]) => !ids.has(id)));
  const [plain, turned] = [there, mirrored(there)];
  const best = strain(plan.graph, turned, others) < strain(plan.graph, plain, others) ? turned : plain;
  // Whole places come with their outlines.
  const whole = part.containers.filter(({ id }) =>
    plan.graph.nodes.every((node) => node.containerId !== id || ids.has(node.id)),
  );
  const outlines = whole.map(({ id }) => {
    const box = boxAround(
      part.nodes.flatMap((node) => (node.containerId === id ? (best.get(node.id) ?? []) : [])),
      padding,
    );
    return { ...box, y: box.y - titleHeight, height: box.height + titleHeight };
  });
  const by = clear(
    [...best.values(), ...outlines.filter(({ width }) => width > 2 * padding)],
    [...others.values()],
  );
  return new Map([...best].map(([id, { x, y }]) => [id, { x: snap(x + by.x), y: snap(y + by.y) }]));
}

/**
 * Where some plates of a drawing would stand if they were laid out afresh and nothing else moved. Locked plates stay.
 *
 * @returns positions by plate id, in sheet units: of those that are given and not locked
 */
export function tidyPositions(
  plan: DrawingPlan,
  scene: { plates: readonly Plate[] },
  ids: ReadonlySet<string>,
  measure: TextMeasure,
): Map<string, Point> {
  const locked = new Set(scene.plates.flatMap((plate) => (plate.locked ? [plate.id] : [])));
  const free = new Set([...ids].filter((id) => !locked.has(id)));
  return blockAfresh(settingOf(plan, measure), free, new Map(scene.plates.map(({ id, box }) => [id, box])));
}

import type { GraphNode, SheetGraph } from '../graph/sheetGraph.ts';
import { boxAround, overlap, type Box, type Point } from '../scene/scene.ts';
import { padding, snap, titleHeight, type Size } from './lattice.ts';

/** Room between a new plate and those that are there. */
const gap = 24;
/** Below a plate that it is linked to, so that the link has room for its names. */
const below = 72;
const mostRings = 60;
const step = { x: 56, y: 40 };
/** Of more new plates than this it is not asked whether the outlines of their places stay apart. */
const mostCareful = 60;

/** Spots around a start in growing rings, the start first. */
function* spotsAround(start: Point): Generator<Point> {
  for (let ring = 0; ring < mostRings; ring++)
    for (let along = -ring; along <= ring; along++) {
      yield { x: start.x + along * step.x, y: start.y + ring * step.y };
      yield { x: start.x + ring * step.x, y: start.y + along * step.y };
      yield { x: start.x - ring * step.x, y: start.y + along * step.y };
    }
}

/** The outline of a place around a box, with the room for its title. */
const outlineOf = ({ x, y, width, height }: Box): Box => ({
  x: x - padding,
  y: y - padding - titleHeight,
  width: width + 2 * padding,
  height: height + 2 * padding + titleHeight,
});

/** A sheet with some of its plates in place. */
class Ground {
  private readonly taken: Box[] = [];
  private readonly parents: ReadonlyMap<string, string | null>;
  private readonly inside = new Map<string, Box[]>();
  private readonly outside = new Map<string, Box[]>();

  constructor(graph: SheetGraph) {
    this.parents = new Map(graph.containers.map(({ id, parentId }) => [id, parentId]));
    for (const id of this.parents.keys()) {
      this.inside.set(id, []);
      this.outside.set(id, []);
    }
  }

  /** The containers around a plate, the innermost first. */
  private around({ containerId }: GraphNode): string[] {
    const chain: string[] = [];
    for (
      let id = containerId;
      id !== null && this.parents.has(id) && !chain.includes(id);
      id = this.parents.get(id) ?? null
    )
      chain.push(id);
    return chain;
  }

  put(node: GraphNode, box: Box): void {
    this.taken.push(box);
    const own = new Set(this.around(node));
    for (const id of this.parents.keys()) (own.has(id) ? this.inside : this.outside).get(id)?.push(box);
  }

  private isFree(box: Box): boolean {
    return !this.taken.some((other) => overlap(box, other, gap));
  }

  /** Whether no outline reaches over plates or outlines that it did not reach over before. */
  private apart(node: GraphNode): (box: Box) => boolean {
    const own = this.around(node);
    const grown = own.map((id) => {
      const members = this.inside.get(id) ?? [];
      const hull = members.length === 0 ? [] : [boxAround(members)];
      const others = this.outside.get(id) ?? [];
      return { hull, others: others.filter((box) => !hull.some((one) => overlap(box, outlineOf(one)))) };
    });
    const foreign = [...this.inside]
      .filter(([id, members]) => members.length > 0 && !own.includes(id))
      .map(([, members]) => outlineOf(boxAround(members)));
    return (box) =>
      !foreign.some((outline) => overlap(box, outline, gap)) &&
      grown.every(({ hull, others }) => {
        const outline = outlineOf(boxAround([...hull, box]));
        return !others.some((other) => overlap(other, outline));
      });
  }

  /** The first spot that is free, and of those the first at which places stay apart. */
  spotFor(node: GraphNode, { width, height }: Size, start: Point, careful: boolean): Point {
    const apart = careful ? this.apart(node) : () => true;
    let free: Point | null = null;
    for (const at of spotsAround(start)) {
      const box = { ...at, width, height };
      if (!this.isFree(box)) continue;
      if (apart(box)) return { x: snap(at.x), y: snap(at.y) };
      free ??= at;
    }
    return free === null
      ? { x: snap(start.x), y: snap(this.bottom()) }
      : { x: snap(free.x), y: snap(free.y) };
  }

  bottom(): number {
    return Math.max(0, ...this.taken.map((box) => box.y + box.height)) + 64;
  }
}

/**
 * Puts plates that are new on a sheet near what they belong to, where all others stay: below one of their place that
 * they are linked to, else beside one of their role there, else near any of their place, else below what they are
 * linked to. Plates never overlap, and outlines of places reach over no others as long as there is a spot for that.
 *
 * @param kept where the others stand, in sheet units; not changed
 */
export function placeNewcomers(
  graph: SheetGraph,
  sizes: ReadonlyMap<string, Size>,
  kept: ReadonlyMap<string, Point>,
): Map<string, Point> {
  const placed = new Map(kept);
  const sizeOf = (id: string): Size => sizes.get(id) ?? { width: 0, height: 0, reachUp: 0, reachDown: 0 };
  const boxOf = (id: string): Box => ({ ...(placed.get(id) ?? { x: 0, y: 0 }), ...sizeOf(id) });
  const nodes = new Map(graph.nodes.map((node) => [node.id, node]));
  const near = new Map<string, string[]>();
  for (const { a, b } of graph.links)
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const) {
      const list = near.get(from);
      if (list === undefined) near.set(from, [to]);
      else list.push(to);
    }
  const ground = new Ground(graph);
  for (const node of graph.nodes) if (placed.has(node.id)) ground.put(node, boxOf(node.id));
  const startOf = (node: GraphNode): Point => {
    const linked = (near.get(node.id) ?? []).filter((id) => placed.has(id));
    const peers = graph.nodes.filter(
      ({ id, containerId }) => containerId === node.containerId && placed.has(id),
    );
    const beneath = (id: string): Point => {
      const { x, y, height } = boxOf(id);
      return { x, y: y + height + below };
    };
    const here = linked.find((id) => nodes.get(id)?.containerId === node.containerId);
    if (here !== undefined) return beneath(here);
    const alike = peers.filter(({ role, form }) => role === node.role && form === node.form);
    const last = alike.map(({ id }) => boxOf(id)).sort((one, other) => other.y - one.y || other.x - one.x)[0];
    if (node.containerId !== null && last !== undefined) return { x: last.x + last.width + gap, y: last.y };
    const beside = node.containerId === null ? linked[0] : (peers[0]?.id ?? linked[0]);
    const by = beside ?? peers[0]?.id;
    return by === undefined ? { x: 0, y: ground.bottom() } : beneath(by);
  };
  const newcomers = graph.nodes.filter(({ id }) => !placed.has(id));
  for (const node of newcomers) {
    placed.set(
      node.id,
      ground.spotFor(node, sizeOf(node.id), startOf(node), newcomers.length <= mostCareful),
    );
    ground.put(node, boxOf(node.id));
  }
  return placed;
}

import { padding, snap, titleHeight, up, type Block, type Measures, type Size } from './lattice.ts';
import { arrangeRows, neighboursOf } from './rows.ts';
import { overlap, type Box, type Point } from '../scene/scene.ts';
import type { GraphNode, SheetGraph } from '../graph/sheetGraph.ts';

const containerGap = 56;
const rackGap = 32;

/** Blocks above each other, all at the left edge of the column. */
interface Column {
  width: number;
  height: number;
  blocks: Block[];
}

/** How many links each two blocks have with each other is not asked; only where the plates of one pull another to. */
function pullOf(
  block: Block,
  near: ReadonlyMap<string, readonly string[]>,
  placed: ReadonlyMap<string, Point>,
): number | null {
  let sum = 0;
  let count = 0;
  for (const id of block.at.keys())
    for (const other of near.get(id) ?? []) {
      const at = placed.get(other);
      if (at === undefined) continue;
      sum += at.x;
      count++;
    }
  return count === 0 ? null : sum / count;
}

/**
 * Puts blocks on shelves, in order of tier: beside each other until the shelf is full, and above each other beside
 * a block that is much taller. Within a shelf, each block stands towards what it is linked to above.
 */
function shelve(
  blocks: readonly Block[],
  near: ReadonlyMap<string, readonly string[]>,
  widest: number,
  gap: number,
): Block {
  const shelves: Column[][] = [];
  let width = 0;
  for (const block of [...blocks].sort((a, b) => a.tier - b.tier)) {
    const shelf = shelves.at(-1);
    const tallest = Math.max(0, ...(shelf ?? []).map((column) => column.height));
    const last = shelf?.at(-1);
    const below =
      last !== undefined &&
      shelf !== undefined &&
      shelf.length > 1 &&
      last.height + gap + block.height <= tallest &&
      block.width <= Math.max(last.width * 1.4, 320);
    if (below) {
      width += Math.max(0, block.width - last.width);
      last.blocks.push(block);
      last.height += gap + block.height;
      last.width = Math.max(last.width, block.width);
    } else if (shelf === undefined || width + block.width > widest) {
      shelves.push([{ width: block.width, height: block.height, blocks: [block] }]);
      width = block.width + gap;
    } else {
      shelf.push({ width: block.width, height: block.height, blocks: [block] });
      width += block.width + gap;
    }
  }
  const widthOf = (shelf: readonly Column[]): number =>
    shelf.reduce((sum, column) => sum + column.width, (shelf.length - 1) * gap);
  const full = Math.max(0, ...shelves.map(widthOf));
  const at = new Map<string, Point>();
  let y = 0;
  for (const shelf of shelves) {
    const pulls = new Map(
      shelf.map((column, index) => [
        column,
        column.blocks.map((block) => pullOf(block, near, at)).find((pull) => pull !== null) ??
          (index / Math.max(1, shelf.length)) * full,
      ]),
    );
    if (y > 0) shelf.sort((a, b) => (pulls.get(a) ?? 0) - (pulls.get(b) ?? 0));
    let x = snap((full - widthOf(shelf)) / 2);
    for (const column of shelf) {
      let top = y;
      for (const block of column.blocks) {
        for (const [id, point] of block.at) at.set(id, { x: x + point.x, y: top + point.y });
        top += block.height + gap;
      }
      x += column.width + gap;
    }
    y += Math.max(...shelf.map((column) => column.height)) + gap;
  }
  const tier = blocks.reduce((sum, block) => sum + block.tier, 0) / Math.max(1, blocks.length);
  return { tier, width: up(full), height: up(Math.max(0, y - gap)), at };
}

/** Shelves are tried in these widths, as a share of what the plates together ask for. */
const shelfWidths = [0.7, 0.85, 1, 1.25, 1.5, 1.8];
/** Wanted width to height: that of a page across, with room for the key. */
const wantedAspect = 1.5;

/** The block that takes the least room for its shape: area, times how far it is from the wanted aspect. */
function best(blocks: readonly Block[]): Block | null {
  let found: Block | null = null;
  let least = Infinity;
  for (const block of blocks) {
    const aspect = block.width / Math.max(1, block.height);
    const score = block.width * block.height * Math.max(aspect / wantedAspect, wantedAspect / aspect) ** 2;
    if (score < least) [found, least] = [block, score];
  }
  return found;
}

/** One block over another, each in the middle of the wider. */
function above(upper: Block, lower: Block): Block {
  const width = Math.max(upper.width, lower.width);
  const down = upper.height + containerGap;
  const at = new Map<string, Point>();
  const put = (block: Block, y: number): void => {
    const x = snap((width - block.width) / 2);
    for (const [id, point] of block.at) at.set(id, { x: x + point.x, y: y + point.y });
  };
  put(upper, 0);
  put(lower, down);
  return { tier: upper.tier, width, height: down + lower.height, at };
}

/** The block with room around it for the outline and title of its container. */
function enclose(block: Block, titleWidth: number): Block {
  const at = new Map(
    [...block.at].map(([id, point]) => [id, { x: point.x + padding, y: point.y + padding + titleHeight }]),
  );
  return {
    ...block,
    width: up(Math.max(block.width + 2 * padding, titleWidth)),
    height: block.height + 2 * padding + titleHeight,
    at,
  };
}

/**
 * Positions for all plates: rows by tier inside each container, containers on shelves by their mean tier, so that the
 * whole is about 1.6 times as wide as high. Plates never overlap.
 */
export function placePlates(
  graph: SheetGraph,
  tiers: ReadonlyMap<string, number>,
  measures: Measures,
): Map<string, Point> {
  const { sizes, titleWidth } = measures;
  const members = new Map<string, GraphNode[]>();
  for (const node of graph.nodes) {
    const key = node.containerId ?? '';
    members.set(key, [...(members.get(key) ?? []), node]);
  }
  const inside = new Map<string, string[]>();
  for (const container of graph.containers) {
    const key = container.parentId ?? '';
    inside.set(key, [...(inside.get(key) ?? []), container.id]);
  }
  const area = graph.nodes.reduce((sum, node) => {
    const size = sizes.get(node.id);
    return (
      sum +
      ((size?.width ?? 0) + 48) * ((size?.height ?? 0) + (size?.reachUp ?? 0) + (size?.reachDown ?? 0) + 64)
    );
  }, 0);
  const widest = Math.max(720, Math.sqrt(area * 4));
  const near = neighboursOf(graph);
  const linksOf = new Map<string, SheetGraph['links']>();
  const containerOf = new Map(graph.nodes.map((node) => [node.id, node.containerId ?? '']));
  for (const link of graph.links)
    for (const key of new Set([containerOf.get(link.a) ?? '', containerOf.get(link.b) ?? ''])) {
      const there = linksOf.get(key);
      if (there === undefined) linksOf.set(key, [link]);
      else there.push(link);
    }
  const blockOf = (key: string): Block => {
    const nodes = members.get(key) ?? [];
    const children = (inside.get(key) ?? []).map((id) => enclose(blockOf(id), titleWidth(id)));
    const own =
      nodes.length === 0 ? [] : [arrangeRows(nodes, linksOf.get(key) ?? [], near, tiers, measures, widest)];
    if (children.length === 0 && own[0] !== undefined) return own[0];
    const parts = own.map((block) => (key === '' ? block : { ...block, tier: -1 }));
    if (key === '') {
      const all = best(
        shelfWidths.map((share) => {
          const lower = shelve(children, near, widest * share, containerGap);
          return parts[0] === undefined ? lower : above(parts[0], lower);
        }),
      );
      if (all !== null) return all;
    }
    return shelve([...parts, ...children], near, widest * 1.25, key === '' ? containerGap : rackGap);
  };
  return blockOf('').at;
}

/** A free spot for a new plate: below the plate it connects to, then around it in growing rings. */
export function findSpot(
  size: Pick<Size, 'width' | 'height'>,
  near: Box | null,
  taken: readonly Box[],
): Point {
  const start: Point =
    near === null
      ? { x: 0, y: Math.max(0, ...taken.map((box) => box.y + box.height)) + 64 }
      : { x: near.x, y: near.y + near.height + 72 };
  const free = (at: Point): boolean => !taken.some((box) => overlap({ ...at, ...size }, box, 24));
  for (let ring = 0; ring < 60; ring++) {
    for (let step = -ring; step <= ring; step++) {
      for (const at of [
        { x: start.x + step * 56, y: start.y + ring * 40 },
        { x: start.x + ring * 56, y: start.y + step * 40 },
        { x: start.x - ring * 56, y: start.y + step * 40 },
      ]) {
        if (free(at)) return { x: snap(at.x), y: snap(at.y) };
      }
    }
  }
  return { x: snap(start.x), y: snap(Math.max(0, ...taken.map((box) => box.y + box.height)) + 64) };
}

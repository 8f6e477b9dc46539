import { compareNames } from '../model/order.ts';
import type { CablingGraph, GraphNode } from './cablingGraph.ts';
import { overlap, type Box, type Point } from './scene.ts';

/** The lattice that plates, ports and links keep to, in sheet units. */
export const grid = 8;
export const snap = (value: number): number => Math.round(value / grid) * grid;
const up = (value: number): number => Math.ceil(value / grid) * grid;

export interface Size {
  width: number;
  height: number;
  /** How far the labelled ends of its links stand out above and below. */
  reachUp: number;
  reachDown: number;
}

const columnGap = 48;
/** Between two plates that are linked to each other: room for a label at either end. */
const pairGap = 136;
const containerGap = 56;
const padding = 24;
const titleHeight = 24;

interface Arranged {
  key: string;
  tier: number;
  size: Pick<Size, 'width' | 'height'>;
  at: Map<string, Point>;
}

/** Orders each row by the mean position of what its plates connect to, a few times down and up. */
function orderRows(rows: string[][], near: ReadonlyMap<string, readonly string[]>): void {
  const place = new Map<string, number>();
  const note = (row: readonly string[]): void =>
    row.forEach((id, at) => place.set(id, (at + 0.5) / row.length));
  rows.forEach(note);
  for (let sweep = 0; sweep < 6; sweep++) {
    for (const row of sweep % 2 === 0 ? rows : [...rows].reverse()) {
      const pull = new Map(
        row.map((id) => {
          const around = (near.get(id) ?? []).filter((other) => !row.includes(other) && place.has(other));
          const mean = around.reduce((sum, other) => sum + (place.get(other) ?? 0), 0) / (around.length || 1);
          return [id, around.length === 0 ? (place.get(id) ?? 0) : mean];
        }),
      );
      row.sort((x, y) => (pull.get(x) ?? 0) - (pull.get(y) ?? 0));
      note(row);
    }
  }
}

/** Joins a row to the one above it where nothing links the two and they fit beside each other. */
function mergeRows(
  rows: string[][],
  near: ReadonlyMap<string, readonly string[]>,
  fits: (row: string[]) => boolean,
): string[][] {
  const merged: string[][] = [];
  for (const row of rows) {
    const above = merged.at(-1);
    const linked = above?.some((id) => near.get(id)?.some((other) => row.includes(other)) === true) ?? true;
    if (above !== undefined && !linked && fits([...above, ...row])) above.push(...row);
    else merged.push([...row]);
  }
  return merged;
}

function arrange(
  key: string,
  nodes: readonly GraphNode[],
  graph: CablingGraph,
  tiers: ReadonlyMap<string, number>,
  sizes: ReadonlyMap<string, Size>,
  widest: number,
): Arranged {
  const byTier = new Map<number, string[]>();
  for (const node of [...nodes].sort((a, b) => compareNames(a.name, b.name))) {
    const tier = tiers.get(node.id) ?? 0;
    byTier.set(tier, [...(byTier.get(tier) ?? []), node.id]);
  }
  const near = new Map<string, string[]>();
  for (const link of graph.links) {
    if (link.management) continue;
    near.set(link.a, [...(near.get(link.a) ?? []), link.b]);
    near.set(link.b, [...(near.get(link.b) ?? []), link.a]);
  }
  const widthOf = (id: string): number => sizes.get(id)?.width ?? 0;
  const gapBetween = (left: string, right: string): number =>
    near.get(left)?.includes(right) === true ? pairGap : columnGap;
  const tierRows = mergeRows(
    [...byTier.entries()].sort((a, b) => a[0] - b[0]).map(([, ids]) => ids),
    near,
    (row) => row.reduce((sum, id) => sum + widthOf(id) + columnGap, 0) <= widest,
  );
  orderRows(tierRows, near);
  const rows: string[][] = [];
  for (const tierRow of tierRows) {
    let row: string[] = [];
    let width = 0;
    for (const id of tierRow) {
      if (row.length > 0 && width + widthOf(id) > widest) {
        rows.push(row);
        row = [];
        width = 0;
      }
      row.push(id);
      width += widthOf(id) + columnGap;
    }
    rows.push(row);
  }
  const rowWidth = (row: readonly string[]): number =>
    row.reduce((sum, id, at) => sum + widthOf(id) + (at === 0 ? 0 : gapBetween(row[at - 1] ?? '', id)), 0);
  const width = Math.max(96, ...rows.map(rowWidth));
  const rowOf = new Map(rows.flatMap((row, at) => row.map((id) => [id, at] as const)));
  const at = new Map<string, Point>();
  let y = titleHeight + padding;
  rows.forEach((row, index) => {
    let x = padding + snap((width - rowWidth(row)) / 2);
    row.forEach((id, spot) => {
      at.set(id, { x, y });
      const next = row[spot + 1];
      x += widthOf(id) + (next === undefined ? 0 : gapBetween(id, next));
    });
    const turning = graph.links.filter((link) => {
      const from = Math.min(rowOf.get(link.a) ?? rows.length, rowOf.get(link.b) ?? rows.length);
      const to = Math.max(rowOf.get(link.a) ?? rows.length, rowOf.get(link.b) ?? rows.length);
      return (from === index && to > index) || (to === index + 1 && from <= index);
    }).length;
    const tallest = Math.max(...row.map((id) => sizes.get(id)?.height ?? 0));
    const reach =
      Math.max(...row.map((id) => sizes.get(id)?.reachDown ?? 0)) +
      Math.max(0, ...(rows[index + 1] ?? []).map((id) => sizes.get(id)?.reachUp ?? 0));
    y += tallest + (index === rows.length - 1 ? 0 : up(reach + 32 + Math.min(18, turning * 0.5) * grid));
  });
  const tier = nodes.reduce((sum, node) => sum + (tiers.get(node.id) ?? 0), 0) / nodes.length;
  const outside = nodes.every((node) => node.outside) ? 100 : 0;
  return { key, tier: tier + outside, size: { width: up(width + 2 * padding), height: up(y + padding) }, at };
}

/**
 * Positions for all plates: rows by tier inside each place, places on shelves by their mean tier, so that the
 * whole is about 1.6 times as wide as high. Plates never overlap.
 */
export function placePlates(
  graph: CablingGraph,
  tiers: ReadonlyMap<string, number>,
  sizes: ReadonlyMap<string, Size>,
): Map<string, Point> {
  const byPlace = new Map<string, GraphNode[]>();
  for (const node of graph.nodes) {
    const key = node.placeId ?? '';
    byPlace.set(key, [...(byPlace.get(key) ?? []), node]);
  }
  const area = graph.nodes.reduce((sum, node) => {
    const size = sizes.get(node.id);
    return (
      sum +
      ((size?.width ?? 0) + columnGap) *
        ((size?.height ?? 0) + (size?.reachUp ?? 0) + (size?.reachDown ?? 0) + 64)
    );
  }, 0);
  const widest = Math.max(720, Math.sqrt(area * 4));
  const blocks = [...byPlace.entries()].map(([key, nodes]) =>
    arrange(key, nodes, graph, tiers, sizes, widest),
  );
  blocks.sort((a, b) => a.tier - b.tier);

  const shelves: Arranged[][] = [];
  let width = 0;
  for (const block of blocks) {
    const shelf = shelves.at(-1);
    const tallest = Math.max(0, ...(shelf ?? []).map((other) => other.size.height));
    if (shelf === undefined || width + block.size.width > widest * 1.25 || block.size.height * 2 < tallest) {
      shelves.push([block]);
      width = block.size.width + containerGap;
    } else {
      shelf.push(block);
      width += block.size.width + containerGap;
    }
  }
  const shelfWidth = (shelf: readonly Arranged[]): number =>
    shelf.reduce((sum, block) => sum + block.size.width, (shelf.length - 1) * containerGap);
  const full = Math.max(0, ...shelves.map(shelfWidth));
  const positions = new Map<string, Point>();
  let y = 0;
  for (const shelf of shelves) {
    let x = snap((full - shelfWidth(shelf)) / 2);
    for (const block of shelf) {
      for (const [id, point] of block.at) positions.set(id, { x: x + point.x, y: y + point.y });
      x += block.size.width + containerGap;
    }
    y += Math.max(...shelf.map((block) => block.size.height)) + containerGap;
  }
  return positions;
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

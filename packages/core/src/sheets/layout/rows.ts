import { compareNames } from '../../model/values/order.ts';
import { grid, padding, snap, up, type Block, type Measures } from './lattice.ts';
import type { Point } from '../scene/scene.ts';
import type { GraphNode, SheetGraph } from '../graph/sheetGraph.ts';
import { loopRows, smallestRing, stringsOf, strung } from './strings.ts';

const columnGap = 48;

/**
 * Orders each row by the mean position of what its plates connect to, a few times down and up; plates that hang on
 * each other one after the other stay beside each other.
 */
function orderRows(rows: string[][], near: ReadonlyMap<string, readonly string[]>): void {
  const place = new Map<string, number>();
  const note = (row: readonly string[]): void =>
    row.forEach((id, at) => place.set(id, (at + 0.5) / row.length));
  rows.forEach(note);
  const strings = new Map(rows.map((row) => [row, stringsOf(row, near)]));
  for (let sweep = 0; sweep < 6; sweep++) {
    for (const row of sweep % 2 === 0 ? rows : [...rows].reverse()) {
      const pull = new Map(
        row.map((id) => {
          const around = (near.get(id) ?? []).filter((other) => !row.includes(other) && place.has(other));
          const mean = around.reduce((sum, other) => sum + (place.get(other) ?? 0), 0) / (around.length || 1);
          return [id, around.length === 0 ? (place.get(id) ?? 0) : mean];
        }),
      );
      const order = strung(row, strings.get(row) ?? [], (id) => pull.get(id) ?? 0);
      row.splice(0, row.length, ...order);
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

/** The row, and after it the rings among its plates, each as two rows. */
function looped(row: readonly string[], near: ReadonlyMap<string, readonly string[]>): string[][] {
  const rings = stringsOf(row, near).filter((one) => one.ring && one.ids.length >= smallestRing);
  const ringed = new Set(rings.flatMap((one) => one.ids));
  const others = row.filter((id) => !ringed.has(id));
  return [...(others.length > 0 ? [others] : []), ...rings.flatMap((one) => loopRows(one.ids))];
}

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

/** Plates of one container in rows by tier, ordered so that few links cross; the corner of the block is 0, 0. */
export function arrangeRows(
  nodes: readonly GraphNode[],
  links: SheetGraph['links'],
  near: ReadonlyMap<string, readonly string[]>,
  tiers: ReadonlyMap<string, number>,
  { sizes, pairGap }: Measures,
  widest: number,
): Block {
  const byTier = new Map<number, string[]>();
  for (const node of [...nodes].sort((a, b) => compareNames(a.name, b.name))) {
    const tier = tiers.get(node.id) ?? 0;
    byTier.set(tier, [...(byTier.get(tier) ?? []), node.id]);
  }
  const widthOf = (id: string): number => sizes.get(id)?.width ?? 0;
  const gapBetween = (left: string, right: string): number =>
    near.get(left)?.includes(right) === true ? pairGap(left, right) : columnGap;
  const tierRows = mergeRows(
    [...byTier.entries()].sort((a, b) => a[0] - b[0]).flatMap(([, ids]) => looped(ids, near)),
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
  const width = Math.max(48, ...rows.map(rowWidth));
  const rowOf = new Map(rows.flatMap((row, at) => row.map((id) => [id, at] as const)));
  const at = new Map<string, Point>();
  // Labels of the first and last row stand inside the outline and below its title.
  const beyond = (reach: number): number => up(Math.max(0, reach - padding));
  let y = beyond(Math.max(0, ...(rows[0] ?? []).map((id) => sizes.get(id)?.reachUp ?? 0)));
  rows.forEach((row, index) => {
    let x = snap((width - rowWidth(row)) / 2);
    row.forEach((id, spot) => {
      at.set(id, { x, y });
      const next = row[spot + 1];
      x += widthOf(id) + (next === undefined ? 0 : gapBetween(id, next));
    });
    const turning = links.filter((link) => {
      const from = Math.min(rowOf.get(link.a) ?? rows.length, rowOf.get(link.b) ?? rows.length);
      const to = Math.max(rowOf.get(link.a) ?? rows.length, rowOf.get(link.b) ?? rows.length);
      return (from === index && to > index) || (to === index + 1 && from <= index);
    }).length;
    const tallest = Math.max(...row.map((id) => sizes.get(id)?.height ?? 0));
    const reach =
      Math.max(...row.map((id) => sizes.get(id)?.reachDown ?? 0)) +
      Math.max(0, ...(rows[index + 1] ?? []).map((id) => sizes.get(id)?.reachUp ?? 0));
    // The lozenge that names a circuit needs room between the rows, the more where it has to stand upright; the text of
    // a subnet stands along its link.
    const namedGap = nodes.some((node) => node.form === 'place') ? 112 : 40;
    const touching = links.filter((link) => row.includes(link.a) || row.includes(link.b));
    const downward = (link: (typeof links)[number]): boolean =>
      Math.max(rowOf.get(link.a) ?? rows.length, rowOf.get(link.b) ?? rows.length) > index;
    const told = touching.some(
      (link) => downward(link) && link.cables[0]?.kind === 'prefix' && link.text !== '',
    );
    const named = touching.some((link) => link.medium === 'circuit');
    const forNames = told ? 104 : named ? namedGap : 0;
    y +=
      tallest +
      (index === rows.length - 1
        ? beyond(Math.max(0, ...row.map((id) => sizes.get(id)?.reachDown ?? 0)))
        : up(reach + 32 + forNames + Math.min(18, turning * 0.5) * grid));
  });
  const tier = nodes.reduce((sum, node) => sum + (tiers.get(node.id) ?? 0), 0) / Math.max(1, nodes.length);
  const outside = nodes.every((node) => node.outside && node.form !== 'provider') ? 100 : 0;
  return { tier: tier + outside, width: up(width), height: up(y), at };
}

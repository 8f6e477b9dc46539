import { labelSize } from './ends.ts';
import { grid, up, type Size } from './lattice.ts';
import type { PlateWish } from '../scene/drawingPlan.ts';
import type { TextMeasure } from './textMeasure.ts';
import type { GraphNode, SheetGraph } from '../graph/sheetGraph.ts';
import type { Bundle } from './bundles.ts';

export const tabWidth = 24;
export const nameSize = 13;
export const lineSize = 11;

/** Panels lead on and do nothing: they are bars of one line, lighter than what they join. */
export const isThin = ({ role, form }: Pick<GraphNode, 'role' | 'form'>): boolean =>
  role === 'PP' && form === 'device';
const thinHeight = 24;
/** A plate is made so wide, and no wider, for the labels on one side of it to be level. */
const widestLevel = 320;
/** Between the name of a thin plate and each text after it. */
export const thinGap = 8;

/** The widest count that stands where a bundle leaves its hub. */
const countText = '×99';

/** Room between two linked plates beside each other that hold short labels, or none. */
const leastPairGap = 136;

/** The room that each pair of linked plates needs between them, so that the labels of either end do not meet. */
export function pairGaps(graph: SheetGraph, measure: TextMeasure): (left: string, right: string) => number {
  const ends = new Map<string, { low: number; high: number }>();
  const key = (a: string, b: string): string => (a < b ? `${a} ${b}` : `${b} ${a}`);
  for (const link of graph.links) {
    const widest = ends.get(key(link.a, link.b)) ?? { low: 0, high: 0 };
    const [low, high] = link.a < link.b ? [link.aPort, link.bPort] : [link.bPort, link.aPort];
    widest.low = Math.max(widest.low, measure(low, 'mono', labelSize));
    widest.high = Math.max(widest.high, measure(high, 'mono', labelSize));
    ends.set(key(link.a, link.b), widest);
  }
  return (left, right) => {
    const { low, high } = ends.get(key(left, right)) ?? { low: 0, high: 0 };
    return Math.max(leastPairGap, up(low + 24) + up(high + 24) + 3 * grid);
  };
}

interface Ends {
  up: number[];
  down: number[];
  level: number;
}

/** Plates are as large as their text, and wide enough for the labelled ends of their links side by side. */
export function plateSizes(
  graph: SheetGraph,
  bands: ReadonlyMap<string, number>,
  wishes: ReadonlyMap<string, PlateWish>,
  measure: TextMeasure,
  bundles: readonly Bundle[] = [],
): Map<string, Size> {
  const counted = new Map<string, 'first' | 'other'>();
  for (const { links, ends } of bundles)
    links.forEach(({ id }, at) => counted.set(`${id}|${ends.get(id) ?? 'a'}`, at === 0 ? 'first' : 'other'));
  const sides = new Map<string, Ends>();
  const at = (id: string): Ends => {
    const found = sides.get(id) ?? { up: [], down: [], level: 0 };
    sides.set(id, found);
    return found;
  };
  let labelled = false;
  const widthOf = (text: string): number => {
    if (text === '') return 16;
    labelled = true;
    return measure(text, 'mono', labelSize) + 12;
  };
  for (const link of graph.links) {
    const difference = (bands.get(link.b) ?? 0) - (bands.get(link.a) ?? 0);
    for (const end of ['a', 'b'] as const) {
      const drawn = counted.get(`${link.id}|${end}`);
      if (drawn === 'other') continue;
      const text = end === 'a' ? link.aPort : link.bPort;
      const own = at(link[end]);
      if (difference === 0) own.level++;
      else
        own[difference > 0 === (end === 'a') ? 'down' : 'up'].push(
          widthOf(drawn === 'first' ? countText : text),
        );
    }
  }
  /** How far down the names of far ends reach that are not on the sheet. */
  const stubReach = new Map<string, number>();
  for (const stub of graph.stubs) {
    at(stub.a).down.push(widthOf(stub.aPort));
    const own = widthOf(stub.aPort) + measure(stub.text, 'mono', labelSize) + 3 * grid;
    stubReach.set(stub.a, Math.max(stubReach.get(stub.a) ?? 0, up(own)));
  }
  /** The width of a side with its labels level, or upright where there would be too many. */
  const levelRoom = (widths: readonly number[]): number =>
    widths.reduce((sum, width) => sum + up(Math.max(16, width)), 0);
  const room = (widths: readonly number[]): number =>
    levelRoom(widths) <= widestLevel ? levelRoom(widths) + 16 : widths.length * 16 + 16;
  const sizes = new Map<string, Size>();
  for (const node of graph.nodes) {
    const many = node.form === 'fold' || node.form === 'pair';
    const thin = isThin(node);
    const name = measure(node.name, 'textStrong', nameSize);
    const lines = node.lines.map((line) => measure(line, 'mono', lineSize));
    const text = thin
      ? lines.reduce((sum, line) => sum + thinGap + line, name)
      : Math.max(name + (many ? 34 : 0), ...lines);
    const ends = sides.get(node.id);
    const width = Math.max(
      node.form === 'place'
        ? 160
        : node.form === 'subnet' && node.border === undefined
          ? node.picks === undefined
            ? 240
            : 176
          : 112,
      text + tabWidth + 24,
      room(ends?.up ?? []),
      room(ends?.down ?? []),
    );
    const height = Math.max(
      thin ? thinHeight : Math.max(32, (node.form === 'subnet' ? 32 : 24) + 16 * node.lines.length),
      16 * Math.min(6, ends?.level ?? 0) + (thin ? 8 : 16),
    );
    const reach = (widths: readonly number[]): number => {
      if (widths.length === 0) return 0;
      if (!labelled) return 2 * grid;
      const turned = widths.length > 1 && room(widths) < levelRoom(widths);
      return turned ? up(Math.max(...widths) + 8) : 3 * grid;
    };
    const wish = wishes.get(node.id);
    sizes.set(node.id, {
      width: up((wish?.width ?? width) / 2) * 2,
      height: up(wish?.height ?? height),
      reachUp: reach(ends?.up ?? []),
      reachDown: Math.max(
        reach(ends?.down ?? []),
        (ends?.level ?? 0) > 0 ? 3 * grid : 0,
        stubReach.get(node.id) ?? 0,
      ),
    });
  }
  return sizes;
}

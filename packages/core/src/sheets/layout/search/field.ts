import type { SheetGraph } from '../../graph/sheetGraph.ts';
import type { Size } from '../lattice.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { max, min } = Math;

/** All links between two plates as one: what the search weighs. */
export interface Pull {
  a: number;
  b: number;
  /** How many, up to three. */
  weight: number;
  management: boolean;
}

const mostWeight = 3;
/** A line nearer to the edge of a box than this is not in it. */
const edge = 4;

/**
 * The plates of a sheet as numbers, where they stand, and the straight lines between those that are linked: what the
 * search for a good arrangement computes with, again and again.
 */
export class Field {
  readonly ids: string[];
  readonly of: ReadonlyMap<string, number>;
  readonly sizes: Size[];
  readonly bands: number[];
  readonly providers: boolean[];
  readonly pulls: Pull[];
  /** Of each plate, its pulls. */
  readonly pullsOf: number[][];
  /** Where each plate stands on the sheet. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  private readonly wide: Float64Array;
  private readonly high: Float64Array;
  /** The line of each pull from its upper to its lower end. */
  readonly x1: Float64Array;
  readonly y1: Float64Array;
  readonly x2: Float64Array;
  readonly y2: Float64Array;
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly weights: Float64Array;

  constructor(graph: SheetGraph, bands: ReadonlyMap<string, number>, sizes: ReadonlyMap<string, Size>) {
    this.ids = graph.nodes.map(({ id }) => id);
    this.of = new Map(this.ids.map((id, at) => [id, at]));
    this.sizes = this.ids.map((id) => sizes.get(id) ?? { width: 112, height: 32, reachUp: 0, reachDown: 0 });
    this.bands = this.ids.map((id) => bands.get(id) ?? 0);
    this.providers = graph.nodes.map(({ form }) => form === 'provider');
    const byPair = new Map<string, Pull>();
    for (const link of graph.links) {
      const [a, b] = [this.of.get(link.a), this.of.get(link.b)];
      if (a === undefined || b === undefined || a === b) continue;
      const key = a < b ? `${a} ${b}` : `${b} ${a}`;
      const found = byPair.get(key);
      if (found === undefined) byPair.set(key, { a, b, weight: 1, management: link.management });
      else {
        found.weight = min(mostWeight, found.weight + 1);
        found.management &&= link.management;
      }
    }
    this.pulls = [...byPair.values()];
    this.pullsOf = this.ids.map(() => []);
    this.pulls.forEach(({ a, b }, at) => {
      this.pullsOf[a]?.push(at);
      this.pullsOf[b]?.push(at);
    });
    const plates = this.ids.length;
    this.x = new Float64Array(plates);
    this.y = new Float64Array(plates);
    this.wide = Float64Array.from(this.sizes, ({ width }) => width);
    this.high = Float64Array.from(this.sizes, ({ height }) => height);
    const count = this.pulls.length;
    this.x1 = new Float64Array(count);
    this.y1 = new Float64Array(count);
    this.x2 = new Float64Array(count);
    this.y2 = new Float64Array(count);
    this.from = Int32Array.from(this.pulls, ({ a }) => a);
    this.to = Int32Array.from(this.pulls, ({ b }) => b);
    this.weights = Float64Array.from(this.pulls, ({ weight }) => weight);
  }

  /** Works out the line of a pull from where its plates stand. */
  draw(pull: number): void {
    const a = this.from[pull] ?? 0;
    const b = this.to[pull] ?? 0;
    const { x, y, wide, high } = this;
    const ax = (x[a] ?? 0) + (wide[a] ?? 0) / 2;
    const bx = (x[b] ?? 0) + (wide[b] ?? 0) / 2;
    const ay = y[a] ?? 0;
    const by = y[b] ?? 0;
    const ah = high[a] ?? 0;
    const bh = high[b] ?? 0;
    const level = ay < by + bh && by < ay + ah;
    if (level ? by + bh / 2 < ay + ah / 2 : by + bh <= ay) {
      this.x1[pull] = bx;
      this.y1[pull] = by + (level ? bh / 2 : bh);
      this.x2[pull] = ax;
      this.y2[pull] = ay + (level ? ah / 2 : 0);
    } else {
      this.x1[pull] = ax;
      this.y1[pull] = ay + (level ? ah / 2 : ah);
      this.x2[pull] = bx;
      this.y2[pull] = by + (level ? bh / 2 : 0);
    }
  }

  /** What it costs that the lines of two pulls cross: nothing where they share a plate. */
  crossing(i: number, j: number): number {
    const { from, to, x1, x2, y1, y2 } = this;
    const a = from[i];
    const b = to[i];
    if (a === from[j] || a === to[j] || b === from[j] || b === to[j]) return 0;
    const iy1 = y1[i] ?? 0;
    const iy2 = y2[i] ?? 0;
    const jy1 = y1[j] ?? 0;
    const jy2 = y2[j] ?? 0;
    if (iy2 <= jy1 || jy2 <= iy1) return 0;
    const ix1 = x1[i] ?? 0;
    const ix2 = x2[i] ?? 0;
    const jx1 = x1[j] ?? 0;
    const jx2 = x2[j] ?? 0;
    if (
      (ix1 > ix2 ? ix1 : ix2) < (jx1 < jx2 ? jx1 : jx2) ||
      (jx1 > jx2 ? jx1 : jx2) < (ix1 < ix2 ? ix1 : ix2)
    )
      return 0;
    const d1 = (jx2 - jx1) * (iy1 - jy1) - (jy2 - jy1) * (ix1 - jx1);
    const d2 = (jx2 - jx1) * (iy2 - jy1) - (jy2 - jy1) * (ix2 - jx1);
    if (d1 * d2 >= 0) return 0;
    const d3 = (ix2 - ix1) * (jy1 - iy1) - (iy2 - iy1) * (jx1 - ix1);
    const d4 = (ix2 - ix1) * (jy2 - iy1) - (iy2 - iy1) * (jx2 - ix1);
    return d3 * d4 < 0 ? (this.weights[i] ?? 1) * (this.weights[j] ?? 1) : 0;
  }

  /** Whether the line of a pull runs through a box, kept a little away from its edges. */
  runsIn(pull: number, left: number, top: number, width: number, height: number): boolean {
    const px = this.x1[pull] ?? 0;
    const py = this.y1[pull] ?? 0;
    const qx = this.x2[pull] ?? 0;
    const qy = this.y2[pull] ?? 0;
    const x0 = left + edge;
    const x1 = left + width - edge;
    const y0 = top + edge;
    const y1 = top + height - edge;
    if ((px > qx ? px : qx) < x0 || (px < qx ? px : qx) > x1 || qy < y0 || py > y1) return false;
    const dx = qx - px;
    const dy = qy - py;
    let enter = 0;
    let leave = 1;
    if (dy > 0) {
      enter = max(enter, (y0 - py) / dy);
      leave = min(leave, (y1 - py) / dy);
    }
    if (dx !== 0) {
      const [near, far] = dx > 0 ? [x0, x1] : [x1, x0];
      enter = max(enter, (near - px) / dx);
      leave = min(leave, (far - px) / dx);
    }
    return leave > enter;
  }
}

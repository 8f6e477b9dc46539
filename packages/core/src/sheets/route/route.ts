import { grid } from '../layout/lattice.ts';
import type { Box, Point } from '../scene/scene.ts';

/** What it costs, in lattice steps, to turn, and to lie on another link. */
const turnCost = 5;
const shareCost = 40;
const besideCost = 0.15;
const marginCells = 6;
/**
 * Above 1 the search heads for the goal: far fewer cells looked at, routes hardly longer. The further it is, the
 * more lanes lie between, the more so.
 */
const eagernessFor = (distance: number): number => Math.min(3, 1.25 + distance / 150);

/** After this many cells a link is routed without regard to the others, which is quick and still passes through no plate. */
export const mostLooked = 40_000;

/** A binary heap of states by cost, in arrays that are kept from one search to the next. */
class Frontier {
  private states = new Int32Array(1 << 14);
  private costs = new Float32Array(1 << 14);
  private size = 0;

  clear(): void {
    this.size = 0;
  }

  push(state: number, cost: number): void {
    if (this.size === this.states.length) {
      const [states, costs] = [this.states, this.costs];
      this.states = new Int32Array(2 * this.size);
      this.costs = new Float32Array(2 * this.size);
      this.states.set(states);
      this.costs.set(costs);
    }
    const { states, costs } = this;
    let at = this.size++;
    while (at > 0) {
      const above = (at - 1) >> 1;
      const there = costs[above] ?? 0;
      if (there <= cost) break;
      states[at] = states[above] ?? 0;
      costs[at] = there;
      at = above;
    }
    states[at] = state;
    costs[at] = cost;
  }

  /** The cheapest state; -1 when there is none. */
  pop(): number {
    if (this.size === 0) return -1;
    const { states, costs } = this;
    const top = states[0] ?? -1;
    const size = --this.size;
    const state = states[size] ?? 0;
    const cost = costs[size] ?? 0;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= size) break;
      if (below + 1 < size && (costs[below + 1] ?? 0) < (costs[below] ?? 0)) below++;
      const there = costs[below] ?? 0;
      if (there >= cost) break;
      states[at] = states[below] ?? 0;
      costs[at] = there;
      at = below;
    }
    states[at] = state;
    costs[at] = cost;
    return top;
  }
}

const steps = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 0, y: -1 },
];

/**
 * Routes links one after another over a lattice: horizontal and vertical pieces that never pass through a
 * plate or an end label, keep off links already drawn, cross few of them and turn little (A* over cell and heading).
 */
export class Router {
  private readonly left: number;
  private readonly top: number;
  private readonly columns: number;
  private readonly rows: number;
  /** From a cell to the next one in each heading. */
  private readonly strides: readonly number[];
  private readonly blocked: Uint8Array;
  /** Links that already run across and up and down through a cell. */
  private readonly across: Int16Array;
  private readonly upDown: Int16Array;
  private readonly cost: Float32Array;
  private readonly from: Int32Array;
  private readonly stamp: Int32Array;
  private readonly frontier = new Frontier();
  private round = 0;
  /** Cells of each routed link, so that it can be taken up again. */
  private readonly paths = new Map<string, number[]>();

  /** `crossCost` is what it costs, in lattice steps, to cross another link. */
  constructor(
    area: Box,
    private readonly crossCost: number,
  ) {
    this.left = Math.floor(area.x / grid) - marginCells;
    this.top = Math.floor(area.y / grid) - marginCells;
    this.columns = Math.ceil(area.width / grid) + 2 * marginCells + 1;
    this.rows = Math.ceil(area.height / grid) + 2 * marginCells + 1;
    this.strides = [1, this.columns, -1, -this.columns];
    const cells = this.columns * this.rows;
    this.blocked = new Uint8Array(cells);
    this.across = new Int16Array(cells);
    this.upDown = new Int16Array(cells);
    this.cost = new Float32Array(cells * 4);
    this.from = new Int32Array(cells * 4);
    this.stamp = new Int32Array(cells * 4);
  }

  private cellOf(point: Point): number {
    const column = Math.max(0, Math.min(this.columns - 1, Math.round(point.x / grid) - this.left));
    const row = Math.max(0, Math.min(this.rows - 1, Math.round(point.y / grid) - this.top));
    return row * this.columns + column;
  }

  private pointOf(cell: number): Point {
    return {
      x: ((cell % this.columns) + this.left) * grid,
      y: (Math.floor(cell / this.columns) + this.top) * grid,
    };
  }

  /** Closes a box and a margin around it to all links. */
  block(box: Box, margin = 0): void {
    const fromColumn = Math.max(0, Math.ceil((box.x - margin) / grid) - this.left);
    const toColumn = Math.min(this.columns - 1, Math.floor((box.x + box.width + margin) / grid) - this.left);
    const fromRow = Math.max(0, Math.ceil((box.y - margin) / grid) - this.top);
    const toRow = Math.min(this.rows - 1, Math.floor((box.y + box.height + margin) / grid) - this.top);
    for (let row = fromRow; row <= toRow; row++) {
      this.blocked.fill(1, row * this.columns + fromColumn, row * this.columns + toColumn + 1);
    }
  }

  /** Opens the cell where a link begins or ends. */
  open(point: Point): void {
    this.blocked[this.cellOf(point)] = 0;
  }

  /** Notes a drawn piece, so that later links keep off it; a step of -1 takes it up again. */
  private occupy(cells: readonly number[], step: 1 | -1): void {
    for (let at = 1; at < cells.length; at++) {
      const here = cells[at] ?? 0;
      const before = cells[at - 1] ?? 0;
      const lane = Math.abs(here - before) === 1 ? this.across : this.upDown;
      lane[here] = (lane[here] ?? 0) + step;
      lane[before] = (lane[before] ?? 0) + step;
    }
  }

  /** Whether a link lies on another for more than a step. */
  private lies(cells: readonly number[]): boolean {
    let together = 0;
    for (let at = 1; at < cells.length - 1; at++) {
      const here = cells[at] ?? 0;
      const sideways = Math.abs(here - (cells[at - 1] ?? 0)) === 1;
      // Each cell inside a straight piece was counted twice for the link itself.
      const straight = Math.abs((cells[at + 1] ?? 0) - here) === Math.abs(here - (cells[at - 1] ?? 0));
      const own = straight ? 2 : 1;
      const lane = sideways ? this.across : this.upDown;
      together = (lane[here] ?? 0) > own ? together + 1 : 0;
      if (together > 1) return true;
    }
    return false;
  }

  /** Of these links, those that lie on another. */
  clashing(ids: Iterable<string>): string[] {
    return [...ids].filter((id) => this.lies(this.paths.get(id) ?? []));
  }

  /** Takes up a link, to be routed again now that all others are known. */
  takeUp(id: string): void {
    const cells = this.paths.get(id);
    if (cells === undefined) return;
    this.occupy(cells, -1);
    this.paths.delete(id);
  }

  /** Notes a path that was made by hand, over these corners, so that others keep off it. */
  claim(id: string, points: readonly Point[]): void {
    const cells: number[] = [];
    points.forEach((to, at) => {
      const from = points[at - 1];
      if (from === undefined) return;
      const steps = Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y)) / grid;
      for (let step = 0; step <= steps; step++) {
        const share = steps === 0 ? 0 : step / steps;
        const cell = this.cellOf({
          x: from.x + (to.x - from.x) * share,
          y: from.y + (to.y - from.y) * share,
        });
        if (cells.at(-1) !== cell) cells.push(cell);
      }
    });
    this.occupy(cells, 1);
    this.paths.set(id, cells);
  }

  private stepCost(cell: number, heading: number): number {
    const sideways = heading % 2 === 0;
    const own = sideways ? this.across : this.upDown;
    const other = sideways ? this.upDown : this.across;
    const beside = sideways ? this.columns : 1;
    let cost = 1;
    if ((own[cell] ?? 0) > 0) cost += shareCost;
    if ((other[cell] ?? 0) > 0) cost += this.crossCost;
    if ((own[cell - beside] ?? 0) > 0 || (own[cell + beside] ?? 0) > 0) cost += besideCost;
    return cost;
  }

  /**
   * The points from one stub to another, leaving and arriving in the given headings: keeping off other links where
   * that can be found in reasonable time, never through what is blocked. Null when walled in.
   */
  route(
    id: string,
    start: Point,
    heading: Point,
    goal: Point,
    arriving: Point,
    most = mostLooked,
  ): Point[] | null {
    const cells =
      this.search(start, heading, goal, arriving, true, most) ??
      this.search(start, heading, goal, arriving, false, this.cost.length);
    if (cells === null) return null;
    this.occupy(cells, 1);
    this.paths.set(id, cells);
    return cells.map((cell) => this.pointOf(cell));
  }

  private search(
    start: Point,
    heading: Point,
    goal: Point,
    arriving: Point,
    careful: boolean,
    most: number,
  ): number[] | null {
    const startCell = this.cellOf(start);
    const goalCell = this.cellOf(goal);
    const goalColumn = goalCell % this.columns;
    const goalRow = Math.floor(goalCell / this.columns);
    const startHeading = steps.findIndex((step) => step.x === heading.x && step.y === heading.y);
    const goalHeading = steps.findIndex((step) => step.x === -arriving.x && step.y === -arriving.y);
    const eagerness = eagernessFor(
      Math.abs((startCell % this.columns) - goalColumn) +
        Math.abs(Math.floor(startCell / this.columns) - goalRow),
    );
    const guess = (cell: number): number =>
      eagerness *
      (Math.abs((cell % this.columns) - goalColumn) + Math.abs(Math.floor(cell / this.columns) - goalRow));
    this.round++;
    const { frontier } = this;
    frontier.clear();
    const first = startCell * 4 + startHeading;
    this.cost[first] = 0;
    this.from[first] = -1;
    this.stamp[first] = this.round;
    frontier.push(first, guess(startCell));
    const closed = -this.round;
    let looked = 0;
    for (let state = frontier.pop(); state >= 0; state = frontier.pop()) {
      if (this.stamp[state] === closed) continue;
      const cell = state >> 2;
      const facing = state & 3;
      if (cell === goalCell) return this.finish(state);
      this.stamp[state] = closed;
      if (++looked > most) return null;
      const column = cell % this.columns;
      for (let next = 0; next < 4; next++) {
        if (next === (facing + 2) % 4) continue;
        if ((next === 0 && column === this.columns - 1) || (next === 2 && column === 0)) continue;
        const target = cell + (this.strides[next] ?? 0);
        if (target < 0 || target >= this.blocked.length) continue;
        if (this.blocked[target] === 1 && target !== goalCell) continue;
        const key = target * 4 + next;
        if (this.stamp[key] === closed) continue;
        let cost =
          (this.cost[state] ?? 0) +
          (careful ? this.stepCost(target, next) : 1) +
          (next === facing ? 0 : turnCost);
        if (target === goalCell && next !== goalHeading) cost += turnCost;
        if (this.stamp[key] === this.round && (this.cost[key] ?? 0) <= cost) continue;
        this.stamp[key] = this.round;
        this.cost[key] = cost;
        this.from[key] = state;
        frontier.push(key, cost + guess(target));
      }
    }
    return null;
  }

  private finish(last: number): number[] {
    const cells: number[] = [];
    for (let state = last; state >= 0; state = this.from[state] ?? -1) cells.push(state >> 2);
    return cells.reverse();
  }
}

/** Leaves out the points that lie on a straight line between their neighbours. */
export function corners(points: readonly Point[]): Point[] {
  return points.filter((point, at) => {
    const before = points[at - 1];
    const after = points[at + 1];
    if (before === undefined || after === undefined) return true;
    const flat = before.y === point.y && point.y === after.y;
    const upright = before.x === point.x && point.x === after.x;
    return !flat && !upright;
  });
}

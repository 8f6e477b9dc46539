import { grid } from '../layout/lattice.ts';
import type { Box, Point } from '../scene/scene.ts';
import { Corridors } from './corridor.ts';
import { Frontier } from './frontier.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { abs, ceil, floor, max, min, round } = Math;

/** What it costs, in steps of the lattice, to turn, to cross another line, to lie on one, and to run beside one. */
const turnCost = 8;
const crossCost = 40;
const shareCost = 80;
const besideCost = 0.15;
/** For each step inside a container that the line has no part in. */
const foreignCost = 3;
/** To leave a tree on its way straight on, and sideways. */
const aheadCost = 0.5;
const asideCost = 2;
/** To leave it within a container that the rest has no part in. */
const withinCost = 60;
const marginCells = 6;
/** Further than this, in cells, a way is sought on a coarse map first. */
const farAway = 120;
/**
 * Above 1 the search heads for the goal: far fewer cells looked at, ways hardly longer. The further it is, the more
 * lanes lie between, the more so.
 */
const eagernessFor = (distance: number): number => min(3, 1.3 + distance / 250);

/** After this many cells a line is led without regard to the others, which is quick and still passes through no plate. */
export const mostLooked = 40_000;

const steps = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 0, y: -1 },
];
const headingOf = (way: Point): number => steps.findIndex((step) => step.x === way.x && step.y === way.y);

/** With regard to other lines, without, or, where all else fails, also over labels and titles. */
type Way = 'careful' | 'quick' | 'through labels';

/** One way to be found: from a stub that is left in a heading to another. */
export interface Leg {
  id: string;
  start: Point;
  /** The direction in which the plate is left. */
  heading: Point;
  goal: Point;
  /** The direction in which the other plate would be left. */
  arriving: Point;
  /** The containers that it has a part in. */
  zones: readonly number[];
  /** Both its plates stand in one of them: it need not leave that. */
  inside: boolean;
}

/** What is laid of a line: of a bundle, each leg from where it leaves those before. */
export interface Laid {
  pieces: number[][];
  /** The whole way of each leg, from its start. */
  ways: Map<string, number[]>;
}
const nothing = (): Laid => ({ pieces: [], ways: new Map() });

/**
 * Leads lines over a lattice: level and upright pieces that never pass through a plate or an end label, keep off lines
 * already laid, cross few of them and turn little (A* over cell and heading). A bundle is one line with several goals:
 * a tree, each leg found from all cells of the tree so far (Steiner's problem, greedily).
 */
export class Router {
  private readonly left: number;
  private readonly top: number;
  private readonly columns: number;
  private readonly rows: number;
  /** From a cell to the next one in each heading. */
  private readonly strides: readonly number[];
  /** How many boxes close a cell. */
  private readonly closed: Uint8Array;
  private readonly opened: Uint8Array;
  /** Cells within plates, which no line passes whatever happens. */
  private readonly solid: Uint8Array;
  /** The innermost container of each cell, counted from 1. */
  private readonly zone: Uint16Array;
  private zones = 0;
  /** Which containers the line that is led has no part in. */
  private foreign = new Uint8Array(1);
  /** Lines that already run across and up and down through a cell. */
  private readonly across: Int16Array;
  private readonly upDown: Int16Array;
  private readonly ownAcross: Int16Array;
  private readonly ownUpDown: Int16Array;
  private readonly cost: Float32Array;
  private readonly from: Int32Array;
  private readonly stamp: Int32Array;
  private readonly frontier = new Frontier();
  private corridors: Corridors | null = null;
  private round = 0;
  private readonly lines = new Map<string, Laid>();
  /** States looked at so far, in all: what the work is measured by. */
  looked = 0;

  constructor(area: Box) {
    this.left = floor(area.x / grid) - marginCells;
    this.top = floor(area.y / grid) - marginCells;
    this.columns = ceil(area.width / grid) + 2 * marginCells + 1;
    this.rows = ceil(area.height / grid) + 2 * marginCells + 1;
    this.strides = [1, this.columns, -1, -this.columns];
    const cells = this.columns * this.rows;
    this.closed = new Uint8Array(cells);
    this.opened = new Uint8Array(cells);
    this.solid = new Uint8Array(cells);
    this.zone = new Uint16Array(cells);
    this.across = new Int16Array(cells);
    this.upDown = new Int16Array(cells);
    this.ownAcross = new Int16Array(cells);
    this.ownUpDown = new Int16Array(cells);
    this.cost = new Float32Array(cells * 4);
    this.from = new Int32Array(cells * 4);
    this.stamp = new Int32Array(cells * 4);
  }

  private cellOf(point: Point): number {
    const column = max(0, min(this.columns - 1, round(point.x / grid) - this.left));
    const row = max(0, min(this.rows - 1, round(point.y / grid) - this.top));
    return row * this.columns + column;
  }

  private pointOf(cell: number): Point {
    return {
      x: ((cell % this.columns) + this.left) * grid,
      y: (floor(cell / this.columns) + this.top) * grid,
    };
  }

  private *rowsIn(box: Box, margin: number): Generator<[from: number, to: number]> {
    const fromColumn = max(0, ceil((box.x - margin) / grid) - this.left);
    const toColumn = min(this.columns - 1, floor((box.x + box.width + margin) / grid) - this.left);
    const fromRow = max(0, ceil((box.y - margin) / grid) - this.top);
    const toRow = min(this.rows - 1, floor((box.y + box.height + margin) / grid) - this.top);
    if (fromColumn > toColumn) return;
    for (let row = fromRow; row <= toRow; row++)
      yield [row * this.columns + fromColumn, row * this.columns + toColumn + 1];
  }

  /** Closes a box and a margin around it to all lines; `by` -1 takes that back. */
  block(box: Box, margin = 0, by: 1 | -1 = 1): void {
    for (const [from, to] of this.rowsIn(box, margin))
      for (let cell = from; cell < to; cell++) this.closed[cell] = (this.closed[cell] ?? 0) + by;
  }

  /** Closes a plate, and what is right beside it. */
  blockPlate(box: Box): void {
    this.block(box, grid);
    for (const [from, to] of this.rowsIn(box, 0)) this.solid.fill(1, from, to);
  }

  /** Opens the cell where a line begins or ends, whatever closes it; or closes it again. */
  open(point: Point, open = true): void {
    this.opened[this.cellOf(point)] = open ? 1 : 0;
  }

  /** Notes a container, those inside others after them; gives the number by which `only` knows it. */
  enclose(box: Box): number {
    this.zones++;
    for (const [from, to] of this.rowsIn(box, 0)) this.zone.fill(this.zones, from, to);
    this.foreign = new Uint8Array(this.zones + 1);
    return this.zones;
  }

  /** Notes where the next line has a part in. */
  private only({ zones, inside }: Leg): void {
    this.foreign.fill(1);
    this.foreign[0] = inside ? 1 : 0;
    for (const zone of zones) this.foreign[zone] = 0;
  }

  /** Notes a laid piece, so that later lines keep off it; a step of -1 takes it up again. */
  private occupy(cells: readonly number[], step: 1 | -1, across = this.across, upDown = this.upDown): void {
    for (let at = 1; at < cells.length; at++) {
      const here = cells[at] ?? 0;
      const before = cells[at - 1] ?? 0;
      const lane = abs(here - before) === 1 ? across : upDown;
      lane[here] = (lane[here] ?? 0) + step;
      lane[before] = (lane[before] ?? 0) + step;
    }
  }

  /** What is laid of a line. */
  laid(id: string): Laid {
    return this.lines.get(id) ?? nothing();
  }

  /** Takes up a line, and gives it to be put back or not. */
  takeUp(id: string): Laid {
    const laid = this.laid(id);
    for (const piece of laid.pieces) this.occupy(piece, -1);
    this.lines.delete(id);
    return laid;
  }

  putBack(id: string, laid: Laid): void {
    for (const piece of laid.pieces) this.occupy(piece, 1);
    this.lines.set(id, laid);
  }

  /** Notes a way that was made by hand, over these corners, so that others keep off it. */
  claim(id: string, points: readonly Point[]): void {
    const cells: number[] = [];
    points.forEach((to, at) => {
      const from = points[at - 1];
      if (from === undefined) return;
      const many = max(abs(to.x - from.x), abs(to.y - from.y)) / grid;
      for (let step = 0; step <= many; step++) {
        const share = many === 0 ? 0 : step / many;
        const cell = this.cellOf({
          x: from.x + (to.x - from.x) * share,
          y: from.y + (to.y - from.y) * share,
        });
        if (cells.at(-1) !== cell) cells.push(cell);
      }
    });
    this.putBack(id, { pieces: [cells], ways: new Map() });
  }

  /** How often a line crosses others and lies on them, how often it turns, and what it costs in all. */
  judge(id: string): { crossings: number; shared: number; turns: number; cost: number } {
    const { pieces } = this.laid(id);
    const { across, upDown, ownAcross, ownUpDown } = this;
    for (const piece of pieces) this.occupy(piece, 1, ownAcross, ownUpDown);
    let [crossings, shared, turns, length] = [0, 0, 0, 0];
    for (const piece of pieces) {
      length += piece.length - 1;
      for (let at = 1; at < piece.length; at++) {
        const cell = piece[at] ?? 0;
        const level = abs(cell - (piece[at - 1] ?? 0)) === 1;
        const next = piece[at + 1];
        if (next !== undefined && (abs(next - cell) === 1) !== level) turns++;
        const sameLane = (level ? across[cell] : upDown[cell]) ?? 0;
        const own = (level ? ownAcross[cell] : ownUpDown[cell]) ?? 0;
        if (sameLane > own && next !== undefined) shared++;
        const other = (level ? upDown[cell] : across[cell]) ?? 0;
        const ownOther = (level ? ownUpDown[cell] : ownAcross[cell]) ?? 0;
        if (other > ownOther && next !== undefined) crossings++;
      }
    }
    for (const piece of pieces) this.occupy(piece, -1, ownAcross, ownUpDown);
    return {
      crossings,
      shared,
      turns,
      cost: length + turnCost * turns + crossCost * crossings + shareCost * shared,
    };
  }

  /** Whether two lines cross. */
  cross(one: string, other: string): boolean {
    const { ownAcross, ownUpDown } = this;
    const [own, others] = [this.laid(one).pieces, this.laid(other).pieces];
    for (const piece of own) this.occupy(piece, 1, ownAcross, ownUpDown);
    const met = others.some((piece) =>
      piece.some((cell, at) => {
        const before = piece[at - 1];
        if (before === undefined) return false;
        const level = abs(cell - before) === 1;
        return ((level ? ownUpDown[cell] : ownAcross[cell]) ?? 0) > 0;
      }),
    );
    for (const piece of own) this.occupy(piece, -1, ownAcross, ownUpDown);
    return met;
  }

  /**
   * Lays a line over all its legs, the first of which starts it. False where a leg is walled in: it has no way then.
   */
  lay(id: string, legs: readonly Leg[], most = mostLooked): boolean {
    const laid = nothing();
    /** From each cell of the tree to the one before it. */
    const tree = new Map<number, number>();
    /** A cell of the tree in each field of the coarse map. */
    const forks = new Map<number, number>();
    let all = true;
    for (const leg of legs) {
      this.only(leg);
      const cells =
        this.search(leg, tree, 'careful', most, this.corridorFor(leg, tree, forks)) ??
        this.search(leg, tree, 'careful', most, null) ??
        this.search(leg, tree, 'quick', this.cost.length, null) ??
        this.search(leg, tree, 'through labels', this.cost.length, null);
      if (cells === null) {
        all = false;
        continue;
      }
      this.occupy(cells, 1);
      laid.pieces.push(cells);
      const [first] = cells;
      const trunk: number[] = [];
      if (tree.size > 0)
        for (let cell = first; cell !== undefined && cell >= 0; cell = tree.get(cell)) trunk.push(cell);
      laid.ways.set(leg.id, [...trunk.reverse(), ...cells.slice(tree.size > 0 ? 1 : 0)]);
      if (tree.size === 0 && first !== undefined) tree.set(first, -1);
      for (let at = 1; at < cells.length; at++) {
        const cell = cells[at] ?? 0;
        if (!tree.has(cell)) tree.set(cell, cells[at - 1] ?? -1);
        if (forks.size > 0 && this.corridors !== null) forks.set(this.corridors.fieldAt(cell), cell);
      }
    }
    this.lines.set(id, laid);
    return all;
  }

  /** Where a long leg may go; null where it may go anywhere. */
  private corridorFor(
    { start, goal }: Leg,
    tree: ReadonlyMap<number, number>,
    forks: Map<number, number>,
  ): Corridors | null {
    const [from, to] = [this.cellOf(start), this.cellOf(goal)];
    if (this.apart(from, to) <= farAway) return null;
    this.corridors ??= new Corridors({
      columns: this.columns,
      rows: this.rows,
      closed: (cell) => (this.closed[cell] ?? 0) > 0,
      zone: (cell) => this.zone[cell] ?? 0,
    });
    const { corridors } = this;
    if (forks.size === 0) for (const cell of tree.keys()) forks.set(corridors.fieldAt(cell), cell);
    return corridors.seek(tree.size > 0 ? forks.values() : [from], to, this.foreign) ? corridors : null;
  }

  /** How many steps two cells are apart. */
  private apart(one: number, other: number): number {
    const { columns } = this;
    return abs((one % columns) - (other % columns)) + abs(floor(one / columns) - floor(other / columns));
  }

  /** The points of a way over these cells. */
  points(cells: readonly number[]): Point[] {
    return cells.map((cell) => this.pointOf(cell));
  }

  private stepCost(cell: number, heading: number): number {
    const sideways = heading % 2 === 0;
    const own = sideways ? this.across : this.upDown;
    const other = sideways ? this.upDown : this.across;
    const beside = sideways ? this.columns : 1;
    let cost = 1;
    if ((own[cell] ?? 0) > 0) cost += shareCost;
    if ((other[cell] ?? 0) > 0) cost += crossCost;
    if ((own[cell - beside] ?? 0) > 0 || (own[cell + beside] ?? 0) > 0) cost += besideCost;
    if (this.foreign[this.zone[cell] ?? 0] === 1) cost += foreignCost;
    return cost;
  }

  /** The cells of a leg from the tree, or from its start where there is none yet, to its goal. */
  private search(
    leg: Leg,
    tree: ReadonlyMap<number, number>,
    way: Way,
    most: number,
    corridor: Corridors | null,
  ): number[] | null {
    const { columns, frontier, cost, from, stamp, opened } = this;
    const shut = way === 'through labels' ? this.solid : this.closed;
    const startCell = this.cellOf(leg.start);
    const goalCell = this.cellOf(leg.goal);
    const goalColumn = goalCell % columns;
    const goalRow = floor(goalCell / columns);
    const startHeading = headingOf(leg.heading);
    const goalHeading = headingOf({ x: -leg.arriving.x, y: -leg.arriving.y });
    const away = (cell: number): number =>
      abs((cell % columns) - goalColumn) + abs(floor(cell / columns) - goalRow);
    const eagerness = corridor === null ? eagernessFor(away(startCell)) : eagernessFor(0);
    this.round++;
    const { round } = this;
    const done = -round;
    frontier.clear();
    const begin = (cell: number, heading: number, at: number): void => {
      const key = cell * 4 + heading;
      if (stamp[key] === round && (cost[key] ?? 0) <= at) return;
      cost[key] = at;
      from[key] = -1;
      stamp[key] = round;
      frontier.push(key, at + eagerness * away(cell));
    };
    if (tree.size === 0) begin(startCell, startHeading, 0);
    for (const [cell, before] of tree) {
      if (corridor !== null && !corridor.holds(cell)) continue;
      if (before < 0) {
        begin(cell, startHeading, 0);
        continue;
      }
      const stride = cell - before;
      const into = stride === 1 ? 0 : stride === -1 ? 2 : stride > 0 ? 1 : 3;
      const within = this.foreign[this.zone[cell] ?? 0] === 1 ? withinCost : 0;
      begin(cell, into, aheadCost + within);
      begin(cell, (into + 1) % 4, asideCost + within);
      begin(cell, (into + 3) % 4, asideCost + within);
    }
    let looked = 0;
    for (let state = frontier.pop(); state >= 0; state = frontier.pop()) {
      if (stamp[state] === done) continue;
      const cell = state >> 2;
      const facing = state & 3;
      if (cell === goalCell) {
        this.looked += looked;
        return this.finish(state);
      }
      stamp[state] = done;
      if (++looked > most) break;
      const column = cell % columns;
      for (let next = 0; next < 4; next++) {
        if (next === (facing + 2) % 4) continue;
        if ((next === 0 && column === columns - 1) || (next === 2 && column === 0)) continue;
        const target = cell + (this.strides[next] ?? 0);
        if (target < 0 || target >= shut.length) continue;
        if ((shut[target] ?? 0) > 0 && opened[target] !== 1 && target !== goalCell) continue;
        if (corridor !== null && !corridor.holds(target)) continue;
        if (tree.size > 0 && tree.has(target)) continue;
        const key = target * 4 + next;
        if (stamp[key] === done) continue;
        let sum =
          (cost[state] ?? 0) +
          (way === 'careful' ? this.stepCost(target, next) : 1) +
          (next === facing ? 0 : turnCost);
        if (target === goalCell && next !== goalHeading) sum += turnCost;
        if (stamp[key] === round && (cost[key] ?? 0) <= sum) continue;
        stamp[key] = round;
        cost[key] = sum;
        from[key] = state;
        frontier.push(key, sum + eagerness * away(target));
      }
    }
    this.looked += looked;
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

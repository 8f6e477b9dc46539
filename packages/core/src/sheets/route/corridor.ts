import { Frontier } from './frontier.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { abs, ceil, floor, max, min } = Math;

/** So many cells of the lattice, across and down, are one field of the coarse map. */
const coarse = 4;
/** What a field costs beside its length: where a container has no part in the line, where it is half closed. */
const foreignCost = 6;
const narrowCost = 4;
const closedShare = 0.7;
/** Lines keep apart where they can: for each that has gone through a field. */
const usedCost = 0.25;
const turnCost = 3;

/** What the lattice tells of its cells. */
export interface Lattice {
  columns: number;
  rows: number;
  closed: (cell: number) => boolean;
  zone: (cell: number) => number;
}

/**
 * The way that a long line takes, roughly: fields of a coarse map from what is laid already to the goal, around
 * containers that it has no part in. The exact way is then sought in and beside these fields only.
 */
export class Corridors {
  private readonly columns: number;
  private readonly rows: number;
  private readonly fieldOf: Int32Array;
  private readonly narrow: Float32Array;
  private readonly zone: Uint16Array;
  private readonly used: Float32Array;
  private readonly cost: Float32Array;
  private readonly from: Int32Array;
  private readonly stamp: Int32Array;
  private readonly open: Int32Array;
  private round = 0;
  private readonly frontier = new Frontier();

  constructor({ columns, rows, closed, zone }: Lattice) {
    this.columns = ceil(columns / coarse);
    this.rows = ceil(rows / coarse);
    const fields = this.columns * this.rows;
    this.fieldOf = new Int32Array(columns * rows);
    this.narrow = new Float32Array(fields);
    this.zone = new Uint16Array(fields);
    this.used = new Float32Array(fields);
    this.cost = new Float32Array(4 * fields);
    this.from = new Int32Array(4 * fields);
    this.stamp = new Int32Array(4 * fields);
    this.open = new Int32Array(fields);
    /** How many cells of a field are in no container. */
    const free = new Uint8Array(fields);
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        const cell = row * columns + column;
        const field = floor(row / coarse) * this.columns + floor(column / coarse);
        this.fieldOf[cell] = field;
        if (closed(cell)) this.narrow[field] = (this.narrow[field] ?? 0) + 1 / (coarse * coarse);
        const inside = zone(cell);
        if (inside === 0) free[field] = (free[field] ?? 0) + 1;
        this.zone[field] = max(this.zone[field] ?? 0, inside);
      }
    // A gap between containers may lie across fields: one lane of it is enough.
    for (let field = 0; field < fields; field++) if ((free[field] ?? 0) >= coarse) this.zone[field] = 0;
  }

  /** The field of the map in which a cell lies. */
  fieldAt(cell: number): number {
    return this.fieldOf[cell] ?? 0;
  }

  /** Whether a cell lies in the corridor that was sought last. */
  holds(cell: number): boolean {
    return this.open[this.fieldOf[cell] ?? 0] === this.round;
  }

  /**
   * Seeks the fields from some cells to another, and opens them and those around them.
   *
   * @param foreign by the number of a container: 1 where the line has no part in it
   */
  seek(starts: Iterable<number>, goal: number, foreign: Uint8Array): boolean {
    const { columns, rows, fieldOf, cost, from, stamp, frontier, narrow, zone, used } = this;
    const round = ++this.round;
    const end = fieldOf[goal] ?? 0;
    const [endColumn, endRow] = [end % columns, floor(end / columns)];
    const away = (field: number): number =>
      abs((field % columns) - endColumn) + abs(floor(field / columns) - endRow);
    frontier.clear();
    for (const start of starts) {
      const field = fieldOf[start] ?? 0;
      if (stamp[4 * field] === round || foreign[zone[field] ?? 0] === 1) continue;
      for (let state = 4 * field; state < 4 * field + 4; state++) {
        stamp[state] = round;
        cost[state] = 0;
        from[state] = -1;
        frontier.push(state, away(field));
      }
    }
    for (let state = frontier.pop(); state >= 0; state = frontier.pop()) {
      const field = state >> 2;
      if (field === end) return this.unlock(state);
      const column = field % columns;
      const row = floor(field / columns);
      for (let way = 0; way < 4; way++) {
        const nextColumn = column + (way === 0 ? 1 : way === 2 ? -1 : 0);
        const nextRow = row + (way === 1 ? 1 : way === 3 ? -1 : 0);
        if (nextColumn < 0 || nextColumn >= columns || nextRow < 0 || nextRow >= rows) continue;
        const next = nextRow * columns + nextColumn;
        const share = narrow[next] ?? 0;
        if (share > closedShare && next !== end) continue;
        const sum =
          (cost[state] ?? 0) +
          (way === (state & 3) ? 1 : 1 + turnCost) +
          narrowCost * share +
          (used[next] ?? 0) +
          (foreign[zone[next] ?? 0] === 1 ? foreignCost : 0);
        const key = 4 * next + way;
        if (stamp[key] === round && (cost[key] ?? 0) <= sum) continue;
        stamp[key] = round;
        cost[key] = sum;
        from[key] = state;
        frontier.push(key, sum + away(next));
      }
    }
    return false;
  }

  private unlock(end: number): boolean {
    const { columns, rows, used, open, round } = this;
    for (let state = end; state >= 0; state = this.from[state] ?? -1) {
      const field = state >> 2;
      used[field] = (used[field] ?? 0) + usedCost;
      const [column, row] = [field % columns, floor(field / columns)];
      for (let y = max(0, row - 1); y <= min(rows - 1, row + 1); y++)
        for (let x = max(0, column - 1); x <= min(columns - 1, column + 1); x++)
          open[y * columns + x] = round;
    }
    return true;
  }
}

import type { Field } from './field.ts';
import { anneal, type Attempt } from './chance.ts';
import { packRow, type Group, type Row, type Surroundings } from './groups.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { abs, ceil, floor, max, min } = Math;

/** What a unit of length, and a plate that a line passes behind, cost beside one crossing. */
const lengthCost = 0.003;
const passCost = 0.4;
const levelPassCost = 1;
/** Moves tried for each plate, and the most work in all, in lines that are compared. */
const movesEach = 40;
const leastMoves = 600;
const mostWork = 1_500_000;
const heat = 2;
/** What has been sought before is sought again with less: so much of the moves, and of the heat. */
const againShare = 0.4;

/** The part of a cost that can change as some plates of a group move. */
class RowCost {
  private readonly pulls: number[];
  private readonly touched: Int32Array;
  private readonly moved: Int32Array;
  private stamp = 0;

  constructor(
    private readonly field: Field,
    private readonly group: Group,
  ) {
    this.pulls = [...new Set(group.plates.flatMap((plate) => field.pullsOf[plate] ?? []))];
    this.touched = new Int32Array(field.pulls.length);
    this.moved = new Int32Array(field.ids.length);
  }

  /** How many comparisons a move takes: neighbours exchanged, or on the average a third of a row shifted. */
  work(rows: number): number {
    const compared = this.pulls.length + this.group.plates.length;
    return compared * (4 + (0.4 * this.pulls.length) / rows);
  }

  draw(plates: readonly number[]): void {
    for (const plate of plates) for (const pull of this.field.pullsOf[plate] ?? []) this.field.draw(pull);
  }

  private passed(pull: number, plate: number): number {
    const { field } = this;
    const { a, b } = field.pulls[pull] ?? { a: -1, b: -1 };
    if (plate === a || plate === b) return 0;
    const top = field.y[plate] ?? 0;
    const height = field.sizes[plate]?.height ?? 0;
    const y1 = field.y1[pull] ?? 0;
    const y2 = field.y2[pull] ?? 0;
    const x1 = field.x1[pull] ?? 0;
    const x2 = field.x2[pull] ?? 0;
    const left = field.x[plate] ?? 0;
    const right = left + (field.sizes[plate]?.width ?? 0);
    if (y2 - y1 <= 1) {
      if (top > y1 || top + height < y1) return 0;
      return min(x1, x2) < left && max(x1, x2) > right ? levelPassCost : 0;
    }
    if (top + height <= y1 || top >= y2) return 0;
    const at = x1 + ((x2 - x1) * (top + height / 2 - y1)) / (y2 - y1);
    return at > left - 4 && at < right + 4 ? passCost : 0;
  }

  of(plates: readonly number[]): number {
    const { field, touched, pulls } = this;
    const stamp = ++this.stamp;
    const own: number[] = [];
    for (const plate of plates) {
      this.moved[plate] = stamp;
      for (const pull of field.pullsOf[plate] ?? [])
        if (touched[pull] !== stamp) {
          touched[pull] = stamp;
          own.push(pull);
        }
    }
    let cost = 0;
    for (const pull of own) {
      for (const other of pulls)
        if (touched[other] !== stamp || other > pull) cost += field.crossing(pull, other);
      const { weight } = field.pulls[pull] ?? { weight: 1 };
      cost += lengthCost * weight * abs((field.x1[pull] ?? 0) - (field.x2[pull] ?? 0));
      for (const plate of this.group.plates) cost += this.passed(pull, plate);
    }
    for (const pull of pulls)
      if (touched[pull] !== stamp) for (const plate of plates) cost += this.passed(pull, plate);
    return cost;
  }
}

const flat = (rows: readonly Row[]): number[] => rows.flatMap((row) => row.units.flat());

/**
 * Changes the order of plates in the rows of a group so that few lines cross, that lines are short and pass behind few
 * plates: neighbours exchanged, a unit put elsewhere in its row or in another of its band, turned over, or a whole row.
 */
export function orderRows(around: Surroundings, group: Group, random: () => number, again = false): void {
  const { field } = around;
  const rows = group.rows.filter(
    (row) => !row.fixed && (row.units.length > 1 || (row.units[0]?.length ?? 0) > 1),
  );
  if (rows.length === 0) return;
  const cost = new RowCost(field, group);
  cost.draw(group.plates);
  const pick = <T>(list: readonly T[]): T | undefined => list[floor(random() * list.length)];
  const peers = new Map(
    rows.map((row) => [row, group.rows.filter((one) => one.band === row.band && !one.fixed)]),
  );
  let kept = group.rows.map(({ units }) => units.map((unit) => [...unit]));

  /** Puts new units into some rows; tells by how much that changes the cost. */
  const change = (changed: readonly Row[], units: readonly number[][][]): Attempt | null => {
    const before = changed.map((row) => row.units);
    const plates = flat(changed);
    const [xs, ys] = [plates.map((plate) => field.x[plate] ?? 0), plates.map((plate) => field.y[plate] ?? 0)];
    const put = (to: readonly number[][][]): void => {
      changed.forEach((row, at) => {
        row.units = to[at] ?? row.units;
        packRow(around, group, row);
      });
    };
    put(units);
    const moved = plates.filter((plate, at) => field.x[plate] !== xs[at] || field.y[plate] !== ys[at]);
    const there = moved.map((plate) => [field.x[plate] ?? 0, field.y[plate] ?? 0] as const);
    plates.forEach((plate, at) => {
      field.x[plate] = xs[at] ?? 0;
      field.y[plate] = ys[at] ?? 0;
    });
    const old = cost.of(moved);
    moved.forEach((plate, at) => {
      [field.x[plate], field.y[plate]] = there[at] ?? [0, 0];
    });
    cost.draw(moved);
    return {
      by: cost.of(moved) - old,
      undo: () => {
        put(before);
        cost.draw(moved);
      },
    };
  };
  const attempt = (): Attempt | null => {
    const row = pick(rows);
    if (row === undefined) return null;
    const kind = random();
    const units = [...row.units];
    if (kind < 0.4) {
      const at = floor(random() * (units.length - 1));
      const [left, right] = [units[at], units[at + 1]];
      if (left === undefined || right === undefined) return null;
      [units[at], units[at + 1]] = [right, left];
      return change([row], [units]);
    }
    if (kind < 0.75) {
      const [unit] = units.splice(floor(random() * units.length), 1);
      if (unit === undefined) return null;
      const to = pick(peers.get(row) ?? [row]) ?? row;
      if (to === row) {
        units.splice(floor(random() * (units.length + 1)), 0, unit);
        return change([row], [units]);
      }
      // Rows keep as many as they have: another unit comes back.
      const others = [...to.units];
      const which = floor(random() * others.length);
      const back = others[which];
      if (back === undefined) return null;
      others[which] = unit;
      units.splice(floor(random() * (units.length + 1)), 0, back);
      return change([row, to], [units, others]);
    }
    if (kind < 0.9) {
      const at = floor(random() * units.length);
      const unit = units[at];
      if (unit === undefined || unit.length < 2) return null;
      units[at] = [...unit].reverse();
      return change([row], [units]);
    }
    if (units.length < 2) return null;
    return change([row], [units.reverse().map((unit) => [...unit].reverse())]);
  };
  const plates = flat(rows).length;
  const share = again ? againShare : 1;
  anneal(
    attempt,
    () => {
      kept = group.rows.map((row) => row.units.map((unit) => [...unit]));
    },
    {
      steps: ceil(share * min(max(leastMoves, movesEach * plates), mostWork / cost.work(rows.length))),
      heat: share * heat,
      random,
    },
  );
  group.rows.forEach((row, at) => {
    row.units = kept[at] ?? row.units;
    packRow(around, group, row);
  });
  cost.draw(group.plates);
}

/** What the rows of a group cost as they are. */
export function rowsCost({ field }: Surroundings, group: Group): number {
  const cost = new RowCost(field, group);
  cost.draw(group.plates);
  return cost.of(group.plates);
}

import { padding, snap } from '../lattice.ts';
import type { Field } from './field.ts';
import {
  columnWidth,
  leavesOf,
  moveTo,
  rowWidth,
  shelvedIn,
  type Group,
  type Row,
  type Surroundings,
} from './groups.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { max, min } = Math;

const sweeps = 10;
/** How much links pull that leave their group, are for management, or lead to a plate with many. */
const farShare = 0.15;
const managementShare = 0.1;
const hubShare = 0.5;
const hubFrom = 4;

/**
 * Where things in a row should start so that each is as near as it can be to where it wants to, in their order and with
 * their gaps: isotonic regression by pooling adjacent violators.
 *
 * @param wanted where each wants to start
 * @param offsets where each starts when the first starts at 0 and all stand as close as they may
 */
export function pooled(wanted: readonly number[], offsets: readonly number[]): number[] {
  const pools: { sum: number; count: number }[] = [];
  wanted.forEach((want, at) => {
    pools.push({ sum: want - (offsets[at] ?? 0), count: 1 });
    for (;;) {
      const [before, last] = [pools.at(-2), pools.at(-1)];
      if (before === undefined || last === undefined || before.sum / before.count <= last.sum / last.count)
        break;
      before.sum += last.sum;
      before.count += last.count;
      pools.pop();
    }
  });
  const starts = pools.flatMap(({ sum, count }) => Array.from({ length: count }, () => sum / count));
  return starts.map((start, at) => start + (offsets[at] ?? 0));
}

/** The same between two bounds, on the lattice. */
function fitted(wanted: readonly number[], offsets: readonly number[], from: number, to: number): number[] {
  const total = offsets.at(-1) ?? 0;
  return pooled(wanted, offsets).map((start, at) => {
    const offset = offsets[at] ?? 0;
    return snap(max(from, min(to - total, start - offset))) + offset;
  });
}

/** The plates of a unit move together; each unit towards the mean of what its plates are linked to in other rows. */
function alignRow(around: Surroundings, group: Group, row: Row): void {
  const { field, gap } = around;
  const own = new Set(row.units.flat());
  const inGroup = new Set(group.plates);
  const wanted: number[] = [];
  const offsets: number[] = [];
  const inner: number[][] = [];
  let end = 0;
  let before = -1;
  for (const unit of row.units) {
    const [first] = unit;
    if (first === undefined) continue;
    if (before >= 0) end += gap(before, first);
    offsets.push(end);
    const spots: number[] = [];
    let sum = 0;
    let weights = 0;
    let at = 0;
    unit.forEach((plate, which) => {
      const previous = unit[which - 1];
      if (previous !== undefined) at += gap(previous, plate);
      spots.push(at);
      const width = field.sizes[plate]?.width ?? 0;
      for (const pull of field.pullsOf[plate] ?? []) {
        const { a, b, management } = field.pulls[pull] ?? { a: 0, b: 0, management: false };
        const other = a === plate ? b : a;
        if (own.has(other)) continue;
        const weight =
          (inGroup.has(other) ? 1 : farShare) *
          (management ? managementShare : 1) *
          ((field.pullsOf[other]?.length ?? 0) > hubFrom ? hubShare : 1);
        sum += weight * ((field.x[other] ?? 0) + (field.sizes[other]?.width ?? 0) / 2 - at - width / 2);
        weights += weight;
      }
      at += width;
      before = plate;
    });
    inner.push(spots);
    wanted.push(weights === 0 ? (field.x[first] ?? 0) : sum / weights);
    end += at;
  }
  const inset = group.outlined ? padding : 0;
  const from = group.left + inset;
  const to = max(group.left + group.width - inset, from + rowWidth(around, row));
  // The last unit must end within, not start.
  const last = end - (offsets.at(-1) ?? 0);
  const starts = fitted(wanted, offsets, from, to - last);
  row.units.forEach((unit, which) =>
    unit.forEach((plate, at) => {
      field.x[plate] = (starts[which] ?? 0) + (inner[which]?.[at] ?? 0);
    }),
  );
}

/** Columns of a shelf towards what their plates are linked to elsewhere. */
function alignShelf(
  field: Field,
  group: Group,
  shelf: readonly (readonly Group[])[],
  gap: (left: readonly Group[], right: readonly Group[]) => number,
): void {
  const offsets: number[] = [];
  let end = 0;
  shelf.forEach((column, at) => {
    const previous = shelf[at - 1];
    if (previous !== undefined) end += gap(previous, column);
    offsets.push(end);
    end += columnWidth(column);
  });
  const leftOf = (column: readonly Group[]): number =>
    min(...column.map((one) => one.left - snap((columnWidth(column) - one.width) / 2)));
  const wanted = shelf.map((column) => {
    let sum = 0;
    let count = 0;
    for (const one of column) {
      const inside = new Set(one.plates);
      for (const plate of one.plates)
        for (const pull of field.pullsOf[plate] ?? []) {
          const { a, b } = field.pulls[pull] ?? { a: 0, b: 0 };
          const other = a === plate ? b : a;
          if (inside.has(other)) continue;
          const middle = (at: number): number => (field.x[at] ?? 0) + (field.sizes[at]?.width ?? 0) / 2;
          sum += middle(other) - middle(plate);
          count++;
        }
    }
    return leftOf(column) + (count === 0 ? 0 : sum / count);
  });
  const inset = group.outlined ? padding : 0;
  const last = end - (offsets.at(-1) ?? 0);
  const from = group.left + inset;
  const starts = fitted(wanted, offsets, from, max(group.left + group.width - inset, from + end) - last);
  shelf.forEach((column, at) => {
    for (const one of column)
      moveTo(field, one, (starts[at] ?? 0) + snap((columnWidth(column) - one.width) / 2), one.top);
  });
}

/** Moves rows and shelves sideways, in the order they have, until plates stand as straight below each other as they can. */
export function alignAll(
  around: Surroundings,
  root: Group,
  gapOf: (group: Group) => (left: readonly Group[], right: readonly Group[]) => number,
): void {
  const leaves = leavesOf(root);
  const shelved = shelvedIn(root);
  for (let sweep = 0; sweep < sweeps; sweep++) {
    const back = sweep % 2 === 1;
    for (const group of back ? [...leaves].reverse() : leaves)
      for (const row of back ? [...group.rows].reverse() : group.rows) alignRow(around, group, row);
    for (const group of shelved)
      for (const shelf of group.shelves) alignShelf(around.field, group, shelf, gapOf(group));
  }
}

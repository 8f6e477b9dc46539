import { padding, snap, titleHeight, up } from '../lattice.ts';
import { anneal, type Attempt } from './chance.ts';
import type { Field } from './field.ts';
import type { Frame } from './frame.ts';
import { columnWidth, moveTo, type Group } from './groups.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { abs, ceil, floor, log, max, min, round, sqrt } = Math;

/** Between two groups beside each other, and above each other. */
const besideGap = 48;
const aboveGap = 56;
/** What a unit of length costs beside one crossing, a line through a group that it has no part in, or through a plate. */
const lengthCost = 0.002;
const foreignCost = 1;
const passCost = 1.5;
/** A level line cannot pass through a plate: it goes around, over the lines that leave that. */
const levelPassCost = 4;
const levelRise = 48;
/** What a line costs that leads up though its lower plate should stand below, or level; for what leads outside more. */
const upwardCost = 3;
const levelCost = 1;
const outsideCost = 10;
const heat = 8;
/** What has been sought before is sought again with less: so much of the moves, and of the heat. */
const againShare = 0.4;
const mostMoves = 1500;
const leastMoves = 100;
const mostWork = 6_000_000;
/** The side of a sheet of which length counts in full; of so many groups on a sheet a good fit counts for more. */
const usualSize = 1500;
const manyGroups = 4;
/** Lines between groups beyond so many are taken together where they join one plate with one group. */
const mostLines = 240;

type Shelves = Group[][][];
const copy = (shelves: Shelves): Shelves => shelves.map((shelf) => shelf.map((column) => [...column]));
/** The lines between different inner groups, and which groups they join. */
interface Between {
  pull: number;
  from: Group;
  to: Group;
}

function linesBetween(field: Field, group: Group): Between[] {
  const of = new Map(group.inner.flatMap((inner) => inner.plates.map((plate) => [plate, inner] as const)));
  const lines = field.pulls.flatMap(({ a, b }, pull): Between[] => {
    const [from, to] = [of.get(a), of.get(b)];
    return from === undefined || to === undefined || from === to ? [] : [{ pull, from, to }];
  });
  if (lines.length <= mostLines) return lines;
  const number = new Map(group.inner.map((inner, at) => [inner, at]));
  const taken = new Map<string, Between>();
  for (const line of lines) {
    const { a, b } = field.pulls[line.pull] ?? { a: 0, b: 0 };
    const few = (field.pullsOf[a]?.length ?? 0) >= (field.pullsOf[b]?.length ?? 0) ? a : b;
    const key = `${few} ${number.get(few === a ? line.to : line.from) ?? 0}`;
    if (!taken.has(key)) taken.set(key, line);
  }
  return [...taken.values()];
}

/** The room between two columns: for the labels of the links across it. */
function gapsBetween(
  field: Field,
  lines: readonly Between[],
  pairGap: (a: number, b: number) => number,
): (left: readonly Group[], right: readonly Group[]) => number {
  const gaps = new Map<Group, Map<Group, number>>();
  const note = (from: Group, to: Group, gap: number): void => {
    const there = gaps.get(from) ?? new Map<Group, number>();
    there.set(to, max(there.get(to) ?? 0, gap));
    gaps.set(from, there);
  };
  for (const { pull, from, to } of lines) {
    const { a, b } = field.pulls[pull] ?? { a: 0, b: 0 };
    const inset = (from.outlined ? padding : 0) + (to.outlined ? padding : 0);
    const gap = up(pairGap(a, b) + 32 - inset);
    note(from, to, gap);
    note(to, from, gap);
  }
  return (left, right) => {
    let gap = besideGap;
    for (const one of left) for (const other of right) gap = max(gap, gaps.get(one)?.get(other) ?? 0);
    return gap;
  };
}

/** Puts the groups where their shelves have them; tells how wide and high that is. */
export function layShelves(
  field: Field,
  group: Group,
  gap: (left: readonly Group[], right: readonly Group[]) => number,
): void {
  const { shelves } = group;
  const widths = shelves.map((shelf) =>
    shelf.reduce((sum, column, at) => {
      const next = shelf[at + 1];
      return sum + columnWidth(column) + (next === undefined ? 0 : gap(column, next));
    }, 0),
  );
  const full = max(0, ...widths);
  const inset = group.outlined ? padding : 0;
  let y = group.top + inset + (group.outlined ? titleHeight : 0);
  const below = y;
  shelves.forEach((shelf, which) => {
    let x = group.left + inset + snap((full - (widths[which] ?? 0)) / 2);
    let tallest = 0;
    shelf.forEach((column, at) => {
      let top = y;
      for (const one of column) {
        moveTo(field, one, x + snap((columnWidth(column) - one.width) / 2), top);
        top += one.height + aboveGap;
      }
      tallest = max(tallest, top - aboveGap - y);
      const next = shelf[at + 1];
      x += columnWidth(column) + (next === undefined ? 0 : gap(column, next));
    });
    y += tallest + aboveGap;
  });
  group.width = up(max(group.titleWidth, full + 2 * inset));
  group.height = up(max(0, y - aboveGap - below)) + (group.outlined ? 2 * padding + titleHeight : 0);
}

/** Groups on shelves by their band, each shelf as full as the whole should be wide. */
function firstShelves(group: Group, aspect: number): Shelves {
  const order = [...group.inner].sort((a, b) => a.band - b.band);
  const area = order.reduce((sum, { width, height }) => sum + (width + besideGap) * (height + aboveGap), 0);
  const widest = max(...order.map(({ width }) => width), sqrt(area * aspect));
  const shelves: Shelves = [];
  let width = 0;
  for (const one of order) {
    const shelf = shelves.at(-1);
    if (shelf === undefined || width + one.width > widest) {
      shelves.push([[one]]);
      width = 0;
    } else shelf.push([one]);
    width += one.width + besideGap;
  }
  return shelves;
}

/** How high a frame has to be, in thousands of units, for a group to fit it with some room around. */
export const roomOf = ({ width, height }: Group, aspect: number): number =>
  max((width + besideGap) / aspect, height + besideGap) / 1000;

export interface ShelfSearch {
  gap: (left: readonly Group[], right: readonly Group[]) => number;
  /** What the shelves cost, for what a larger zoom is worth. */
  cost: (fit: number) => number;
  search: (random: () => number, again: boolean) => void;
  /** Puts the groups where they belong after some have another size. */
  lay: () => void;
}

/** The search for good shelves of a group; its figures are kept from one round to the next. */
export function shelfSearch(
  field: Field,
  group: Group,
  pairGap: (a: number, b: number) => number,
  { aspect, fit }: Frame,
): ShelfSearch {
  const all = linesBetween(field, group);
  const gap = gapsBetween(field, all, pairGap);
  const pulls = all.map(({ pull }) => pull);
  const containers = group.inner.filter(({ outlined }) => outlined).length;
  const share = max(1, all.length / 60, containers / manyGroups);
  // On a large sheet all is far: what counts is how far beside how large it is.
  const area = group.inner.reduce(
    (sum, { width, height }) => sum + (width + besideGap) * (height + aboveGap),
    0,
  );
  const forLength = lengthCost * min(1, usualSize / sqrt(area));
  group.shelves = firstShelves(group, aspect);
  layShelves(field, group, gap);
  const through = (pull: number, one: Group): number =>
    field.runsIn(pull, one.left, one.top, one.width, one.height) ? foreignCost : 0;
  const passing = (pull: number, one: Group): number => {
    if (!one.outlined) return 0;
    const { a, b } = field.pulls[pull] ?? { a: -1, b: -1 };
    let cost = 0;
    const level = (field.y2[pull] ?? 0) - (field.y1[pull] ?? 0) < levelRise;
    for (const plate of one.plates) {
      const size = field.sizes[plate];
      if (plate === a || plate === b || size === undefined) continue;
      if (field.runsIn(pull, field.x[plate] ?? 0, field.y[plate] ?? 0, size.width, size.height))
        cost += level ? levelPassCost : passCost;
    }
    return cost;
  };
  const upward = (pull: number): number => {
    const { a, b } = field.pulls[pull] ?? { a: 0, b: 0 };
    const [bandA, bandB] = [field.bands[a] ?? 0, field.bands[b] ?? 0];
    if (bandA === bandB) return 0;
    const [high, low] = bandA < bandB ? [a, b] : [b, a];
    const [highTop, lowTop] = [field.y[high] ?? 0, field.y[low] ?? 0];
    if (lowTop >= highTop + (field.sizes[high]?.height ?? 0)) return 0;
    if (field.providers[high] === true) return outsideCost;
    return lowTop + (field.sizes[low]?.height ?? 0) <= highTop ? upwardCost : levelCost;
  };
  const cost = (forZoom: number): number => {
    let sum = 0;
    for (const pull of pulls) field.draw(pull);
    all.forEach(({ pull, from, to }, at) => {
      const weight = field.pulls[pull]?.weight ?? 1;
      for (let next = at + 1; next < pulls.length; next++) sum += field.crossing(pull, pulls[next] ?? 0);
      sum +=
        forLength *
        weight *
        (abs((field.x1[pull] ?? 0) - (field.x2[pull] ?? 0)) + (field.y2[pull] ?? 0) - (field.y1[pull] ?? 0));
      for (const one of group.inner) if (one !== from && one !== to) sum += through(pull, one);
      sum += upward(pull) + passing(pull, from) + passing(pull, to);
    });
    return sum + forZoom * share * log(roomOf(group, aspect));
  };
  const search = (random: () => number, again: boolean): void => {
    layShelves(field, group, gap);
    if (group.inner.length < 2) return;
    const pick = <T>(list: readonly T[]): T | undefined => list[floor(random() * list.length)];
    let now = cost(fit);
    let kept = copy(group.shelves);
    const lay = (shelves: Shelves): void => {
      group.shelves = shelves;
      layShelves(field, group, gap);
    };
    const where = (shelves: Shelves, one: Group): [number, number, number] => {
      for (const [shelf, columns] of shelves.entries())
        for (const [column, groups] of columns.entries()) {
          const at = groups.indexOf(one);
          if (at >= 0) return [shelf, column, at];
        }
      return [0, 0, 0];
    };
    const exchanged = (shelves: Shelves): boolean => {
      const [one, other] = [pick(group.inner), pick(group.inner)];
      if (one === undefined || other === undefined || one === other) return false;
      const [a, b] = [where(shelves, one), where(shelves, other)];
      const put = ([shelf, column, at]: [number, number, number], to: Group): void => {
        const there = shelves[shelf]?.[column];
        if (there !== undefined) there[at] = to;
      };
      put(a, other);
      put(b, one);
      return true;
    };
    const putElsewhere = (shelves: Shelves): boolean => {
      const one = pick(group.inner);
      if (one === undefined) return false;
      const [shelf, column, at] = where(shelves, one);
      shelves[shelf]?.[column]?.splice(at, 1);
      if (shelves[shelf]?.[column]?.length === 0) shelves[shelf].splice(column, 1);
      if (shelves[shelf]?.length === 0) shelves.splice(shelf, 1);
      const kind = random();
      const to = pick(shelves);
      if (kind < 0.2 || to === undefined) shelves.splice(floor(random() * (shelves.length + 1)), 0, [[one]]);
      else if (kind < 0.65) to.splice(floor(random() * (to.length + 1)), 0, [one]);
      else {
        const into = pick(to);
        into?.splice(floor(random() * (into.length + 1)), 0, one);
      }
      return true;
    };
    const attempt = (): Attempt | null => {
      const before = group.shelves;
      const shelves = copy(before);
      if (!(random() < 0.35 ? exchanged(shelves) : putElsewhere(shelves))) return null;
      lay(shelves);
      const was = now;
      now = cost(fit);
      return {
        by: now - was,
        undo: () => {
          lay(before);
          now = was;
        },
      };
    };
    const passed = all.reduce((sum, { from, to }) => sum + from.plates.length + to.plates.length, 0);
    const work =
      pulls.length * (pulls.length / 2 + group.inner.length) + passed + 2 * group.plates.length + 50;
    const less = again ? againShare : 1;
    const steps = round(min(mostMoves, 120 * group.inner.length, max(leastMoves, mostWork / work)));
    anneal(
      attempt,
      () => {
        kept = copy(group.shelves);
      },
      { steps: ceil(steps * less), heat: heat * less, random },
    );
    lay(kept);
  };
  return { gap, cost, search, lay: () => layShelves(field, group, gap) };
}

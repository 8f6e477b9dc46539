import { compareNames } from '../../model/values/order.ts';
import type { Role } from '../../model/values/roles.ts';
import type { Box, Container, Plate, Point, Scene, SceneLabel, SceneLink } from '../scene/scene.ts';

/** What makes a drawing hard to read, counted: the fewer the better, but for the zoom and what is beside and below. */
export interface SceneFigures {
  overlappingPlates: number;
  /** Links with a piece inside a plate that is not theirs. */
  throughPlates: number;
  /** Links through containers that neither of their plates is in, each container counted. */
  throughContainers: number;
  /** Points where two links cross, every link counted by itself. */
  crossings: number;
  /** Points where two drawn lines cross: the shared part of a bundle counts once. */
  seenCrossings: number;
  /** Pairs of pieces of two drawn lines that lie on each other for more than two steps of the lattice. */
  onEachOther: number;
  bends: number;
  /** Of all links, in sheet units. */
  length: number;
  labels: number;
  turnedLabels: number;
  /** Labels that lie on a plate, on each other, or on the line of another link. */
  coveredLabels: number;
  /** Redundant pairs: devices of one role, joined, whose names differ in the last number; and those beside each other. */
  pairs: number;
  pairsBeside: number;
  /** Plates with one neighbour, and those that stand above or below it. */
  leaves: number;
  leavesBelow: number;
  /** How large it is drawn where all of it fits the frame; 1 is 100 %. */
  zoom: number;
}

interface Frame {
  width: number;
  height: number;
}
/** What a sheet has in a window of 1280 by 800 with nothing chosen. */
export const windowFrame: Frame = { width: 1184, height: 640 };

const within = 1;
/** Longer than this, in sheet units, two pieces on each other are seen as one. */
const together = 16;
const slack = 2;

const overlaps = (a: Box, b: Box, by = within): boolean =>
  a.x + by < b.x + b.width &&
  b.x + by < a.x + a.width &&
  a.y + by < b.y + b.height &&
  b.y + by < a.y + a.height;

interface Piece extends Box {
  link: number;
}
/** The straight pieces of all links. */
function piecesOf(links: readonly Pick<SceneLink, 'points'>[]): Piece[] {
  return links.flatMap(({ points }, link) =>
    points.slice(1).map((to, at): Piece => {
      const from = points[at] ?? to;
      return {
        link,
        x: Math.min(from.x, to.x),
        y: Math.min(from.y, to.y),
        width: Math.abs(from.x - to.x),
        height: Math.abs(from.y - to.y),
      };
    }),
  );
}

/** Whether a piece, which has no thickness, runs inside a box for more than its edge. */
const runsIn = (piece: Box, box: Box): boolean =>
  piece.x + piece.width > box.x + slack &&
  piece.x < box.x + box.width - slack &&
  piece.y + piece.height > box.y + slack &&
  piece.y < box.y + box.height - slack;

/** The first place in a list sorted by a figure at which that is above a value. */
function firstAbove(values: readonly number[], value: number): number {
  let [low, high] = [0, values.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((values[middle] ?? Infinity) > value) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Points at which a level piece of one link and an upright one of another cross, ends left out: of all links, and of
 * the lines they are drawn as.
 *
 * @param lineOf the number of the drawn line of a link
 */
function crossingsOf(pieces: readonly Piece[], lineOf: readonly number[]): { all: number; seen: number } {
  const upright = pieces.filter(({ width, height }) => width === 0 && height > 0).sort((a, b) => a.x - b.x);
  const at = upright.map(({ x }) => x);
  const seen = new Set<string>();
  let count = 0;
  for (const level of pieces) {
    if (level.height !== 0 || level.width === 0) continue;
    for (let which = firstAbove(at, level.x); which < upright.length; which++) {
      const other = upright[which];
      if (other === undefined || other.x >= level.x + level.width) break;
      if (other.link === level.link || level.y <= other.y || level.y >= other.y + other.height) continue;
      count++;
      const [one, two] = [lineOf[level.link] ?? 0, lineOf[other.link] ?? 0];
      if (one !== two) seen.add(`${other.x} ${level.y} ${Math.min(one, two)} ${Math.max(one, two)}`);
    }
  }
  return { all: count, seen: seen.size };
}

/** Numbers of the lines that links are drawn as. */
function drawnLines(links: readonly SceneLink[]): number[] {
  const numbers = new Map<string, number>();
  return links.map(({ bundleId }, at) => {
    const key = bundleId === null ? `link ${at}` : `bundle ${bundleId}`;
    const number = numbers.get(key) ?? numbers.size;
    numbers.set(key, number);
    return number;
  });
}

function onEachOtherOf(pieces: readonly Piece[], lineOf: readonly number[]): number {
  const lanes = new Map<string, { link: number; from: number; to: number }[]>();
  let count = 0;
  for (const { link, x, y, width, height } of pieces) {
    if ((width === 0) === (height === 0)) continue;
    const level = height === 0;
    const lane = level ? `y${y}` : `x${x}`;
    const span = { link, from: level ? x : y, to: level ? x + width : y + height };
    const others = lanes.get(lane) ?? [];
    for (const other of others)
      if (
        lineOf[other.link] !== lineOf[link] &&
        Math.min(other.to, span.to) - Math.max(other.from, span.from) > together
      )
        count++;
    lanes.set(lane, [...others, span]);
  }
  return count;
}

const pairedRoles: ReadonlySet<Role> = new Set(['RT', 'SW', 'FW', 'LB', 'ST']);
const stemOf = (name: string): string | null => /^(.*?)\d+$/.exec(name)?.[1] ?? null;

/** Whether two plates stand in one row with no other between them. */
function beside(a: Plate, b: Plate, plates: readonly Plate[]): boolean {
  if (Math.abs(a.box.y + a.box.height / 2 - b.box.y - b.box.height / 2) > slack) return false;
  const [left, right] = a.box.x <= b.box.x ? [a, b] : [b, a];
  const from = left.box.x + left.box.width;
  const gap = { x: from, y: left.box.y, width: right.box.x - from, height: left.box.height };
  return !plates.some((plate) => plate !== a && plate !== b && overlaps(plate.box, gap));
}

/** The plates that each plate is linked to. */
function neighboursOf(links: readonly SceneLink[]): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const { a, b } of links)
    for (const [here, there] of [
      [a.plateId, b.plateId],
      [b.plateId, a.plateId],
    ] as const)
      if (here !== there) found.set(here, (found.get(here) ?? new Set<string>()).add(there));
  return found;
}

const lengthOf = (points: readonly Point[]): number =>
  points
    .slice(1)
    .reduce(
      (sum, { x, y }, at) => sum + Math.abs(x - (points[at]?.x ?? x)) + Math.abs(y - (points[at]?.y ?? y)),
      0,
    );

interface Written {
  link: number;
  label: SceneLabel;
}
const labelsOf = (links: readonly SceneLink[]): Written[] =>
  links.flatMap((link, which) =>
    [link.a.label, link.b.label, link.label].flatMap((label) =>
      label === null ? [] : [{ link: which, label }],
    ),
  );

/** Containers a link has no part in: those that hold neither of its plates, nor hold one that does. */
function foreignTo(link: SceneLink, containers: readonly Container[]): Container[] {
  const own = new Set<string>();
  const byId = new Map(containers.map((container) => [container.id, container]));
  for (const container of containers)
    if (container.plateIds.includes(link.a.plateId) || container.plateIds.includes(link.b.plateId))
      for (
        let at: Container | undefined = container;
        at !== undefined && !own.has(at.id);
        at = byId.get(at.parentId ?? '')
      )
        own.add(at.id);
  return containers.filter(({ id }) => !own.has(id));
}

/**
 * How well a drawing reads, in figures. They depend on what is drawn alone, not on the order of plates and links.
 *
 * @param frame the window or page that it is looked at in, in pixels
 */
export function sceneFigures(
  scene: Pick<Scene, 'box' | 'plates' | 'containers' | 'links'>,
  frame: Frame = windowFrame,
): SceneFigures {
  const { plates, links, containers, box } = scene;
  const pieces = piecesOf(links);
  const byLink: Piece[][] = links.map(() => []);
  for (const piece of pieces) byLink[piece.link]?.push(piece);
  let overlappingPlates = 0;
  plates.forEach((plate, at) => {
    for (const other of plates.slice(at + 1)) if (overlaps(plate.box, other.box)) overlappingPlates++;
  });
  let throughPlates = 0;
  let throughContainers = 0;
  links.forEach((link, which) => {
    const own = byLink[which] ?? [];
    const others = plates.filter(({ id }) => id !== link.a.plateId && id !== link.b.plateId);
    if (others.some((plate) => own.some((piece) => runsIn(piece, plate.box)))) throughPlates++;
    throughContainers += foreignTo(link, containers).filter((container) =>
      own.some((piece) => runsIn(piece, container.box)),
    ).length;
  });
  const lineOf = drawnLines(links);
  const crossings = crossingsOf(pieces, lineOf);
  const labels = labelsOf(links);
  const covered = labels.filter(
    ({ link, label }, at) =>
      plates.some((plate) => overlaps(label.box, plate.box, slack)) ||
      labels.some((other, which) => which !== at && overlaps(label.box, other.label.box, slack)) ||
      pieces.some((piece) => lineOf[piece.link] !== lineOf[link] && runsIn(piece, label.box)),
  );
  const neighbours = neighboursOf(links);
  const plateOf = new Map(plates.map((plate) => [plate.id, plate]));
  const pairs = plates
    .filter(({ form, role }) => form === 'device' && pairedRoles.has(role))
    .sort((a, b) => compareNames(a.name, b.name))
    .flatMap((plate) =>
      [...(neighbours.get(plate.id) ?? [])].flatMap((id) => {
        const other = plateOf.get(id);
        const alike =
          other !== undefined &&
          other.form === 'device' &&
          other.role === plate.role &&
          stemOf(plate.name) !== null &&
          stemOf(plate.name) === stemOf(other.name) &&
          compareNames(plate.name, other.name) < 0;
        return alike ? [[plate, other] as const] : [];
      }),
    );
  const leaves = plates.flatMap((plate) => {
    const [only, second] = neighbours.get(plate.id) ?? [];
    const parent = second === undefined ? plateOf.get(only ?? '') : undefined;
    return parent === undefined ? [] : [{ plate, parent }];
  });
  return {
    overlappingPlates,
    throughPlates,
    throughContainers,
    crossings: crossings.all,
    seenCrossings: crossings.seen,
    onEachOther: onEachOtherOf(pieces, lineOf),
    bends: links.reduce((sum, { points }) => sum + Math.max(0, points.length - 2), 0),
    length: Math.round(links.reduce((sum, { points }) => sum + lengthOf(points), 0)),
    labels: labels.length,
    turnedLabels: labels.filter(({ label }) => label.turned).length,
    coveredLabels: covered.length,
    pairs: pairs.length,
    pairsBeside: pairs.filter(([a, b]) => beside(a, b, plates)).length,
    leaves: leaves.length,
    leavesBelow: leaves.filter(
      ({ plate, parent }) =>
        plate.box.x < parent.box.x + parent.box.width && parent.box.x < plate.box.x + plate.box.width,
    ).length,
    zoom: Math.min(
      1.1,
      (frame.width * 0.96) / Math.max(1, box.width),
      (frame.height * 0.96) / Math.max(1, box.height),
    ),
  };
}

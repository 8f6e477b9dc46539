import { corners } from '../route/router.ts';
import { stepsAlong } from './bundles.ts';
import type { LinkEnd, Point, Scene, SceneBundle, SceneLink } from './scene.ts';

/** From one lane to the next, in sheet units: less where there are many, more where several cables are one line. */
const widestLane = 5;
const widestOfMany = 8;
const narrowestLane = 2;
const corridor = 32;
/** How far behind a fork lanes that go straight on come back to the middle. */
const settle = 8;

interface Way {
  link: SceneLink;
  fromB: boolean;
  steps: Point[];
}
interface Heading {
  x: number;
  y: number;
}

const keyOf = ({ x, y }: Point): string => `${x} ${y}`;
const headingOf = (from: Point, to: Point): Heading => ({
  x: Math.sign(to.x - from.x),
  y: Math.sign(to.y - from.y),
});
/** To the left of where one goes; y counts down the sheet. */
const leftOf = ({ x, y }: Heading): Heading => ({ x: y, y: -x });

/** Left before straight on before right, as seen from the way in. */
function turn(into: Heading, out: Heading): number {
  const left = leftOf(into);
  return -(out.x * left.x + out.y * left.y);
}

/** A place where ways of a bundle part: those that go on from there, by where they go, the leftmost first. */
interface Fork {
  at: number;
  branches: { ways: Way[]; straight: boolean }[];
  /** Ways that end there. */
  ended: Way[];
}

/** Where some ways that have come together so far part; null where they never do. */
function nextFork(ways: readonly Way[], from: number): Fork | null {
  const [first] = ways;
  if (first === undefined) return null;
  for (let at = from; at < first.steps.length; at++) {
    const onward = new Map<string, Way[]>();
    const ended: Way[] = [];
    for (const way of ways) {
      const next = way.steps[at + 1];
      if (next === undefined) ended.push(way);
      else onward.set(keyOf(next), [...(onward.get(keyOf(next)) ?? []), way]);
    }
    if (onward.size === 1 && ended.length === 0) continue;
    const [before, here] = [first.steps[at - 1], first.steps[at]];
    const sideOf = (branch: readonly Way[]): number => {
      const next = branch[0]?.steps[at + 1];
      if (before === undefined || here === undefined || next === undefined) return 0;
      return turn(headingOf(before, here), headingOf(here, next));
    };
    const branches = [...onward.values()]
      .map((branch) => ({ ways: branch, side: sideOf(branch) }))
      .sort((x, y) => x.side - y.side)
      .map(({ ways: branch, side }) => ({ ways: branch, straight: side === 0 }));
    return { at, branches, ended };
  }
  return null;
}

/**
 * The members of a bundle from left to right as they leave the hub: those that turn off to the left first. Drawn in this
 * order no two cross, since what is shared is a tree.
 */
function inLaneOrder(ways: readonly Way[], from = 1): Way[] {
  const fork = ways.length < 2 ? null : nextFork(ways, from);
  if (fork === null) return [...ways];
  return [...fork.ended, ...fork.branches.flatMap((branch) => inLaneOrder(branch.ways, fork.at + 1))];
}

/** How far the lane of each way is to the left of its middle, from some step on. */
type Offsets = Map<Way, { from: number; offset: number }[]>;

/** Where the lanes of a bundle run. */
function offsetsOf(order: readonly Way[]): Offsets {
  const many = order.some(({ link }) => link.cableIds.length > 1);
  const wide = many ? widestOfMany : widestLane;
  const gap = Math.max(narrowestLane, Math.min(wide, corridor / Math.max(1, order.length - 1)));
  const found: Offsets = new Map(order.map((way) => [way, []]));
  const spread = (some: readonly Way[], from: number): void =>
    some.forEach((way, at) => found.get(way)?.push({ from, offset: ((some.length - 1) / 2 - at) * gap }));
  const rank = new Map(order.map((way, at) => [way, at]));
  const walk = (some: readonly Way[], from: number): void => {
    const fork = some.length < 2 ? null : nextFork(some, from);
    for (const branch of fork?.branches ?? []) {
      const sorted = branch.ways.sort((x, y) => (rank.get(x) ?? 0) - (rank.get(y) ?? 0));
      // What goes straight on keeps its lanes; what turns off comes to the middle of its own way.
      if (!branch.straight) spread(sorted, fork?.at ?? 0);
      walk(sorted, (fork?.at ?? 0) + 1);
    }
  };
  spread(order, 0);
  walk(order, 1);
  return found;
}

/** The lane of one link: its way, each piece as far to the left as its offset says, back on its own line at the end. */
function laneOf({ steps }: Way, offsets: readonly { from: number; offset: number }[]): Point[] {
  interface Piece {
    from: Point;
    to: Point;
    heading: Heading;
    offset: number;
  }
  const pieces: Piece[] = [];
  let lane = 0;
  steps.slice(1).forEach((to, index) => {
    const from = steps[index] ?? to;
    const heading = headingOf(from, to);
    while ((offsets[lane + 1]?.from ?? Infinity) <= index) lane++;
    const offset = offsets[lane]?.offset ?? 0;
    const last = pieces.at(-1);
    if (
      last !== undefined &&
      last.heading.x === heading.x &&
      last.heading.y === heading.y &&
      last.offset === offset
    )
      last.to = to;
    else pieces.push({ from, to, heading, offset });
  });
  const beside = (point: Point, { heading, offset }: Piece): Point => ({
    x: point.x + leftOf(heading).x * offset,
    y: point.y + leftOf(heading).y * offset,
  });
  const points: Point[] = [];
  pieces.forEach((piece, at) => {
    const before = pieces[at - 1];
    const from = beside(piece.from, piece);
    if (before === undefined) points.push(from);
    else if (before.heading.x === piece.heading.x && before.heading.y === piece.heading.y)
      points.push(beside(before.to, before), from);
    // Where the way turns, the lane turns where its two pieces meet.
    else {
      const end = beside(before.to, before);
      points.push(piece.heading.x === 0 ? { x: from.x, y: end.y } : { x: end.x, y: from.y });
    }
    if (at < pieces.length - 1) return;
    if (piece.offset === 0) points.push(piece.to);
    else {
      const back = {
        x: piece.to.x - piece.heading.x * settle,
        y: piece.to.y - piece.heading.y * settle,
      };
      points.push(beside(back, piece), back, piece.to);
    }
  });
  return corners(points);
}

/** The links of a bundle in lanes beside each other. */
function opened(bundle: SceneBundle, links: readonly SceneLink[]): SceneLink[] {
  const ways = links.map((link): Way => {
    const fromB = link.b.plateId === bundle.hubId && keyOf(link.b.at) === keyOf(bundle.at);
    return { link, fromB, steps: stepsAlong(fromB ? link.points.slice().reverse() : link.points) };
  });
  const order = inLaneOrder(ways);
  const offsets = offsetsOf(order);
  return ways.map((way) => {
    const lane = laneOf(way, offsets.get(way) ?? []);
    const points = way.fromB ? lane.slice().reverse() : lane;
    const at = lane[0] ?? bundle.at;
    const hub = (end: LinkEnd): LinkEnd => ({ ...end, at });
    return {
      ...way.link,
      ...(way.fromB ? { b: hub(way.link.b) } : { a: hub(way.link.a) }),
      ...{ points, drawn: points, bundleId: null },
    };
  });
}

const openedBefore = new WeakMap<SceneBundle, { links: readonly SceneLink[]; opened: SceneLink[] }>();

/** A bundle in lanes, worked out once for as long as its links are the same. */
function openedOnce(bundle: SceneBundle, links: readonly SceneLink[]): SceneLink[] {
  const known = openedBefore.get(bundle);
  if (
    known !== undefined &&
    known.links.length === links.length &&
    known.links.every((link, at) => link === links[at])
  )
    return known.opened;
  const made = opened(bundle, links);
  openedBefore.set(bundle, { links, opened: made });
  return made;
}

/**
 * The scene with some bundles drawn in lanes: their links beside each other, in an order in which none crosses another,
 * each with its own end at the hub. Such a link can be chosen, labelled and bent like any other.
 */
export function withBundlesOpen(scene: Scene, isOpen: (bundle: SceneBundle) => boolean): Scene {
  const open = scene.bundles.filter(isOpen);
  if (open.length === 0) return scene;
  const byId = new Map(scene.links.map((link) => [link.id, link]));
  for (const bundle of open) {
    const own = bundle.linkIds.flatMap((id) => {
      const link = byId.get(id);
      return link?.bundleId === bundle.id ? [link] : [];
    });
    for (const link of openedOnce(bundle, own)) byId.set(link.id, link);
  }
  const gone = new Set(open);
  const bundles = scene.bundles.filter((bundle) => !gone.has(bundle));
  return {
    ...scene,
    links: scene.links.map((link) => byId.get(link.id) ?? link),
    bundles,
    key: bundles.length > 0 ? scene.key : scene.key.filter(({ form }) => form !== 'bundle'),
  };
}

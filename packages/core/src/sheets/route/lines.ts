import type { Bundle } from '../layout/bundles.ts';
import { outward, slideEnd, type PlacedEnd, type PlacedEnds } from '../layout/ends.ts';
import { grid } from '../layout/lattice.ts';
import type { LinkWish } from '../scene/drawingPlan.ts';
import { boxAround, type Box, type Container, type Point } from '../scene/scene.ts';
import type { GraphLink } from '../graph/sheetGraph.ts';
import { Router, type Leg } from './router.ts';

/** A link between its placed ends. */
export interface Draft {
  link: GraphLink;
  a: PlacedEnd;
  b: PlacedEnd;
  wish: LinkWish | null;
}

/** What is led as one: a single link, or all of a bundle from its hub. */
export interface DrawnLine {
  id: string;
  drafts: Draft[];
  bundle: Bundle | null;
}

/** A spot on the side of a plate where one line leaves it. */
export interface Spot {
  line: DrawnLine;
  ends: PlacedEnd[];
}

export const apart = ({ a, b }: Draft): number =>
  Math.abs(a.stub.x - b.stub.x) + Math.abs(a.stub.y - b.stub.y);

/** The lines that links are drawn as, the shortest first: what is near is led before what goes around it. */
export function linesOf(drafts: readonly Draft[], bundles: ReadonlyMap<string, Bundle>): DrawnLine[] {
  const lines = new Map<string, DrawnLine>();
  for (const draft of drafts) {
    const bundle = bundles.get(draft.link.id) ?? null;
    const id = bundle?.id ?? draft.link.id;
    const line = lines.get(id) ?? { id, drafts: [], bundle };
    line.drafts.push(draft);
    lines.set(id, line);
  }
  const nearest = ({ drafts: own }: DrawnLine): number => Math.min(...own.map(apart));
  for (const line of lines.values()) line.drafts.sort((x, y) => apart(x) - apart(y));
  return [...lines.values()].sort((x, y) => nearest(x) - nearest(y));
}

/** The end of a link at the hub of its bundle, or its A end, and the other. */
export function turned({ bundle }: DrawnLine, { link, a, b }: Draft): [from: PlacedEnd, to: PlacedEnd] {
  return bundle?.ends.get(link.id) === 'b' ? [b, a] : [a, b];
}

export const legsOf = (line: DrawnLine, zonesOf: (plateId: string) => readonly number[]): Leg[] =>
  line.drafts.map((draft) => {
    const [from, to] = turned(line, draft);
    const [near, far] = [zonesOf(from.plateId), zonesOf(to.plateId)];
    return {
      id: draft.link.id,
      start: from.stub,
      heading: outward[from.side],
      goal: to.stub,
      arriving: outward[to.side],
      zones: [...near, ...far],
      inside: near.some((zone) => far.includes(zone)),
    };
  });

/** The straight first piece of an end. */
function stalk({ at, stub, side }: PlacedEnd): Box {
  const out = outward[side];
  return {
    x: Math.min(at.x, stub.x),
    y: Math.min(at.y, stub.y),
    width: Math.abs(out.x) * Math.abs(stub.x - at.x),
    height: Math.abs(out.y) * Math.abs(stub.y - at.y),
  };
}
function blockEnd(router: Router, end: PlacedEnd, by: 1 | -1): void {
  router.block(stalk(end), 0, by);
  if (end.label !== null) router.block(end.label.box, 0, by);
}

/** Moves the ends of a line along the side of a plate, and what they close to others with them. */
export function slideSpot(router: Router, { ends }: Spot, by: Point): void {
  for (const end of ends) {
    blockEnd(router, end, -1);
    router.open(end.stub, false);
    slideEnd(end, by);
    blockEnd(router, end, 1);
  }
}

/** A router that knows plates, titles, containers and the ends of links. */
export function routerFor({
  ends,
  boxes,
  titles,
  containers,
}: {
  ends: ReadonlyMap<string, PlacedEnds>;
  boxes: ReadonlyMap<string, Box>;
  titles: readonly Box[];
  containers: readonly Container[];
}): { router: Router; zonesOf: (plateId: string) => readonly number[] } {
  const placed = [...ends.values()].flatMap(({ a, b }) => (b === null ? [a] : [a, b]));
  const router = new Router(
    boxAround([...boxes.values(), ...placed.map((end) => ({ ...end.stub, width: 0, height: 0 }))], 3 * grid),
  );
  const zones = new Map<string, number[]>();
  for (const { box, plateIds } of containers) {
    const zone = router.enclose(box);
    for (const id of plateIds) zones.set(id, [...(zones.get(id) ?? []), zone]);
  }
  for (const box of titles) router.block(box);
  for (const box of boxes.values()) router.blockPlate(box);
  for (const end of placed) blockEnd(router, end, 1);
  for (const end of placed) router.open(end.stub);
  return { router, zonesOf: (plateId) => zones.get(plateId) ?? [] };
}

/** The spots on each side of each plate. */
export function spotsOf(lines: readonly DrawnLine[]): Spot[][] {
  const sides = new Map<string, Map<DrawnLine, Spot[]>>();
  for (const line of lines)
    for (const draft of line.drafts)
      for (const end of [draft.a, draft.b]) {
        const key = `${end.plateId}|${end.side}`;
        const side = sides.get(key) ?? new Map<DrawnLine, Spot[]>();
        const own = side.get(line) ?? [];
        // The ends of a bundle at its hub are one spot; elsewhere each is one by itself.
        const same = own.find((spot) => spot.ends[0]?.at === end.at);
        if (same === undefined) own.push({ line, ends: [end] });
        else same.ends.push(end);
        side.set(line, own);
        sides.set(key, side);
      }
  return [...sides.values()].map((side) => [...side.values()].flat());
}

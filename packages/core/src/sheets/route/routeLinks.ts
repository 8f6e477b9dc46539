import { spokenLink } from '../scene/spoken.ts';
import { outward, type PlacedEnd, type PlacedEnds } from '../layout/ends.ts';
import { grid } from '../layout/lattice.ts';
import type { DrawingPlan, LinkWish } from '../scene/drawingPlan.ts';
import { corners, mostLooked, Router } from './route.ts';
import {
  boxAround,
  type Box,
  type LinkEnd,
  type Point,
  type SceneLink,
  type SceneStub,
} from '../scene/scene.ts';
import type { GraphLink } from '../graph/sheetGraph.ts';

/** Up to so many links are kept off each other; beyond, links are plain elbows: nobody follows one by eye. */
const mostRouted = 1200;
/** How often links that came to lie on others are taken up and routed again. */
const mostRounds = 4;
/** Up to so many links there is time to route all of them again, to save crossings. */
const fewLinks = 200;
const care = (links: number): { crossCost: number; again: number } =>
  links <= fewLinks ? { crossCost: 8, again: 2 } : { crossCost: 3, again: 1 };

const slid = (end: PlacedEnd, by: Point | null, tie: string | null, blocked = false): LinkEnd => ({
  tie,
  blocked,
  plateId: end.plateId,
  side: end.side,
  at: end.at,
  label:
    end.label === null || by === null
      ? end.label
      : { ...end.label, box: { ...end.label.box, x: end.label.box.x + by.x, y: end.label.box.y + by.y } },
});

/** Corners set by hand, joined by horizontal and vertical pieces only. */
function overBends(from: Point, bends: readonly Point[], to: Point, upright: boolean): Point[] {
  const points: Point[] = [from];
  let vertical = upright;
  for (const next of [...bends, to]) {
    const last = points.at(-1) ?? from;
    if (last.x !== next.x && last.y !== next.y)
      points.push(vertical ? { x: last.x, y: next.y } : { x: next.x, y: last.y });
    const before = points.at(-1) ?? from;
    vertical = before.x === next.x;
    points.push(next);
  }
  return points;
}

/** A link as three pieces, without regard to anything. */
function elbow(a: PlacedEnd, b: PlacedEnd): Point[] {
  const upright = a.side === 'top' || a.side === 'bottom';
  const middle = {
    x: Math.round((a.stub.x + b.stub.x) / 2 / grid) * grid,
    y: Math.round((a.stub.y + b.stub.y) / 2 / grid) * grid,
  };
  return upright
    ? [a.stub, { x: a.stub.x, y: middle.y }, { x: b.stub.x, y: middle.y }, b.stub]
    : [a.stub, { x: middle.x, y: a.stub.y }, { x: middle.x, y: b.stub.y }, b.stub];
}

function routerFor(
  ends: ReadonlyMap<string, PlacedEnds>,
  boxes: readonly Box[],
  titles: readonly Box[],
): Router {
  const placed = [...ends.values()].flatMap(({ a, b }) => (b === null ? [a] : [a, b]));
  const router = new Router(
    boxAround([...boxes, ...placed.map((end) => ({ ...end.stub, width: 0, height: 0 }))], 24),
    care(ends.size).crossCost,
  );
  for (const box of titles) router.block(box);
  for (const box of boxes) router.block(box, grid);
  for (const end of placed) {
    const out = outward[end.side];
    router.block({
      x: Math.min(end.at.x, end.stub.x),
      y: Math.min(end.at.y, end.stub.y),
      width: Math.abs(out.x) * Math.abs(end.stub.x - end.at.x),
      height: Math.abs(out.y) * Math.abs(end.stub.y - end.at.y),
    });
    if (end.label !== null) router.block(end.label.box, 0);
  }
  for (const end of placed) router.open(end.stub);
  return router;
}

interface Draft {
  link: GraphLink;
  a: PlacedEnd;
  b: PlacedEnd;
  wish: LinkWish | null;
}

const apart = ({ a, b }: Draft): number => Math.abs(a.stub.x - b.stub.x) + Math.abs(a.stub.y - b.stub.y);

/** The way of every link between its stubs: by hand where bends were set, otherwise around plates and off each other. */
function paths(
  drafts: readonly Draft[],
  makeRouter: () => Router,
  straight: boolean,
  most: number,
): Map<string, Point[]> {
  const found = new Map<string, Point[]>();
  const free: Draft[] = [];
  const byHand = new Map<string, Point[]>();
  for (const draft of drafts) {
    const { link, a, b, wish } = draft;
    if (straight || wish?.straight === true) found.set(link.id, []);
    else if (wish !== null && wish.bends.length > 0) {
      const upright = a.side === 'top' || a.side === 'bottom';
      const points = overBends(a.stub, wish.bends, b.stub, upright);
      byHand.set(link.id, points);
      found.set(link.id, points);
    } else free.push(draft);
  }
  if (free.length > most) {
    for (const { link, a, b } of free) found.set(link.id, elbow(a, b));
    return found;
  }
  const router = makeRouter();
  for (const [id, points] of byHand) router.claim(id, points);
  const route = ({ link, a, b }: Draft, most?: number): void =>
    void found.set(
      link.id,
      router.route(link.id, a.stub, outward[a.side], b.stub, outward[b.side], most) ?? elbow(a, b),
    );
  free.sort((x, y) => apart(x) - apart(y));
  for (const draft of free) route(draft);
  for (let again = 0; again < care(drafts.length).again; again++)
    for (const draft of free) {
      router.takeUp(draft.link.id);
      route(draft);
    }
  const byId = new Map(free.map((draft) => [draft.link.id, draft]));
  for (let round = 0; round < mostRounds; round++) {
    const clashing = router.clashing(byId.keys());
    if (clashing.length === 0) break;
    for (const id of clashing) {
      const draft = byId.get(id);
      if (draft === undefined) continue;
      router.takeUp(id);
      route(draft, 8 * mostLooked);
    }
  }
  return found;
}

/** Links and stubs with their points, from the ends that were placed on the plates. */
export function routeAll(
  plan: DrawingPlan,
  ends: ReadonlyMap<string, PlacedEnds>,
  boxes: ReadonlyMap<string, Box>,
  titles: readonly Box[],
  quick: boolean,
): { links: SceneLink[]; stubs: SceneStub[] } {
  const faded = plan.manners.links === 'faded';
  const drafts = plan.graph.links.flatMap((link): Draft[] => {
    const { a, b } = ends.get(link.id) ?? { a: null, b: null };
    if (a === null || b === null) return [];
    return [{ link, a, b, wish: plan.links.get(link.cables[0]?.id ?? '') ?? null }];
  });
  const names = new Map(plan.graph.nodes.map((node) => [node.id, node.name]));
  // Where plates are hidden nobody is named, also not as the end of a link.
  const nameOf = (id: string): string => (plan.manners.devices === 'hidden' ? '' : (names.get(id) ?? ''));
  const makeRouter = (): Router => routerFor(ends, [...boxes.values()], titles);
  const found = paths(drafts, makeRouter, plan.straight, quick ? 0 : mostRouted);
  const links = drafts.map(({ link, a, b, wish }): SceneLink => {
    const line = link.cables[0] ?? { kind: 'cable', id: '', label: '' };
    return {
      id: link.id,
      kind: line.kind,
      cableIds: [...new Set(link.cables.map((cable) => cable.id))],
      line,
      medium: link.medium,
      jacket: link.jacket,
      shade: link.shade,
      a: slid(a, wish?.aLabel ?? null, link.ties[0], link.blocked === 'a'),
      b: slid(b, wish?.bLabel ?? null, link.ties[1], link.blocked === 'b'),
      points: corners([a.at, ...(found.get(link.id) ?? []), b.at]),
      bends: [...(wish?.bends ?? [])],
      label: null,
      spoken: spokenLink(link, nameOf),
      faded: faded || link.dim === true || plan.faded.has(link.a) || plan.faded.has(link.b),
    };
  });
  const stubs = plan.graph.stubs.flatMap((stub): SceneStub[] => {
    const end = ends.get(stub.id)?.a;
    if (end === undefined) return [];
    const out = outward[end.side];
    return [
      {
        id: stub.id,
        kind: stub.cables[0]?.kind ?? 'cable',
        cableIds: stub.cables.map((cable) => cable.id),
        medium: stub.medium,
        jacket: stub.jacket,
        a: slid(end, null, null),
        to: { x: end.stub.x + out.x * grid, y: end.stub.y + out.y * grid },
        label: null,
        spoken: `Link to ${stub.text || 'something'} that is not on this sheet`,
        faded: faded || plan.faded.has(stub.a),
      },
    ];
  });
  return { links, stubs };
}

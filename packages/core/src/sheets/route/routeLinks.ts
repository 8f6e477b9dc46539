import { spokenLink } from '../scene/spoken.ts';
import type { Bundle } from '../layout/bundles.ts';
import { outward, type PlacedEnd, type PlacedEnds } from '../layout/ends.ts';
import { grid } from '../layout/lattice.ts';
import type { DrawingPlan } from '../scene/drawingPlan.ts';
import { layAll, type Task } from './improve.ts';
import { linesOf, routerFor, turned, type Draft } from './lines.ts';
import { corners } from './router.ts';
import type { Box, Container, LinkEnd, Point, SceneLink, SceneStub } from '../scene/scene.ts';

/** Up to so many lines are kept off each other; beyond, links are plain elbows. */
const mostRouted = 4000;

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

/** Links on their way: what is led, and what is given by hand. */
export interface Routing {
  drafts: Draft[];
  /** Ways that a person has bent, or wants straight. */
  byHand: ReadonlyMap<string, Point[]>;
  /** Null where links are plain elbows. */
  task: Task | null;
}

/** All that links have to keep off, and where they begin and end. */
export interface Ground {
  ends: ReadonlyMap<string, PlacedEnds>;
  boxes: ReadonlyMap<string, Box>;
  titles: readonly Box[];
  containers: readonly Container[];
  bundles: ReadonlyMap<string, Bundle>;
}

/**
 * Leads every link between its stubs: by hand where bends were set, otherwise around plates and off each other.
 *
 * @param most more lines than this are plain elbows
 */
export function routing(plan: DrawingPlan, ground: Ground, most = mostRouted): Routing {
  const drafts = plan.graph.links.flatMap((link): Draft[] => {
    const { a, b } = ground.ends.get(link.id) ?? { a: null, b: null };
    if (a === null || b === null) return [];
    return [{ link, a, b, wish: plan.links.get(link.cables[0]?.id ?? '') ?? null }];
  });
  const byHand = new Map<string, Point[]>();
  const free: Draft[] = [];
  for (const draft of drafts) {
    const { link, a, b, wish } = draft;
    if (plan.straight || wish?.straight === true) byHand.set(link.id, []);
    else if (wish !== null && wish.bends.length > 0)
      byHand.set(link.id, overBends(a.stub, wish.bends, b.stub, a.side === 'top' || a.side === 'bottom'));
    else free.push(draft);
  }
  const lines = linesOf(free, ground.bundles);
  if (lines.length > most) return { drafts, byHand, task: null };
  const { router, zonesOf } = routerFor(ground);
  for (const [id, points] of byHand) router.claim(id, points);
  const task: Task = { router, lines, zonesOf };
  layAll(task);
  return { drafts, byHand, task };
}

/** The way of every link between its stubs. */
function ways({ drafts, byHand, task }: Routing): Map<string, Point[]> {
  const found = new Map<string, Point[]>(byHand);
  for (const line of task?.lines ?? []) {
    const laid = task?.router.laid(line.id).ways;
    for (const draft of line.drafts) {
      const way = laid?.get(draft.link.id);
      if (way === undefined || task === null) continue;
      const points = task.router.points(way);
      found.set(draft.link.id, turned(line, draft)[0] === draft.b ? points.reverse() : points);
    }
  }
  for (const { link, a, b } of drafts) if (!found.has(link.id)) found.set(link.id, elbow(a, b));
  return found;
}

/** Links and stubs with their points, from the ends that were placed on the plates. */
export function linksOf(
  plan: DrawingPlan,
  ends: ReadonlyMap<string, PlacedEnds>,
  routed: Routing,
): { links: SceneLink[]; stubs: SceneStub[] } {
  const faded = plan.manners.links === 'faded';
  const names = new Map(plan.graph.nodes.map((node) => [node.id, node.name]));
  // Where plates are hidden nobody is named, also not as the end of a link.
  const nameOf = (id: string): string => (plan.manners.devices === 'hidden' ? '' : (names.get(id) ?? ''));
  const found = ways(routed);
  const links = routed.drafts.map(({ link, a, b, wish }): SceneLink => {
    const line = link.cables[0] ?? { kind: 'cable', id: '', label: '' };
    const points = corners([a.at, ...(found.get(link.id) ?? []), b.at]);
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
      points,
      drawn: points,
      bundleId: null,
      bends: [...(wish?.bends ?? [])],
      label: null,
      ...(link.arrow === true ? { arrow: true } : {}),
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

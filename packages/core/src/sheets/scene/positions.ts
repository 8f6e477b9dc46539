import { snap, type Size } from '../layout/lattice.ts';
import { arrangements, findSpot } from '../layout/placement.ts';
import { pairGaps } from '../layout/plateSizes.ts';
import { titleWidth } from './containers.ts';
import type { Box, Point } from './scene.ts';
import type { Setting } from './setting.ts';

/** Width to height of a window with nothing chosen: a class, so that resizing does not draw anew. */
const windowAspect = 1.85;
const nowhere: Size = { width: 0, height: 0, reachUp: 0, reachDown: 0 };

/** A plate that is new on a sheet arranged by hand: near what it is linked to, or else near others of its container. */
function placeNew({ plan: { graph }, sizes }: Setting, kept: Map<string, Point>): Map<string, Point> {
  const boxOf = (id: string, at: Point): Box => ({ ...at, ...(sizes.get(id) ?? nowhere) });
  const taken = [...kept].map(([id, at]) => boxOf(id, at));
  for (const node of graph.nodes) {
    if (kept.has(node.id)) continue;
    const neighbour = graph.links
      .flatMap((link) => (link.a === node.id ? [link.b] : link.b === node.id ? [link.a] : []))
      .find((id) => kept.has(id));
    const peer =
      neighbour ??
      graph.nodes.find((other) => other.containerId === node.containerId && kept.has(other.id))?.id;
    const near = peer === undefined ? undefined : kept.get(peer);
    const spot = findSpot(
      sizes.get(node.id) ?? nowhere,
      near === undefined || peer === undefined ? null : boxOf(peer, near),
      taken,
    );
    kept.set(node.id, spot);
    taken.push(boxOf(node.id, spot));
  }
  return kept;
}

/**
 * Where the plates of a drawing may stand, the most promising first. Hand-made positions stay; the rest is laid out, or
 * placed near what it connects to once anything was moved.
 *
 * @param moved positions that stand for those stored
 */
export function positionsOf(setting: Setting, moved: ReadonlyMap<string, Point>): Map<string, Point>[] {
  const { plan, bands, sizes, lineOf, measure } = setting;
  const { graph } = plan;
  const kept = new Map<string, Point>();
  for (const node of graph.nodes) {
    const at = moved.get(node.id) ?? plan.plates.get(node.id)?.at ?? null;
    if (at !== null) kept.set(node.id, { x: snap(at.x), y: snap(at.y) });
  }
  if (kept.size === graph.nodes.length) return [kept];
  if (plan.arranged) return [placeNew(setting, kept)];
  const titles = new Map(graph.containers.map(({ id, title }) => [id, titleWidth(title, measure)]));
  const measures = {
    sizes,
    pairGap: pairGaps(graph, measure),
    titleWidth: (id: string) => titles.get(id) ?? 0,
  };
  const found = arrangements(graph, bands, measures, lineOf, windowAspect);
  for (const positions of found) for (const [id, at] of kept) positions.set(id, at);
  return found;
}

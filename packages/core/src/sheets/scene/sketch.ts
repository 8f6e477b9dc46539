import { bundlesOf, bundleOfLink, type Bundle } from '../layout/bundles.ts';
import { placeEnds, sidesOf } from '../layout/ends.ts';
import { crossingsOf, leadAgainOnce, refineAll } from '../route/improve.ts';
import { routing, type Ground, type Routing } from '../route/routeLinks.ts';
import { containersOf, titleBoxes } from './containers.ts';
import { boxAround, type Box, type Container, type Point } from './scene.ts';
import type { Setting } from './setting.ts';

/** So many arrangements are drawn, to see which reads best. */
const mostDrawn = 3;
/** Of a sheet of few links more are. */
const mostDrawnOfFew = 6;
const fewLinks = 40;
/** What a picture e times as large is worth, in crossings, and what one crossing more costs. */
const zoomWorth = 50;
/** Larger than this nothing is gained. */
const largeEnough = 0.7;
/** As large as a window of 1280 by 800 has room for a sheet, in square units of the screen. */
const frameArea = 1184 * 640;

/** Plates in their places, and the ways of links between them. */
export interface Sketch extends Ground {
  containers: Container[];
  bundlesMade: Bundle[];
  routed: Routing;
}

/** @param most more lines than this are plain elbows */
function sketchOf(setting: Setting, positions: ReadonlyMap<string, Point>, most?: number): Sketch {
  const { plan, bands, sizes, wishes, measure } = setting;
  const { graph } = plan;
  const boxes = new Map(
    graph.nodes.map(({ id }): [string, Box] => {
      const { width, height } = sizes.get(id) ?? { width: 0, height: 0 };
      return [id, { ...(positions.get(id) ?? { x: 0, y: 0 }), width, height }];
    }),
  );
  const containers = containersOf(plan, boxes, measure);
  const sides = sidesOf(graph, bands, boxes);
  const bundlesMade =
    most === 0
      ? []
      : bundlesOf(graph, (link, end) => sides.get(link.id)?.[end === 'a' ? 0 : 1] ?? '', wishes);
  const bundles = bundleOfLink(bundlesMade);
  const ground: Ground = {
    ...{ boxes, containers, bundles },
    titles: titleBoxes(containers, measure),
    ends: placeEnds(graph, boxes, sides, bundles, measure),
  };
  return { ...ground, containers, bundlesMade, routed: routing(plan, ground, most) };
}

/** How badly a sketch reads: crossings, and how small it has to be drawn. */
function judged({ plan }: Setting, { boxes, containers, routed }: Sketch): number {
  const { width, height } = boxAround([...boxes.values(), ...containers.map(({ box }) => box)], 24);
  const frame = { width: Math.sqrt(frameArea * plan.aspect), height: Math.sqrt(frameArea / plan.aspect) };
  const zoom = Math.min(frame.width / Math.max(1, width), frame.height / Math.max(1, height));
  return (
    (routed.task === null ? 0 : crossingsOf(routed.task)) - zoomWorth * Math.log(Math.min(largeEnough, zoom))
  );
}

/** The arrangement that reads best, with its links led once. */
export function bestSketch(
  setting: Setting,
  positions: readonly Map<string, Point>[],
  most?: number,
): Sketch {
  const [first, ...others] = positions;
  let best = sketchOf(setting, first ?? new Map<string, Point>(), most);
  if (most === 0) return best;
  let least = others.length === 0 ? 0 : judged(setting, best);
  const drawn = setting.plan.graph.links.length <= fewLinks ? mostDrawnOfFew : mostDrawn;
  for (const other of others.slice(0, drawn - 1)) {
    const sketch = sketchOf(setting, other, most);
    const cost = judged(setting, sketch);
    if (cost < least) [best, least] = [sketch, cost];
  }
  if (best.routed.task !== null) leadAgainOnce(best.routed.task);
  return best;
}

/** The same with its links led with more care. */
export function refine({ routed }: Sketch): void {
  if (routed.task !== null) refineAll(routed.task);
}

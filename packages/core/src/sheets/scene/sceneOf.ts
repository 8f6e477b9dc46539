import {
  LabelRoom,
  nameBranches,
  placeMiddleLabels,
  stubLabels,
  tellBundles,
} from '../layout/middleLabels.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';
import { linksOf } from '../route/routeLinks.ts';
import { sceneBundles } from './bundles.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { sceneMarks } from './marks.ts';
import { plateOf } from './plates.ts';
import { positionsOf } from './positions.ts';
import { boxAround, type KeyEntry, type Point, type Scene } from './scene.ts';
import { settingOf, type Setting } from './setting.ts';
import { bestSketch, refine, type Sketch } from './sketch.ts';

export interface DrawOptions {
  measure: TextMeasure;
  /** Positions by plate id that stand for those stored: where a plate is being dragged. */
  moved?: ReadonlyMap<string, Point>;
  /** Where plates stood in the drawing before this one: on a sheet that nobody arranged they stay as long as most do. */
  held?: ReadonlyMap<string, Point>;
  /** The draft alone: to be looked at small. */
  quick?: boolean;
  /** Is given the drawing as soon as plates have their places and links are led, before they are led with care. */
  draft?: (scene: Scene) => void;
}

/** More links than this are elbows in a draft. */
const mostDrafted = 150;

/** The key of what is drawn: where links of one purpose are one line, it says so after the kinds of links. */
function keyOf({ key, keyShown, manners }: DrawingPlan, bundled: boolean): KeyEntry[] {
  const links = manners.links === 'hidden' ? [] : key.filter(({ form }) => form === 'link');
  const others = manners.devices === 'hidden' ? [] : key.filter(({ form }) => form !== 'link');
  const bundle: KeyEntry = { form: 'bundle', text: 'links as one, × n' };
  return [...links, ...(bundled && keyShown && manners.links !== 'hidden' ? [bundle] : []), ...others];
}

/** All that is drawn of a sketch. */
function sceneOfSketch({ plan, measure }: Setting, sketch: Sketch, draft: boolean): Scene {
  const { graph, manners } = plan;
  const { boxes, containers, titles, ends, bundles, bundlesMade } = sketch;
  const names = new Map(graph.nodes.map((node) => [node.id, node.name]));
  // Where plates are hidden nobody is named.
  const nameOf = (id: string): string => (manners.devices === 'hidden' ? '' : (names.get(id) ?? ''));
  const routed = linksOf(plan, ends, sketch.routed);
  const drawn = sceneBundles(routed.links, bundlesMade, nameOf);
  const room = new LabelRoom(
    drawn.links,
    [...boxes.values(), ...titles, ...drawn.bundles.flatMap(({ label }) => label?.box ?? [])],
    measure,
  );
  const bundlesTold = tellBundles(drawn.bundles, room);
  const told = new Map(graph.links.map((link) => [link.id, link]));
  const links = nameBranches(
    drawn.links,
    ({ id }) => {
      const end = bundles.get(id)?.ends.get(id) ?? 'a';
      const link = told.get(id);
      return link === undefined ? null : { end, text: end === 'a' ? link.aPort : link.bPort };
    },
    room,
  );
  const { stubs } = routed;
  const labels = placeMiddleLabels(
    draft ? [] : links,
    new Map(
      graph.links.map((link) => [
        link.id,
        { text: link.text, by: plan.links.get(link.cables[0]?.id ?? '')?.middleLabel ?? null },
      ]),
    ),
    room,
  );
  const stubTexts = stubLabels(stubs, new Map(graph.stubs.map((stub) => [stub.id, stub.text])), measure);
  const count = new Map<string, number>();
  for (const link of links)
    for (const id of [link.a.plateId, link.b.plateId])
      count.set(id, (count.get(id) ?? 0) + link.cableIds.length);
  const plates = graph.nodes.map((node) =>
    plateOf(plan, node, boxes.get(node.id) ?? { x: 0, y: 0, width: 0, height: 0 }, count.get(node.id) ?? 0),
  );
  const marks = sceneMarks(plan, boxes, measure);
  const reach = [...links.flatMap((link) => link.points), ...stubs.map((stub) => stub.to)];
  return {
    form: 'diagram',
    box: boxAround(
      [
        ...containers.map((container) => container.box),
        ...boxes.values(),
        ...marks.map((mark) => mark.box),
        ...reach.map((point) => ({ ...point, width: 0, height: 0 })),
      ],
      24,
    ),
    plates: manners.devices === 'hidden' ? [] : plates,
    containers: manners.containers === 'hidden' ? [] : containers,
    links:
      manners.links === 'hidden'
        ? []
        : links.map((link) => ({ ...link, label: labels.get(link.id) ?? null })),
    bundles: manners.links === 'hidden' ? [] : bundlesTold,
    stubs:
      manners.links === 'hidden'
        ? []
        : stubs.map((stub) => ({ ...stub, label: stubTexts.get(stub.id) ?? null })),
    marks,
    key: keyOf(plan, bundlesTold.length > 0),
    titleBlock: plan.titleBlock,
  };
}

/**
 * Lays out and routes what a sheet shows. Needs no network, so that it can run anywhere. The same plan gives the same
 * scene, whatever ids and order its rows have.
 */
export function sceneOf(given: DrawingPlan, { measure, moved, held, quick, draft }: DrawOptions): Scene {
  const setting = settingOf(given, measure);
  const positions = positionsOf(setting, moved ?? new Map(), held ?? new Map());
  const many = setting.plan.graph.links.length > mostDrafted;
  if (many && (quick === true || draft !== undefined)) {
    const rough = sceneOfSketch(setting, bestSketch(setting, positions, 0), true);
    if (quick === true) return rough;
    draft?.(rough);
  }
  const sketch = bestSketch(setting, many ? positions.slice(0, 1) : positions);
  if (quick === true) return sceneOfSketch(setting, sketch, true);
  if (!many) draft?.(sceneOfSketch(setting, sketch, true));
  refine(sketch);
  return sceneOfSketch(setting, sketch, false);
}

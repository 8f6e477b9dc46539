import { roles } from '../../model/values/roles.ts';
import { placeEnds } from '../layout/ends.ts';
import { padding, snap, titleHeight, up, type Size } from '../layout/lattice.ts';
import { sceneMarks } from './marks.ts';
import { placeMiddleLabels, stubLabels } from '../layout/middleLabels.ts';
import { findSpot, placePlates } from '../layout/placement.ts';
import type { DrawingPlan } from './drawingPlan.ts';
import { pairGaps, plateSizes } from '../layout/plateSizes.ts';
import { routeAll } from '../route/routeLinks.ts';
import { boxAround, type Box, type Container, type Plate, type Point, type Scene } from './scene.ts';
import type { TextMeasure } from '../layout/textMeasure.ts';
import type { GraphContainer, GraphNode } from '../graph/sheetGraph.ts';
import { tiersOf } from '../layout/tiers.ts';

const nowhere: Size = { width: 0, height: 0, reachUp: 0, reachDown: 0 };
const titleWidth = (title: string, measure: TextMeasure): number => up(measure(title, 'textStrong', 12) + 32);

/** Hand-made positions stay; the rest is laid out, or placed near what it connects to once anything was moved. */
function positionsOf(
  plan: DrawingPlan,
  tiers: ReadonlyMap<string, number>,
  sizes: ReadonlyMap<string, Size>,
  moved: ReadonlyMap<string, Point>,
  measure: TextMeasure,
): Map<string, Point> {
  const { graph } = plan;
  const kept = new Map<string, Point>();
  for (const node of graph.nodes) {
    const at = moved.get(node.id) ?? plan.plates.get(node.id)?.at ?? null;
    if (at !== null) kept.set(node.id, { x: snap(at.x), y: snap(at.y) });
  }
  if (kept.size === graph.nodes.length) return kept;
  if (!plan.arranged) {
    const titles = new Map(graph.containers.map(({ id, title }) => [id, titleWidth(title, measure)]));
    const laidOut = placePlates(graph, tiers, {
      sizes,
      pairGap: pairGaps(graph, measure),
      titleWidth: (id) => titles.get(id) ?? 0,
    });
    for (const [id, at] of kept) laidOut.set(id, at);
    return laidOut;
  }
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

/** Outlines around the plates of each container, those inside others first. */
function containersOf(plan: DrawingPlan, boxes: ReadonlyMap<string, Box>, measure: TextMeasure): Container[] {
  const { containers, nodes } = plan.graph;
  const members = new Map<string, GraphNode[]>();
  for (const node of nodes)
    if (node.containerId !== null)
      members.set(node.containerId, [...(members.get(node.containerId) ?? []), node]);
  const made = new Map<string, Container>();
  const make = (container: GraphContainer): Container => {
    const found = made.get(container.id);
    if (found !== undefined) return found;
    const own = members.get(container.id) ?? [];
    const inner = containers.filter((one) => one.parentId === container.id).map(make);
    const around = boxAround(
      [
        ...own.map((node) => boxes.get(node.id)).filter((box) => box !== undefined),
        ...inner.map((one) => one.box),
      ],
      padding,
    );
    const result: Container = {
      id: container.id,
      form: container.form,
      title: container.title,
      box: {
        x: around.x,
        y: around.y - titleHeight,
        width: Math.max(around.width, titleWidth(container.title, measure)),
        height: around.height + titleHeight,
      },
      plateIds: [...own.map((node) => node.id), ...inner.flatMap((one) => one.plateIds)],
      parentId: container.parentId,
      sheetId: container.sheetId,
      faded: plan.manners.containers === 'faded',
      locked: plan.manners.containers === 'locked',
    };
    made.set(container.id, result);
    return result;
  };
  const all = containers.map(make);
  return [...all.filter((one) => one.parentId === null), ...all.filter((one) => one.parentId !== null)];
}

function plateOf(plan: DrawingPlan, node: GraphNode, box: Box, links: number): Plate {
  const many = node.form === 'fold' ? `${node.deviceIds.length} ` : '';
  const what =
    node.form === 'place' || node.form === 'provider' || node.form === 'subnet'
      ? node.form
      : roles[node.role].label;
  return {
    id: node.id,
    form: node.form,
    deviceIds: node.deviceIds,
    subjects: node.subjects,
    role: node.role,
    code: node.code,
    shade: node.shade,
    symbol: node.symbol,
    name: node.name,
    lines: node.lines,
    ...(node.chips === undefined ? {} : { chips: node.chips }),
    box,
    planned: node.planned,
    retired: node.retired,
    faded: plan.manners.devices === 'faded' || node.dim === true || plan.faded.has(node.id),
    locked: plan.manners.devices === 'locked' || plan.plates.get(node.id)?.locked === true,
    sheetId: node.sheetId,
    spoken: [`${many}${node.name}`, what, `${links} ${links === 1 ? 'link' : 'links'}`]
      .filter((part) => part !== '')
      .join(', '),
  };
}

export interface DrawOptions {
  measure: TextMeasure;
  /** Positions by plate id that stand for those stored: where a plate is being dragged. */
  moved?: ReadonlyMap<string, Point>;
  /** Links as plain elbows without labels along them: shown while the rest is worked out. */
  quick?: boolean;
}

/** Lays out and routes what a sheet shows. Needs no network, so that it can run anywhere. */
export function sceneOf(plan: DrawingPlan, options: DrawOptions): Scene {
  const { measure } = options;
  const { graph, manners } = plan;
  const tiers = tiersOf(graph);
  const sizes = plateSizes(graph, tiers, plan.plates, measure);
  const positions = positionsOf(plan, tiers, sizes, options.moved ?? new Map(), measure);
  const boxes = new Map(
    graph.nodes.map((node): [string, Box] => {
      const { width, height } = sizes.get(node.id) ?? nowhere;
      return [node.id, { ...(positions.get(node.id) ?? { x: 0, y: 0 }), width, height }];
    }),
  );
  const containers = containersOf(plan, boxes, measure);
  const titles = containers.map((container) => ({
    x: container.box.x,
    y: container.box.y,
    width: titleWidth(container.title, measure) - 8,
    height: 22,
  }));
  const quick = options.quick === true;
  const { links, stubs } = routeAll(plan, placeEnds(graph, boxes, measure), boxes, titles, quick);
  const obstacles = [...boxes.values(), ...titles];
  const labels = placeMiddleLabels(
    quick ? [] : links,
    new Map(
      graph.links.map((link) => [
        link.id,
        { text: link.text, by: plan.links.get(link.cables[0]?.id ?? '')?.middleLabel ?? null },
      ]),
    ),
    obstacles,
    measure,
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
    stubs:
      manners.links === 'hidden'
        ? []
        : stubs.map((stub) => ({ ...stub, label: stubTexts.get(stub.id) ?? null })),
    marks,
    key: plan.key.filter(
      (entry) =>
        !(entry.form === 'link' && manners.links === 'hidden') &&
        !(entry.form !== 'link' && manners.devices === 'hidden'),
    ),
    titleBlock: plan.titleBlock,
  };
}

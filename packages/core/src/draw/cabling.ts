import type { Sheet } from '../model/kinds/sheet.ts';
import type { Network } from '../model/network.ts';
import { placePath } from '../model/places.ts';
import { roles } from '../model/roles.ts';
import { cablingGraph, type CablingGraph, type GraphNode } from './cablingGraph.ts';
import { labelSize, placeEnds } from './ends.ts';
import { placeMiddleLabels } from './middleLabels.ts';
import { findSpot, grid, placePlates, snap, type Size } from './placement.ts';
import { corners, Router } from './route.ts';
import {
  boxAround,
  type Box,
  type Container,
  type KeyEntry,
  type Plate,
  type Point,
  type Scene,
  type SceneLink,
  type Side,
  type TextMeasure,
} from './scene.ts';
import { tiersOf } from './tiers.ts';

export const tabWidth = 24;
export const nameSize = 13;
export const lineSize = 11;

const up = (value: number): number => Math.ceil(value / grid) * grid;
const outward: Record<Side, Point> = {
  top: { x: 0, y: -1 },
  bottom: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
};

/** Plates are as large as their text, and wide enough for the labelled ends of their links side by side. */
function plateSizes(
  graph: CablingGraph,
  tiers: ReadonlyMap<string, number>,
  ports: boolean,
  measure: TextMeasure,
): Map<string, Size> {
  const sides = new Map<string, { up: number[]; down: number[]; level: number }>();
  const at = (id: string): { up: number[]; down: number[]; level: number } => {
    const found = sides.get(id) ?? { up: [], down: [], level: 0 };
    sides.set(id, found);
    return found;
  };
  for (const link of graph.links) {
    const difference = (tiers.get(link.b) ?? 0) - (tiers.get(link.a) ?? 0);
    const widths = [link.aPort, link.bPort].map((text) =>
      ports ? measure(text, 'mono', labelSize) + 12 : 16,
    );
    if (difference === 0) {
      at(link.a).level++;
      at(link.b).level++;
    } else {
      at(link.a)[difference > 0 ? 'down' : 'up'].push(widths[0] ?? 0);
      at(link.b)[difference > 0 ? 'up' : 'down'].push(widths[1] ?? 0);
    }
  }
  const room = (widths: readonly number[]): number => {
    const side = widths.length * up(Math.max(16, ...widths));
    return side <= 320 ? side + 16 : widths.length * 16 + 16;
  };
  const sizes = new Map<string, Size>();
  for (const node of graph.nodes) {
    const text = Math.max(
      measure(node.name, 'textStrong', nameSize) + (node.devices.length > 1 ? 34 : 0),
      ...node.lines.map((line) => measure(line, 'mono', lineSize)),
    );
    const ends = sides.get(node.id);
    const width = Math.max(112, text + tabWidth + 24, room(ends?.up ?? []), room(ends?.down ?? []));
    const height = Math.max(24 + 16 * node.lines.length, 16 * (Math.min(6, ends?.level ?? 0) + 1), 32);
    const reach = (widths: readonly number[]): number => {
      if (widths.length === 0) return 0;
      if (!ports) return 2 * grid;
      const turned = widths.length > 1 && room(widths) < widths.length * up(Math.max(16, ...widths));
      return turned ? up(Math.max(...widths) + 8) : 3 * grid;
    };
    sizes.set(node.id, {
      width: up(width / 2) * 2,
      height: up(height),
      reachUp: reach(ends?.up ?? []),
      reachDown: Math.max(reach(ends?.down ?? []), (ends?.level ?? 0) > 0 ? 3 * grid : 0),
    });
  }
  return sizes;
}

/** Hand-made positions stay; the rest is laid out, or placed near what it connects to once anything was moved. */
function positionsOf(
  network: Network,
  sheet: Sheet,
  graph: CablingGraph,
  tiers: ReadonlyMap<string, number>,
  sizes: ReadonlyMap<string, Size>,
  moved: ReadonlyMap<string, Point>,
): Map<string, Point> {
  const stored = new Map(network.find('sheetItemsBySheet', sheet.id).map((item) => [item.deviceId, item]));
  const kept = new Map<string, Point>();
  for (const node of graph.nodes) {
    const item = node.devices.map((device) => stored.get(device.id)).find((found) => found !== undefined);
    const at = moved.get(node.id) ?? item;
    if (at !== undefined) kept.set(node.id, { x: snap(at.x), y: snap(at.y) });
  }
  if (kept.size === graph.nodes.length) return kept;
  const laidOut = placePlates(graph, tiers, sizes);
  if (stored.size === 0) {
    for (const [id, at] of kept) laidOut.set(id, at);
    return laidOut;
  }
  const boxOf = (id: string, at: Point): Box => ({ ...at, ...(sizes.get(id) ?? { width: 0, height: 0 }) });
  const taken = [...kept].map(([id, at]) => boxOf(id, at));
  for (const node of graph.nodes) {
    if (kept.has(node.id)) continue;
    const neighbour = graph.links
      .flatMap((link) => (link.a === node.id ? [link.b] : link.b === node.id ? [link.a] : []))
      .find((id) => kept.has(id));
    const peer =
      neighbour ?? graph.nodes.find((other) => other.placeId === node.placeId && kept.has(other.id))?.id;
    const near = peer === undefined ? undefined : kept.get(peer);
    const spot = findSpot(
      sizes.get(node.id) ?? { width: 0, height: 0 },
      near === undefined || peer === undefined ? null : boxOf(peer, near),
      taken,
    );
    kept.set(node.id, spot);
    taken.push(boxOf(node.id, spot));
  }
  return kept;
}

function containersOf(
  graph: CablingGraph,
  boxes: ReadonlyMap<string, Box>,
  measure: TextMeasure,
): Container[] {
  const members = new Map<string, GraphNode[]>();
  for (const node of graph.nodes) {
    if (node.placeId !== null) members.set(node.placeId, [...(members.get(node.placeId) ?? []), node]);
  }
  return [...members].map(([placeId, nodes]) => {
    const around = boxAround(
      nodes.map((node) => boxes.get(node.id)).filter((box) => box !== undefined),
      24,
    );
    const title = graph.titles.get(placeId) ?? '';
    const width = Math.max(around.width, up(measure(title, 'textStrong', 12) + 32));
    const box = { x: around.x, y: around.y - 24, width, height: around.height + 24 };
    return { id: placeId, title, box, plateIds: nodes.map((node) => node.id) };
  });
}

function plateOf(node: GraphNode, box: Box, links: number): Plate {
  const many = node.devices.length > 1 ? `${node.devices.length} ` : '';
  return {
    id: node.id,
    deviceIds: node.devices.map((device) => device.id),
    role: node.role,
    name: node.name,
    lines: node.lines,
    box,
    planned: node.devices.every((device) => device.status === 'planned'),
    retired: node.devices.every((device) => device.status === 'retired'),
    spoken: `${many}${node.name}, ${roles[node.role].label}, ${links} ${links === 1 ? 'link' : 'links'}`,
  };
}

function routeLinks(
  graph: CablingGraph,
  boxes: ReadonlyMap<string, Box>,
  titles: readonly Box[],
  showPorts: boolean,
  measure: TextMeasure,
): SceneLink[] {
  const ends = placeEnds(graph, boxes, showPorts, measure);
  const titleOf = new Map(graph.nodes.map((node) => [node.id, node.name]));
  const all = [
    ...boxes.values(),
    ...[...ends.values()].flatMap(({ a, b }) => [
      { ...a.stub, width: 0, height: 0 },
      { ...b.stub, width: 0, height: 0 },
    ]),
  ];
  const router = new Router(boxAround(all, 24));
  for (const box of titles) router.block(box);
  for (const box of boxes.values()) router.block(box, grid);
  for (const { a, b } of ends.values()) {
    for (const end of [a, b]) {
      const out = outward[end.side];
      router.block({
        x: Math.min(end.at.x, end.stub.x),
        y: Math.min(end.at.y, end.stub.y),
        width: Math.abs(out.x) * Math.abs(end.stub.x - end.at.x),
        height: Math.abs(out.y) * Math.abs(end.stub.y - end.at.y),
      });
      if (end.label !== null) router.block(end.label.box, 0);
    }
  }
  for (const { a, b } of ends.values()) for (const end of [a, b]) router.open(end.stub);
  const order = graph.links
    .flatMap((link) => {
      const pair = ends.get(link.id);
      return pair === undefined ? [] : [{ link, ...pair }];
    })
    .sort(
      (x, y) =>
        Math.abs(x.a.stub.x - x.b.stub.x) +
        Math.abs(x.a.stub.y - x.b.stub.y) -
        Math.abs(y.a.stub.x - y.b.stub.x) -
        Math.abs(y.a.stub.y - y.b.stub.y),
    );
  return order.map(({ link, a, b }) => {
    const path = router.route(a.stub, outward[a.side], b.stub, outward[b.side]) ?? [
      a.stub,
      { x: a.stub.x, y: b.stub.y },
      b.stub,
    ];
    return {
      id: link.id,
      kind: link.cables[0]?.kind ?? 'cable',
      cableIds: [...new Set(link.cables.map((cable) => cable.id))],
      medium: link.medium,
      jacket: link.jacket,
      a: { plateId: link.a, side: a.side, at: a.at, label: a.label },
      b: { plateId: link.b, side: b.side, at: b.at, label: b.label },
      points: corners([a.at, ...path, b.at]),
      label: null,
      spoken: `${link.text} from ${titleOf.get(link.a) ?? ''} ${link.aPort} to ${titleOf.get(link.b) ?? ''} ${link.bPort}`,
    };
  });
}

const mediumNames = {
  copper: 'copper',
  fibre: 'fibre',
  twinax: 'twinax',
  power: 'power',
  circuit: 'circuit',
  radio: 'radio hop',
  other: 'other',
} as const;

function keyOf(links: readonly SceneLink[], plates: readonly Plate[]): KeyEntry[] {
  const media = [...new Set(links.map((link) => link.medium))].sort();
  const present = [...new Set(plates.map((plate) => plate.role))];
  return [
    ...media.map((medium): KeyEntry => ({ form: 'link', medium, text: mediumNames[medium] })),
    ...present.sort().map((role): KeyEntry => ({ form: 'role', role, text: roles[role].label })),
  ];
}

export interface DrawOptions {
  measure: TextMeasure;
  /** Positions by plate id that stand for those stored: where a plate is being dragged. */
  moved?: ReadonlyMap<string, Point>;
  /** Makes the title block; left out on screen. */
  stamp?: { revision: number; date: string };
}

/** The cabling projection: devices of a place and those cabled to them, with every cable between them. */
export function cablingScene(network: Network, sheet: Sheet, options: DrawOptions): Scene {
  const { measure } = options;
  const showPorts = sheet.show.includes('portNames');
  const graph = cablingGraph(network, sheet);
  const tiers = tiersOf(graph);
  const sizes = plateSizes(graph, tiers, showPorts, measure);
  const positions = positionsOf(network, sheet, graph, tiers, sizes, options.moved ?? new Map());
  const boxes = new Map(
    graph.nodes.map((node) => [
      node.id,
      { ...(positions.get(node.id) ?? { x: 0, y: 0 }), ...(sizes.get(node.id) ?? { width: 0, height: 0 }) },
    ]),
  );
  const containers = containersOf(graph, boxes, measure);
  const titles = containers.map((container) => ({
    x: container.box.x,
    y: container.box.y,
    width: measure(container.title, 'textStrong', 12) + 24,
    height: 22,
  }));
  const links = routeLinks(graph, boxes, titles, showPorts, measure);
  const texts = new Map(
    graph.links.flatMap((link) =>
      sheet.show.includes('cableLabels') || link.medium === 'circuit' ? [[link.id, link.text] as const] : [],
    ),
  );
  const labels = placeMiddleLabels(links, texts, [...boxes.values(), ...titles], measure);
  const count = new Map<string, number>();
  for (const link of links)
    for (const id of [link.a.plateId, link.b.plateId])
      count.set(id, (count.get(id) ?? 0) + link.cableIds.length);
  const plates = graph.nodes.map((node) =>
    plateOf(node, boxes.get(node.id) ?? { x: 0, y: 0, width: 0, height: 0 }, count.get(node.id) ?? 0),
  );
  const reach = links.flatMap((link) => link.points.map((point) => ({ ...point, width: 0, height: 0 })));
  const project = [...network.all('project')][0]?.name ?? '';
  return {
    form: 'diagram',
    box: boxAround([...containers.map((container) => container.box), ...boxes.values(), ...reach], 24),
    plates,
    containers,
    links: links.map((link) => ({ ...link, label: labels.get(link.id) ?? null })),
    key: sheet.show.includes('key') ? keyOf(links, plates) : [],
    titleBlock:
      options.stamp === undefined
        ? null
        : {
            title: sheet.name,
            project,
            scope: placePath(network, sheet.scopeId).replaceAll('/', ' › ') || 'All sites',
            revision: `r${options.stamp.revision}`,
            date: options.stamp.date,
          },
  };
}

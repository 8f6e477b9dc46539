import { cloudForms, type GraphContainer, type GraphNode, type SheetGraph } from '../graph/sheetGraph.ts';
import type { Box, Point } from '../scene/scene.ts';
import { padding, snap, titleHeight, up, type Measures, type Size } from './lattice.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { ceil, max, min, sqrt } = Math;

/** Between plates of a subnet, between what stands beside each other, and where lines lead in between. */
const plateGap = 24;
/** Below each other they leave room for an end with its label, and for lines to pass it. */
const plateStep = 40;
const boxGap = 56;
const rowGap = 48;
/** Between a cloud and what stands beside it. */
const outerGap = 120;
/** Between two plates on one border. */
const borderGap = 24;
/** A subnet is about so much wider than tall. */
const wide = 2.2;

/** Something laid out from a corner of its own. */
interface Cell {
  width: number;
  height: number;
  at: Map<string, Point>;
  /** Outlines of the containers in it, for what stands on their borders. */
  boxes: Map<string, Box>;
}
const emptyCell = (): Cell => ({ width: 0, height: 0, at: new Map(), boxes: new Map() });

function put(into: Cell, cell: Cell, x: number, y: number): void {
  for (const [id, at] of cell.at) into.at.set(id, { x: x + at.x, y: y + at.y });
  for (const [id, box] of cell.boxes) into.boxes.set(id, { ...box, x: x + box.x, y: y + box.y });
  into.width = max(into.width, x + cell.width);
  into.height = max(into.height, y + cell.height);
}

type Side = NonNullable<GraphNode['border']>['side'];
interface OnBorder {
  side: Side;
  size: Pick<Size, 'width' | 'height'>;
}

/** Half of what stands on each border of a container, at its widest: so much is inside of it, and so much outside. */
function halves(borders: readonly OnBorder[]): Record<Side, number> {
  const found = { top: 0, right: 0, bottom: 0, left: 0 };
  for (const { side, size } of borders) {
    const half = up((side === 'top' || side === 'bottom' ? size.height : size.width) / 2);
    found[side] = max(found[side], half);
  }
  return found;
}

/** The room within its outline, by side, that a container gives to what stands on its border. */
export function borderRoom(borders: readonly OnBorder[]): Record<Side, number> {
  const found = halves(borders);
  // Above there is the room of the title.
  return { ...found, top: max(0, found.top - titleHeight) };
}

/** Whether a sheet is of containers inside each other that stand in rows and columns of their own. */
export const standsInCells = ({ containers }: SheetGraph): boolean =>
  containers.some(({ form }) => cloudForms.some((one) => one === form));

interface Ground {
  graph: SheetGraph;
  sizes: ReadonlyMap<string, Size>;
  titleWidth: (id: string) => number;
  plates: ReadonlyMap<string, GraphNode[]>;
  inner: ReadonlyMap<string, GraphContainer[]>;
  borders: ReadonlyMap<string, GraphNode[]>;
}

const sizeOf = ({ sizes }: Ground, id: string): Size =>
  sizes.get(id) ?? { width: 0, height: 0, reachUp: 0, reachDown: 0 };

/** Plates beside each other, in rows of about so many; those that stand for a subnet above all others. */
function platesIn(ground: Ground, nodes: readonly GraphNode[]): Cell {
  const cell = emptyCell();
  const heads = nodes.filter(({ form }) => form === 'subnet');
  const rest = nodes.filter(({ form }) => form !== 'subnet');
  const widest = max(0, ...rest.map(({ id }) => sizeOf(ground, id).width));
  const tallest = max(1, ...rest.map(({ id }) => sizeOf(ground, id).height));
  const columns = max(
    1,
    ceil(sqrt((rest.length * wide * (tallest + plateStep)) / max(1, widest + plateGap))),
  );
  let y = 0;
  for (const { id } of heads) {
    cell.at.set(id, { x: 0, y });
    const { width, height } = sizeOf(ground, id);
    cell.width = max(cell.width, width);
    cell.height = y + height;
    y += height + plateStep;
  }
  for (let from = 0; from < rest.length; from += columns) {
    const row = rest.slice(from, from + columns);
    let x = 0;
    for (const { id } of row) {
      cell.at.set(id, { x, y });
      x += sizeOf(ground, id).width + plateGap;
    }
    const tall = max(...row.map(({ id }) => sizeOf(ground, id).height));
    cell.width = max(cell.width, x - plateGap);
    cell.height = y + tall;
    y += tall + plateStep;
  }
  return cell;
}

/** Containers in the order they are given in, then as they were. */
const inOrder = (containers: readonly GraphContainer[]): GraphContainer[] =>
  [...containers].sort((a, b) => (a.row ?? 0) - (b.row ?? 0) || (a.order ?? 0) - (b.order ?? 0));

const onBorderOf = (ground: Ground, id: string): OnBorder[] =>
  (ground.borders.get(id) ?? []).flatMap(({ id: plate, border }) =>
    border === undefined ? [] : [{ side: border.side, size: sizeOf(ground, plate) }],
  );

/** Zones beside each other, with the subnets of one tier level across all of them. */
function zonesBeside(ground: Ground, zones: readonly GraphContainer[]): Cell {
  const rows = [
    ...new Set(zones.flatMap(({ id }) => (ground.inner.get(id) ?? []).map(({ row }) => row ?? 0))),
  ];
  rows.sort((a, b) => a - b);
  const columns = zones.map((zone) => ({
    zone,
    subnets: inOrder(ground.inner.get(zone.id) ?? []).map((subnet) => ({
      row: subnet.row ?? 0,
      cell: outlined(ground, subnet),
    })),
    own: platesIn(ground, ground.plates.get(zone.id) ?? []),
  }));
  const heightOf = (row: number): number =>
    max(
      ...columns.map(({ subnets }) =>
        subnets
          .filter((one) => one.row === row)
          .reduce((sum, { cell }) => sum + cell.height + (sum === 0 ? 0 : plateGap), 0),
      ),
    );
  const tops = new Map<number, number>();
  let y = 0;
  for (const row of rows) {
    tops.set(row, y);
    y += heightOf(row) + rowGap;
  }
  const bottom = max(0, y - rowGap);
  const all = emptyCell();
  let x = 0;
  for (const { zone, subnets, own } of columns) {
    const inside = emptyCell();
    const next = new Map(tops);
    for (const { row, cell } of subnets) {
      const top = next.get(row) ?? 0;
      put(inside, cell, 0, top);
      next.set(row, top + cell.height + plateGap);
    }
    if (own.at.size > 0) put(inside, own, 0, bottom + (bottom === 0 ? 0 : plateGap));
    const cell = framed(ground, zone, inside);
    put(all, cell, x, 0);
    x += cell.width + boxGap;
  }
  return all;
}

/** Containers beside each other, in rows that keep the whole about as wide as asked. */
function beside(ground: Ground, containers: readonly GraphContainer[], aspect: number): Cell {
  const cells = containers.map((one) => outlined(ground, one, aspect));
  const area = cells.reduce((sum, { width, height }) => sum + (width + boxGap) * (height + rowGap), 0);
  const widest = max(sqrt(area * aspect), ...cells.map(({ width }) => width));
  const all = emptyCell();
  let [x, y, tall] = [0, 0, 0];
  for (const cell of cells) {
    if (x > 0 && x + cell.width > widest * 1.15) [x, y, tall] = [0, y + tall + rowGap, 0];
    put(all, cell, x, y);
    x += cell.width + boxGap;
    tall = max(tall, cell.height);
  }
  return all;
}

/** A container with its outline around what is in it, and room for what stands on its border. */
function framed(ground: Ground, container: GraphContainer, inside: Cell): Cell {
  const borders = onBorderOf(ground, container.id);
  const [out, room] = [halves(borders), borderRoom(borders)];
  const [left, top] = [out.left, out.top];
  const own = {
    width: max(inside.width + 2 * padding + room.left + room.right, ground.titleWidth(container.id)),
    height: inside.height + 2 * padding + titleHeight + room.top + room.bottom,
  };
  const cell = emptyCell();
  put(cell, inside, left + padding + room.left, top + padding + titleHeight + room.top);
  cell.boxes.set(container.id, { x: left, y: top, ...own });
  cell.width = left + own.width + out.right;
  cell.height = top + own.height + out.bottom;
  return cell;
}

function outlined(ground: Ground, container: GraphContainer, aspect = 1.85): Cell {
  const inner = inOrder(ground.inner.get(container.id) ?? []);
  const zones = inner.filter(({ form }) => form === 'zone');
  const others = inner.filter(({ form }) => form !== 'zone');
  const inside = emptyCell();
  const below = (cell: Cell): void => {
    if (cell.at.size === 0) return;
    put(inside, cell, 0, inside.at.size === 0 ? 0 : inside.height + rowGap);
  };
  if (zones.length > 0) below(zonesBeside(ground, zones));
  if (others.length > 0) below(beside(ground, others, aspect));
  const own = platesIn(ground, ground.plates.get(container.id) ?? []);
  below(own);
  // Plates on its border need so much of an edge.
  const needed = (side: 'top' | 'bottom'): number =>
    (ground.borders.get(container.id) ?? [])
      .filter(({ border }) => border?.side === side)
      .reduce((sum, { id }) => sum + sizeOf(ground, id).width + borderGap, 0);
  const title = ground.titleWidth(container.id);
  const short = max(needed('top') + title, needed('bottom')) - inside.width - 2 * padding;
  // The outline follows what is in it: what stands last moves over as far as the border needs.
  if (short > 0 && inside.at.size > 1) spreadOut(ground, inside, short);
  return framed(ground, container, inside);
}

/** Moves what stands rightmost over, so that the outline around all of it becomes wider. */
function spreadOut(ground: Ground, inside: Cell, by: number): void {
  const rightOf = (id: string, { x }: Point): number => x + sizeOf(ground, id).width;
  const edge = max(...[...inside.at].map(([id, at]) => rightOf(id, at)));
  const columns = [...inside.boxes].filter(([id]) => id.includes('/'));
  const last = columns.sort(([, a], [, b]) => b.x - a.x)[0];
  const from = last === undefined || columns.length < 2 ? edge - 1 : last[1].x;
  const shift = up(by);
  for (const [id, at] of inside.at) if (at.x >= from) inside.at.set(id, { x: at.x + shift, y: at.y });
  for (const [id, box] of inside.boxes) if (box.x >= from) inside.boxes.set(id, { ...box, x: box.x + shift });
  inside.width += shift;
}

/** Plates on the borders of containers, from the far end of each edge: the title is at its beginning. */
export function onBorders(
  nodes: readonly GraphNode[],
  sizes: ReadonlyMap<string, Size>,
  boxes: ReadonlyMap<string, Box>,
): Map<string, Point> {
  const found = new Map<string, Point>();
  const taken = new Map<string, number>();
  for (const { id, border } of nodes) {
    const box = border === undefined ? undefined : boxes.get(border.of);
    if (border === undefined || box === undefined) continue;
    const { width, height } = sizes.get(id) ?? { width: 0, height: 0 };
    const key = `${border.of} ${border.side}`;
    const before = taken.get(key) ?? 0;
    if (border.side === 'top' || border.side === 'bottom') {
      const x = box.x + box.width - padding - before - width;
      const edge = border.side === 'top' ? box.y : box.y + box.height;
      found.set(id, { x: snap(x), y: snap(edge - height / 2) });
      taken.set(key, before + width + borderGap);
    } else {
      const edge = border.side === 'left' ? box.x : box.x + box.width;
      found.set(id, { x: snap(edge - width / 2), y: snap(box.y + 2 * titleHeight + before) });
      taken.set(key, before + height + borderGap);
    }
  }
  return found;
}

/**
 * Where the plates of a sheet of clouds stand: subnets as blocks, those of a tier level, zones as columns, networks
 * beside each other, gateways on the border of theirs, the premises at the right and the internet above. The same graph
 * always gives the same positions.
 *
 * @param aspect width to height of the frame
 * @returns the upper left corner of each plate, in sheet units
 */
export function cellPositions(
  graph: SheetGraph,
  { sizes, titleWidth }: Pick<Measures, 'sizes' | 'titleWidth'>,
  aspect: number,
): Map<string, Point> {
  const known = new Set(graph.containers.map(({ id }) => id));
  const plates = new Map<string, GraphNode[]>();
  const borders = new Map<string, GraphNode[]>();
  const add = <T>(map: Map<string, T[]>, key: string, one: T): void =>
    void map.set(key, [...(map.get(key) ?? []), one]);
  for (const node of graph.nodes)
    if (node.border !== undefined && known.has(node.border.of)) add(borders, node.border.of, node);
    else add(plates, known.has(node.containerId ?? '') ? (node.containerId ?? '') : '', node);
  const inner = new Map<string, GraphContainer[]>();
  for (const one of graph.containers)
    add(inner, known.has(one.parentId ?? '') ? (one.parentId ?? '') : '', one);
  const ground: Ground = { graph, sizes, titleWidth, plates, inner, borders };
  const outer = inOrder(inner.get('') ?? []);
  const clouds = outer.filter(({ form }) => form !== 'place');
  const premises = outer.filter(({ form }) => form === 'place');
  const all = emptyCell();
  const cloud = beside(ground, clouds, aspect);
  const above = (plates.get('') ?? []).filter(({ form }) => form === 'provider');
  const others = (plates.get('') ?? []).filter(({ form }) => form !== 'provider');
  const tall = max(0, ...above.map(({ id }) => sizeOf(ground, id).height));
  const top = above.length === 0 ? 0 : up(tall + outerGap * 0.75);
  put(all, cloud, 0, top);
  let x = 0;
  for (const { id } of above) {
    const { width } = sizeOf(ground, id);
    all.at.set(id, { x: snap(max(0, cloud.width * 0.75 - width / 2) + x), y: 0 });
    x += width + boxGap;
  }
  let y = top;
  const right = cloud.width + outerGap;
  for (const site of premises) {
    const cell = outlined(ground, site, min(aspect, 0.6));
    put(all, cell, right, y);
    y += cell.height + rowGap;
  }
  const loose = platesIn(ground, others);
  if (loose.at.size > 0) put(all, loose, right, y);
  const at = new Map([...all.at].map(([id, point]) => [id, { x: snap(point.x), y: snap(point.y) }]));
  for (const [id, point] of onBorders(graph.nodes, sizes, all.boxes)) at.set(id, point);
  return at;
}

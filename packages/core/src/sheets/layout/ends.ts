import type { Chip, GraphLink, SheetGraph } from '../graph/sheetGraph.ts';
import { grid, snap } from './lattice.ts';
import { BoxIndex } from './boxIndex.ts';
import type { Bundle } from './bundles.ts';
import { type Box, type Point, type SceneLabel, type Side } from '../scene/scene.ts';
import type { TextMeasure } from './textMeasure.ts';

export const labelSize = 10;
const labelHeight = 14;

export interface PlacedEnd {
  linkId: string;
  end: 'a' | 'b';
  plateId: string;
  side: Side;
  at: Point;
  /** Where the straight piece that carries the label stops and the routed part begins. */
  stub: Point;
  label: SceneLabel | null;
}

/** Both ends of a link, or the one end of a stub. */
export interface PlacedEnds {
  a: PlacedEnd;
  b: PlacedEnd | null;
}

const centre = (box: Box): Point => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });

/** Room that two ends facing each other across a gap need for their labels. */
const facingGap = 64;

/**
 * The sides on which a link leaves two plates: those that face each other. Plates beside each other that are too
 * close, or have another plate between them, are linked from below.
 */
export function facingSides(a: Box, b: Box, filled: (between: Box) => boolean = () => false): [Side, Side] {
  if (b.y >= a.y + a.height + 2 * grid) return ['bottom', 'top'];
  if (a.y >= b.y + b.height + 2 * grid) return ['top', 'bottom'];
  const toRight = centre(b).x >= centre(a).x;
  const [left, right] = toRight ? [a, b] : [b, a];
  const between: Box = {
    x: left.x + left.width,
    y: Math.max(a.y, b.y),
    width: right.x - left.x - left.width,
    height: Math.max(1, Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y)),
  };
  if (between.width < facingGap) return ['bottom', 'bottom'];
  if (filled(between)) return ['bottom', 'bottom'];
  return toRight ? ['right', 'left'] : ['left', 'right'];
}

interface Draft {
  /** The links that leave here, one but for a bundle at its hub. */
  ids: string[];
  ordinal: number;
  end: Map<string, 'a' | 'b'>;
  /** The mean of the far plates. */
  other: Point;
  text: string;
  chips?: readonly Chip[] | undefined;
}

export const outward: Record<Side, Point> = {
  top: { x: 0, y: -1 },
  bottom: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
};

function labelAt(text: string, at: Point, side: Side, width: number, turned: boolean): SceneLabel {
  const along = turned || side === 'left' || side === 'right' ? width : labelHeight;
  const across = along === width ? labelHeight : width;
  const gap = 5;
  const out = outward[side];
  const vertical = side === 'top' || side === 'bottom';
  const middle = { x: at.x + out.x * (gap + along / 2), y: at.y + out.y * (gap + along / 2) };
  const size = vertical ? { width: across, height: along } : { width: along, height: across };
  return {
    text,
    turned: vertical && turned,
    box: { x: middle.x - size.width / 2, y: middle.y - size.height / 2, ...size },
  };
}

/** Ends at equal distances, as near to each other as they have to be. */
function spread(count: number, length: number, wanted: number): number[] {
  const step = Math.max(
    grid,
    Math.min(snap(wanted), Math.floor((length - grid) / Math.max(1, count) / grid) * grid),
  );
  const first = snap(length / 2 - (step * (count - 1)) / 2);
  return Array.from({ length: count }, (_, at) => first + at * step);
}

/** How far level labels may reach over the edges of their plate. */
const overEdge = 8;

/** Ends whose labels lie level beside each other; null where they do not fit the side of the plate. */
function spreadLevel(widths: readonly number[], length: number): number[] | null {
  const offsets: number[] = [];
  widths.forEach((width, at) => {
    const before = widths[at - 1];
    const last = offsets.at(-1);
    offsets.push(
      before === undefined || last === undefined
        ? 0
        : last + Math.ceil(Math.max(16, (before + width) / 2 + 2) / grid) * grid,
    );
  });
  const [first, last] = [widths[0] ?? 0, widths.at(-1) ?? 0];
  const extent = (offsets.at(-1) ?? 0) + (first + last) / 2;
  if (extent > length + 2 * overEdge) return null;
  const from = snap((length - extent) / 2 + first / 2);
  return offsets.map((offset) => Math.max(grid, Math.min(length - grid, from + offset)));
}

/** Room beside both plates that a link needs to leave one for the other sideways, though one stands higher. */
const sideRoom = 120;
const mostRise = 700;
/** Between two ends above each other, for their labels. */
const sideStep = 16;

/**
 * On which side each link leaves its plates: those that face each other. Between containers a link to a plate that
 * should stand below and does not leaves sideways, where there is room beside both.
 */
export function sidesOf(
  graph: SheetGraph,
  bands: ReadonlyMap<string, number>,
  boxes: ReadonlyMap<string, Box>,
): Map<string, [Side, Side]> {
  const index = new BoxIndex<string>();
  for (const [id, box] of boxes) index.add(box, id);
  const container = new Map(graph.nodes.map(({ id, containerId }) => [id, containerId]));
  const sides = new Map<string, [Side, Side]>();
  /** How many links leave a plate on a side. */
  const leaving = new Map<string, number>();
  const leave = (id: string, side: Side, by: number): void =>
    void leaving.set(`${id}|${side}`, (leaving.get(`${id}|${side}`) ?? 0) + by);
  const freeOf = (link: GraphLink) => (box: Box) => !index.meets(box, (id) => id !== link.a && id !== link.b);
  for (const link of graph.links) {
    const [a, b] = [boxes.get(link.a), boxes.get(link.b)];
    if (a === undefined || b === undefined) continue;
    const free = freeOf(link);
    const pair = facingSides(a, b, (between) => !free(between));
    sides.set(link.id, pair);
    leave(link.a, pair[0], 1);
    leave(link.b, pair[1], 1);
  }
  for (const link of graph.links) {
    const [a, b] = [boxes.get(link.a), boxes.get(link.b)];
    const now = sides.get(link.id);
    if (a === undefined || b === undefined || now === undefined) continue;
    if (container.get(link.a) === container.get(link.b)) continue;
    const first = (bands.get(link.a) ?? 0) <= (bands.get(link.b) ?? 0);
    const [high, low] = first ? [a, b] : [b, a];
    const apart = Math.abs(centre(a).x - centre(b).x) - (a.width + b.width) / 2;
    if (low.y >= high.y + high.height + 48 || apart <= 64 || high.y - low.y >= mostRise) continue;
    const right = low.x > high.x;
    const beside = (box: Box, toRight: boolean): Box => ({
      x: toRight ? box.x + box.width + 1 : box.x - sideRoom - 1,
      y: box.y,
      width: sideRoom,
      height: box.height,
    });
    const free = freeOf(link);
    if (!free(beside(high, right)) || !free(beside(low, !right))) continue;
    const [from, to]: [Side, Side] = right ? ['right', 'left'] : ['left', 'right'];
    const pair: [Side, Side] = first ? [from, to] : [to, from];
    const roomy = (id: string, box: Box, side: Side): boolean =>
      ((leaving.get(`${id}|${side}`) ?? 0) + 1) * sideStep + grid <= box.height;
    if (!roomy(link.a, a, pair[0]) || !roomy(link.b, b, pair[1])) continue;
    sides.set(link.id, pair);
    leave(link.a, now[0], -1);
    leave(link.b, now[1], -1);
    leave(link.a, pair[0], 1);
    leave(link.b, pair[1], 1);
  }
  return sides;
}

/** The ends on one side of a plate, in their order. */
interface Group {
  box: Box;
  side: Side;
  plateId: string;
  drafts: Draft[];
}

/** What leaves each side of each plate: a bundle leaves its hub at one spot. */
function groupsOf(
  graph: SheetGraph,
  boxes: ReadonlyMap<string, Box>,
  sides: ReadonlyMap<string, [Side, Side]>,
  bundles: ReadonlyMap<string, Bundle>,
): Group[] {
  const groups = new Map<string, Group>();
  const spots = new Map<Bundle, Draft>();
  const groupAt = (plateId: string, box: Box, side: Side): Group => {
    const key = `${plateId}|${side}`;
    const group = groups.get(key) ?? { box, side, plateId, drafts: [] };
    groups.set(key, group);
    return group;
  };
  for (const link of graph.links) {
    const [a, b] = [boxes.get(link.a), boxes.get(link.b)];
    const [sideA, sideB] = sides.get(link.id) ?? [];
    if (a === undefined || b === undefined || sideA === undefined || sideB === undefined) continue;
    const bundle = bundles.get(link.id);
    for (const end of ['a', 'b'] as const) {
      const group = end === 'a' ? groupAt(link.a, a, sideA) : groupAt(link.b, b, sideB);
      const other = centre(end === 'a' ? b : a);
      const spot = bundle !== undefined && bundle.ends.get(link.id) === end ? bundle : null;
      const known = spot === null ? undefined : spots.get(spot);
      if (known !== undefined) {
        const count = known.ids.push(link.id);
        known.end.set(link.id, end);
        known.other = {
          x: known.other.x + (other.x - known.other.x) / count,
          y: known.other.y + (other.y - known.other.y) / count,
        };
        known.text = `×${count}`;
        continue;
      }
      const draft: Draft = {
        ids: [link.id],
        ordinal: link.aOrdinal,
        end: new Map([[link.id, end]]),
        other,
        text: end === 'a' ? link.aPort : link.bPort,
        chips: spot !== null ? undefined : end === 'a' ? link.aChips : link.bChips,
      };
      group.drafts.push(draft);
      if (spot !== null) spots.set(spot, draft);
    }
  }
  for (const stub of graph.stubs) {
    const box = boxes.get(stub.a);
    if (box === undefined) continue;
    const { x, y } = centre(box);
    groupAt(stub.a, box, 'bottom').drafts.push({
      ids: [stub.id],
      ordinal: stub.aOrdinal,
      end: new Map([[stub.id, 'a']]),
      other: { x: x + box.width, y: y + 1000 },
      text: stub.aPort,
    });
  }
  return [...groups.values()];
}

const upright = (side: Side): boolean => side === 'top' || side === 'bottom';

/** Moves an end along its side. */
export function slideEnd(end: PlacedEnd, by: Point): void {
  const move = (point: Point): Point => ({ x: point.x + by.x, y: point.y + by.y });
  end.at = move(end.at);
  end.stub = move(end.stub);
  if (end.label !== null) end.label = { ...end.label, box: { ...end.label.box, ...move(end.label.box) } };
}

const straightenings = 3;

/** Moves single ends onto the line of the other end, where the order on their side and their labels allow it. */
function straightenEnds(
  groups: readonly Group[],
  placed: ReadonlyMap<string, Partial<Record<'a' | 'b', PlacedEnd>>>,
): void {
  for (let pass = 0; pass < straightenings; pass++)
    for (const { box, side, drafts } of groups) {
      const axis = upright(side) ? 'x' : 'y';
      const ends = drafts.map(({ ids, end }) => {
        const id = ids[0] ?? '';
        return placed.get(id)?.[end.get(id) ?? 'a'];
      });
      const widthOf = (end: PlacedEnd): number =>
        end.label === null ? 12 : upright(side) ? end.label.box.width : 16;
      const [start, stop] = upright(side) ? [box.x, box.x + box.width] : [box.y, box.y + box.height];
      drafts.forEach(({ ids, end }, at) => {
        const own = ends[at];
        const [id, second] = ids;
        if (own === undefined || id === undefined || second !== undefined) return;
        const other = placed.get(id)?.[end.get(id) === 'a' ? 'b' : 'a'];
        if (other === undefined || upright(other.side) !== upright(side)) return;
        const wanted = other.at[axis];
        if (wanted === own.at[axis]) return;
        const [before, after] = [ends[at - 1], ends[at + 1]];
        const least = Math.max(
          start + 8,
          before === undefined ? -Infinity : before.at[axis] + (widthOf(before) + widthOf(own)) / 2 + 2,
        );
        const most = Math.min(
          stop - 8,
          after === undefined ? Infinity : after.at[axis] - (widthOf(after) + widthOf(own)) / 2 - 2,
        );
        if (wanted < least || wanted > most) return;
        slideEnd(own, { x: 0, y: 0, [axis]: wanted - own.at[axis] });
      });
    }
}

/**
 * Where every link leaves its plates: on the facing side, ordered by where the other end is and then by port, so
 * that links from one plate do not cross at once; and its port label, which stands on that straight first piece. A
 * bundle leaves its hub at one spot, with the number of its links.
 * `width` and `height` of the boxes bound how many ends fit side by side; labels are turned where they are tight.
 */
export function placeEnds(
  graph: SheetGraph,
  boxes: ReadonlyMap<string, Box>,
  sides: ReadonlyMap<string, [Side, Side]>,
  bundles: ReadonlyMap<string, Bundle>,
  measure: TextMeasure,
): Map<string, PlacedEnds> {
  const groups = groupsOf(graph, boxes, sides, bundles);
  const standing = new BoxIndex<string>();
  for (const [id, box] of boxes) standing.add(box, id);
  const placed = new Map<string, Partial<Record<'a' | 'b', PlacedEnd>>>();
  for (const { box, side, plateId, drafts } of groups) {
    const vertical = upright(side);
    drafts.sort((x, y) => {
      const away = vertical ? x.other.x - y.other.x : x.other.y - y.other.y;
      return Math.abs(away) > 1 ? away : x.ordinal - y.ordinal;
    });
    const widths = drafts.map((draft) => Math.ceil(measure(draft.text, 'mono', labelSize)) + 6);
    const widest = Math.max(...widths);
    const length = vertical ? box.width : box.height;
    const wanted = vertical ? widest + 6 : labelHeight + 2;
    const evenly = spread(drafts.length, length, Math.max(16, wanted));
    const step = evenly.length > 1 ? (evenly[1] ?? 0) - (evenly[0] ?? 0) : length;
    const tight = vertical && drafts.length > 1 && step < widest;
    const level = tight ? spreadLevel(widths, length) : null;
    const turned = tight && level === null;
    const offsets = level ?? evenly;
    const reach = drafts.some((draft) => draft.text !== '')
      ? (vertical && !turned ? labelHeight : widest) + 10
      : 2 * grid;
    drafts.forEach((draft, index) => {
      const offset = offsets[index] ?? 0;
      const at: Point = {
        x: side === 'left' ? box.x : side === 'right' ? box.x + box.width : box.x + offset,
        y: side === 'top' ? box.y : side === 'bottom' ? box.y + box.height : box.y + offset,
      };
      const out = outward[side];
      const wished = draft.text !== '' ? labelAt(draft.text, at, side, widths[index] ?? 0, turned) : null;
      // Where another plate stands in the way of it a label is left out; the record has it.
      const blocked = wished !== null && standing.meets(wished.box, (id) => id !== plateId);
      const plain = blocked ? null : wished;
      const far = blocked ? 2 * grid : Math.ceil(reach / grid) * grid;
      const stub = { x: snap(at.x + out.x * far), y: snap(at.y + out.y * far) };
      const label = plain === null || draft.chips === undefined ? plain : { ...plain, chips: draft.chips };
      draft.ids.forEach((linkId, which) => {
        const end = draft.end.get(linkId) ?? 'a';
        const ends = placed.get(linkId) ?? {};
        ends[end] = { linkId, end, plateId, side, at, stub, label: which === 0 ? label : null };
        placed.set(linkId, ends);
      });
    });
  }
  straightenEnds(groups, placed);
  const both = new Map<string, PlacedEnds>();
  for (const [id, { a, b }] of placed) if (a !== undefined) both.set(id, { a, b: b ?? null });
  return both;
}

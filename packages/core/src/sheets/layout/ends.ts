import type { Chip, SheetGraph } from '../graph/sheetGraph.ts';
import { grid, snap } from './lattice.ts';
import { BoxIndex } from './boxIndex.ts';
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
  linkId: string;
  ordinal: number;
  end: 'a' | 'b';
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

function spread(count: number, length: number, wanted: number): number[] {
  const step = Math.max(
    grid,
    Math.min(snap(wanted), Math.floor((length - grid) / Math.max(1, count) / grid) * grid),
  );
  const first = snap(length / 2 - (step * (count - 1)) / 2);
  return Array.from({ length: count }, (_, at) => first + at * step);
}

/**
 * Where every link leaves its plates: on the facing side, ordered by where the other end is and then by port, so
 * that links from one plate do not cross at once; and its port label, which stands on that straight first piece.
 * `width` and `height` of the boxes bound how many ends fit side by side; labels are turned where they are tight.
 */
export function placeEnds(
  graph: SheetGraph,
  boxes: ReadonlyMap<string, Box>,
  measure: TextMeasure,
): Map<string, PlacedEnds> {
  const groups = new Map<string, { box: Box; side: Side; plateId: string; drafts: Draft[] }>();
  const add = (plateId: string, box: Box, side: Side, draft: Draft): void => {
    const key = `${plateId}|${side}`;
    const group = groups.get(key) ?? { box, side, plateId, drafts: [] };
    group.drafts.push(draft);
    groups.set(key, group);
  };
  const index = new BoxIndex<string>();
  for (const [id, box] of boxes) index.add(box, id);
  for (const link of graph.links) {
    const a = boxes.get(link.a);
    const b = boxes.get(link.b);
    if (a === undefined || b === undefined) continue;
    const [aSide, bSide] = facingSides(a, b, (between) =>
      index.meets(between, (id) => id !== link.a && id !== link.b),
    );
    const { id: linkId, aOrdinal: ordinal } = link;
    add(link.a, a, aSide, {
      linkId,
      ordinal,
      end: 'a',
      other: centre(b),
      text: link.aPort,
      chips: link.aChips,
    });
    add(link.b, b, bSide, {
      linkId,
      ordinal,
      end: 'b',
      other: centre(a),
      text: link.bPort,
      chips: link.bChips,
    });
  }
  for (const stub of graph.stubs) {
    const box = boxes.get(stub.a);
    if (box === undefined) continue;
    const { x, y } = centre(box);
    const other = { x: x + box.width, y: y + 1000 };
    add(stub.a, box, 'bottom', {
      linkId: stub.id,
      ordinal: stub.aOrdinal,
      end: 'a',
      other,
      text: stub.aPort,
    });
  }
  const placed = new Map<string, Partial<Record<'a' | 'b', PlacedEnd>>>();
  for (const { box, side, plateId, drafts } of groups.values()) {
    const vertical = side === 'top' || side === 'bottom';
    drafts.sort((x, y) => {
      const away = vertical ? x.other.x - y.other.x : x.other.y - y.other.y;
      return Math.abs(away) > 1 ? away : x.ordinal - y.ordinal;
    });
    const widths = drafts.map((draft) => Math.ceil(measure(draft.text, 'mono', labelSize)) + 6);
    const widest = Math.max(...widths);
    const length = vertical ? box.width : box.height;
    const wanted = vertical ? widest + 6 : labelHeight + 2;
    const offsets = spread(drafts.length, length, Math.max(16, wanted));
    const step = offsets.length > 1 ? (offsets[1] ?? 0) - (offsets[0] ?? 0) : length;
    const turned = vertical && drafts.length > 1 && step < widest;
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
      const far = Math.ceil(reach / grid) * grid;
      const stub = { x: snap(at.x + out.x * far), y: snap(at.y + out.y * far) };
      const plain = draft.text !== '' ? labelAt(draft.text, at, side, widths[index] ?? 0, turned) : null;
      const label = plain === null || draft.chips === undefined ? plain : { ...plain, chips: draft.chips };
      const ends = placed.get(draft.linkId) ?? {};
      ends[draft.end] = { linkId: draft.linkId, end: draft.end, plateId, side, at, stub, label };
      placed.set(draft.linkId, ends);
    });
  }
  const both = new Map<string, PlacedEnds>();
  for (const [id, { a, b }] of placed) if (a !== undefined) both.set(id, { a, b: b ?? null });
  return both;
}

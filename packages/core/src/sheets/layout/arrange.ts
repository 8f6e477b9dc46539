import { snap } from './lattice.ts';
import { overlap, type Box, type Point } from '../scene/scene.ts';

/** A box of a selection by its plate or mark. */
export type Chosen = ReadonlyMap<string, Box>;

export const alignments = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof alignments)[number];

const around = (boxes: Iterable<Box>): { left: number; right: number; top: number; bottom: number } => {
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const box of boxes) {
    left = Math.min(left, box.x);
    right = Math.max(right, box.x + box.width);
    top = Math.min(top, box.y);
    bottom = Math.max(bottom, box.y + box.height);
  }
  return { left, right, top, bottom };
};

const moved = (chosen: Chosen, to: (box: Box, id: string) => Point): Map<string, Point> =>
  new Map([...chosen].map(([id, box]) => [id, to(box, id)]));

/** Puts edges or middles of the boxes on one line: that of the outermost, or of the middle of all. */
export function align(chosen: Chosen, by: Alignment): Map<string, Point> {
  const { left, right, top, bottom } = around(chosen.values());
  return moved(chosen, ({ x, y, width, height }) => {
    switch (by) {
      case 'left':
        return { x: left, y };
      case 'right':
        return { x: right - width, y };
      case 'centre':
        return { x: snap((left + right - width) / 2), y };
      case 'top':
        return { x, y: top };
      case 'bottom':
        return { x, y: bottom - height };
      case 'middle':
        return { x, y: snap((top + bottom - height) / 2) };
    }
  });
}

/** Makes the gaps between the boxes alike, from the first to the last along the axis. */
export function distribute(chosen: Chosen, axis: 'x' | 'y'): Map<string, Point> {
  const length = axis === 'x' ? 'width' : 'height';
  const sorted = [...chosen].sort(([, a], [, b]) => a[axis] - b[axis]);
  const first = sorted[0]?.[1];
  if (first === undefined) return new Map();
  const { left, right, top, bottom } = around(chosen.values());
  const filled = sorted.reduce((sum, [, box]) => sum + box[length], 0);
  const gap = ((axis === 'x' ? right - left : bottom - top) - filled) / Math.max(1, sorted.length - 1);
  let at = first[axis];
  const places = new Map<string, number>();
  for (const [id, box] of sorted) {
    places.set(id, snap(at));
    at += box[length] + gap;
  }
  return moved(chosen, (box, id) => ({ x: box.x, y: box.y, [axis]: places.get(id) ?? box[axis] }));
}

/** Turns the arrangement over, left for right or top for bottom, within the room it takes. */
export function mirror(chosen: Chosen, axis: 'x' | 'y'): Map<string, Point> {
  const { left, right, top, bottom } = around(chosen.values());
  return moved(chosen, (box) =>
    axis === 'x'
      ? { x: snap(left + right - box.x - box.width), y: box.y }
      : { x: box.x, y: snap(top + bottom - box.y - box.height) },
  );
}

/** The width and height of the widest and highest. */
export function sameSize(chosen: Chosen): { width: number; height: number } {
  const boxes = [...chosen.values()];
  return {
    width: Math.max(...boxes.map((box) => box.width)),
    height: Math.max(...boxes.map((box) => box.height)),
  };
}

/** Where a plate has to stand so that a link between two plates can be straight: it gives way along the shorter way. */
export function straighten(fixed: Box, other: Box): Point {
  const beside =
    Math.abs(fixed.x + fixed.width / 2 - other.x - other.width / 2) >
    Math.abs(fixed.y + fixed.height / 2 - other.y - other.height / 2);
  return beside
    ? { x: other.x, y: snap(fixed.y + (fixed.height - other.height) / 2) }
    : { x: snap(fixed.x + (fixed.width - other.width) / 2), y: other.y };
}

/** A line along which an edge or middle of a dragged box meets that of another. */
export interface Guide {
  axis: 'x' | 'y';
  at: number;
  from: number;
  to: number;
}

const nearEnough = 5;

/** Moves a dragged box by at most a few units so that it lines up with others; gives the lines it then lies on. */
export function snapToOthers(
  box: Box,
  others: readonly Box[],
  within = nearEnough,
): { at: Point; guides: Guide[] } {
  const at: Point = { x: box.x, y: box.y };
  const guides: Guide[] = [];
  for (const axis of ['x', 'y'] as const) {
    const [length, cross, crossLength] =
      axis === 'x' ? (['width', 'y', 'height'] as const) : (['height', 'x', 'width'] as const);
    let best: { by: number; line: number; other: Box } | null = null;
    for (const other of others) {
      for (const share of [0, 0.5, 1]) {
        const line = other[axis] + other[length] * share;
        const by = line - (box[axis] + box[length] * share);
        if (Math.abs(by) > within || (best !== null && Math.abs(by) >= Math.abs(best.by))) continue;
        best = { by, line, other };
      }
    }
    if (best === null) continue;
    at[axis] += best.by;
    guides.push({
      axis,
      at: best.line,
      from: Math.min(box[cross], best.other[cross]),
      to: Math.max(box[cross] + box[crossLength], best.other[cross] + best.other[crossLength]),
    });
  }
  return { at, guides };
}

/** Boxes of which at least a part lies in an area: what an enclosure or a marquee holds. */
export const heldBy = (area: Box, boxes: ReadonlyMap<string, Box>): string[] =>
  [...boxes].filter(([, box]) => overlap(area, box)).map(([id]) => id);

import type { Point } from '../scene/scene.ts';
import { snap } from './lattice.ts';

/** How several of a kind are put down at once. */
export const formations = ['row', 'column', 'ring', 'star'] as const;
export type Formation = (typeof formations)[number];

/** Room between two plates beside each other, with the labels at their ends, and above each other. */
const across = 136;
const down = 72;

/** On a circle with the first at the top, so wide that neighbours keep their distance along it. */
function circle(count: number, width: number, height: number): Point[] {
  const step = (2 * Math.PI) / Math.max(3, count);
  const radiusX = Math.max(width, (width + across) / 2 / Math.sin(step / 2));
  const radiusY = Math.max(height + down, radiusX * 0.66);
  return Array.from({ length: count }, (_, at) => ({
    x: radiusX * Math.sin(at * step),
    y: -radiusY * Math.cos(at * step),
  }));
}

/**
 * The top left corners of so many plates of one size around a middle: in a row, a column, a ring, or a star with the
 * first in the middle of the others.
 */
export function formed(
  formation: Formation,
  count: number,
  middle: Point,
  { width, height }: { width: number; height: number },
): Point[] {
  const centred = (at: number): number => at - (count - 1) / 2;
  const offsets: Point[] =
    formation === 'row'
      ? Array.from({ length: count }, (_, at) => ({ x: centred(at) * (width + across), y: 0 }))
      : formation === 'column'
        ? Array.from({ length: count }, (_, at) => ({ x: 0, y: centred(at) * (height + down) }))
        : formation === 'ring'
          ? circle(count, width, height)
          : [{ x: 0, y: 0 }, ...circle(count - 1, width, height)].slice(0, count);
  return offsets.map(({ x, y }) => ({
    x: snap(middle.x + x - width / 2),
    y: snap(middle.y + y - height / 2),
  }));
}

/** Which of them a formation joins, by their places in it. */
export function joinedIn(formation: Formation, count: number): [number, number][] {
  if (formation === 'star') return Array.from({ length: Math.max(0, count - 1) }, (_, at) => [0, at + 1]);
  const row = Array.from({ length: Math.max(0, count - 1) }, (_, at): [number, number] => [at, at + 1]);
  return formation === 'ring' && count > 2 ? [...row, [count - 1, 0]] : row;
}

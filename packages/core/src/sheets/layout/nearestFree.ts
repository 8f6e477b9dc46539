import { overlap, type Box, type Point } from '../scene/scene.ts';
import { grid, snap } from './lattice.ts';

/** Room kept between plates that are put down by hand. */
export const handGap = 16;
/** So far around the wish a free spot is sought, in steps of the lattice, before it is put below everything. */
const mostSteps = 120;

/** The spots of a ring around a middle that lie so far along its four sides. */
export const fourOf = (ring: number, along: number): readonly (readonly [x: number, y: number])[] => [
  [along, -ring],
  [along, ring],
  [-ring, along],
  [ring, along],
];

/**
 * The spot on the lattice nearest to a wish at which a box lies on no other, with some room around it. Of spots
 * equally near the upper one is taken, then the left one; below everything where there is none around.
 */
export function nearestFree(
  size: Pick<Box, 'width' | 'height'>,
  wish: Point,
  taken: readonly Box[],
  gap: number = handGap,
): Point {
  const start = { x: snap(wish.x), y: snap(wish.y) };
  const reach = (mostSteps + 1) * grid;
  const around: Box = {
    x: start.x - reach - gap,
    y: start.y - reach - gap,
    width: size.width + 2 * (reach + gap),
    height: size.height + 2 * (reach + gap),
  };
  const near = taken.filter((box) => overlap(box, around));
  const free = (at: Point): boolean => !near.some((box) => overlap({ ...at, ...size }, box, gap));
  let best: { at: Point; far: number } | null = null;
  const sooner = (at: Point, far: number): boolean =>
    best === null ||
    far < best.far ||
    (far === best.far && (at.y < best.at.y || (at.y === best.at.y && at.x < best.at.x)));
  for (let ring = 0; ring <= mostSteps; ring++) {
    // Nothing further out can be nearer than the ring is wide.
    if (best !== null && ring > best.far) break;
    for (let along = -ring; along <= ring; along++)
      for (const [x, y] of fourOf(ring, along)) {
        const at = { x: start.x + x * grid, y: start.y + y * grid };
        const far = Math.hypot(x, y);
        if (sooner(at, far) && free(at)) best = { at, far };
      }
  }
  if (best !== null) return best.at;
  return { x: start.x, y: snap(Math.max(...taken.map((box) => box.y + box.height)) + 64) };
}

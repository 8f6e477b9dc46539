import type { LinkEnd, Point, SceneLink } from './scene.ts';

/** Distance of the bar from the plate, and how far it stands out over the outermost links, in sheet units. */
const off = 6;
const over = 4;

/** A short bar across the ends of the links that together are one aggregate. */
export interface Tie {
  key: string;
  from: Point;
  to: Point;
  faded: boolean;
}

const outwards = { top: [0, -1], bottom: [0, 1], left: [-1, 0], right: [1, 0] } as const;

/**
 * The bars of all aggregates of which two members or more leave one plate beside each other. Where the end of another
 * link stands between them no bar is drawn: it would seem to belong.
 */
export function tiesOf(links: readonly SceneLink[]): Tie[] {
  const sides = new Map<string, { end: LinkEnd; faded: boolean }[]>();
  for (const link of links)
    for (const end of [link.a, link.b]) {
      const key = `${end.plateId}|${end.side}`;
      const list = sides.get(key);
      if (list === undefined) sides.set(key, [{ end, faded: link.faded }]);
      else list.push({ end, faded: link.faded });
    }
  const ties: Tie[] = [];
  for (const [side, ends] of sides) {
    if (!ends.some(({ end }) => end.tie !== null)) continue;
    const upright = ends[0]?.end.side === 'top' || ends[0]?.end.side === 'bottom';
    const along = (at: Point): number => (upright ? at.x : at.y);
    const sorted = [...ends].sort((a, b) => along(a.end.at) - along(b.end.at));
    for (let from = 0; from < sorted.length;) {
      const first = sorted[from];
      let to = from;
      while (first !== undefined && first.end.tie !== null && sorted[to + 1]?.end.tie === first.end.tie) to++;
      const last = sorted[to];
      if (to > from && first !== undefined && last !== undefined) {
        const [dx, dy] = outwards[first.end.side];
        const point = (at: Point, by: number): Point => ({
          x: at.x + dx * off + (upright ? by : 0),
          y: at.y + dy * off + (upright ? 0 : by),
        });
        ties.push({
          key: `${side}|${first.end.tie ?? ''}`,
          from: point(first.end.at, -over),
          to: point(last.end.at, over),
          faded: first.faded && last.faded,
        });
      }
      from = to + 1;
    }
  }
  return ties;
}

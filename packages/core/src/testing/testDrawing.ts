import type { Box, Point, Scene, SceneLink } from '../sheets/scene/scene.ts';

/** What makes a drawing hard to read, counted. */
export interface Figures {
  overlappingPlates: number;
  /** Links with a piece inside a plate. */
  throughPlates: number;
  crossings: number;
  /** Pairs of links that lie on each other for more than two steps of the lattice. */
  onEachOther: number;
  bends: number;
  aspect: number;
}

interface Piece {
  link: number;
  from: Point;
  to: Point;
}

const piecesOf = (paths: readonly (readonly Point[])[]): Piece[] =>
  paths.flatMap((points, link) => points.slice(1).map((to, at) => ({ link, from: points[at] ?? to, to })));

export const boxOf = ({ from, to }: { from: Point; to: Point }): Box => ({
  x: Math.min(from.x, to.x),
  y: Math.min(from.y, to.y),
  width: Math.abs(from.x - to.x),
  height: Math.abs(from.y - to.y),
});

const inner = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width - 1 && b.x + 1 < a.x + a.width && a.y < b.y + b.height - 1 && b.y + 1 < a.y + a.height;
const thick = (box: Box): Box => ({
  x: box.x - 0.01,
  y: box.y - 0.01,
  width: box.width + 0.02,
  height: box.height + 0.02,
});

/** Counts what is wrong with plates and orthogonal links. */
export function drawingFigures(plates: readonly Box[], paths: readonly (readonly Point[])[]): Figures {
  let overlappingPlates = 0;
  plates.forEach((plate, at) => {
    for (const other of plates.slice(at + 1)) if (inner(plate, other)) overlappingPlates++;
  });
  const pieces = piecesOf(paths);
  const through = new Set<number>();
  for (const piece of pieces) {
    const box = thick(boxOf(piece));
    if (
      plates.some((plate) =>
        inner(
          { ...plate, x: plate.x + 1, y: plate.y + 1, width: plate.width - 2, height: plate.height - 2 },
          { ...box, x: box.x - 1, y: box.y - 1, width: box.width + 2, height: box.height + 2 },
        ),
      )
    )
      through.add(piece.link);
  }
  let crossings = 0;
  let onEachOther = 0;
  const across = pieces.filter((piece) => piece.from.y === piece.to.y && piece.from.x !== piece.to.x);
  const upright = pieces.filter((piece) => piece.from.x === piece.to.x && piece.from.y !== piece.to.y);
  for (const flat of across) {
    const a = boxOf(flat);
    for (const tall of upright) {
      if (tall.link === flat.link) continue;
      const b = boxOf(tall);
      if (b.x > a.x && b.x < a.x + a.width && a.y > b.y && a.y < b.y + b.height) crossings++;
    }
  }
  const together = new Map<string, { link: number; from: number; to: number }[]>();
  for (const piece of [...across, ...upright]) {
    const box = boxOf(piece);
    const flat = box.height === 0;
    const lane = flat ? `y${box.y}` : `x${box.x}`;
    const span = {
      link: piece.link,
      from: flat ? box.x : box.y,
      to: flat ? box.x + box.width : box.y + box.height,
    };
    for (const other of together.get(lane) ?? [])
      if (other.link !== span.link && Math.min(other.to, span.to) - Math.max(other.from, span.from) > 16)
        onEachOther++;
    together.set(lane, [...(together.get(lane) ?? []), span]);
  }
  const all = [...plates, ...pieces.map(boxOf)];
  const width = Math.max(...all.map((box) => box.x + box.width)) - Math.min(...all.map((box) => box.x));
  const height = Math.max(...all.map((box) => box.y + box.height)) - Math.min(...all.map((box) => box.y));
  return {
    overlappingPlates,
    throughPlates: through.size,
    crossings,
    onEachOther,
    bends: paths.reduce((sum, points) => sum + Math.max(0, points.length - 2), 0),
    aspect: width / height,
  };
}

/** What is drawn of links: of one in a bundle what lies beyond the shared part, and the shared parts. */
export const drawnPaths = ({ links, bundles }: Pick<Scene, 'links' | 'bundles'>): Point[][] => [
  ...links.map(({ drawn }) => drawn),
  ...bundles.flatMap(({ trunk }) => trunk),
];

/** Whether an end of a link is at the hub of its bundle, where its port is not told. */
export const atHub = ({ bundles }: Pick<Scene, 'bundles'>, link: SceneLink, end: 'a' | 'b'): boolean =>
  bundles.some(({ id, hubId, at }) => {
    const own = link[end];
    return id === link.bundleId && own.plateId === hubId && own.at.x === at.x && own.at.y === at.y;
  });

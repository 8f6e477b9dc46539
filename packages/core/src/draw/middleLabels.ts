import { labelSize } from './ends.ts';
import { overlap, type Box, type Point, type SceneLabel, type SceneLink, type TextMeasure } from './scene.ts';

const height = 14;

interface Piece {
  linkId: string;
  from: Point;
  to: Point;
  box: Box;
}

function piecesOf(link: SceneLink): Piece[] {
  return link.points.slice(1).map((to, at) => {
    const from = link.points[at] ?? to;
    const box = {
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      width: Math.abs(to.x - from.x),
      height: Math.abs(to.y - from.y),
    };
    return { linkId: link.id, from, to, box };
  });
}

/**
 * Puts each text on its own link where it covers no plate, no other label and no other link: on the longest
 * piece first. A text that finds no room is left out; the data strip has it.
 */
export function placeMiddleLabels(
  links: readonly SceneLink[],
  texts: ReadonlyMap<string, string>,
  obstacles: readonly Box[],
  measure: TextMeasure,
): Map<string, SceneLabel> {
  const pieces = links.flatMap(piecesOf);
  const taken: Box[] = [...obstacles];
  for (const link of links)
    for (const end of [link.a, link.b]) if (end.label !== null) taken.push(end.label.box);
  const placed = new Map<string, SceneLabel>();
  for (const link of links) {
    const text = texts.get(link.id) ?? '';
    if (text === '') continue;
    const long = Math.ceil(measure(text, 'mono', labelSize)) + 6;
    const own = pieces
      .filter((piece) => piece.linkId === link.id && Math.max(piece.box.width, piece.box.height) >= long + 8)
      .sort((a, b) => Math.max(b.box.width, b.box.height) - Math.max(a.box.width, a.box.height));
    const others = pieces.filter((piece) => piece.linkId !== link.id);
    const label = own
      .flatMap((piece) => [0.5, 0.25, 0.75].map((share) => ({ piece, share })))
      .map(({ piece, share }): SceneLabel => {
        const upright = piece.box.height > piece.box.width;
        const size = upright ? { width: height, height: long } : { width: long, height };
        const slack = Math.max(0, (upright ? piece.box.height : piece.box.width) - long - 8);
        const along = (upright ? piece.box.y : piece.box.x) + 4 + slack * share;
        const at = upright
          ? { x: piece.box.x - height / 2, y: along }
          : { x: along, y: piece.box.y - height / 2 };
        return { text, turned: upright, box: { ...at, ...size } };
      })
      .find(
        (candidate) =>
          !taken.some((box) => overlap(box, candidate.box)) &&
          !others.some((piece) => overlap(piece.box, candidate.box)),
      );
    if (label === undefined) continue;
    placed.set(link.id, label);
    taken.push(label.box);
  }
  return placed;
}

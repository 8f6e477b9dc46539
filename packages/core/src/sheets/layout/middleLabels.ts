import { labelSize } from './ends.ts';
import { BoxIndex } from './boxIndex.ts';
import { type Box, type Point, type SceneLabel, type SceneLink, type SceneStub } from '../scene/scene.ts';
import type { TextMeasure } from './textMeasure.ts';

const height = 14;

interface Piece {
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
    return { box };
  });
}

/**
 * Puts each text on its own link where it covers no plate, no other label and no other link: on the longest
 * piece first. A text that finds no room is left out; the data strip has it.
 */
export function placeMiddleLabels(
  links: readonly SceneLink[],
  texts: ReadonlyMap<string, { text: string; by: Point | null }>,
  obstacles: readonly Box[],
  measure: TextMeasure,
): Map<string, SceneLabel> {
  const byLink = new Map(links.map((link) => [link.id, piecesOf(link)]));
  const pieces = new BoxIndex<string>();
  for (const [id, own] of byLink) for (const piece of own) pieces.add(piece.box, id);
  const taken = new BoxIndex<null>();
  for (const box of obstacles) taken.add(box, null);
  for (const link of links)
    for (const end of [link.a, link.b]) if (end.label !== null) taken.add(end.label.box, null);
  const placed = new Map<string, SceneLabel>();
  for (const link of links) {
    const { text, by } = texts.get(link.id) ?? { text: '', by: null };
    if (text === '') continue;
    const long = Math.ceil(measure(text, 'mono', labelSize)) + 6;
    const length = (piece: Piece): number => Math.max(piece.box.width, piece.box.height);
    const own = [...(byLink.get(link.id) ?? [])].sort((x, y) => length(y) - length(x));
    const label = own
      .flatMap((piece) => {
        const upright = piece.box.height > piece.box.width;
        const along = length(piece) >= long + 8 ? [{ piece, upright, turned: upright }] : [];
        // The lozenge of a circuit, and a subnet, read across their line where there is room.
        const across =
          (link.medium === 'circuit' || link.kind === 'prefix') && upright && length(piece) >= height + 16
            ? [{ piece, upright, turned: false }]
            : [];
        return [...across, ...along].flatMap((way) => [0.5, 0.25, 0.75].map((share) => ({ ...way, share })));
      })
      .map(({ piece, upright, turned, share }): SceneLabel => {
        const size = turned ? { width: height, height: long } : { width: long, height };
        const slack = Math.max(0, length(piece) - (upright ? size.height : size.width) - 8);
        const along = (upright ? piece.box.y : piece.box.x) + 4 + slack * share;
        const at = upright
          ? { x: piece.box.x - size.width / 2, y: along }
          : { x: along, y: piece.box.y - height / 2 };
        return { text, turned, box: { ...at, ...size } };
      })
      .find(
        (candidate) => !taken.meets(candidate.box) && !pieces.meets(candidate.box, (id) => id !== link.id),
      );
    if (label === undefined) continue;
    const slid =
      by === null ? label : { ...label, box: { ...label.box, x: label.box.x + by.x, y: label.box.y + by.y } };
    placed.set(link.id, slid);
    taken.add(slid.box, null);
  }
  return placed;
}

/** Beyond the end of each stub, what it leads to; turned where stubs stand side by side. */
export function stubLabels(
  stubs: readonly SceneStub[],
  texts: ReadonlyMap<string, string>,
  measure: TextMeasure,
): Map<string, SceneLabel> {
  const labels = new Map<string, SceneLabel>();
  for (const stub of stubs) {
    const text = texts.get(stub.id) ?? '';
    if (text === '') continue;
    const long = Math.ceil(measure(text, 'mono', labelSize)) + 6;
    labels.set(stub.id, {
      text,
      turned: true,
      box: { x: stub.to.x - height / 2, y: stub.to.y + 3, width: height, height: long },
    });
  }
  return labels;
}

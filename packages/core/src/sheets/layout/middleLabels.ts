import { labelSize } from './ends.ts';
import { BoxIndex } from './boxIndex.ts';
import {
  type Box,
  type Point,
  type SceneBundle,
  type SceneLabel,
  type SceneLink,
  type SceneStub,
} from '../scene/scene.ts';
import type { TextMeasure } from './textMeasure.ts';

// Taken once: where globals are intercepted, as in tests, each look-up costs more than what is computed.
const { abs, ceil, max, min } = Math;

const height = 14;

const boxOf = (from: Point, to: Point): Box => ({
  x: min(from.x, to.x),
  y: min(from.y, to.y),
  width: abs(to.x - from.x),
  height: abs(to.y - from.y),
});
const piecesOf = (points: readonly Point[]): Box[] =>
  points.slice(1).map((to, at) => boxOf(points[at] ?? to, to));
const lengthOf = ({ width, height: tall }: Box): number => max(width, tall);
const isUpright = ({ width, height: tall }: Box): boolean => tall > width;
/** Parts of the way along a piece at which a text is tried. */
const shares = [0.5, 0.25, 0.75, 0.1, 0.9, 0.375, 0.625];

/** Where labels can still stand on a drawing: on no plate, no other label and no other line. */
export class LabelRoom {
  private readonly lines = new BoxIndex<string>();
  private readonly taken = new BoxIndex<null>();

  constructor(
    links: readonly SceneLink[],
    obstacles: readonly Box[],
    private readonly measure: TextMeasure,
  ) {
    for (const { id, points } of links) for (const piece of piecesOf(points)) this.lines.add(piece, id);
    for (const box of obstacles) this.taken.add(box, null);
    for (const link of links)
      for (const end of [link.a, link.b]) if (end.label !== null) this.taken.add(end.label.box, null);
  }

  take(box: Box): void {
    this.taken.add(box, null);
  }

  private labelOn(text: string, piece: Box, turned: boolean, share: number): SceneLabel {
    const long = ceil(this.measure(text, 'mono', labelSize)) + 6;
    const size = turned ? { width: height, height: long } : { width: long, height };
    const upright = isUpright(piece);
    const slack = max(0, lengthOf(piece) - (upright ? size.height : size.width) - 8);
    const along = (upright ? piece.y : piece.x) + 4 + slack * share;
    const at = upright ? { x: piece.x - size.width / 2, y: along } : { x: along, y: piece.y - height / 2 };
    return { text, turned, box: { ...at, ...size } };
  }

  private free({ box }: SceneLabel, own: (id: string) => boolean): boolean {
    return !this.taken.meets(box) && !this.lines.meets(box, (id) => !own(id));
  }

  /** On the longest piece of a link that has room: read from left to right where that can be, else along the piece. */
  middle({ id, drawn }: SceneLink, text: string): SceneLabel | null {
    return this.onLongest(piecesOf(drawn), text, (other) => other === id);
  }

  /** The same on the shared part of a bundle. */
  shared({ trunk, linkIds }: Pick<SceneBundle, 'trunk' | 'linkIds'>, text: string): SceneLabel | null {
    const own = new Set(linkIds);
    return this.onLongest(trunk.flatMap(piecesOf), text, (id) => own.has(id));
  }

  private onLongest(pieces: Box[], text: string, own: (id: string) => boolean): SceneLabel | null {
    const long = ceil(this.measure(text, 'mono', labelSize)) + 6;
    const longest = pieces.sort((x, y) => lengthOf(y) - lengthOf(x));
    const on = (piece: Box, turned: boolean, least: number): SceneLabel | null => {
      if (lengthOf(piece) < least) return null;
      for (const share of shares) {
        const label = this.labelOn(text, piece, turned, share);
        if (this.free(label, own)) return label;
      }
      return null;
    };
    for (const piece of longest) {
      const label = on(piece, false, isUpright(piece) ? height + 16 : long + 8);
      if (label !== null) return label;
    }
    // Nowhere does it read from left to right.
    for (const piece of longest) {
      const label = isUpright(piece) ? on(piece, true, long + 8) : null;
      if (label !== null) return label;
    }
    return null;
  }

  /** On one of the first pieces of a way, as near to its start as there is room; it reads from left to right. */
  start(id: string, way: readonly Point[], text: string): SceneLabel | null {
    const long = ceil(this.measure(text, 'mono', labelSize)) + 6;
    for (const [at, piece] of piecesOf(way).slice(0, 3).entries()) {
      if (lengthOf(piece) < (isUpright(piece) ? height : long) + 8) continue;
      const [from, to] = [way[at], way[at + 1]];
      const forward = from !== undefined && to !== undefined && (to.x > from.x || to.y > from.y);
      for (const share of [0, 0.25, 0.5]) {
        const label = this.labelOn(text, piece, false, forward ? share : 1 - share);
        if (this.free(label, (other) => other === id)) return label;
      }
    }
    return null;
  }
}

/** What each bundle tells in sum, on its shared part, where there is room. */
export const tellBundles = (bundles: readonly SceneBundle[], room: LabelRoom): SceneBundle[] =>
  bundles.map((bundle) => {
    const toldLabel = bundle.told === '' ? null : room.shared(bundle, bundle.told);
    if (toldLabel !== null) room.take(toldLabel.box);
    return { ...bundle, toldLabel };
  });

/** Text for the middle of a link, and how far a person has slid it. */
export interface MiddleText {
  text: string;
  by: Point | null;
}

/** Puts each text on its own link where it covers nothing. A text that finds no room is left out; the data strip has it. */
export function placeMiddleLabels(
  links: readonly SceneLink[],
  texts: ReadonlyMap<string, MiddleText>,
  room: LabelRoom,
): Map<string, SceneLabel> {
  const placed = new Map<string, SceneLabel>();
  for (const link of links) {
    const { text, by } = texts.get(link.id) ?? { text: '', by: null };
    if (text === '') continue;
    const label = room.middle(link, text);
    if (label === null) continue;
    const slid =
      by === null ? label : { ...label, box: { ...label.box, x: label.box.x + by.x, y: label.box.y + by.y } };
    placed.set(link.id, slid);
    room.take(slid.box);
  }
  return placed;
}

/** The port at the hub of each link in a bundle, where it leaves the others; left out where there is no room. */
export function nameBranches(
  links: readonly SceneLink[],
  portOf: (link: SceneLink) => { end: 'a' | 'b'; text: string } | null,
  room: LabelRoom,
): SceneLink[] {
  return links.map((link) => {
    const port = link.bundleId === null ? null : portOf(link);
    if (port === null || port.text === '') return link;
    const way = port.end === 'a' ? link.drawn : link.drawn.slice().reverse();
    const label = room.start(link.id, way, port.text);
    if (label === null) return link;
    room.take(label.box);
    return port.end === 'a' ? { ...link, a: { ...link.a, label } } : { ...link, b: { ...link.b, label } };
  });
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
    const long = ceil(measure(text, 'mono', labelSize)) + 6;
    labels.set(stub.id, {
      text,
      turned: true,
      box: { x: stub.to.x - height / 2, y: stub.to.y + 3, width: height, height: long },
    });
  }
  return labels;
}

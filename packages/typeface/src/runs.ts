import bidiFactory from 'bidi-js';
import { clustersOf, drawnBy, plain } from './coverage.ts';

const bidi = bidiFactory();
const rightToLeft = /^(R|AL)$/;

/** A part of a text that one font draws in one direction. */
export interface Run {
  /** In the order in which it is read: who shapes it turns letters of a right-to-left script around itself. */
  text: string;
  /** The family that stands in for the house font; null where the house font draws it. */
  family: string | null;
}

interface Piece extends Run {
  level: number;
  blank: boolean;
}

const hasRightToLeft = (text: string): boolean =>
  [...text].some((character) => rightToLeft.test(bidi.getBidiCharTypeName(character)));

/** Letters of a script turn when they are shaped; signs without a script do not, and are turned here. */
function turned(text: string): string {
  const mirrored = clustersOf(text).map((cluster) => bidi.getMirroredCharacter(cluster) ?? cluster);
  return (hasRightToLeft(text) ? mirrored : mirrored.reverse()).join('');
}

/** Reverses stretches from the highest level down to the lowest odd one (UAX 9, rule L2). */
function inVisualOrder(pieces: Piece[]): Piece[] {
  const order = [...pieces];
  const levels = pieces.map(({ level }) => level);
  const odd = levels.filter((level) => level % 2 === 1);
  if (odd.length === 0) return order;
  for (let level = Math.max(...levels); level >= Math.min(...odd); level--)
    for (let from = 0; from < order.length; from++) {
      let to = from;
      while (to < order.length && (order[to]?.level ?? 0) >= level) to++;
      if (to > from) order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = to;
    }
  return order;
}

const join = (runs: Run[], { text, family }: Run, apart: boolean): void => {
  const last = runs.at(-1);
  if (last !== undefined && last.family === family && !apart) last.text += text;
  else runs.push({ text, family });
};

/** Letters and signs that stand alone, without marks: each is a cluster. */
const alone = /^[\x20-\x7e\xa1-\xac\xae-\u02af\u2010-\u2027\u2190-\u21ff]*$/;
/** Families that stand in for those of them that were asked for, by weight and letter. */
const known = new Map<string, string | null>();

/** The family that stands in for the house font to draw a cluster; null: none does. */
function standIn(cluster: string, weight: 400 | 600): string | null {
  const key = `${weight}${cluster}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  const drawn = drawnBy(cluster, weight);
  const family = drawn.kind === 'fallback' ? drawn.font.family : null;
  if (alone.test(cluster)) known.set(key, family);
  return family;
}

/** The clusters of a text with their fonts and levels; words of a right-to-left script apart, as they are turned. */
function piecesOf(text: string, weight: 400 | 600): Piece[] {
  const { levels } = bidi.getEmbeddingLevels(text, 'ltr');
  const pieces: Piece[] = [];
  let at = 0;
  let family: string | null = null;
  for (const cluster of alone.test(text) ? text : clustersOf(text)) {
    const level = levels[at] ?? 0;
    at += cluster.length;
    const blank = /^\s$/.test(cluster);
    // A space is drawn by whatever font was before it.
    if (!blank) family = standIn(cluster, weight);
    const last = pieces.at(-1);
    const joins =
      last?.level === level && last.family === family && (level % 2 === 0 || last.blank === blank);
    if (last !== undefined && joins) last.text += cluster;
    else pieces.push({ text: cluster, family, level, blank });
  }
  return pieces;
}

/**
 * A line of text as runs from left to right, for a writer that takes one font for one text. The line itself runs from left to right, as
 * the lines of a drawing do. Letters with marks are composed (NFC).
 */
export function runsOf(text: string, weight: 400 | 600): Run[] {
  if (plain.test(text)) return [{ text, family: null }];
  const pieces = piecesOf(text.normalize('NFC'), weight);
  const runs: Run[] = [];
  for (const piece of inVisualOrder(pieces)) {
    const odd = piece.level % 2 === 1;
    // What is right to left stays a run of its own: the writer shapes each by itself.
    const apart = odd || hasRightToLeft(runs.at(-1)?.text ?? '');
    join(runs, { family: piece.family, text: odd ? turned(piece.text) : piece.text }, apart);
  }
  return runs;
}

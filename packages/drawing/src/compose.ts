import { overlap, type Box, type Point, type Scene } from '@visograph/core/sheets';
import { createElement, type ReactElement } from 'react';
import {
  Diagram,
  KeyShape,
  keySize,
  TitleBlockShape,
  titleBlockHeight,
  titleBlockWidth,
} from './Diagram.tsx';
import { paper, type Tokens } from './tokens.ts';

/** Room around a drawing in a file, and between it and its key. */
export const margin = 24;
/** Room kept between the key and what is drawn, where it stands in a corner that the drawing leaves free. */
const gap = 12;

const pieceBox = (from: Point, to: Point): Box => ({
  x: Math.min(from.x, to.x),
  y: Math.min(from.y, to.y),
  width: Math.abs(to.x - from.x),
  height: Math.abs(to.y - from.y),
});

/** All that is drawn, as boxes: what the key must not cover. */
function covered({ plates, containers, links, bundles, stubs, marks }: Scene): Box[] {
  const lines = [...links.map(({ drawn }) => drawn), ...bundles.flatMap(({ trunk }) => trunk)];
  const labels = [
    ...links.flatMap(({ a, b, label }) => [a.label, b.label, label]),
    ...bundles.flatMap(({ label, toldLabel }) => [label, toldLabel]),
    ...stubs.flatMap(({ a, label }) => [a.label, label]),
  ];
  return [
    ...[...plates, ...containers, ...marks].map(({ box }) => box),
    ...lines.flatMap((points) => points.slice(1).map((to, at) => pieceBox(points[at] ?? to, to))),
    ...stubs.map(({ a, to }) => pieceBox(a.at, to)),
    ...labels.flatMap((label) => label?.box ?? []),
  ];
}

type Size = Pick<Box, 'width' | 'height'>;

/** A corner of the drawing in which nothing of it stands, with room for something; the right and lower ones first. */
function freeCorner({ box }: Scene, taken: readonly Box[], { width, height }: Size): Point | null {
  if (width > box.width || height > box.height) return null;
  const [right, bottom] = [box.x + box.width - width, box.y + box.height - height];
  const corners = [
    { x: right, y: bottom },
    { x: right, y: box.y },
    { x: box.x, y: bottom },
    { x: box.x, y: box.y },
  ];
  return corners.find((at) => !taken.some((one) => overlap(one, { ...at, width, height }, gap))) ?? null;
}

/** A key and where it stands: in a corner that is free, in as few columns as that allows. */
function keyInCorner(scene: Scene, taken: readonly Box[]): { columns: number; at: Point } | null {
  for (let columns = 1; columns <= Math.min(4, scene.key.length); columns++) {
    const at = freeCorner(scene, taken, keySize(scene.key, columns));
    if (at !== null) return { columns, at };
  }
  return null;
}

/**
 * A diagram with its key and title block, and the room that takes: where the drawing leaves a corner free they stand
 * there, else in a strip below it. `beside` are the boxes of both.
 */
export function composed(
  scene: Scene,
  tokens: Tokens,
): { box: Box; children: ReactElement[]; beside: Box[] } {
  const { key, titleBlock: block, box: drawn } = scene;
  const children: ReactElement[] = [createElement(Diagram, { key: 'scene', scene, tokens })];
  const beside: Box[] = [];
  const put = (name: string, at: Point, size: Size, child: ReactElement): void => {
    children.push(createElement('g', { key: name, transform: `translate(${at.x} ${at.y})` }, child));
    beside.push({ ...at, ...size });
  };
  const taken = covered(scene);
  const blockSize = block === null ? null : { width: titleBlockWidth(block), height: titleBlockHeight };
  const blockAt = blockSize === null ? null : freeCorner(scene, taken, blockSize);
  if (blockSize !== null && blockAt !== null) taken.push({ ...blockAt, ...blockSize });
  const inCorner = key.length === 0 ? null : keyInCorner(scene, taken);
  let { width } = drawn;
  let foot = 0;
  const below = drawn.y + drawn.height + margin;
  const stripBlock = blockSize !== null && blockAt === null ? blockSize : null;
  if (key.length > 0 && inCorner === null) {
    const room = drawn.width - (stripBlock === null ? 0 : stripBlock.width + margin);
    const columns = Math.max(1, Math.min(key.length, Math.floor(room / keySize(key).width)));
    const size = keySize(key, columns);
    put('key', { x: drawn.x, y: below }, size, createElement(KeyShape, { entries: key, tokens, columns }));
    foot = size.height + margin;
    width = Math.max(width, size.width + (stripBlock === null ? 0 : stripBlock.width + margin));
  } else if (inCorner !== null) {
    const { at, columns } = inCorner;
    put('key', at, keySize(key, columns), createElement(KeyShape, { entries: key, tokens, columns }));
  }
  if (stripBlock !== null) {
    width = Math.max(width, stripBlock.width);
    foot = Math.max(foot, stripBlock.height + margin);
  }
  if (block !== null && blockSize !== null) {
    const strip = {
      x: drawn.x + width - blockSize.width,
      y: drawn.y + drawn.height + foot - blockSize.height,
    };
    put('block', blockAt ?? strip, blockSize, createElement(TitleBlockShape, { block, tokens }));
  }
  const box = {
    x: drawn.x - margin,
    y: drawn.y - margin,
    width: width + 2 * margin,
    height: drawn.height + foot + 2 * margin,
  };
  return { box, children, beside };
}

/** Where the key and the title block of a diagram stand, in sheet units. */
export const besideDiagram = (scene: Scene): Box[] => composed(scene, paper).beside;

/** The room a diagram takes with its key and title block, in sheet units: what falls on paper. */
export const diagramBox = (scene: Scene): Box => composed(scene, paper).box;

import type { Box, Scene } from '@visograph/core/sheets';
import { createElement, type ReactElement } from 'react';
import {
  Diagram,
  KeyShape,
  keyHeight,
  keyWidth,
  TitleBlockShape,
  titleBlockHeight,
  titleBlockWidth,
} from './Diagram.tsx';
import { paper, type Tokens } from './tokens.ts';

/** Room around a drawing in a file, and between it and its key. */
export const margin = 24;

/** A diagram with its key and title block around it, and the room that takes. */
export function composed(scene: Scene, tokens: Tokens): { box: Box; children: ReactElement[] } {
  const keyed = scene.key.length > 0;
  const height = Math.max(scene.box.height, keyed ? keyHeight(scene.key) : 0);
  const width = scene.box.width + (keyed ? keyWidth + margin : 0);
  const block = scene.titleBlock;
  const foot = block === null ? 0 : titleBlockHeight + margin;
  const children: ReactElement[] = [createElement(Diagram, { key: 'scene', scene, tokens })];
  const right = scene.box.x + width;
  if (keyed) {
    const transform = `translate(${right - keyWidth} ${scene.box.y})`;
    children.push(
      createElement('g', { key: 'key', transform }, createElement(KeyShape, { entries: scene.key, tokens })),
    );
  }
  const blockWidth = block === null ? 0 : titleBlockWidth(block);
  const left = Math.min(scene.box.x, right - blockWidth);
  if (block !== null) {
    const transform = `translate(${right - blockWidth} ${scene.box.y + height + margin})`;
    children.push(
      createElement('g', { key: 'block', transform }, createElement(TitleBlockShape, { block, tokens })),
    );
  }
  const box = {
    x: left - margin,
    y: scene.box.y - margin,
    width: right - left + 2 * margin,
    height: height + foot + 2 * margin,
  };
  return { box, children };
}

/** The room a diagram takes with its key and title block, in sheet units: what falls on paper. */
export const diagramBox = (scene: Scene): Box => composed(scene, paper).box;

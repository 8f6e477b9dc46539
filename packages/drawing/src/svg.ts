import type { ElevationScene, Scene, WithCables } from '@visograph/core';
import { createElement, type ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import {
  Diagram,
  KeyShape,
  keyHeight,
  keyWidth,
  TitleBlockShape,
  titleBlockHeight,
  titleBlockWidth,
} from './Diagram.tsx';
import { Elevation, elevationSize } from './Elevation.tsx';
import { paper, type Tokens } from './tokens.ts';

/** A font file to be carried inside the drawing, so that it opens alike where the font is not installed. */
export interface EmbeddedFont {
  family: string;
  weight: number;
  base64: string;
}

export interface SvgOptions {
  tokens?: Tokens;
  fonts?: readonly EmbeddedFont[];
}

const fontStyle = (fonts: readonly EmbeddedFont[]): string =>
  fonts
    .map(
      (font) =>
        `@font-face{font-family:'${font.family}';font-weight:${font.weight};src:url(data:font/ttf;base64,${font.base64}) format('truetype')}`,
    )
    .join('');

interface Frame {
  x: number;
  y: number;
  width: number;
  height: number;
  title: string;
}

function svgOf(frame: Frame, options: SvgOptions, children: ReactElement[]): string {
  const tokens = options.tokens ?? paper;
  const { x, y, width, height } = frame;
  const element = createElement(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      width,
      height,
      viewBox: `${x} ${y} ${width} ${height}`,
      role: 'img',
      'aria-label': frame.title,
    },
    createElement('title', null, frame.title),
    options.fonts === undefined || options.fonts.length === 0
      ? null
      : createElement('style', { dangerouslySetInnerHTML: { __html: fontStyle(options.fonts) } }),
    createElement('rect', { x, y, width, height, fill: tokens.ground }),
    ...children,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n${renderToStaticMarkup(element)}\n`;
}

const margin = 24;

/** A diagram as a stand-alone SVG 1.1 document: the picture of the screen, its key and its title block; text stays text. */
export function diagramSvg(scene: Scene, options: SvgOptions = {}): string {
  const tokens = options.tokens ?? paper;
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
  const frame = {
    x: left - margin,
    y: scene.box.y - margin,
    width: right - left + 2 * margin,
    height: height + foot + 2 * margin,
    title: block?.title ?? 'Diagram',
  };
  return svgOf(frame, options, children);
}

/** A rack's front and rear as a stand-alone SVG document. */
export function elevationSvg(scene: ElevationScene & WithCables, options: SvgOptions = {}): string {
  const size = elevationSize(scene);
  const frame = {
    x: -margin,
    y: -margin,
    width: size.width + 2 * margin,
    height: size.height + 2 * margin,
    title: `${scene.title} elevation`,
  };
  return svgOf(frame, options, [
    createElement(Elevation, { key: 'rack', scene, tokens: options.tokens ?? paper }),
  ]);
}

import type { ElevationPlate, ElevationScene, WithCables } from '@visograph/core/racks';
import type { Box, Scene } from '@visograph/core/sheets';
import { createElement, type ReactElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { composed, margin } from './compose.ts';
import { Elevation, elevationSize } from './Elevation.tsx';
import { FacePlateShape } from './FacePlate.tsx';
import { paper, type Tokens } from './tokens.ts';

export interface SvgOptions {
  tokens?: Tokens;
  /** Without the ground of the theme behind it. */
  transparent?: boolean;
}

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
    options.transparent === true ? null : createElement('rect', { x, y, width, height, fill: tokens.ground }),
    ...children,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n${renderToStaticMarkup(element)}\n`;
}

/**
 * A diagram as a stand-alone SVG 1.1 document: the picture of the screen, its key and its title block; text stays
 * text. With a `window` only that part of it is in view, as on one page of several.
 */
export function diagramSvg(scene: Scene, options: SvgOptions = {}, window: Box | null = null): string {
  const { box, children } = composed(scene, options.tokens ?? paper);
  return svgOf({ ...(window ?? box), title: scene.titleBlock?.title ?? 'Diagram' }, options, children);
}

/** The face of a device or model alone as a stand-alone SVG document. */
export function faceSvg(
  plate: ElevationPlate,
  { width, height }: { width: number; height: number },
  options: SvgOptions = {},
): string {
  const tokens = options.tokens ?? paper;
  return svgOf(
    { x: -1, y: -1, width: width + 2, height: height + 2, title: plate.name },
    { ...options, transparent: true },
    [createElement(FacePlateShape, { key: 'face', plate, tokens })],
  );
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

import type { Scene } from '@visograph/core';
import { shadeColour } from '@visograph/drawing';
import { useStore, useStoreApi } from '@xyflow/react';
import { useEffect, useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../theme/theme.tsx';

const Surface = styled.canvas`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  z-index: 0;
`;

/** Below this zoom a large sheet is painted on one canvas: plates as coloured tabs, links as hairlines. */
export const farBelow = 0.35;
/** Smaller sheets are drawn as they are at every zoom. */
export const farAbove = 150;

/** Names of containers are written so large, in pixels of the screen, whatever the zoom. */
const titlePx = 12;

/** The whole sheet from afar. */
export function FarLayer({ scene, lit }: { scene: Scene; lit: ReadonlySet<string> }): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  const store = useStoreApi();
  const { tokens } = useTheme();
  const width = useStore((state) => state.width);
  const height = useStore((state) => state.height);
  useEffect(() => {
    const surface = canvas.current;
    const context = surface?.getContext('2d') ?? null;
    if (surface === null || context === null || width === 0) return;
    const ratio = window.devicePixelRatio;
    surface.width = width * ratio;
    surface.height = height * ratio;
    const links = new Path2D();
    for (const { points } of scene.links) {
      points.forEach(({ x, y }, at) => (at === 0 ? links.moveTo(x, y) : links.lineTo(x, y)));
    }
    const bodies = new Path2D();
    const tabs = new Map<string, Path2D>();
    const chosen = new Path2D();
    for (const { id, box, shade } of scene.plates) {
      bodies.rect(box.x, box.y, box.width, box.height);
      const colour = shadeColour(tokens, shade);
      const path = tabs.get(colour) ?? new Path2D();
      path.rect(box.x, box.y, Math.min(48, box.width), box.height);
      tabs.set(colour, path);
      if (lit.has(id)) chosen.rect(box.x - 8, box.y - 8, box.width + 16, box.height + 16);
    }
    let asked = 0;
    const paint = (): void => {
      asked = 0;
      const [x, y, zoom] = store.getState().transform;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, surface.width, surface.height);
      context.setTransform(zoom * ratio, 0, 0, zoom * ratio, x * ratio, y * ratio);
      for (const container of scene.containers) {
        const { box } = container;
        context.fillStyle = tokens.container;
        context.strokeStyle = tokens.rule;
        context.lineWidth = 1 / zoom;
        context.fillRect(box.x, box.y, box.width, box.height);
        context.strokeRect(box.x, box.y, box.width, box.height);
      }
      context.lineWidth = 0.7 / zoom;
      context.strokeStyle = tokens.inkSoft;
      context.stroke(links);
      context.fillStyle = tokens.surface;
      context.fill(bodies);
      for (const [colour, path] of tabs) {
        context.fillStyle = colour;
        context.fill(path);
      }
      context.strokeStyle = tokens.accent;
      context.lineWidth = 3 / zoom;
      context.stroke(chosen);
      context.fillStyle = tokens.ink;
      context.font = `600 ${titlePx / zoom}px 'Atkinson Hyperlegible Next', sans-serif`;
      for (const { title, plateIds, box, parentId } of scene.containers) {
        if (parentId !== null) continue;
        const text = `${title} · ${plateIds.length}`;
        if (context.measureText(text).width < box.width + 40 / zoom)
          context.fillText(text, box.x, box.y - 4 / zoom);
      }
    };
    const ask = (): void => {
      if (asked === 0) asked = requestAnimationFrame(paint);
    };
    paint();
    const stop = store.subscribe(ask);
    return () => {
      stop();
      cancelAnimationFrame(asked);
    };
  }, [scene, tokens, width, height, store, lit]);
  return <Surface ref={canvas} data-far aria-hidden="true" />;
}

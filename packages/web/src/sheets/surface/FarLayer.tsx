import type { Scene } from '@visograph/core/sheets';
import { useStore, useStoreApi } from '@xyflow/react';
import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import { farPaths, paintPaths, tabWidth } from './paintFar.ts';

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
/** Names of plates are written from this zoom on, so large, as far as they fit. */
const namesFrom = 0.18;
const namePx = 9;

/** What of a container's title fits into a width: all of it, or only its last parts. */
function fittingTitle(title: string, fits: (text: string) => boolean): string | null {
  const parts = title.split(' › ');
  for (let from = 0; from < parts.length; from++) {
    const text = parts.slice(from).join(' › ');
    if (fits(text)) return text;
  }
  return null;
}

interface Props {
  scene: Scene;
  lit: ReadonlySet<string>;
  /** It is kept ready while what is near is drawn as it is. */
  shown: boolean;
}

/** The whole sheet from afar. */
export function FarLayer({ scene, lit, shown }: Props): ReactNode {
  const canvas = useRef<HTMLCanvasElement>(null);
  const showing = useRef(shown);
  const again = useRef<() => void>(() => undefined);
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
    const paths = farPaths(scene, tokens);
    const chosen = new Path2D();
    for (const { id, box } of scene.plates)
      if (lit.has(id)) chosen.rect(box.x - 8, box.y - 8, box.width + 16, box.height + 16);
    const nameFont = `${namePx}px 'Atkinson Hyperlegible Mono', monospace`;
    const titleFont = `600 ${titlePx}px 'Atkinson Hyperlegible Next', sans-serif`;
    context.font = nameFont;
    const letter = Math.max(1, context.measureText('m').width);
    /** Names of the plates in view, as much of each as its plate has room for. */
    const writeNames = (x: number, y: number, zoom: number): void => {
      context.font = nameFont;
      context.textBaseline = 'middle';
      context.fillStyle = tokens.ink;
      for (const { name, box } of scene.plates) {
        const tab = Math.min(tabWidth, box.width);
        const left = (box.x + tab) * zoom + x + 2;
        const middle = (box.y + box.height / 2) * zoom + y;
        const right = (box.x + box.width) * zoom + x;
        if (right < 0 || left > width || middle < 0 || middle > height) continue;
        const room = Math.floor((right - left) / letter);
        if (room < 4 || box.height * zoom < namePx) continue;
        context.fillText(name.length <= room ? name : `${name.slice(0, room - 1)}…`, left, middle);
      }
    };
    const writeTitles = (x: number, y: number, zoom: number): void => {
      context.font = titleFont;
      context.textBaseline = 'top';
      context.lineJoin = 'round';
      context.lineWidth = 4;
      context.strokeStyle = tokens.container;
      for (const { title, plateIds, box, parentId } of scene.containers) {
        if (parentId !== null) continue;
        const [left, top] = [box.x * zoom + x, box.y * zoom + y];
        if (left > width || top > height || left + box.width * zoom < 0 || top + box.height * zoom < 0)
          continue;
        const fits = (text: string): boolean => context.measureText(text).width < box.width * zoom - 10;
        const text = fittingTitle(title, (part) => fits(`${part} · ${plateIds.length}`));
        if (text === null) continue;
        const shown = `${text} · ${plateIds.length}`;
        context.strokeText(shown, left + 5, top + 3);
        context.fillStyle = tokens.ink;
        context.fillText(shown, left + 5, top + 3);
      }
    };
    let asked = 0;
    const paint = (): void => {
      asked = 0;
      if (!showing.current) return;
      const [x, y, zoom] = store.getState().transform;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, surface.width, surface.height);
      context.setTransform(zoom * ratio, 0, 0, zoom * ratio, x * ratio, y * ratio);
      paintPaths(context, paths, tokens, zoom);
      context.strokeStyle = tokens.accent;
      context.lineWidth = 3 / zoom;
      context.stroke(chosen);
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      if (zoom >= namesFrom) writeNames(x, y, zoom);
      writeTitles(x, y, zoom);
    };
    const ask = (): void => {
      if (asked === 0) asked = requestAnimationFrame(paint);
    };
    paint();
    again.current = paint;
    const stop = store.subscribe(ask);
    return () => {
      stop();
      cancelAnimationFrame(asked);
    };
  }, [scene, tokens, width, height, store, lit]);
  useLayoutEffect(() => {
    showing.current = shown;
    if (shown) again.current();
  }, [shown]);
  return (
    <Surface
      ref={canvas}
      data-far={shown || undefined}
      style={{ visibility: shown ? 'visible' : 'hidden' }}
      aria-hidden="true"
    />
  );
}

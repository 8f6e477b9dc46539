import type { Sheet } from '@visograph/core/model';
import type { Scene } from '@visograph/core/sheets';
import { useDeferredValue, useEffect, useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../../data/shown.ts';
import { useTheme } from '../../theme/theme.tsx';
import { farPaths, paintPaths } from '../surface/paintFar.ts';
import { askSmall } from './smallScenes.ts';

const Frame = styled.div`
  position: relative;
  width: 100%;
  aspect-ratio: 16 / 10;
  background: ${({ theme }) => theme.ground};
  overflow: hidden;
  canvas {
    display: block;
    width: 100%;
    height: 100%;
  }
  p {
    position: absolute;
    inset: 0;
    display: grid;
    place-items: center;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
/** Kept free around the drawing, in pixels. */
const margin = 10;
/** A drawing of few plates is not blown up. */
const largestZoom = 0.6;

/** A sheet as it is drawn now, small: worked out when it comes into view, and again when what it shows changes. */
export function SheetPicture({ sheet }: { sheet: Sheet }): ReactNode {
  const network = useDeferredValue(useShown());
  const { tokens } = useTheme();
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [inView, setInView] = useState(false);
  const [drawn, setDrawn] = useState<{ scene: Scene | null } | null>(null);
  useEffect(() => {
    const { current } = frame;
    if (current === null) return undefined;
    const watch = new IntersectionObserver((entries) => {
      if (entries.some((entry) => entry.isIntersecting)) setInView(true);
    });
    watch.observe(current);
    return () => watch.disconnect();
  }, []);
  useEffect(() => {
    if (!inView) return undefined;
    return askSmall(network, sheet, (scene) => setDrawn({ scene }));
  }, [inView, network, sheet]);
  const scene = drawn?.scene ?? null;
  useEffect(() => {
    const surface = canvas.current;
    const context = scene === null ? null : (surface?.getContext('2d') ?? null);
    if (surface === null || context === null || scene === null) return undefined;
    const paint = (): void => {
      const { clientWidth: width, clientHeight: height } = surface;
      const ratio = window.devicePixelRatio;
      surface.width = width * ratio;
      surface.height = height * ratio;
      const { box } = scene;
      const zoom = Math.min(
        largestZoom,
        (width - 2 * margin) / Math.max(1, box.width),
        (height - 2 * margin) / Math.max(1, box.height),
      );
      const x = (width - box.width * zoom) / 2 - box.x * zoom;
      const y = (height - box.height * zoom) / 2 - box.y * zoom;
      context.setTransform(zoom * ratio, 0, 0, zoom * ratio, x * ratio, y * ratio);
      paintPaths(context, farPaths(scene, tokens), tokens, zoom);
    };
    paint();
    const resized = new ResizeObserver(paint);
    resized.observe(surface);
    return () => resized.disconnect();
  }, [scene, tokens]);
  const empty = scene !== null && scene.plates.length + scene.marks.length === 0;
  return (
    <Frame ref={frame} aria-hidden="true" data-drawn={scene === null ? undefined : scene.plates.length}>
      <canvas ref={canvas} />
      {drawn !== null && (scene === null || empty) && (
        <p>{scene === null ? 'too much for one sheet' : 'blank'}</p>
      )}
    </Frame>
  );
}

import type { Box, Point } from '@visograph/core/sheets';
import { useStore } from '@xyflow/react';
import { useEffect, useLayoutEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';

const Frame = styled.div`
  position: absolute;
  z-index: 11;
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 8px 10px;
  max-width: 372px;
  font-size: 12.5px;
  border: 1px solid ${({ theme }) => theme.accent};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  box-shadow: 0 4px 14px rgb(0 0 0 / 14%);
  cursor: default;
  &:focus {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 1px;
  }
`;

interface Props {
  /** Beside which point of the sheet it floats. */
  at: Point;
  /** What it is not to cover, as far as there is room elsewhere. */
  avoid?: readonly Box[];
  label: string;
  onEscape: () => void;
  onKey?: (event: KeyboardEvent) => void;
  /** Whether it takes the keys itself when it opens. */
  takesFocus?: boolean;
  children: ReactNode;
}

const edge = 6;

/** Where a panel stands beside a point, in pixels: within the view, and over as little as may be of what is not to be covered. */
export function beside(
  at: Point,
  size: { width: number; height: number },
  view: { width: number; height: number },
  avoid: readonly Box[],
): { left: number; top: number } {
  const covered = (left: number, top: number): number =>
    avoid.reduce((sum, box) => {
      const wide = Math.min(left + size.width, box.x + box.width) - Math.max(left, box.x);
      const high = Math.min(top + size.height, box.y + box.height) - Math.max(top, box.y);
      return sum + Math.max(0, wide) * Math.max(0, high);
    }, 0);
  let best: { left: number; top: number; covers: number } | null = null;
  const reach = [16, 48, 96, 160, 240];
  for (const away of reach)
    for (const [dx, dy] of [
      [away, 12],
      [away, -size.height - 12],
      [-size.width - away, 12],
      [-size.width - away, -size.height - 12],
      [-size.width / 2, away],
      [-size.width / 2, -size.height - away],
    ] as const) {
      const left = Math.max(edge, Math.min(at.x + dx, view.width - size.width - edge));
      const top = Math.max(edge, Math.min(at.y + dy, view.height - size.height - edge));
      const covers = covered(left, top);
      if (best === null || covers < best.covers) best = { left, top, covers };
    }
  return { left: best?.left ?? edge, top: best?.top ?? edge };
}

/** A small panel that floats beside a point of the sheet, and stays within the view. */
export function Afloat({
  at,
  avoid = [],
  label,
  onEscape,
  onKey,
  takesFocus = false,
  children,
}: Props): ReactNode {
  const [x, y, zoom] = useStore((state) => state.transform);
  const [width, height] = [useStore((state) => state.width), useStore((state) => state.height)];
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 300, height: 120 });
  useLayoutEffect(() => {
    const { current } = frame;
    if (current === null) return undefined;
    const measure = (): void => setSize({ width: current.offsetWidth, height: current.offsetHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(current);
    return () => observer.disconnect();
  }, []);
  /** What had the focus before: it gets it back when the panel goes, unless something else has taken it. */
  const [opener] = useState(() => document.activeElement);
  useEffect(() => {
    const before = takesFocus ? document.activeElement : opener;
    if (takesFocus) frame.current?.focus({ preventScroll: true });
    return () => {
      const lost = document.activeElement === null || document.activeElement === document.body;
      if (lost && before instanceof HTMLElement && before.isConnected) before.focus({ preventScroll: true });
    };
  }, [takesFocus, opener]);
  const { left, top } = beside(
    { x: at.x * zoom + x, y: at.y * zoom + y },
    size,
    { width, height },
    avoid.map((box) => ({
      x: box.x * zoom + x,
      y: box.y * zoom + y,
      width: box.width * zoom,
      height: box.height * zoom,
    })),
  );
  return (
    <Frame
      ref={frame}
      role="group"
      aria-label={label}
      tabIndex={-1}
      className="nodrag nopan nowheel"
      style={{ left, top }}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented) {
          event.stopPropagation();
          onEscape();
        } else onKey?.(event);
      }}
    >
      {children}
    </Frame>
  );
}

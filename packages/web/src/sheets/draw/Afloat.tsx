import type { Point } from '@visograph/core/sheets';
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
  max-width: 340px;
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
  label: string;
  onEscape: () => void;
  onKey?: (event: KeyboardEvent) => void;
  /** Whether it takes the keys itself when it opens. */
  takesFocus?: boolean;
  children: ReactNode;
}

/** A small panel that floats beside a point of the sheet, and stays within the view. */
export function Afloat({ at, label, onEscape, onKey, takesFocus = false, children }: Props): ReactNode {
  const [x, y, zoom] = useStore((state) => state.transform);
  const [width, height] = [useStore((state) => state.width), useStore((state) => state.height)];
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 300, height: 120 });
  useLayoutEffect(() => {
    const box = frame.current?.getBoundingClientRect();
    if (box !== undefined && (box.width !== size.width || box.height !== size.height))
      setSize({ width: box.width, height: box.height });
  });
  useEffect(() => {
    if (takesFocus) frame.current?.focus({ preventScroll: true });
  }, [takesFocus]);
  const left = Math.max(6, Math.min(at.x * zoom + x + 16, width - size.width - 6));
  const top = Math.max(6, Math.min(at.y * zoom + y + 12, height - size.height - 6));
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

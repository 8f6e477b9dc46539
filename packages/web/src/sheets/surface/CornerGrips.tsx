import type { Point, SceneMark } from '@visograph/core/sheets';
import { useReactFlow } from '@xyflow/react';
import { useState, type PointerEvent as ReactPointerEvent, type ReactNode } from 'react';
import { useTheme } from '../../theme/theme.tsx';

const step = 8;
const snapped = (value: number): number => Math.round(value / step) * step;

/** Grips on the corners of a line or polygon, in sheet units. */
export function CornerGrips({
  mark,
  onCorners,
}: {
  mark: SceneMark;
  onCorners: (points: Point[]) => void;
}): ReactNode {
  const { tokens } = useTheme();
  const flow = useReactFlow();
  const [held, setHeld] = useState<{ at: number; to: Point } | null>(null);
  const hold = (event: ReactPointerEvent, at: number): void => {
    event.stopPropagation();
    let to = mark.points[at] ?? { x: 0, y: 0 };
    const move = (next: PointerEvent): void => {
      const now = flow.screenToFlowPosition({ x: next.clientX, y: next.clientY });
      to = { x: snapped(now.x), y: snapped(now.y) };
      setHeld({ at, to });
    };
    const up = (): void => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      setHeld(null);
      onCorners(mark.points.map((point, index) => (index === at ? to : point)));
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
  };
  return (
    <>
      {mark.points.map((point, at) => {
        const { x, y } = held?.at === at ? held.to : point;
        return (
          <circle
            key={at}
            className="nodrag nopan"
            data-grip={`corner-${at}`}
            cx={x}
            cy={y}
            r={6}
            fill={tokens.surface}
            stroke={tokens.accent}
            strokeWidth={1.5}
            style={{ cursor: 'move', pointerEvents: 'all' }}
            onPointerDown={(event) => hold(event, at)}
          />
        );
      })}
    </>
  );
}

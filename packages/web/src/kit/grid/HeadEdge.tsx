import { useState, type PointerEvent, type ReactNode } from 'react';
import { Edge } from './gridParts.tsx';

const [least, most] = [30, 1200];
const within = (width: number): number => Math.max(least, Math.min(most, Math.round(width)));

/** A width made so much wider or narrower, within what a column may be. */
export const widerBy = (width: number, by: number): number => within(width + by);

/**
 * The edge of a head: where it is let go its column ends, as one change. Columns grow together where there is room, so
 * that a column takes its own share of what it is dragged. By the keyboard: Alt Shift and an arrow in a cell.
 */
export function HeadEdge({ width, onWidth }: { width: number; onWidth: (width: number) => void }): ReactNode {
  const [held, setHeld] = useState<{ from: number; drawn: number; by: number } | null>(null);
  const begin = (event: PointerEvent<HTMLSpanElement>): void => {
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const drawn = event.currentTarget.parentElement?.getBoundingClientRect().width ?? 0;
    setHeld({ from: event.clientX, drawn: drawn || width, by: 0 });
  };
  const letGo = (): void => {
    if (held === null) return;
    const next = within((width * (held.drawn + held.by)) / held.drawn);
    setHeld(null);
    if (next !== width) onWidth(next);
  };
  return (
    <Edge
      aria-hidden="true"
      title="Drag: wider or narrower (Alt+Shift+← and → in a cell)"
      data-held={held === null ? undefined : true}
      style={held === null ? undefined : { transform: `translateX(${held.by}px)` }}
      onPointerDown={begin}
      onPointerMove={(event) => held !== null && setHeld({ ...held, by: event.clientX - held.from })}
      onPointerUp={letGo}
      onPointerCancel={() => setHeld(null)}
    />
  );
}

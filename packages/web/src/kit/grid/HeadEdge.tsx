import { useState, type PointerEvent, type ReactNode } from 'react';
import { Edge } from './gridParts.tsx';

const [least, most] = [30, 1200];
const within = (width: number): number => Math.max(least, Math.min(most, Math.round(width)));

/** A width made so much wider or narrower, within what a column may be. */
export const widerBy = (width: number, by: number): number => within(width + by);

/** The edge of a head: dragged, its column becomes as wide as it is drawn then. By the keyboard: Alt Shift and an arrow in a cell. */
export function HeadEdge({ width, onWidth }: { width: number; onWidth: (width: number) => void }): ReactNode {
  const [held, setHeld] = useState<{ from: number; drawn: number; width: number } | null>(null);
  const begin = (event: PointerEvent<HTMLSpanElement>): void => {
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    const drawn = event.currentTarget.parentElement?.getBoundingClientRect().width ?? width;
    setHeld({ from: event.clientX, drawn, width });
  };
  return (
    <Edge
      aria-hidden="true"
      title="Drag: wider or narrower (Alt+Shift+← and → in a cell)"
      data-held={held === null ? undefined : true}
      onPointerDown={begin}
      onPointerMove={(event) => {
        if (held === null) return;
        // Columns grow together where there is room: what is dragged grows by as much as its own share of it.
        const next = within((held.width * (held.drawn + event.clientX - held.from)) / held.drawn);
        if (next !== width) onWidth(next);
      }}
      onPointerUp={() => setHeld(null)}
      onPointerCancel={() => setHeld(null)}
    />
  );
}

import type { Point, Scene } from '@visograph/core/sheets';
import { useReactFlow } from '@xyflow/react';
import { useCallback, useEffect, useRef, useState, type PointerEvent as ReactPointerEvent } from 'react';

/** Where a line begins: plates, and the port where one was said. */
export interface PullFrom {
  plateIds: readonly string[];
  portId: string | null;
  /** Where it leaves the plate, in sheet units. */
  at: Point;
}
/** A line on its way, where its end is, and the plate beneath that. */
export interface Pulled {
  from: PullFrom;
  to: Point;
  over: string | null;
}

const slackPx = 4;

/** Pulling a line out of a port or a row of them: let go over a plate or on free ground; Escape lets it snap back. */
export function usePulling(
  scene: Scene,
  onLetGo: (from: PullFrom, over: string | null, at: Point) => void,
): { pulled: Pulled | null; begin: (event: ReactPointerEvent, from: PullFrom) => void } {
  const { screenToFlowPosition } = useReactFlow();
  const [pulled, setPulled] = useState<Pulled | null>(null);
  const now = useRef({ scene, onLetGo });
  useEffect(() => {
    now.current = { scene, onLetGo };
  });
  const begin = useCallback(
    (event: ReactPointerEvent, from: PullFrom): void => {
      if (event.button !== 0) return;
      event.stopPropagation();
      const start = { x: event.clientX, y: event.clientY };
      let far = false;
      const end = ({ clientX, clientY }: PointerEvent): Pulled => {
        const to = screenToFlowPosition({ x: clientX, y: clientY }, { snapToGrid: false });
        const plate = now.current.scene.plates.find(
          ({ box }) =>
            to.x >= box.x && to.y >= box.y && to.x <= box.x + box.width && to.y <= box.y + box.height,
        );
        return { from, to, over: plate?.id ?? null };
      };
      const stop = (): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', up);
        window.removeEventListener('pointercancel', stop);
        window.removeEventListener('keydown', key, true);
        setPulled(null);
      };
      const move = (next: PointerEvent): void => {
        far ||= Math.hypot(next.clientX - start.x, next.clientY - start.y) > slackPx;
        if (far) setPulled(end(next));
      };
      const up = (last: PointerEvent): void => {
        stop();
        if (!far) return;
        const { over, to } = end(last);
        const inside = document.elementFromPoint(last.clientX, last.clientY)?.closest('[data-sheet]') != null;
        if (inside) now.current.onLetGo(from, over, to);
      };
      const key = (pressed: KeyboardEvent): void => {
        if (pressed.key !== 'Escape') return;
        pressed.stopPropagation();
        stop();
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
      window.addEventListener('pointercancel', stop);
      window.addEventListener('keydown', key, true);
    },
    [screenToFlowPosition],
  );
  return { pulled, begin };
}

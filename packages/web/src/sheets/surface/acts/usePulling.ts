import type { Point } from '@visograph/core/sheets';
import { useReactFlow } from '@xyflow/react';
import { useCallback, useEffect, useRef, useState } from 'react';

/** A link that is being pulled from a plate, and where its end is. */
export interface Pulled {
  from: string;
  to: Point;
}

/** Pulling a link from one plate to another: let go over a plate it is asked for, elsewhere nothing happens. */
export function usePulling(onLink: (from: string, to: string) => void): {
  pulled: Pulled | null;
  begin: (from: string) => void;
} {
  const { screenToFlowPosition } = useReactFlow();
  const [pulled, setPulled] = useState<Pulled | null>(null);
  const link = useRef(onLink);
  useEffect(() => {
    link.current = onLink;
  }, [onLink]);
  const begin = useCallback(
    (from: string): void => {
      const move = ({ clientX, clientY }: PointerEvent): void =>
        setPulled({ from, to: screenToFlowPosition({ x: clientX, y: clientY }, { snapToGrid: false }) });
      const up = ({ clientX, clientY }: PointerEvent): void => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', up);
        setPulled(null);
        const target = document
          .elementsFromPoint(clientX, clientY)
          .map((element) => element.closest<HTMLElement>('.react-flow__node-plate')?.dataset['id'])
          .find((id) => id !== undefined && id !== from);
        if (target !== undefined) link.current(from, target);
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
    },
    [screenToFlowPosition],
  );
  return { pulled, begin };
}

import type { Scene } from '@visograph/core/sheets';
import { useEffect, useRef, useState, type RefObject } from 'react';

/** So long plates take from where they stood to where they stand, in milliseconds. */
export const movementMs = 140;
/** More plates than this change places at once: each that is drawn on its way costs time. */
const mostMoving = 400;

/** Whether plates that were there before stand elsewhere in another scene. */
export function hasMoved(before: Scene, now: Scene): boolean {
  const stood = new Map(before.plates.map(({ id, box }) => [id, box]));
  return now.plates.some(({ id, box }) => {
    const at = stood.get(id);
    return at !== undefined && (at.x !== box.x || at.y !== box.y);
  });
}

/** Whether plates are on their way: for a moment after a scene in which some stand elsewhere. What is dragged is not. */
export function useMovement(scene: Scene, dragging: RefObject<boolean>): boolean {
  const before = useRef(scene);
  const [moving, setMoving] = useState(false);
  useEffect(() => {
    const last = before.current;
    before.current = scene;
    if (dragging.current || scene.plates.length > mostMoving || !hasMoved(last, scene)) return;
    setMoving(true);
    const ended = setTimeout(() => setMoving(false), movementMs);
    return () => {
      clearTimeout(ended);
      setMoving(false);
    };
  }, [scene, dragging]);
  return moving;
}

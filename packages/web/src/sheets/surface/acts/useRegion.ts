import type { Box } from '@visograph/core/sheets';
import { useStore } from '@xyflow/react';
import { useEffect, useMemo, useState } from 'react';

/** Milliseconds without movement after which what has come into view is mounted. */
const rest = 110;

/** What of a large sheet is kept drawn; `stale` while the view has moved on and that has not been followed yet. */
export interface Region {
  box: Box | null;
  stale: boolean;
}

/**
 * The part of a large sheet that is in view and around it, in steps of a third of a window, so that it changes seldom
 * while one pans. With `patient` it changes only when the view has come to rest. A box of null for sheets of which
 * everything is kept drawn.
 */
export function useRegion(large: boolean, patient: boolean): Region {
  const key = useStore(({ transform: [x, y, zoom], width, height }) => {
    if (!large || width === 0) return '';
    const [wide, high] = [width / zoom, height / zoom];
    const [stepX, stepY] = [wide / 3, high / 3];
    const left = Math.floor(-x / zoom / stepX - 1) * stepX;
    const top = Math.floor(-y / zoom / stepY - 1) * stepY;
    return [left, top, wide + 3 * stepX, high + 3 * stepY].map(Math.round).join(' ');
  });
  const [settled, setSettled] = useState(key);
  useEffect(() => {
    if (!patient || key === settled) return;
    const timer = setTimeout(() => setSettled(key), rest);
    return () => clearTimeout(timer);
  }, [key, settled, patient]);
  const shown = patient ? settled : key;
  const box = useMemo(() => {
    if (shown === '') return null;
    const [x = 0, y = 0, width = 0, height = 0] = shown.split(' ').map(Number);
    return { x, y, width, height };
  }, [shown]);
  return { box, stale: shown !== key };
}

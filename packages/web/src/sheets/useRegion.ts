import type { Box } from '@visograph/core';
import { useStore } from '@xyflow/react';
import { useMemo } from 'react';

/**
 * The part of a large sheet that is in view and around it, in steps of a third of a window, so that it changes seldom while
 * one pans. Null for sheets of which everything is kept drawn.
 */
export function useRegion(large: boolean): Box | null {
  const key = useStore(({ transform: [x, y, zoom], width, height }) => {
    if (!large || width === 0) return '';
    const [wide, high] = [width / zoom, height / zoom];
    const [stepX, stepY] = [wide / 3, high / 3];
    const left = Math.floor(-x / zoom / stepX - 1) * stepX;
    const top = Math.floor(-y / zoom / stepY - 1) * stepY;
    return [left, top, wide + 3 * stepX, high + 3 * stepY].map(Math.round).join(' ');
  });
  return useMemo(() => {
    if (key === '') return null;
    const [x = 0, y = 0, width = 0, height = 0] = key.split(' ').map(Number);
    return { x, y, width, height };
  }, [key]);
}

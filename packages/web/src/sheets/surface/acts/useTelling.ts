import type { Point } from '@visograph/core/sheets';
import { useCallback, useEffect, useRef } from 'react';
import { useProject } from '../../../data/project.tsx';
import { markIdOf } from '../sheetNodes.tsx';

/** Tells others on the sheet where this person points, and what they have chosen. */
export function useTelling(sheetId: string, chosenIds: readonly string[]): (at: Point | null) => void {
  const { sync } = useProject();
  const at = useRef<Point | null>(null);
  const chosenKey = chosenIds.join('\n');
  const tell = useCallback(() => {
    const selection = (chosenKey === '' ? [] : chosenKey.split('\n')).map((id) => markIdOf(id) ?? id);
    sync.presence.tell({ sheetId, at: at.current, selection });
  }, [chosenKey, sheetId, sync]);
  useEffect(tell, [tell]);
  useEffect(() => () => sync.presence.tell({ sheetId: null, at: null, selection: [] }), [sync]);
  return useCallback(
    (point) => {
      at.current = point;
      tell();
    },
    [tell],
  );
}

import type { Plate, Scene } from '@visograph/core/sheets';
import { useMemo } from 'react';
import { markIdOf } from '../sheetNodes.tsx';

export interface ChosenOnSheet {
  plates: Plate[];
  markIds: string[];
  /** The box around the plates; null: there is none among what is chosen. */
  around: { x: number; y: number; width: number; height: number } | null;
}

/** What is chosen on a sheet, by the ids of its nodes: plates and marks, and what they take up. */
export function useChosenOnSheet(scene: Scene, chosen: readonly string[]): ChosenOnSheet {
  const plates = useMemo(() => {
    const ids = new Set(chosen.filter((id) => markIdOf(id) === null));
    return scene.plates.filter((plate) => ids.has(plate.id));
  }, [scene, chosen]);
  const markIds = useMemo(() => chosen.flatMap((id) => markIdOf(id) ?? []), [chosen]);
  const around = useMemo(() => {
    if (plates.length === 0) return null;
    const left = Math.min(...plates.map(({ box }) => box.x));
    const top = Math.min(...plates.map(({ box }) => box.y));
    return {
      x: left,
      y: top,
      width: Math.max(...plates.map(({ box }) => box.x + box.width)) - left,
      height: Math.max(...plates.map(({ box }) => box.y + box.height)) - top,
    };
  }, [plates]);

  return { plates, markIds, around };
}

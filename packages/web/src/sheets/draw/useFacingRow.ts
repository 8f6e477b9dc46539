import type { Device } from '@visograph/core/model';
import type { Plate, Point, Scene, Side } from '@visograph/core/sheets';
import { useReactFlow } from '@xyflow/react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { facing } from './PortRow.tsx';

/** The plate whose ports are open, and along which of its sides. */
export interface FacingRow {
  plate: Plate;
  device: Device;
  side: Side;
}

/** A row stays for so long after the pointer has left its plate: long enough to reach it. */
const lingerMs = 250;
/** Below this zoom plates are too small to pull anything out of them. */
const leastZoom = 0.3;

/** Which plate has its ports open: the one under the pointer, else the one that is chosen, at the side facing the pointer. */
export function useFacingRow(
  scene: Scene,
  open: boolean,
  chosenIds: readonly string[],
  pullable: (plate: Plate) => Device | null,
): { row: FacingRow | null; look: (at: Point) => void; hold: () => void; release: () => void } {
  const { getZoom } = useReactFlow();
  const [hovered, setHovered] = useState<{ id: string; side: Side } | null>(null);
  const [chosenSide, setChosenSide] = useState<Side>('bottom');
  const held = useRef(false);
  const leaving = useRef<ReturnType<typeof setTimeout> | null>(null);
  const stay = useCallback((): void => {
    if (leaving.current !== null) clearTimeout(leaving.current);
    leaving.current = null;
  }, []);
  useEffect(() => stay, [stay]);
  const chosen = useMemo(
    () => scene.plates.find((plate) => chosenIds.length > 0 && plate.id === chosenIds.at(-1)) ?? null,
    [scene, chosenIds],
  );
  const look = useCallback(
    (at: Point): void => {
      if (held.current || !open || getZoom() < leastZoom) return;
      const plate = scene.plates.find(
        ({ box }) =>
          at.x >= box.x && at.y >= box.y && at.x <= box.x + box.width && at.y <= box.y + box.height,
      );
      if (plate !== undefined) {
        stay();
        const side = facing(plate.box, at);
        setHovered((before) =>
          before?.id === plate.id && before.side === side ? before : { id: plate.id, side },
        );
        return;
      }
      if (chosen !== null) setChosenSide(facing(chosen.box, at));
      leaving.current ??= setTimeout(() => {
        leaving.current = null;
        if (!held.current) setHovered(null);
      }, lingerMs);
    },
    [open, scene, chosen, getZoom, stay],
  );
  const row = useMemo((): FacingRow | null => {
    if (!open) return null;
    const plate = (hovered === null ? null : scene.plates.find(({ id }) => id === hovered.id)) ?? chosen;
    const device = plate === null ? null : pullable(plate);
    if (plate === null || device === null) return null;
    return { plate, device, side: plate.id === hovered?.id ? hovered.side : chosenSide };
  }, [open, hovered, chosen, chosenSide, scene, pullable]);
  return {
    row,
    look,
    hold: () => {
      held.current = true;
      stay();
    },
    release: () => {
      held.current = false;
    },
  };
}

import type { Device } from '@visograph/core/model';
import type { Plate, Point, Scene, Side } from '@visograph/core/sheets';
import { useReactFlow } from '@xyflow/react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { facing } from './PortRow.tsx';
import type { Pullable } from './useDrawing.ts';

/** The plate whose ports are open, and along which of its sides. */
export interface FacingRow {
  plate: Plate;
  /** Null: a place, which has no ports of its own. */
  device: Device | null;
  /** What can be pulled out of it, where it has no ports of its own. */
  says: string;
  side: Side;
}

/** A row stays for so long after the pointer has left its plate: long enough to reach it. */
const lingerMs = 250;
/** So near the pointer must be, in pixels, for a chosen plate that it is not over to keep its ports open. */
const nearPx = 44;
/** Below this zoom plates are too small to pull anything out of them. */
const leastZoom = 0.3;

/** Which plate has its ports open: the one under the pointer, else the one that is chosen, at the side facing the pointer. */
export function useFacingRow(
  scene: Scene,
  open: boolean,
  chosenIds: readonly string[],
  pullable: (plate: Plate) => Pullable | null,
): {
  row: FacingRow | null;
  look: (at: Point) => void;
  /** The pointer has left the sheet. */
  leave: () => void;
  hold: () => void;
  release: () => void;
} {
  const { getZoom } = useReactFlow();
  const [hovered, setHovered] = useState<{ id: string; side: Side } | null>(null);
  /** The side of the chosen plate that faces the pointer; null while that is far away: its row would lie over others. */
  const [chosenSide, setChosenSide] = useState<Side | null>('bottom');
  const held = useRef(false);
  /** The plate whose row there is. */
  const shown = useRef<string | null>(null);
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
      if (!open || getZoom() < leastZoom) return;
      const plate = scene.plates.find(
        ({ box }) =>
          at.x >= box.x && at.y >= box.y && at.x <= box.x + box.width && at.y <= box.y + box.height,
      );
      // Over its row a plate keeps it, but not where that lies over another plate.
      if (held.current && (plate === undefined || plate.id === shown.current)) return;
      if (plate !== undefined) {
        held.current = false;
        stay();
        const side = facing(plate.box, at);
        setHovered((before) =>
          before?.id === plate.id && before.side === side ? before : { id: plate.id, side },
        );
        return;
      }
      if (chosen !== null) {
        const { x, y, width, height } = chosen.box;
        const away = Math.max(x - at.x, at.x - x - width, y - at.y, at.y - y - height) * getZoom();
        setChosenSide(away > nearPx ? null : facing(chosen.box, at));
      }
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
    const pulled = plate === null ? null : pullable(plate);
    if (plate === null || pulled === null) return null;
    const side = plate.id === hovered?.id ? hovered.side : chosenSide;
    return side === null ? null : { plate, device: pulled.device, says: pulled.says, side };
  }, [open, hovered, chosen, chosenSide, scene, pullable]);
  useEffect(() => {
    shown.current = row?.plate.id ?? null;
  }, [row]);
  return {
    row,
    look,
    leave: () => {
      setHovered(null);
      setChosenSide(null);
    },
    hold: () => {
      held.current = true;
      stay();
    },
    release: () => {
      held.current = false;
    },
  };
}

import { unkeptLines, type Scene, type SceneLink } from '@visograph/core/sheets';
import { useCallback, useMemo } from 'react';
import { useWhereabouts } from '../../../data/location.ts';
import { useTraced } from '../../../cabling/trace/useTraced.ts';

/** What is selected as a line of the drawing. */
const drawnAsLines: ReadonlySet<string> = new Set(['cable', 'circuit', 'prefix', ...unkeptLines]);

export interface SheetLight {
  /** Plates that stand out: of what is selected, or on the way that is traced. */
  lit: ReadonlySet<string>;
  litLink: (link: SceneLink) => boolean;
  /** The line of what is selected: its corners can be moved. */
  heldLink: SceneLink | null;
}

/** What of a drawing stands out for what is selected, or for the run that is traced. */
export function useSheetLight(scene: Scene): SheetLight {
  const { selection } = useWhereabouts();
  const traced = useTraced();
  const lit = useMemo(() => {
    const { kind, id } = selection ?? { kind: null, id: '' };
    return new Set(
      scene.plates
        .filter(
          (plate) =>
            plate.picks?.id === id ||
            ((kind === 'device' || kind === 'place' || kind === 'prefix') &&
              [...plate.deviceIds, ...plate.subjects].includes(id)) ||
            plate.deviceIds.some((deviceId) => traced.has(deviceId)),
        )
        .map((plate) => plate.id),
    );
  }, [scene, selection, traced]);
  const lineId = selection !== null && drawnAsLines.has(selection.kind) ? selection.id : null;
  const litLink = useCallback(
    (link: SceneLink): boolean =>
      (lineId !== null && link.cableIds.includes(lineId)) ||
      link.cableIds.some((id) => traced.has(id)) ||
      (traced.size === 0 && (lit.has(link.a.plateId) || lit.has(link.b.plateId))),
    [lineId, traced, lit],
  );
  const heldLink = useMemo(
    () =>
      lineId === null
        ? null
        : (scene.links.find(
            (link) => !unkeptLines.some((one) => one === link.kind) && link.cableIds.includes(lineId),
          ) ?? null),
    [scene, lineId],
  );
  return { lit, litLink, heldLink };
}

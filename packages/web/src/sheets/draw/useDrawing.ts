import type { Device, Sheet } from '@visograph/core/model';
import type { Plate, Point, Scene } from '@visograph/core/sheets';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useWhereabouts } from '../../data/location.ts';
import { useProject } from '../../data/project.tsx';
import { useWorkspace } from '../../data/workspace.tsx';
import type { Renaming } from '../surface/sheetNodes.tsx';
import type { SheetActs } from '../useSheetActs.ts';
import { useFresh } from './useFresh.ts';
import { endOfPlate } from './lineAsk.ts';
import { useLines, type Lines } from './useLines.ts';
import { cloudEndOf, useCloudLines } from './useCloudLines.ts';
import { noteUsed } from './usedLately.ts';
import { useStamp, type Stamp, type Stamping } from './useStamp.ts';

export interface OnSheet {
  stamping: Stamping;
  lines: Lines;
  renaming: Renaming | null;
  setRenaming: (renaming: Renaming | null) => void;
  /** What a plate opens for lines to be pulled out of it; null: none can be. */
  pullable: (plate: Plate) => Pullable | null;
  /** Ids of the chosen plates that can be joined to something. */
  joinable: readonly string[];
}

/** A plate that lines can be pulled out of, and the device whose ports it opens: a place has none of its own. */
export interface Pullable {
  device: Device | null;
  /** What is pulled out of it, where it has no ports of its own. */
  says: string;
}

/** Devices are put on sheets of cabling and of routing; the others follow from them. */
export const drawsOn = ({ projection }: Pick<Sheet, 'projection'>): boolean =>
  projection === 'cabling' || projection === 'routing';

/** What is drawn on a sheet by hand: a model in hand, lines that are pulled, names where they stand. */
export function useDrawing(
  sheet: Sheet,
  scene: Scene,
  acts: SheetActs,
  {
    plates,
    canEdit,
    choose,
  }: { plates: readonly Plate[]; canEdit: boolean; choose: (ids: string[]) => void },
): OnSheet {
  const { project, view } = useProject();
  const { network } = view;
  const { select, selection } = useWhereabouts();
  const { onAsk } = useWorkspace();
  const [renaming, setRenaming] = useState<Renaming | null>(null);
  const setFresh = useFresh(setRenaming);
  const showDrawn = useCallback(
    (ids: string[]): void => {
      const [first] = ids;
      if (first === undefined) return;
      // Several at once are not chosen: a line pulled out of one would come from all.
      choose(ids.length === 1 ? ids : []);
      // The drawing keeps its room while it is drawn on: the record comes when something is chosen.
      if (selection !== null) select(null);
      setFresh(ids.length === 1 ? first : null);
    },
    [choose, selection, select, setFresh],
  );
  const put = useCallback(
    (stamp: Stamp, at: Point): void => {
      const ids = acts.draw({ ...stamp, at });
      if (ids.length > 0) noteUsed(project.id, stamp.modelId);
      showDrawn(ids);
    },
    [acts, project.id, showDrawn],
  );
  const stamping = useStamp(scene, network, sheet.scopeId, put);
  const ofLines = useLines(sheet, scene, acts, showDrawn);
  const ofClouds = useCloudLines(scene, acts);
  const isCloud = sheet.projection === 'cloud';
  const lines = isCloud ? ofClouds : ofLines;
  const pullable = useCallback(
    (plate: Plate): Pullable | null => {
      if (isCloud)
        return canEdit && cloudEndOf(plate) !== null ? { device: null, says: `join ${plate.name}` } : null;
      const end = canEdit ? endOfPlate(plate) : null;
      if (end === null || 'provider' in end) return null;
      return {
        device: 'deviceId' in end ? network.get('device', end.deviceId) : null,
        says: `circuit from ${plate.name}`,
      };
    },
    [canEdit, network, isCloud],
  );
  const joinable = useMemo(
    () => plates.filter((plate) => pullable(plate) !== null).map((plate) => plate.id),
    [plates, pullable],
  );
  useEffect(
    () =>
      onAsk('join', () => {
        if (joinable.length === 0) return false;
        return lines.askEnd(joinable);
      }),
    [onAsk, joinable, lines],
  );
  const [onlyPlate] = plates;
  useEffect(
    () =>
      onAsk('plate name', () => {
        if (plates.length !== 1 || onlyPlate?.form !== 'device' || !canEdit) return false;
        return setRenaming({ id: onlyPlate.id });
      }),
    [onAsk, plates, onlyPlate, canEdit],
  );
  return { stamping, lines, renaming, setRenaming, pullable, joinable };
}

import { isCloudPlace } from '@visograph/core/model';
import { addSheet, type Plate } from '@visograph/core/sheets';
import { useProject } from '../../../data/project.tsx';
import { useWhereabouts } from '../../../data/location.ts';
import type { SheetActs } from '../../useSheetActs.ts';

export interface SheetWays {
  /** Opens the sheet of a place; made when there is none yet. */
  openPlace: (placeId: string, sheetId: string | null) => void;
  /** Opens what a plate stands for. */
  openPlate: (plate: Plate) => void;
  /** Selects what a plate stands for. */
  pickPlate: (plate: Plate) => void;
}

/** Where the plates of a sheet lead to. */
export function useSheetWays(acts: Pick<SheetActs, 'scatter'>): SheetWays {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { go, select } = useWhereabouts();
  const openPlace = (placeId: string, sheetId: string | null): void => {
    if (sheetId !== null) return go({ sheetId, selection: null });
    const place = network.get('place', placeId);
    if (!canEdit || place === null) return;
    const set = addSheet(network, {
      scopeId: placeId,
      projection: isCloudPlace(network, placeId) ? 'cloud' : 'cabling',
    });
    if (commit(set).ok) go({ sheetId: set.sheetId, selection: null });
  };
  const openPlate = (plate: Plate): void => {
    if (plate.form === 'place') openPlace(plate.subjects[0] ?? '', plate.sheetId);
    else if (plate.form === 'fold' && canEdit) acts.scatter(plate);
  };
  const pickPlate = (plate: Plate): void => {
    if (plate.picks !== undefined) return select(plate.picks);
    if (plate.form === 'place') return select({ kind: 'place', id: plate.subjects[0] ?? '' });
    if (plate.form === 'subnet') {
      const [prefixId] = plate.subjects;
      return prefixId === undefined ? undefined : select({ kind: 'prefix', id: prefixId });
    }
    if (plate.form === 'provider') {
      const [id = ''] = plate.subjects;
      return select({ kind: network.get('circuit', id) === null ? 'place' : 'circuit', id });
    }
    const [only] = plate.deviceIds;
    if (only !== undefined) select({ kind: 'device', id: only });
  };
  return { openPlace, openPlate, pickPlate };
}

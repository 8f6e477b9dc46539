import { create, type Change } from '../../change/change.ts';
import { copyDevices, copyText, type CopyWish } from '../../cabling/commands/copyDevices.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import { blankSheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesInScope, isPlaced } from '../../model/network/places.ts';
import { newId } from '../../model/values/ids.ts';
import { nearestFree } from '../layout/nearestFree.ts';
import type { Box, Point } from '../scene/scene.ts';
import { placeOnSheet } from './sheets.ts';

export interface SheetCopyWish extends Omit<CopyWish, 'placeId'> {
  /** From one copy to the next, in sheet units. */
  step: Point;
}
/** What stands on the sheet already. */
export interface CopyGround {
  /** Where the plates of the originals stood when they were copied, by device. */
  at: ReadonlyMap<string, Box>;
  /** Boxes that nothing may be put on. */
  taken: readonly Box[];
  /** Where things stand that nobody has placed by hand yet: from now on they stay there. */
  fixed: ReadonlyMap<string, Point>;
}
export interface CopiedOnSheet {
  attempt: Attempt;
  deviceIds: string[];
}

/**
 * Copies devices and draws the copies one step further each, on free ground. On a sheet of another place than that of
 * the originals they belong to the place of the sheet.
 */
export function copyOnSheet(
  network: Network,
  sheet: Sheet,
  devices: readonly Device[],
  { step, ...wish }: SheetCopyWish,
  { at, taken, fixed }: CopyGround,
): CopiedOnSheet {
  const scope = new Set(devicesInScope(network, sheet.scopeId).map(({ id }) => id));
  const elsewhere =
    sheet.scopeId !== null && devices.some((device) => isPlaced(device) && !scope.has(device.id));
  const copied = copyDevices(network, devices, {
    ...wish,
    ...(elsewhere ? { placeId: sheet.scopeId } : {}),
  });
  if (!copied.ok) return { attempt: refuse(copied.why), deviceIds: [] };
  const boxes = [...taken];
  const items: Change[] = [];
  copied.copies.forEach((copies, time) =>
    devices.forEach((original, which) => {
      const box = at.get(original.id);
      const copy = copies[which];
      if (copy === undefined || (box === undefined && !sheet.picked)) return;
      let spot: Point | null = null;
      if (box !== undefined) {
        const wished = { x: box.x + step.x * (time + 1), y: box.y + step.y * (time + 1) };
        const size = { width: box.width, height: box.height };
        spot = nearestFree(size, wished, boxes);
        boxes.push({ ...spot, ...size });
      }
      items.push(
        create('sheetItem', {
          ...blankSheetItem,
          id: newId(),
          sheetId: sheet.id,
          subjectKind: 'device',
          subjectId: copy.id,
          x: spot === null ? null : Math.round(spot.x),
          y: spot === null ? null : Math.round(spot.y),
        }),
      );
    }),
  );
  const stay = at.size === 0 ? [] : placeOnSheet(network, sheet, fixed).changes;
  return {
    attempt: judged(network, [...stay, ...copied.changes, ...items], `Copied ${copyText(copied)}`),
    deviceIds: copied.copies.flat().map(({ id }) => id),
  };
}

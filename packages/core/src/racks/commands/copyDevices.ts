import { create, type Change } from '../../change/change.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankSheetItem } from '../../model/kinds/drawings/sheetItem.ts';
import { newId } from '../../model/values/ids.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { placeOfDevice } from '../../model/network/places.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { kitContents, kitText, placeKit } from '../../catalogue/commands/kits.ts';

/**
 * Copies of devices as new, planned devices in the same places, without racks, with the next names; cables with both
 * ends among them are copied too. On the sheet they stand where the originals stand, moved by so much.
 */
export function copyDevices(
  network: Network,
  sheet: Sheet | null,
  devices: readonly Device[],
  positions: ReadonlyMap<string, { x: number; y: number }>,
): { attempt: Attempt; deviceIds: string[] } {
  const none = (why: string): { attempt: Attempt; deviceIds: string[] } => ({
    attempt: refuse(why),
    deviceIds: [],
  });
  const [first] = devices;
  if (first === undefined) return none('Choose devices to copy first.');
  const placeless = devices.find((device) => placeOfDevice(network, device) === null);
  if (placeless !== undefined)
    return none(`${placeless.name} stands in no place. Put it into a place first.`);
  const bare = devices.find((device) => network.get('model', device.modelId) === null);
  if (bare !== undefined) return none(`${bare.name} has no model. Give it one first.`);
  const contents = kitContents(network, [], devices);
  const kit = { id: newId(), name: 'copy', contents, notes: null };
  const placed = placeKit(network, kit, { placeId: placeOfDevice(network, first) ?? '', rackId: null });
  if (!placed.attempt.ok) return { attempt: placed.attempt, deviceIds: [] };
  const originals = new Map(devices.map((device) => [device.name, device]));
  const byCopy = new Map(
    contents.devices.map((entry, at) => [placed.deviceIds[at] ?? '', originals.get(entry.key)]),
  );
  const changes = placed.attempt.set.changes.map((change): Change => {
    const original = byCopy.get(change.id);
    if (original === undefined || change.kind !== 'device' || change.op !== 'create') return change;
    return create('device', { ...change.after, placeId: placeOfDevice(network, original) });
  });
  if (sheet !== null)
    for (const [id, original] of byCopy) {
      const at = positions.get(original?.id ?? '');
      if (at !== undefined || sheet.picked)
        changes.push(
          create('sheetItem', {
            ...blankSheetItem,
            id: newId(),
            sheetId: sheet.id,
            subjectKind: 'device',
            subjectId: id,
            x: at === undefined ? null : Math.round(at.x),
            y: at === undefined ? null : Math.round(at.y),
          }),
        );
    }
  return {
    attempt: judged(network, changes, `Copied ${kitText(contents)}`),
    deviceIds: placed.deviceIds,
  };
}

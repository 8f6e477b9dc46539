import { update } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';

/** Puts devices that stand in no rack into a place; null takes them out of any: they are not placed then. */
export function placeDevices(network: Network, devices: readonly Device[], placeId: string | null): Attempt {
  const racked = devices.find((device) => device.rackId !== null);
  if (racked !== undefined)
    return refuse(
      `${racked.name} is mounted in ${network.get('rack', racked.rackId)?.name ?? 'a rack'}. Take it out of its rack first.`,
    );
  const [first] = devices;
  const who = devices.length === 1 ? (first?.name ?? '') : `${devices.length} devices`;
  const where = placePath(network, placeId);
  return judged(
    network,
    devices.map((device) => update('device', device, { placeId })),
    where === '' ? `Took ${who} out of any place` : `Placed ${who} at ${where}`,
  );
}

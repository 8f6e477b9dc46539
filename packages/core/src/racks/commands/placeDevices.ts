import { applyChanges } from '../../change/apply.ts';
import { update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { placePath } from '../../model/network/places.ts';
import { freePositions } from '../occupancy.ts';
import { candidateOf, refusals } from '../placing.ts';
import { moveDevice } from './racking.ts';

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

/** The highest free units of a rack that hold a device, with what it weighs and draws; a text says why there are none. */
function unitFor(network: Network, rack: Rack, device: Device): number | null | string {
  const candidate = candidateOf(network, device);
  const free = device.units === 0 ? [null] : freePositions(network, rack, candidate);
  const [highest] = free;
  if (highest === undefined) return `${rack.name} has no ${device.units} U free for ${device.name}.`;
  const [first] = refusals(network, rack, candidate, highest);
  return first === undefined ? highest : `${first.text}.`;
}

/** Mounts devices in a rack one after the other, each in its highest free units; what has no height stands at its side. */
function rackDevices(network: Network, devices: readonly Device[], rack: Rack): Attempt {
  const changes: Change[] = [];
  let staged = network;
  for (const device of devices) {
    const unit = unitFor(staged, rack, device);
    if (typeof unit === 'string') return refuse(unit);
    const { changes: moved } = moveDevice(staged, device, { rackId: rack.id, unit });
    const applied = applyChanges(staged, moved);
    if (!applied.ok) return refuse(applied.problems[0]?.message ?? 'It cannot be mounted.');
    staged = applied.network;
    changes.push(...moved);
  }
  const [first] = devices;
  const who = devices.length === 1 ? (first?.name ?? '') : `${devices.length} devices`;
  return judged(network, changes, `Mounted ${who} in ${rack.name}`);
}

/** Puts devices that are not placed yet where they were let go: into a rack, else into a place. */
export function standIn(network: Network, devices: readonly Device[], containerId: string): Attempt {
  const rack = network.get('rack', containerId);
  return rack === null ? placeDevices(network, devices, containerId) : rackDevices(network, devices, rack);
}

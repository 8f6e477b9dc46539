import type { Place } from '../kinds/sites/place.ts';
import type { Device } from '../kinds/equipment/device.ts';
import type { Rack } from '../kinds/sites/rack.ts';
import type { Network } from './network.ts';
import { byName } from '../values/order.ts';

/** The place and those around it, from the outermost in. Stops at a loop rather than running round it. */
export function placeChain(network: Network, placeId: string | null): Place[] {
  const chain: Place[] = [];
  let place = network.get('place', placeId);
  while (place !== null && !chain.includes(place)) {
    chain.unshift(place);
    place = network.get('place', place.parentId);
  }
  return chain;
}

/** "Kelder Quay/Harbour House/Ground/Data room": how files name a place. */
export const placePath = (network: Network, placeId: string | null): string =>
  placeChain(network, placeId)
    .map((place) => place.name)
    .join('/');

/** The place itself and all below it. Null stands for the whole project: every place. */
export function placesWithin(network: Network, scopeId: string | null): Set<string> {
  if (scopeId === null) return new Set([...network.all('place')].map((place) => place.id));
  const within = new Set<string>();
  const open = [scopeId];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (within.has(id)) continue;
    within.add(id);
    for (const child of network.find('placesByParent', id)) open.push(child.id);
  }
  return within;
}

export const childPlaces = (network: Network, parentId: string | null): Place[] =>
  network.find('placesByParent', parentId ?? 'root').sort(byName);

export const racksIn = (network: Network, placeIds: Iterable<string>): Rack[] =>
  [...placeIds]
    .flatMap((id) => network.find('racksByPlace', id))
    .sort((a, b) => a.position - b.position || byName(a, b));

/** Where a device is: the place of its rack, or its own. */
export const placeOfDevice = (network: Network, device: Device): string | null =>
  network.get('rack', device.rackId)?.placeId ?? device.placeId;

/** Devices that stand in the given places, in racks or not, by name. */
export function devicesIn(network: Network, placeIds: Iterable<string>): Device[] {
  const found: Device[] = [];
  for (const id of placeIds) {
    for (const device of network.find('devicesByPlace', id)) if (device.rackId === null) found.push(device);
    for (const rack of network.find('racksByPlace', id))
      found.push(...network.find('devicesByRack', rack.id));
  }
  return found.sort(byName);
}

/** Devices in a scope; without a place of their own they belong to the whole project only. */
export const devicesInScope = (network: Network, scopeId: string | null): Device[] =>
  scopeId === null
    ? [...network.all('device')].sort(byName)
    : devicesIn(network, placesWithin(network, scopeId));

/** The code of the site a place belongs to, or of the nearest place around it that has one. */
export const siteCode = (network: Network, placeId: string | null): string | null =>
  placeChain(network, placeId).reduce<string | null>((code, place) => place.code ?? code, null);

/** What is said of a device that is drawn, and counted, but of which nobody has said where it will stand. */
export const notPlaced = 'not placed yet';

export const isPlaced = (device: Pick<Device, 'placeId' | 'rackId'>): boolean =>
  device.placeId !== null || device.rackId !== null;

/** Devices that are not placed yet, by name. */
export const devicesNotPlaced = (network: Network): Device[] =>
  network.find('devicesNotPlaced', notPlaced).sort(byName);

/** "KQ-A1 U17", "KQ-A1 side", the place, or that it is not placed yet: where to look for a device. */
export function whereIs(network: Network, device: Device): string {
  const rack = network.get('rack', device.rackId);
  if (rack !== null) return device.unit === null ? `${rack.name} side` : `${rack.name} U${device.unit}`;
  return network.get('place', device.placeId)?.name ?? notPlaced;
}

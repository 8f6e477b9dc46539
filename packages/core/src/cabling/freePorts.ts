import type { Connector } from '../model/values/connectors.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { byName } from '../model/values/order.ts';
import { devicesIn, placeChain, placesWithin } from '../model/network/places.ts';
import { isFree, portsOf } from '../model/network/ports.ts';
import { isCage } from '../model/network/plugs.ts';
import { poeSource } from './poe.ts';

export interface PortWish {
  count: number;
  connector: Connector | null;
  /** At least this fast, by the port and by the optic in its cage. */
  speedBps: number | null;
  /** Only cages that hold a transceiver already. */
  withOptic: boolean;
  /** At least this PoE class. */
  poeClass: number | null;
  /** Each on another device. */
  differentDevices: boolean;
  /** Search begins here and widens outwards; null: anywhere, by name. */
  nearPlaceId: string | null;
  /** Data ports only, or panels as well. */
  panels: boolean;
}
export interface FoundPort {
  port: Port;
  device: Device;
  /** "in Data room", "in Harbour House": the smallest place around the wish that holds it. */
  where: string;
}

function suits(network: Network, port: Port, wish: PortWish): boolean {
  if (wish.connector !== null && port.connector !== wish.connector) return false;
  if (port.role === 'powerIn' || port.role === 'powerOut' || port.role === 'console') return false;
  if (port.role === 'panel' && !wish.panels) return false;
  if (port.role === 'management' && wish.connector === null) return false;
  if (wish.speedBps !== null && (port.speedBps ?? 0) < wish.speedBps) return false;
  if (port.reserved !== null || !isFree(network, port.id)) return false;
  if (wish.withOptic) {
    const optics = network.get('model', port.transceiverId)?.optics ?? null;
    if (!isCage(port.connector) || optics === null || optics.speedBps < (wish.speedBps ?? 0)) return false;
  }
  return wish.poeClass === null || (poeSource(network, port) ?? 0) >= wish.poeClass;
}

/** Rings of devices around a place: its own, then those of each place around it, then all others. */
function* rings(
  network: Network,
  nearPlaceId: string | null,
): Generator<{ devices: Device[]; where: string }> {
  const seen = new Set<string>();
  for (const place of placeChain(network, nearPlaceId).reverse()) {
    const fresh = [...placesWithin(network, place.id)].filter((id) => !seen.has(id));
    for (const id of fresh) seen.add(id);
    yield { devices: devicesIn(network, fresh), where: `in ${place.name}` };
  }
  const others = [...network.all('place')].map((place) => place.id).filter((id) => !seen.has(id));
  for (let at = 0; at < others.length; at += 50)
    yield {
      devices: devicesIn(network, others.slice(at, at + 50)),
      where: nearPlaceId === null ? '' : 'elsewhere',
    };
  const placeless = [...network.all('device')].filter(
    (device) => device.rackId === null && device.placeId === null,
  );
  yield { devices: placeless, where: 'in no place' };
}

/** So many devices are looked at in turn before all ports are gone through once. */
const mostLookedAt = 500;
function devicesThatHave(network: Network, wish: PortWish): Set<string> {
  const found = new Set<string>();
  for (const port of network.all('port')) if (suits(network, port, wish)) found.add(port.deviceId);
  return found;
}

/**
 * Free ports that suit a wish, the nearest first. On different devices when wished, otherwise as many as possible on
 * the nearest ones. Fewer than asked for where there are no more.
 */
export function findFreePorts(network: Network, wish: PortWish): FoundPort[] {
  const found: FoundPort[] = [];
  let looked = 0;
  /** The devices that have any, once it is clear that there are none close by. */
  let having: ReadonlySet<string> | null = null;
  for (const { devices, where } of rings(network, wish.nearPlaceId)) {
    if (having === null && looked > mostLookedAt) having = devicesThatHave(network, wish);
    const those = having === null ? devices : devices.filter(({ id }) => having?.has(id) === true);
    looked += those.length;
    for (const device of those.sort(byName)) {
      if (device.status === 'retired') continue;
      for (const port of portsOf(network, device.id)) {
        if (!suits(network, port, wish)) continue;
        found.push({ port, device, where });
        if (found.length >= wish.count) return found;
        if (wish.differentDevices) break;
      }
    }
  }
  return found;
}

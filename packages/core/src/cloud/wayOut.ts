import { inForce } from '../lens/inForce.ts';
import type { Network } from '../model/network/network.ts';
import { parseIp, type IpAddress } from '../model/values/ip.ts';
import { compareNames } from '../model/values/order.ts';
import { defaultRoute, effectiveRoutes } from './effectiveRoutes.ts';
import { follow, isPrivate, onTheInternet } from './follow.ts';
import { gatewayOf, seatsOf } from './inventory.ts';

/** The public addresses of a device's interfaces, in order. */
export const publicAddressesOf = (network: Network, deviceId: string): string[] =>
  network
    .find('everyPortByDevice', deviceId)
    .flatMap(({ id }) => network.find('publicAddressesByPort', id).map(({ address }) => address))
    .sort(compareNames);

/** How what an interface sends to the internet leaves, and the addresses that the other side sees. */
export type WayOut =
  | { by: 'own address'; deviceId: string; seen: string[] }
  | { by: 'translation'; deviceId: string; seen: string[] }
  /** A gateway that does not translate, and the interface has no public address: nothing comes back. */
  | { by: 'no public address'; deviceId: string }
  | { by: 'none' };

/** The way out of an interface in a family. A gateway without a public address of its own is seen as nothing known. */
export function wayOut(whole: Network, portId: string, family: 4 | 6 = 4): WayOut {
  const network = inForce(whole);
  const seat = seatsOf(network, portId).find(({ ip }) => ip.family === family);
  const ip: IpAddress | null = onTheInternet[family];
  if (seat === undefined || ip === null) return { by: 'none' };
  if (defaultRoute(effectiveRoutes(network, seat.subnet), family) === null) return { by: 'none' };
  const { arrival } = follow(network, seat.subnet, ip);
  if (arrival.at !== 'internet') return { by: 'none' };
  const { deviceId } = arrival;
  if (gatewayOf(network, deviceId)?.gateway.translates === true)
    return { by: 'translation', deviceId, seen: publicAddressesOf(network, deviceId) };
  const own = network
    .find('publicAddressesByPort', portId)
    .map(({ address }) => address)
    .filter((text) => parseIp(text)?.family === family)
    .sort(compareNames);
  // An IPv6 address of global unicast space is its own public address.
  if (family === 6 && own.length === 0 && !isPrivate(seat.ip))
    return { by: 'own address', deviceId, seen: [seat.row.address.replace(/\/\d+$/, '')] };
  return own.length === 0
    ? { by: 'no public address', deviceId }
    : { by: 'own address', deviceId, seen: own };
}

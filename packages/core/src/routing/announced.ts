import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import {
  formatIp,
  holds,
  parseInterface,
  parseIp,
  parsePrefix,
  prefixAround,
  type IpPrefix,
} from '../model/values/ip.ts';

/** A prefix that a neighbour tells a device by BGP. */
export interface AnnouncedPrefix {
  prefix: IpPrefix;
  text: string;
  vrfId: string | null;
  /** The neighbour's address. */
  neighbour: string;
  /** Whether it is of another AS. */
  external: boolean;
  /** The port whose subnet the neighbour is in; null where it is met over other routers. */
  portId: string | null;
}

/** The addresses of a device by their text. */
function ownAddresses(network: Network, deviceId: string): Set<string> {
  const own = new Set<string>();
  for (const { id } of network.find('everyPortByDevice', deviceId))
    for (const { address } of network.find('addressesByPort', id)) {
      const at = parseInterface(address);
      if (at !== null) own.add(formatIp(at.address));
    }
  return own;
}

/** The port of a device in one subnet with an address of a VRF: where a neighbour is met. */
export function portTowards(network: Network, deviceId: string, text: string): string | null {
  const ip = parseIp(text);
  if (ip === null) return null;
  for (const { id } of network.find('everyPortByDevice', deviceId))
    for (const { address } of network.find('addressesByPort', id)) {
      const at = parseInterface(address);
      if (at !== null && holds(prefixAround(at.address, at.length), ip)) return id;
    }
  return null;
}

/**
 * What the neighbours of a device tell it by BGP (RFC 4271), as recorded at their side of the session: that of the
 * device that has the neighbour's address, which names one of ours as its neighbour. What is recorded on neither side
 * is not known.
 */
export function announcedTo(network: Network, deviceId: string): AnnouncedPrefix[] {
  const sessions = network
    .find('bgpSessionsByDevice', deviceId)
    .sort((a, b) => compareNames(a.neighbour, b.neighbour));
  if (sessions.length === 0) return [];
  const own = ownAddresses(network, deviceId);
  const ownAs = network.get('device', deviceId)?.asNumber ?? null;
  return sessions.flatMap(({ neighbour, remoteAs, vrfId, families }) => {
    const portId = portTowards(network, deviceId, neighbour);
    const owners = network
      .find('addressesByHost', neighbour)
      .flatMap(({ portId: at }) => network.get('port', at)?.deviceId ?? []);
    const theirs = [...new Set(owners)]
      .filter((id) => id !== deviceId)
      .flatMap((id) => network.find('bgpSessionsByDevice', id).filter((one) => own.has(one.neighbour)));
    const texts = new Set(theirs.flatMap(({ announces }) => announces));
    return [...texts].sort(compareNames).flatMap((text): AnnouncedPrefix[] => {
      const prefix = parsePrefix(text);
      if (prefix === null || !families.includes(`IPv${prefix.family}`)) return [];
      return [{ prefix, text, vrfId, neighbour, external: ownAs !== remoteAs, portId }];
    });
  });
}

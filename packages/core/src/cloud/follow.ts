import { inForce } from '../lens/inForce.ts';
import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import type { Network } from '../model/network/network.ts';
import { holds, parseIp, privateSpace, type IpAddress } from '../model/values/ip.ts';
import { effectiveRoutes, routeFor, type EffectiveRoute } from './effectiveRoutes.ts';
import { attachmentFor, throughHub } from './hubs.ts';
import { blocksOf, gatewayOf, subnetOfAddress, vrfOf } from './inventory.ts';

/** Why packets end before they are anywhere. */
export type LostWhy =
  | 'no route'
  | 'dropped'
  /** In a block of the network, in none of its subnets. */
  | 'nobody'
  /** A peering carries to the network at its other end and no further. */
  | 'not transitive'
  /** A private address, sent to the internet. */
  | 'private'
  /** The gateway lets nothing begin that way. */
  | 'inward only'
  | 'hub'
  | 'circle';

/** Where packets of a subnet for an address come to. */
export type Arrival =
  | { at: 'subnet'; subnet: CloudSubnet }
  | { at: 'internet'; deviceId: string }
  /** Out of the cloud, through a tunnel, a line or a published service. */
  | { at: 'beyond'; deviceId: string; portId: string | null }
  /** An interface that hands them on by itself. */
  | { at: 'interface'; portId: string }
  | { at: 'nowhere'; why: LostWhy };

export interface Followed {
  arrival: Arrival;
  /** The route of the subnet that it went by. */
  route: EffectiveRoute | null;
  /** Routers of the region that it passed. */
  hubs: readonly string[];
}

/** Whether an address is one that the internet has no routes to. IPv6: anything but global unicast (2000::/3). */
export const isPrivate = (ip: IpAddress): boolean =>
  ip.family === 4 ? privateSpace.some((space) => holds(space, ip)) : ip.value >> 125n !== 1n;

/** An address of the internet in each family, from the space for documentation (RFC 5737, RFC 3849). */
export const onTheInternet = { 4: parseIp('203.0.113.1'), 6: parseIp('2001:db8::1') } as const;

/** What an address in a network's own blocks comes to. */
function within(network: Network, networkId: string, ip: IpAddress): Arrival | null {
  if (!blocksOf(network, networkId).some(({ prefix }) => holds(prefix, ip))) return null;
  const subnet = subnetOfAddress(network, vrfOf(network, networkId), ip);
  return subnet === null ? { at: 'nowhere', why: 'nobody' } : { at: 'subnet', subnet };
}

function throughGateway(
  network: Network,
  networkId: string,
  deviceId: string,
  ip: IpAddress,
): { arrival: Arrival; hubs: readonly string[] } {
  const own = attachmentFor(network, deviceId, networkId);
  if (own !== null) {
    const end = throughHub(network, own, ip);
    if (end.at === 'port')
      return {
        arrival: { at: 'beyond', deviceId: end.hubs.at(-1) ?? deviceId, portId: end.portId },
        hubs: end.hubs,
      };
    if (end.at === 'nowhere')
      return { arrival: { at: 'nowhere', why: end.because === 'circle' ? 'circle' : 'hub' }, hubs: end.hubs };
    const there = within(network, end.networkId, ip);
    return { arrival: there ?? outOf(network, end.networkId, ip), hubs: end.hubs };
  }
  const { direction } = gatewayOf(network, deviceId)?.gateway ?? { direction: 'between' };
  if (direction === 'between') return { arrival: { at: 'beyond', deviceId, portId: null }, hubs: [] };
  if (direction === 'in') return { arrival: { at: 'nowhere', why: 'inward only' }, hubs: [] };
  return {
    arrival: isPrivate(ip) ? { at: 'nowhere', why: 'private' } : { at: 'internet', deviceId },
    hubs: [],
  };
}

/**
 * What comes from a router of the region for an address outside the network: it goes out where the subnets with a
 * translating gateway send it, if all of them agree.
 */
function outOf(network: Network, networkId: string, ip: IpAddress): Arrival {
  const ways = network.find('cloudSubnetsByNetwork', networkId).flatMap((subnet) => {
    const way = routeFor(effectiveRoutes(network, subnet), ip)?.way;
    return way?.by === 'gateway' && attachmentFor(network, way.deviceId, networkId) === null
      ? [way.deviceId]
      : [];
  });
  const [first] = new Set(ways);
  return first === undefined ? { at: 'nowhere', why: 'no route' } : { at: 'internet', deviceId: first };
}

/** Follows packets of a subnet for an address to where they leave the cloud or arrive in it. */
export function follow(whole: Network, from: CloudSubnet, ip: IpAddress): Followed {
  const network = inForce(whole);
  const route = routeFor(effectiveRoutes(network, from), ip);
  const ended = (arrival: Arrival, hubs: readonly string[] = []): Followed => ({ arrival, route, hubs });
  if (route === null) return ended({ at: 'nowhere', why: 'no route' });
  const { way } = route;
  switch (way.by) {
    case 'local':
      return ended(within(network, from.placeId, ip) ?? { at: 'nowhere', why: 'nobody' });
    case 'nowhere':
      return ended({ at: 'nowhere', why: 'dropped' });
    case 'interface':
      return ended({ at: 'interface', portId: way.portId });
    case 'peering':
      return ended(within(network, way.networkId, ip) ?? { at: 'nowhere', why: 'not transitive' });
    case 'gateway': {
      const { arrival, hubs } = throughGateway(network, from.placeId, way.deviceId, ip);
      return ended(arrival, hubs);
    }
    case 'attachment':
      return ended({ at: 'nowhere', why: 'no route' });
  }
}

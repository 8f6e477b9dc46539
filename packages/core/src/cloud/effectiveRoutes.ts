import { inForce } from '../lens/inForce.ts';
import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import type { CloudRoute } from '../model/kinds/cloud/routeTable.ts';
import { keptWhile } from '../model/network/reads.ts';
import { derivedBy } from '../model/network/derived.ts';
import type { Network } from '../model/network/network.ts';
import { compareIp, holds, parsePrefix, type IpAddress, type IpPrefix } from '../model/values/ip.ts';
import { blocksOf, gatewayOf, gatewaysOf, seatsOf } from './inventory.ts';
import { learnedBy } from './learned.ts';
import { routeReads } from './reads.ts';

/** Through what a route leads. */
export type RouteWay =
  | { by: 'local' }
  | { by: 'gateway'; deviceId: string }
  | { by: 'peering'; peeringId: string; networkId: string }
  | { by: 'interface'; portId: string }
  | { by: 'attachment'; attachmentId: string }
  | { by: 'nowhere' };

/** Why a route that is written does not carry anything. */
export type RouteFault =
  /** The gateway is attached to another network, or to none. */
  | 'gateway elsewhere'
  | 'gateway not attached'
  | 'peering of others'
  | 'peering not accepted'
  | 'interface elsewhere'
  /** The gateway does not carry this family. */
  | 'family'
  /** It says no more than that the network itself is local. */
  | 'local'
  /** Nothing of the list is a prefix. */
  | 'empty list';

export interface EffectiveRoute {
  prefix: IpPrefix;
  text: string;
  way: RouteWay;
  source: 'local' | 'written' | 'learned';
  /** The row it is written in; null where it is there by itself. */
  routeId: string | null;
}
export interface IdleCloudRoute {
  route: CloudRoute;
  text: string;
  fault: RouteFault;
}
export interface EffectiveRoutes {
  /** The table that the subnet is tied to; null: none, so that nothing but the network itself is known. */
  tableId: string | null;
  /** In order of prefix, each once. */
  routes: readonly EffectiveRoute[];
  idle: readonly IdleCloudRoute[];
}

/** The prefixes that a route is for: its own, or those of its list. */
export const destinationsOf = (network: Network, route: CloudRoute): string[] =>
  route.prefix !== null ? [route.prefix] : [...(network.get('prefixList', route.listId)?.prefixes ?? [])];

/** Whether a device joins a network as a router of the region. */
export const joins = (network: Network, hubId: string, networkId: string): boolean =>
  network.find('hubAttachmentsByNetwork', networkId).some((one) => one.hubId === hubId);

function wayThroughGateway(
  network: Network,
  deviceId: string,
  networkId: string,
  family: 4 | 6,
): RouteWay | RouteFault {
  const found = gatewayOf(network, deviceId);
  if (found === null) return 'gateway not attached';
  const { gateway } = found;
  if (!gateway.families.includes(family === 4 ? 'IPv4' : 'IPv6')) return 'family';
  if (gateway.networkId === networkId || joins(network, deviceId, networkId))
    return { by: 'gateway', deviceId };
  const attached = gateway.networkId !== null || network.countOf('hubAttachmentsByHub', deviceId) > 0;
  return attached ? 'gateway elsewhere' : 'gateway not attached';
}

/** Through what a written route leads from a network, or why it leads nowhere. */
export function wayOf(
  network: Network,
  route: CloudRoute,
  networkId: string,
  family: 4 | 6,
): RouteWay | RouteFault {
  if (route.discard) return { by: 'nowhere' };
  if (route.gatewayId !== null) return wayThroughGateway(network, route.gatewayId, networkId, family);
  if (route.peeringId !== null) {
    const peering = network.get('peering', route.peeringId);
    if (peering === null || ![peering.aNetworkId, peering.bNetworkId].includes(networkId))
      return 'peering of others';
    if (!peering.aAccepted || !peering.bAccepted) return 'peering not accepted';
    const far = peering.aNetworkId === networkId ? peering.bNetworkId : peering.aNetworkId;
    return { by: 'peering', peeringId: peering.id, networkId: far };
  }
  if (route.portId !== null)
    return seatsOf(network, route.portId).some(({ subnet }) => subnet.placeId === networkId)
      ? { by: 'interface', portId: route.portId }
      : 'interface elsewhere';
  return 'gateway elsewhere';
}

/** What the gateways of a network, and the routers that join it, bring of themselves to a table that takes it in. */
function broughtTo(network: Network, networkId: string): EffectiveRoute[] {
  const found: EffectiveRoute[] = [];
  for (const { device } of gatewaysOf(network, networkId))
    for (const { prefix, text } of learnedBy(network, device.id))
      found.push({
        prefix,
        text,
        way: { by: 'gateway', deviceId: device.id },
        source: 'learned',
        routeId: null,
      });
  return found;
}

function made(whole: Network, tableKey: string): EffectiveRoutes {
  const network = inForce(whole);
  const [networkId = '', tableId = ''] = tableKey.split(' ');
  const table = network.get('routeTable', tableId);
  const routes = new Map<string, EffectiveRoute>();
  const blocks = blocksOf(network, networkId);
  for (const { prefix, row } of blocks)
    routes.set(row.prefix, {
      prefix,
      text: row.prefix,
      way: { by: 'local' },
      source: 'local',
      routeId: null,
    });
  const idle: IdleCloudRoute[] = [];
  for (const route of table === null ? [] : network.find('cloudRoutesByTable', table.id)) {
    const texts = destinationsOf(network, route);
    if (texts.length === 0) idle.push({ route, text: '', fault: 'empty list' });
    for (const text of texts) {
      const prefix = parsePrefix(text);
      if (prefix === null) continue;
      const way = wayOf(network, route, networkId, prefix.family);
      if (typeof way === 'string') idle.push({ route, text, fault: way });
      else if (routes.get(text)?.source === 'local') idle.push({ route, text, fault: 'local' });
      else if (!routes.has(text) || route.prefix !== null)
        routes.set(text, { prefix, text, way, source: 'written', routeId: route.id });
    }
  }
  if (table?.learns === true)
    for (const route of broughtTo(network, networkId))
      if (!routes.has(route.text)) routes.set(route.text, route);
  return {
    tableId: table?.id ?? null,
    routes: [...routes.values()].sort((a, b) => compareIp(a.prefix, b.prefix)),
    idle: idle.sort((a, b) => (a.text < b.text ? -1 : 1)),
  };
}

const byTable = derivedBy(made, keptWhile(routeReads));

/**
 * By what the packets of a subnet are sent: the blocks of its network, which are local and cannot be taken over, what
 * is written in its table and leads somewhere, and, where the table takes it in, what gateways learned. A route for one
 * prefix comes before one for a list, a written one before a learned one. The longest prefix decides (RFC 4632).
 */
export const effectiveRoutes = (
  network: Network,
  subnet: Pick<CloudSubnet, 'placeId' | 'routeTableId'>,
): EffectiveRoutes => byTable(network, `${subnet.placeId} ${subnet.routeTableId ?? ''}`);

/** The route for an address: the longest prefix that holds it. */
export function routeFor({ routes }: EffectiveRoutes, ip: IpAddress): EffectiveRoute | null {
  let best: EffectiveRoute | null = null;
  for (const route of routes)
    if (holds(route.prefix, ip) && (best === null || route.prefix.length > best.prefix.length)) best = route;
  return best;
}

/** The default route of a family; null where there is none. */
export const defaultRoute = ({ routes }: EffectiveRoutes, family: 4 | 6): EffectiveRoute | null =>
  routes.find(({ prefix }) => prefix.length === 0 && prefix.family === family) ?? null;

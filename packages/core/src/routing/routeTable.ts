import { PrefixTree } from '../address/prefixTree.ts';
import {
  bitsOf,
  compareIp,
  formatIp,
  formatPrefix,
  holds,
  parseIp,
  parsePrefix,
  type IpAddress,
  type IpPrefix,
} from '../model/ip.ts';
import type { Route } from '../model/kinds/routing.ts';
import type { Network } from '../model/network.ts';
import { addressFacing, interfacesOf, type RoutedInterface } from './interfaces.ts';
import { ospfRoutesOf, type OspfRoute } from './ospf.ts';

export const routeSources = ['connected', 'static', 'OSPF', 'OSPF between areas'] as const;
export type RouteSource = (typeof routeSources)[number];

const families = [4, 6] as const;

/** What a source is worth where several know one prefix, the lower the better. A static route says its own distance. */
const ospfDistance = 100;

export interface NextHop {
  /** The address of the next router; null: whoever is meant is on the subnet itself. */
  via: string | null;
  /** The port that packets leave by; null where they are discarded. */
  portId: string | null;
}

/** One way to a prefix that a router uses. */
export interface TableRoute {
  prefix: IpPrefix;
  text: string;
  source: RouteSource;
  distance: number;
  /** Cost by OSPF; 0 for what is connected or static. */
  metric: number;
  nextHops: NextHop[];
  /** Where it comes from, in words. */
  why: string;
  /** The row of a static route. */
  routeId: string | null;
}

/** A static route that is not used, with the reason. */
export interface IdleRoute {
  route: Route;
  why: string;
}
export interface RouteTable {
  vrfId: string | null;
  /** In order of prefix. */
  routes: TableRoute[];
  idle: IdleRoute[];
}

function connectedRoutes(interfaces: readonly RoutedInterface[]): TableRoute[] {
  const found = new Map<string, TableRoute>();
  for (const { port, addresses } of interfaces)
    for (const { address, subnet } of addresses) {
      const text = formatPrefix(subnet);
      const hop = { via: null, portId: port.id };
      const known = found.get(text);
      if (known !== undefined) {
        if (known.nextHops.every((one) => one.portId !== port.id)) known.nextHops.push(hop);
        continue;
      }
      found.set(text, {
        prefix: subnet,
        text,
        source: 'connected',
        distance: 0,
        metric: 0,
        nextHops: [hop],
        why: `${formatIp(address)} on ${port.name}`,
        routeId: null,
      });
    }
  return [...found.values()];
}

/** Next hops of first steps, and the routers they lead to; routes to what hangs on one router share them. */
interface Steps {
  nextHops: NextHop[];
  names: string;
}

/** Turns routes by OSPF into those of the table; what many have in common is worked out once. */
function ospfReader(network: Network): (route: OspfRoute) => TableRoute {
  const known = new Map<4 | 6, WeakMap<OspfRoute['hops'], Steps>>([
    [4, new WeakMap()],
    [6, new WeakMap()],
  ]);
  const stepsOf = (hops: OspfRoute['hops'], family: 4 | 6): Steps => {
    const before = known.get(family)?.get(hops);
    if (before !== undefined) return before;
    const names = new Set(hops.map(({ into }) => network.get('device', into?.deviceId ?? null)?.name ?? ''));
    const steps: Steps = {
      nextHops: hops.map(({ out, into }) => {
        const far = into === null ? null : addressFacing(out, into, family);
        return { via: far === null ? null : formatIp(far), portId: out.port.id };
      }),
      names: [...names].filter((name) => name !== '').join(' and '),
    };
    known.get(family)?.set(hops, steps);
    return steps;
  };
  return (route) => {
    const { nextHops, names } = stepsOf(route.hops, route.prefix.family);
    return {
      prefix: route.prefix,
      text: route.text,
      source: route.interArea ? 'OSPF between areas' : 'OSPF',
      distance: ospfDistance,
      metric: route.cost,
      nextHops,
      why: `area ${route.area}, cost ${route.cost}${names === '' ? '' : ` by ${names}`}`,
      routeId: null,
    };
  };
}

/** Of several routes to one prefix the one of the least distance stays; those of equal distance and source are joined. */
function preferred(routes: readonly TableRoute[]): Map<string, TableRoute> {
  const best = new Map<string, TableRoute>();
  for (const route of routes) {
    const known = best.get(route.text);
    if (known === undefined || route.distance < known.distance) best.set(route.text, route);
    else if (route.distance === known.distance && route.source === 'static' && known.source === 'static')
      best.set(route.text, {
        ...known,
        nextHops: [...known.nextHops, ...route.nextHops],
        why: `${known.why}; ${route.why}`,
      });
  }
  return best;
}

/** The longest prefix of some that holds an address. */
const treeOf = (routes: ReadonlyMap<string, TableRoute>): PrefixTree =>
  PrefixTree.of([...routes.values()].map((route): [IpPrefix, string] => [route.prefix, route.text]));

interface Pending {
  route: Route;
  prefix: IpPrefix;
  via: IpAddress | null;
}

/** How a next hop is reached by the routes known so far; null: not. */
function reach(
  pending: Pending,
  known: ReadonlyMap<string, TableRoute>,
  tree: PrefixTree,
): { hops: NextHop[]; over: TableRoute } | null {
  if (pending.via === null) return null;
  const found = tree
    .around({ ...pending.via, length: bitsOf(pending.via.family) })
    .map((entry) => known.get(entry.ids[0] ?? ''))
    .filter((one) => one !== undefined)
    // A route that is reached over itself leads nowhere.
    .filter((one) => one.text !== formatPrefix(pending.prefix))
    .at(-1);
  if (found === undefined || found.nextHops.length === 0) return null;
  const via = formatIp(pending.via);
  const hops =
    found.source === 'connected'
      ? found.nextHops.map((hop) => ({ via, portId: hop.portId }))
      : found.nextHops;
  return { hops, over: found };
}

/**
 * The route table of a device in one VRF: connected, static with next hops followed over other routes until a port is
 * found (RFC 1812 section 5.2.4), and OSPF with all ways of equal cost. BGP brings no routes: what a neighbour tells is
 * not recorded.
 */
export function routeTable(network: Network, deviceId: string, vrfId: string | null): RouteTable {
  const interfaces = interfacesOf(network, deviceId).filter((one) => one.vrfId === vrfId);
  const own = interfaces.flatMap((one) => one.addresses.map(({ address }) => address));
  const speaks = interfaces.some(({ port }) => port.ospf !== null);
  const read = ospfReader(network);
  const byOspf = (speaks ? families : []).flatMap((family) =>
    [...ospfRoutesOf(network, vrfId, family).routesOf(deviceId).values()]
      .filter((route) => route.hops.length > 0)
      .map(read),
  );
  const learned = [...connectedRoutes(interfaces), ...byOspf];
  const idle: IdleRoute[] = [];
  let open: Pending[] = [];
  const statics: TableRoute[] = [];
  const use = (route: Route, prefix: IpPrefix, nextHops: NextHop[], why: string): void =>
    void statics.push({
      prefix,
      text: route.prefix,
      source: 'static',
      distance: route.distance,
      metric: 0,
      nextHops,
      why,
      routeId: route.id,
    });
  for (const route of network.find('routesByDevice', deviceId)) {
    const prefix = parsePrefix(route.prefix);
    if (route.vrfId !== vrfId || prefix === null) continue;
    const via = route.via === null ? null : parseIp(route.via);
    const port = network.get('port', route.viaPortId);
    if (route.discard) use(route, prefix, [], 'set by hand: discards what matches nothing longer');
    else if (via !== null && own.some((address) => compareIp(address, via) === 0))
      idle.push({ route, why: `next hop ${route.via ?? ''} is the device itself` });
    else if (port !== null)
      use(route, prefix, [{ via: route.via, portId: port.id }], `set by hand: out of ${port.name}`);
    else open.push({ route, prefix, via });
  }
  for (let known = preferred([...learned, ...statics]); open.length > 0;) {
    const tree = treeOf(known);
    const left: Pending[] = [];
    for (const pending of open) {
      const found = reach(pending, known, tree);
      if (found === null) left.push(pending);
      else
        use(
          pending.route,
          pending.prefix,
          found.hops,
          `set by hand: ${pending.route.via ?? ''} is reached by ${found.over.text} (${found.over.source})`,
        );
    }
    if (left.length === open.length) {
      for (const { route } of left)
        idle.push({ route, why: `no route leads to the next hop ${route.via ?? ''}` });
      break;
    }
    open = left;
    known = preferred([...learned, ...statics]);
  }
  const best = preferred([...learned, ...statics]);
  for (const route of statics) {
    const winner = best.get(route.text);
    const row = network.get('route', route.routeId);
    if (row !== null && winner !== undefined && winner.distance < route.distance)
      idle.push({
        route: row,
        why: `${winner.source} is preferred: distance ${winner.distance} is below ${route.distance}`,
      });
  }
  return {
    vrfId,
    routes: [...best.values()].sort((a, b) => compareIp(a.prefix, b.prefix)),
    idle,
  };
}

/** The route that a table sends packets for an address by: the longest prefix (RFC 1812 section 5.2.4.3). */
export function lookUp(table: RouteTable, address: IpAddress): TableRoute | null {
  let best: TableRoute | null = null;
  for (const route of table.routes)
    if (holds(route.prefix, address) && (best === null || route.prefix.length > best.prefix.length))
      best = route;
  return best;
}

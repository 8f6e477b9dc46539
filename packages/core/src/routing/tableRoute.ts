import { formatIp, formatPrefix, type IpPrefix } from '../model/values/ip.ts';
import type { RoutedInterface } from './interfaces.ts';

export const routeSources = ['connected', 'static', 'OSPF', 'OSPF between areas', 'BGP'] as const;
export type RouteSource = (typeof routeSources)[number];

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
  /** All equal ways; none where packets are discarded. */
  nextHops: NextHop[];
  /** Where it comes from, in words. */
  why: string;
  /** The rows of static routes, one for each equal way. */
  routeIds: string[];
}

/** Subnets that a device has an address in. */
export function connectedRoutes(interfaces: readonly RoutedInterface[]): TableRoute[] {
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
        routeIds: [],
      });
    }
  return [...found.values()];
}

/** The hops of all, each once. */
export function joinedHops(...lists: readonly (readonly NextHop[])[]): NextHop[] {
  const found = new Map<string, NextHop>();
  for (const hop of lists.flat()) {
    const key = `${hop.via ?? ''} ${hop.portId ?? ''}`;
    if (!found.has(key)) found.set(key, hop);
  }
  return [...found.values()];
}

/** Sources of which several ways to one prefix share the load where they are equally good. */
const shares = ({ source }: TableRoute): boolean => source === 'static' || source === 'BGP';

/** Of several routes to one prefix the one of the least distance stays; static ones, and those by BGP, of equal distance share the load. */
export function preferred(routes: readonly TableRoute[]): Map<string, TableRoute> {
  const best = new Map<string, TableRoute>();
  for (const route of routes) {
    const known = best.get(route.text);
    if (known === undefined || route.distance < known.distance) best.set(route.text, route);
    else if (route.distance === known.distance && route.source === known.source && shares(route))
      best.set(route.text, {
        ...known,
        nextHops: joinedHops(known.nextHops, route.nextHops),
        why: `${known.why}; ${route.why}`,
        routeIds: [...known.routeIds, ...route.routeIds],
      });
  }
  return best;
}

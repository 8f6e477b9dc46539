import { inForce } from '../lens/inForce.ts';
import { compareIp, formatIp, holds, type IpAddress } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { announcedTo } from './announced.ts';
import { addressFacing, interfacesOf } from './interfaces.ts';
import { ospfRoutesOf, type OspfRoute } from './ospf.ts';
import { staticRoutes, type IdleRoute } from './staticRoutes.ts';
import { connectedRoutes, preferred, type NextHop, type TableRoute } from './tableRoute.ts';

const families = [4, 6] as const;

/** What a source is worth where several know one prefix, the lower the better. A static route says its own distance. */
const ospfDistance = 100;
/** By BGP: from another AS before what is known within, from our own after it. */
const bgpDistance = { external: 90, internal: 150 } as const;

export interface RouteTable {
  vrfId: string | null;
  /** In order of prefix. */
  routes: TableRoute[];
  /** The next hops of each static route in use, by the id of its row. */
  ways: ReadonlyMap<string, readonly NextHop[]>;
  idle: IdleRoute[];
}

/** Next hops of first steps, and the routers they lead to; routes to what hangs on one router share them. */
interface Steps {
  nextHops: NextHop[];
  names: string;
}

/** What neighbours tell by BGP, as routes of the table. */
const byBgp = (network: Network, deviceId: string, vrfId: string | null): TableRoute[] =>
  announcedTo(network, deviceId)
    .filter((one) => one.vrfId === vrfId && one.portId !== null)
    .map(({ prefix, text, neighbour, external, portId }) => ({
      prefix,
      text,
      source: 'BGP',
      distance: external ? bgpDistance.external : bgpDistance.internal,
      metric: 0,
      nextHops: [{ via: neighbour, portId }],
      why: `told by ${neighbour}`,
      routeIds: [],
    }));

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
      routeIds: [],
    };
  };
}

/**
 * The route table of a device in one VRF: connected, static with next hops followed over other routes until a port is
 * found (RFC 1812 section 5.2.4), OSPF with all ways of equal cost, and BGP as far as it is recorded what the neighbour
 * announces.
 */
export function routeTable(whole: Network, deviceId: string, vrfId: string | null): RouteTable {
  const network = inForce(whole);
  const interfaces = interfacesOf(network, deviceId).filter((one) => one.vrfId === vrfId);
  const own = interfaces.flatMap((one) => one.addresses.map(({ address }) => address));
  const speaks = interfaces.some(({ port }) => port.ospf !== null);
  const read = ospfReader(network);
  const byOspf = (speaks ? families : []).flatMap((family) =>
    [...ospfRoutesOf(network, vrfId, family).routesOf(deviceId).values()]
      .filter((route) => route.hops.length > 0)
      .map(read),
  );
  const learned = [...connectedRoutes(interfaces), ...byOspf, ...byBgp(network, deviceId, vrfId)];
  const rows = network.find('routesByDevice', deviceId).filter((route) => route.vrfId === vrfId);
  const { routes: statics, idle } = staticRoutes(network, rows, own, learned);
  const best = preferred([...learned, ...statics]);
  const ways = new Map<string, NextHop[]>();
  for (const route of statics)
    for (const id of route.routeIds) {
      const winner = best.get(route.text);
      const row = network.get('route', id);
      if (winner?.routeIds.includes(id) === true) ways.set(id, route.nextHops);
      else if (row !== null && winner !== undefined)
        idle.push({
          route: row,
          reason: {
            because: 'preferred',
            source: winner.source,
            distance: winner.distance,
            own: route.distance,
          },
        });
    }
  return {
    vrfId,
    routes: [...best.values()].sort((a, b) => compareIp(a.prefix, b.prefix)),
    ways,
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

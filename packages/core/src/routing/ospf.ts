import { derivedBy, keptOnPaper } from '../model/network/derived.ts';
import { tableKey, vrfAndFamily } from './tableKey.ts';
import { inForce } from '../lens/inForce.ts';
import { holds, parsePrefix, formatPrefix, type IpPrefix } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { topologyOf, type OspfArea, type OspfTopology } from './ospfGraph.ts';
import { merged, shortestPaths, type FirstHop, type ShortestPaths } from './shortestPaths.ts';

const backbone = '0';

/** One prefix as a router knows it by OSPF. */
export interface OspfRoute {
  prefix: IpPrefix;
  text: string;
  cost: number;
  area: string;
  /** Through another area: told by a border router (RFC 2328 section 16.2). */
  interArea: boolean;
  hops: readonly FirstHop[];
}
type Table = Map<string, OspfRoute>;

const offer = (table: Table, key: string, route: OspfRoute): void => {
  const known = table.get(key);
  if (known === undefined || route.cost < known.cost) table.set(key, route);
  else if (route.cost === known.cost) {
    const hops = merged(known.hops, route.hops);
    if (hops !== known.hops) table.set(key, { ...known, hops });
  }
};

/** A prefix that a border router tells an area, with the cost from there. */
interface Summary {
  key: string;
  prefix: IpPrefix;
  cost: number;
}

/**
 * Routes by OSPF of the routers of one VRF: shortest within an area first, then those that border routers tell
 * (RFC 2328 section 16). A border router that discards a prefix tells it in place of what lies inside, at the cost of
 * the farthest (area ranges, section 12.4.3). Each router is worked out when it is first asked for.
 */
export class OspfRoutes {
  private readonly paths = new Map<string, ShortestPaths>();
  private readonly intra = new Map<string, Table>();
  private readonly tables = new Map<string, Table>();
  private readonly ranges = new Map<string, IpPrefix[]>();

  constructor(
    private readonly network: Network,
    readonly topology: OspfTopology,
  ) {}

  private areasOf(deviceId: string): OspfArea[] {
    return (this.topology.areasOf.get(deviceId) ?? []).flatMap((area) => this.topology.areas.get(area) ?? []);
  }

  /** Joins two areas or more, the backbone among them. */
  isBorder(deviceId: string): boolean {
    const areas = this.topology.areasOf.get(deviceId) ?? [];
    return areas.length > 1 && areas.includes(backbone);
  }

  private pathsOf(area: OspfArea, deviceId: string): ShortestPaths {
    const key = `${area.area} ${deviceId}`;
    const known = this.paths.get(key) ?? shortestPaths(area, deviceId);
    this.paths.set(key, known);
    return known;
  }

  /** Prefixes inside the areas of a router. */
  private intraOf(deviceId: string): Table {
    const known = this.intra.get(deviceId);
    if (known !== undefined) return known;
    const table: Table = new Map();
    for (const area of this.areasOf(deviceId)) {
      const { costs, hops } = this.pathsOf(area, deviceId);
      for (const vertex of area.vertices) {
        const cost = costs[vertex.at] ?? Infinity;
        if (cost === Infinity) continue;
        for (const stub of vertex.stubs)
          offer(table, stub.text, {
            prefix: stub.prefix,
            text: stub.text,
            cost: cost + stub.cost,
            area: area.area,
            interArea: false,
            hops: hops[vertex.at] ?? [],
          });
      }
    }
    this.intra.set(deviceId, table);
    return table;
  }

  /** Area ranges of a border router that hold something of its areas, the longest first. */
  private rangesOf(border: string): IpPrefix[] {
    const known = this.ranges.get(border);
    if (known !== undefined) return known;
    const inside = [...this.intraOf(border).values()];
    const ranges = this.network
      .find('routesByDevice', border)
      .filter((route) => route.discard && route.vrfId === this.topology.vrfId)
      .flatMap((route) => parsePrefix(route.prefix) ?? [])
      .filter((range) => range.length > 0 && inside.some(({ prefix }) => holds(range, prefix)))
      .sort((a, b) => b.length - a.length);
    this.ranges.set(border, ranges);
    return ranges;
  }

  /** What a border router tells an area of the others; into the backbone only what lies inside the others. */
  private summaries(border: string, into: string): Summary[] {
    const table = into === backbone ? this.intraOf(border) : this.routesOf(border);
    const ranges = this.rangesOf(border);
    const told = new Map<string, Summary>();
    for (const [key, route] of table) {
      if (route.area === into && !route.interArea) continue;
      const range = route.interArea ? undefined : ranges.find((one) => holds(one, route.prefix));
      const as = range === undefined ? key : formatPrefix(range);
      const before = told.get(as);
      if (before === undefined || before.cost < route.cost)
        told.set(as, { key: as, prefix: range ?? route.prefix, cost: route.cost });
    }
    return [...told.values()];
  }

  /** Every prefix that a router knows by OSPF, with all first steps of equal cost. Its own subnets cost it nothing to reach. */
  routesOf(deviceId: string): Table {
    const known = this.tables.get(deviceId);
    if (known !== undefined) return known;
    const intra = this.intraOf(deviceId);
    const between: Table = new Map();
    const border = this.isBorder(deviceId);
    // What others tell of its own ranges says nothing to a border router (RFC 2328 section 16.2 (3)).
    const own = new Set(border ? this.rangesOf(deviceId).map(formatPrefix) : []);
    for (const area of this.areasOf(deviceId)) {
      if (border && area.area !== backbone) continue;
      const { costs, hops } = this.pathsOf(area, deviceId);
      for (const [other, at] of area.byDevice) {
        const cost = costs[at] ?? Infinity;
        if (other === deviceId || cost === Infinity || !this.isBorder(other)) continue;
        for (const summary of this.summaries(other, area.area))
          if (!intra.has(summary.key) && !own.has(summary.key))
            offer(between, summary.key, {
              prefix: summary.prefix,
              text: summary.key,
              cost: cost + summary.cost,
              area: area.area,
              interArea: true,
              hops: hops[at] ?? [],
            });
      }
    }
    const table: Table = new Map([...between, ...intra]);
    this.tables.set(deviceId, table);
    return table;
  }
}

const built = derivedBy((network, key: string) => {
  const [vrfId, family] = vrfAndFamily(key);
  return new OspfRoutes(network, topologyOf(network, vrfId, family));
}, keptOnPaper);

/** The OSPF routes of a VRF and family, worked out once for a network. */
export const ospfRoutesOf = (whole: Network, vrfId: string | null, family: 4 | 6): OspfRoutes =>
  built(inForce(whole), tableKey(vrfId, family));

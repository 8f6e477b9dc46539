import { derivedBy, keptOnPaper } from '../model/network/derived.ts';
import { tableKey, vrfAndFamily } from './tableKey.ts';
import { inForce } from '../lens/inForce.ts';
import { bitsOf, formatPrefix, type IpPrefix } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { byName } from '../model/values/order.ts';
import { layer2Of } from '../switching/layer2.ts';
import { areaText, interfacesOf, type InterfaceAddress, type RoutedInterface } from './interfaces.ts';
import { ospfCost } from './ospfCost.ts';

/** A router, or a subnet that several routers share (a transit network of RFC 2328 section 2.1). */
export interface Vertex {
  at: number;
  deviceId: string | null;
  edges: Edge[];
  /** What hangs on it: subnets and loopbacks, with the cost from here. */
  stubs: Stub[];
}
/** A subnet at a vertex, with its text, which routes are told apart by. */
export interface Stub {
  prefix: IpPrefix;
  text: string;
  cost: number;
}
/** A way from one vertex to another. */
export interface Edge {
  to: number;
  cost: number;
  /** The interface out of which a router sends; null for a subnet. */
  out: OspfInterface | null;
  /** The interface at which the next router takes it in; null where the way leads to a subnet. */
  into: OspfInterface | null;
}
export interface OspfInterface extends RoutedInterface {
  deviceId: string;
  area: string;
  cost: number;
}

/** One area of OSPF in one VRF. */
export interface OspfArea {
  area: string;
  vertices: Vertex[];
  byDevice: ReadonlyMap<string, number>;
}

/** Two routers on one subnet that do not become neighbours, and why. */
export interface Mismatch {
  a: OspfInterface;
  b: OspfInterface;
  why: 'area' | 'network type' | 'passive';
}

export interface OspfTopology {
  vrfId: string | null;
  areas: ReadonlyMap<string, OspfArea>;
  areasOf: ReadonlyMap<string, readonly string[]>;
  mismatches: Mismatch[];
}

/** Interfaces of one segment: what hears each other, in one subnet. */
type Segments = Map<string, OspfInterface[]>;

/**
 * Where two interfaces meet: their broadcast domain, and for IPv4 the subnet of their main address (RFC 2328 section
 * 10.5); IPv6 neighbours are whoever is on the link (RFC 5340 section 2.1). Tunnels meet by subnet.
 */
function segmentKeys(network: Network, one: RoutedInterface): string[] {
  const tunnel = one.port.form === 'tunnel';
  const heard = tunnel ? `tunnel ${one.vrfId ?? ''}` : layer2Of(network).segmentOf(one.port);
  const [main] = one.addresses;
  if (heard === null || main === undefined) return [];
  return [main.address.family === 6 && !tunnel ? heard : `${heard} ${formatPrefix(main.subnet)}`];
}

/** What the subnet of a segment is told as: for IPv4 the one of the main address, for IPv6 all (RFC 5340 4.4.3.9). */
const toldBySegment = ({ addresses }: OspfInterface): InterfaceAddress[] =>
  addresses.filter(({ address }, at) => at === 0 || address.family === 6);

/** What a router tells itself of an interface: a loopback as hosts (RFC 2328 section 12.4.1), other ports as subnets. */
function stubsOf({ port, addresses, cost }: OspfInterface): Stub[] {
  return addresses.map(({ address, subnet }) => {
    const prefix = port.form === 'loopback' ? { ...address, length: bitsOf(address.family) } : subnet;
    return { prefix, text: formatPrefix(prefix), cost };
  });
}

const isPointToPoint = (one: OspfInterface): boolean => one.port.ospf?.network === 'point-to-point';

function mismatchOf(a: OspfInterface, b: OspfInterface): Mismatch['why'] | null {
  if (a.area !== b.area) return 'area';
  if (isPointToPoint(a) !== isPointToPoint(b)) return 'network type';
  const passive = [a, b].filter((one) => one.port.ospf?.passive === true);
  return passive.length === 1 ? 'passive' : null;
}

/** Why two routers do not become neighbours, in words; `areas` are those of both. */
export function mismatchText(why: Mismatch['why'], [a = '', b = '']: readonly string[]): string {
  if (why === 'area') return `one is in area ${a}, the other in area ${b}`;
  return why === 'passive' ? 'one of them is passive' : 'one is point-to-point, the other broadcast';
}

class Builder {
  readonly vertices: Vertex[] = [];
  readonly byDevice = new Map<string, number>();

  add(deviceId: string | null): Vertex {
    const vertex: Vertex = { at: this.vertices.length, deviceId, edges: [], stubs: [] };
    this.vertices.push(vertex);
    return vertex;
  }
  router(deviceId: string): Vertex {
    const known = this.vertices[this.byDevice.get(deviceId) ?? -1];
    if (known !== undefined) return known;
    const vertex = this.add(deviceId);
    this.byDevice.set(deviceId, vertex.at);
    return vertex;
  }

  /** All neighbours of one area on one segment: in pairs, or over a vertex of their subnet. */
  join(members: readonly OspfInterface[]): void {
    const [first] = members;
    if (first === undefined || members.length < 2) return;
    if (isPointToPoint(first)) {
      for (const out of members)
        for (const into of members)
          if (out !== into)
            this.router(out.deviceId).edges.push({
              to: this.router(into.deviceId).at,
              cost: out.cost,
              out,
              into,
            });
      return;
    }
    const subnet = this.add(null);
    const told = new Set<string>();
    for (const { subnet: prefix } of members.flatMap(toldBySegment)) {
      const text = formatPrefix(prefix);
      if (!told.has(text)) subnet.stubs.push({ prefix, text, cost: 0 });
      told.add(text);
    }
    for (const one of members) {
      const router = this.router(one.deviceId);
      router.edges.push({ to: subnet.at, cost: one.cost, out: one, into: null });
      subnet.edges.push({ to: router.at, cost: 0, out: null, into: one });
    }
  }
}

function readInterfaces(network: Network, vrfId: string | null, family: 4 | 6): OspfInterface[] {
  const ids = new Set(network.find('ospfPorts', 'all').map((port) => port.deviceId));
  const devices = [...ids].flatMap((id) => network.get('device', id) ?? []).sort(byName);
  return devices.flatMap(({ id: deviceId }) =>
    interfacesOf(network, deviceId).flatMap((one): OspfInterface[] => {
      const addresses = one.addresses.filter(({ address }) => address.family === family);
      if (one.port.ospf === null || one.vrfId !== vrfId || addresses.length === 0) return [];
      const area = areaText(one.port.ospf.area);
      return [{ ...one, addresses, deviceId, area, cost: ospfCost(network, one.port) }];
    }),
  );
}

/**
 * The routers of a VRF that speak OSPF, and how they hang together, area by area (RFC 2328 section 12). IPv6 is a
 * topology of its own (RFC 5340): of the interfaces that have an address of that family.
 */
export function readOspf(network: Network, vrfId: string | null, family: 4 | 6): OspfTopology {
  const interfaces = readInterfaces(network, vrfId, family);
  const builders = new Map<string, Builder>();
  const builderOf = (area: string): Builder => {
    const known = builders.get(area);
    if (known !== undefined) return known;
    const made = new Builder();
    builders.set(area, made);
    return made;
  };
  const segments: Segments = new Map();
  for (const one of interfaces) {
    builderOf(one.area).router(one.deviceId);
    for (const key of segmentKeys(network, one)) {
      const there = segments.get(key);
      if (there === undefined) segments.set(key, [one]);
      else there.push(one);
    }
  }
  const mismatches: Mismatch[] = [];
  const joined = new Set<OspfInterface>();
  for (const members of segments.values()) {
    const kinds = new Map<string, OspfInterface[]>();
    for (const one of members) {
      if (one.port.ospf?.passive === true) continue;
      const key = `${one.area} ${String(isPointToPoint(one))}`;
      kinds.set(key, [...(kinds.get(key) ?? []), one]);
    }
    for (const same of kinds.values()) {
      if (new Set(same.map((one) => one.deviceId)).size < 2) continue;
      const [one] = same;
      builderOf(one?.area ?? '0').join(same);
      if (one !== undefined && !isPointToPoint(one)) for (const one of same) joined.add(one);
    }
    members.forEach((a, index) => {
      for (const b of members.slice(index + 1)) {
        const why = a.deviceId === b.deviceId ? null : mismatchOf(a, b);
        if (why !== null) mismatches.push({ a, b, why });
      }
    });
  }
  for (const one of interfaces) {
    const bySegment = joined.has(one) ? toldBySegment(one).map(({ address }) => address) : [];
    const addresses = one.addresses.filter(({ address }) => !bySegment.includes(address));
    builderOf(one.area)
      .router(one.deviceId)
      .stubs.push(...stubsOf({ ...one, addresses }));
  }
  const areasOf = new Map<string, string[]>();
  const areas = new Map<string, OspfArea>();
  for (const [area, { vertices, byDevice }] of [...builders].sort((a, b) => Number(a[0]) - Number(b[0]))) {
    areas.set(area, { area, vertices, byDevice });
    for (const deviceId of byDevice.keys()) areasOf.set(deviceId, [...(areasOf.get(deviceId) ?? []), area]);
  }
  return { vrfId, areas, areasOf, mismatches };
}

const built = derivedBy((network, key: string) => readOspf(network, ...vrfAndFamily(key)), keptOnPaper);

/** The OSPF topology of a VRF and family, worked out once for what is in force. */
export const topologyOf = (whole: Network, vrfId: string | null, family: 4 | 6): OspfTopology =>
  built(inForce(whole), tableKey(vrfId, family));

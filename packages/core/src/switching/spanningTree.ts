import { Heap } from '../model/values/heap.ts';
import { compareNames } from '../model/values/order.ts';
import { addressOf, compareTied, priorityOf, treeOf, votes, type TreeOf } from './bridgeRank.ts';
import type { Bridge, BridgePort } from './bridges.ts';
import type { BridgeLink, Domain, Layer2 } from './layer2.ts';

/** Path cost of a port by its speed: 20,000 for 1 Gbit/s, in inverse proportion (IEEE 802.1D-2004 table 17-3). */
export const pathCost = (speedBps: number | null): number =>
  Math.min(
    200_000_000,
    Math.max(1, Math.round(2e13 / (speedBps === null || speedBps <= 0 ? 1e9 : speedBps))),
  );

const defaultPortPriority = 128;

export interface SpanningTree {
  /** Which tree it is: of this VLAN, of an instance, or the one for all. */
  of: TreeOf;
  root: Bridge;
  /**
   * What decided for the root: its priority, its address, or nothing that is known (`name`: addresses are not
   * recorded, so that the real root may be another of the same priority).
   */
  rootBy: 'alone' | 'priority' | 'address' | 'name';
  /** Cost of the way to the root, by bridge key. */
  costs: Map<string, number>;
  /** Links that forward nothing, by their key, with the port that is blocked: in a tree of many VLANs also those without this one. */
  blocked: Map<string, BridgePort>;
}

/** A port of a bridge that votes, on one LAN: what is joined by links and by bridges that pass all frames on. */
interface Station {
  port: BridgePort;
  bridge: Bridge;
  lan: number;
  link: BridgeLink;
  cost: number;
}

/** LANs by number, joined as links are read. */
class Lans {
  private readonly parent: number[] = [];
  private readonly named = new Map<string, number>();

  of(name: string): number {
    const known = this.named.get(name);
    if (known !== undefined) return this.root(known);
    const lan = this.fresh();
    this.named.set(name, lan);
    return lan;
  }
  fresh(): number {
    this.parent.push(this.parent.length);
    return this.parent.length - 1;
  }
  join(a: number, b: number): void {
    this.parent[this.root(a)] = this.root(b);
  }
  root(lan: number): number {
    let at = lan;
    while (this.parent[at] !== at) at = this.parent[at] ?? at;
    return at;
  }
}

/** A link with the number of the VLAN at its ends; 0 where the tree is that of all. */
export interface CarriedLink {
  link: BridgeLink;
  a: number;
  b: number;
}

/** Links of one tree: for a VLAN those that carry it, otherwise all that are plugged. */
function carriedLinks(layer2: Layer2, tree: TreeOf, start: Bridge, vid: number): CarriedLink[] {
  if (tree.form === 'vlan') return linksOfVlan(layer2, start, vid);
  const inside = new Set(layer2.pluggedBridges(start).map((bridge) => bridge.key));
  return layer2.links.filter(({ a }) => inside.has(a.bridge.key)).map((link) => ({ link, a: 0, b: 0 }));
}

/** Links that carry a VLAN of a bridge, with its number at either end. */
export function linksOfVlan(layer2: Layer2, start: Bridge, vid: number): CarriedLink[] {
  const id = layer2.domainId(start, vid);
  const numbers = new Map<string, number[]>();
  for (const one of layer2.bridgesOfDomain(id))
    numbers.set(one.bridge.key, [...(numbers.get(one.bridge.key) ?? []), one.vid]);
  return layer2.links.flatMap((link) => {
    const at = layer2.carriedBy(link, id, numbers.get(link.a.bridge.key) ?? []);
    return at === null ? [] : [{ link, ...at }];
  });
}

/** Ports of the bridges that vote, each on its LAN. */
function stationsOf(carried: readonly CarriedLink[]): Station[] {
  const lans = new Lans();
  const found: Station[] = [];
  for (const { link, a, b } of carried) {
    const ends = [
      { port: link.a, number: a },
      { port: link.b, number: b },
    ];
    const passing = ends.filter(({ port }) => !votes(port.bridge));
    const lan = lans.fresh();
    for (const { port, number } of passing) lans.join(lan, lans.of(`${port.bridge.key} ${number}`));
    for (const { port } of ends)
      if (votes(port.bridge))
        found.push({
          port,
          bridge: port.bridge,
          lan,
          link,
          cost: port.port.spanningTree?.cost ?? pathCost(link.speedBps),
        });
  }
  return found.map((one) => ({ ...one, lan: lans.root(one.lan) }));
}

const comparePorts = (a: BridgePort, b: BridgePort): number =>
  (a.port.spanningTree?.priority ?? defaultPortPriority) -
    (b.port.spanningTree?.priority ?? defaultPortPriority) ||
  compareNames(a.port.name, b.port.name) ||
  compareNames(a.title, b.title);

/**
 * The active tree that a VLAN goes by (IEEE 802.1D-2004 clause 17): the root by priority and address, each bridge's
 * root port by the least cost, each LAN's designated port, and what is left blocked. What passes all frames on does
 * not vote: it joins its links to one LAN, which the bridges at its edges judge. Null where no bridge votes.
 */
export function spanningTree(layer2: Layer2, start: Bridge, vid: number): SpanningTree | null {
  const joined = layer2.pluggedBridges(start).filter(votes);
  const tree = treeOf(joined, vid);
  const carried = carriedLinks(layer2, tree, start, vid);
  const stations = stationsOf(carried);
  const voting = new Map<string, Bridge>();
  if (votes(start)) voting.set(start.key, start);
  for (const { bridge } of stations) voting.set(bridge.key, bridge);
  const better = (a: Bridge, b: Bridge): number =>
    priorityOf(a, tree, vid) - priorityOf(b, tree, vid) || compareTied(a, b);
  const [root, second] = [...voting.values()].sort(better);
  if (root === undefined) return null;

  const onLan = groupBy(stations, (one) => one.lan);
  const atBridge = groupBy(stations, (one) => one.bridge.key);
  const costs = costsFrom(root, atBridge, onLan);
  const costOf = (bridge: Bridge): number => costs.get(bridge.key) ?? Infinity;
  // What a LAN hears: the bridge nearest to the root, then the better bridge, then its better port.
  const designated = new Map<number, Station>();
  const heard = (a: Station, b: Station): number =>
    costOf(a.bridge) - costOf(b.bridge) || better(a.bridge, b.bridge) || comparePorts(a.port, b.port);
  for (const [lan, members] of onLan) {
    const [first] = members.slice().sort(heard);
    if (first !== undefined) designated.set(lan, first);
  }
  const rootPorts = new Map<string, Station>();
  for (const [key, own] of atBridge) {
    if (key === root.key) continue;
    const ways = own.flatMap((one) => {
      const from = designated.get(one.lan);
      return from === undefined || from.bridge === one.bridge ? [] : [{ one, from }];
    });
    const [way] = ways.sort(
      (x, y) =>
        costOf(x.from.bridge) + x.one.cost - (costOf(y.from.bridge) + y.one.cost) ||
        better(x.from.bridge, y.from.bridge) ||
        comparePorts(x.from.port, y.from.port) ||
        comparePorts(x.one.port, y.one.port),
    );
    if (way !== undefined) rootPorts.set(key, way.one);
  }
  const blocked = new Map<string, BridgePort>();
  for (const one of stations)
    if (designated.get(one.lan) !== one && rootPorts.get(one.bridge.key) !== one)
      blocked.set(one.link.key, one.port);
  return { of: tree, root, rootBy: decidedBy(root, second, tree, vid), costs, blocked };
}

/** The tree of a part of a VLAN; null where no bridge of it votes. */
export function treeOfPart(layer2: Layer2, part: Pick<Domain, 'bridges'>): SpanningTree | null {
  const first = part.bridges.find(({ bridge }) => votes(bridge));
  return first === undefined ? null : spanningTree(layer2, first.bridge, first.vid);
}

function decidedBy(
  root: Bridge,
  second: Bridge | undefined,
  tree: TreeOf,
  vid: number,
): SpanningTree['rootBy'] {
  if (second === undefined) return 'alone';
  if (priorityOf(root, tree, vid) < priorityOf(second, tree, vid)) return 'priority';
  return addressOf(root) !== null && addressOf(second) !== null ? 'address' : 'name';
}

function groupBy<T, K>(items: readonly T[], key: (item: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const item of items) {
    const group = groups.get(key(item));
    if (group === undefined) groups.set(key(item), [item]);
    else group.push(item);
  }
  return groups;
}

/** Cost of the way to the root of each bridge: what the ports cost at which it comes in (clause 17.14). */
function costsFrom(
  root: Bridge,
  atBridge: ReadonlyMap<string, readonly Station[]>,
  onLan: ReadonlyMap<number, readonly Station[]>,
): Map<string, number> {
  const keys = [...new Set([root.key, ...atBridge.keys()])];
  const index = new Map(keys.map((key, at) => [key, at]));
  const costs = new Map<string, number>([[root.key, 0]]);
  const done = new Set<number>();
  const heap = new Heap();
  heap.push(0, index.get(root.key) ?? 0);
  for (let next = heap.pop(); next !== null; next = heap.pop()) {
    const [cost, at] = next;
    if (done.has(at)) continue;
    done.add(at);
    for (const own of atBridge.get(keys[at] ?? '') ?? [])
      for (const other of onLan.get(own.lan) ?? []) {
        const there = cost + other.cost;
        if (there >= (costs.get(other.bridge.key) ?? Infinity)) continue;
        costs.set(other.bridge.key, there);
        heap.push(there, index.get(other.bridge.key) ?? 0);
      }
  }
  return costs;
}

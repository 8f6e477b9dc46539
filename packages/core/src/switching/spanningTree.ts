import { compareNames } from '../model/order.ts';
import type { Bridge, BridgePort } from './bridges.ts';
import type { BridgeLink, Layer2 } from './layer2.ts';

/** Path cost of a port by its speed: 20,000 for 1 Gbit/s, in inverse proportion (IEEE 802.1D-2004 table 17-3). */
export const pathCost = (speedBps: number | null): number =>
  Math.min(
    200_000_000,
    Math.max(1, Math.round(2e13 / (speedBps === null || speedBps <= 0 ? 1e9 : speedBps))),
  );

const defaultPriority = 32768;

export interface SpanningTree {
  root: Bridge;
  /** Cost of the way to the root, by bridge key. */
  costs: Map<string, number>;
  /** Links of the VLAN that forward nothing, by their key, with the port that is blocked. */
  blocked: Map<string, BridgePort>;
}

/** Lower wins: priority, then name, which stands for the bridge's own address that nobody writes down. */
const rank = (bridge: Bridge): number =>
  Math.min(...bridge.devices.map((device) => device.bridgePriority ?? defaultPriority));
const compareBridges = (a: Bridge, b: Bridge): number => rank(a) - rank(b) || compareNames(a.name, b.name);

/**
 * The active tree of one VLAN (IEEE 802.1D-2004 clause 17): the root by priority, each bridge's root port by the
 * least cost, each link's designated end, and what is left blocked. Transparent bridges pass the protocol on: a link
 * through one is drawn to its far bridge. Null where the VLAN is on no bridge.
 */
export function spanningTree(layer2: Layer2, start: Bridge, vid: number): SpanningTree | null {
  const domain = layer2.domain(start, vid);
  const inside = new Map(domain.bridges.map(({ bridge }) => [bridge.key, bridge]));
  const numbers = new Map(domain.bridges.map((one) => [one.bridge.key, one.vid]));
  const carriesAt = (port: BridgePort): boolean =>
    layer2.carries(port, numbers.get(port.bridge.key) ?? -1) !== null;
  const links = layer2.links.filter(
    (link) =>
      inside.has(link.a.bridge.key) &&
      inside.has(link.b.bridge.key) &&
      carriesAt(link.a) &&
      carriesAt(link.b),
  );
  const [root] = [...inside.values()].sort(
    (a, b) => Number(a.form === 'transparent') - Number(b.form === 'transparent') || compareBridges(a, b),
  );
  if (root === undefined) return null;
  const touching = new Map<string, BridgeLink[]>();
  for (const link of links)
    for (const { bridge } of [link.a, link.b])
      touching.set(bridge.key, [...(touching.get(bridge.key) ?? []), link]);
  const otherEnd = (link: BridgeLink, bridge: Bridge): BridgePort =>
    link.a.bridge === bridge ? link.b : link.a;

  const costs = new Map<string, number>([[root.key, 0]]);
  const rootLink = new Map<string, BridgeLink>();
  const open = new Map([[root.key, root]]);
  const done = new Set<string>();
  while (open.size > 0) {
    const [next] = [...open.values()].sort(
      (a, b) => (costs.get(a.key) ?? 0) - (costs.get(b.key) ?? 0) || compareBridges(a, b),
    );
    if (next === undefined) break;
    open.delete(next.key);
    done.add(next.key);
    for (const link of touching.get(next.key) ?? []) {
      const { bridge } = otherEnd(link, next);
      if (done.has(bridge.key)) continue;
      const cost = (costs.get(next.key) ?? 0) + (bridge.form === 'transparent' ? 0 : pathCost(link.speedBps));
      const known = costs.get(bridge.key);
      const before = rootLink.get(bridge.key);
      const better =
        known === undefined ||
        cost < known ||
        (cost === known && before !== undefined && preferred(link, before, bridge));
      if (!better) continue;
      costs.set(bridge.key, cost);
      rootLink.set(bridge.key, link);
      open.set(bridge.key, bridge);
    }
  }
  const blocked = new Map<string, BridgePort>();
  for (const link of links) {
    const isRoot = rootLink.get(link.a.bridge.key) === link || rootLink.get(link.b.bridge.key) === link;
    if (isRoot || link.a.bridge === link.b.bridge) continue;
    const [a, b] = [link.a, link.b];
    const worse =
      (costs.get(a.bridge.key) ?? 0) - (costs.get(b.bridge.key) ?? 0) || compareBridges(a.bridge, b.bridge);
    blocked.set(link.key, worse > 0 ? a : b);
  }
  return { root, costs, blocked };
}

/** Of two links with the same cost to the root: the better bridge at its far end, then the lower port there. */
function preferred(link: BridgeLink, before: BridgeLink, bridge: Bridge): boolean {
  const end = (one: BridgeLink): BridgePort => (one.a.bridge === bridge ? one.b : one.a);
  const [x, y] = [end(link), end(before)];
  return (compareBridges(x.bridge, y.bridge) || compareNames(x.port.name, y.port.name)) < 0;
}

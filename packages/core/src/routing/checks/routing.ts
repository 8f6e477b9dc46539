import { findAddress } from '../../addressing/plan.ts';
import { formatIp, parseIp } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { allOf } from '../../model/network/reads.ts';
import { vrfsOf } from '../interfaces.ts';
import { mismatchText, topologyOf, type Mismatch } from '../ospfGraph.ts';
import { routeTable } from '../routeTable.ts';
import { idleText } from '../staticRoutes.ts';
import { layer2Reads } from '../../switching/layer2.ts';
import { defineRule, type Rule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';

const routingReads = allOf(layer2Reads, {
  device: ['routerId'],
  port: ['vrfId', 'ospf', 'farAddress'],
  address: ['address', 'portId', 'vrfId'],
  route: 'all',
  gateway: ['deviceId', 'direction'],
  bgpSession: ['deviceId', 'vrfId', 'neighbour', 'families', 'announces'],
  redundancy: 'all',
  vrf: [],
});

/** VRFs that have anything in them; null is the global table. */
const vrfIds = (network: Network): (string | null)[] => [
  null,
  ...[...network.all('vrf')].map((vrf) => vrf.id),
];

/** Routers on one subnet that do not become neighbours (RFC 2328 section 10.5). */
export const ospfMismatch = defineRule({
  key: 'ospf-mismatch',
  title: 'OSPF that does not agree',
  why: 'Neighbours whose area, timers, network type or MTU differ do not become adjacent: routes over this link are missing.',
  standard: 'RFC 2328, 10.5',
  reads: routingReads,
  find: (network) => {
    if (network.countOf('ospfPorts', 'all') === 0) return [];
    const told = new Set<string>();
    const first = ({ a, b }: Mismatch): boolean => {
      const key = `${a.port.id} ${b.port.id}`;
      return !told.has(key) && told.add(key).has(key);
    };
    const pairs = vrfIds(network).flatMap((vrfId) =>
      ([4, 6] as const).flatMap((family) => topologyOf(network, vrfId, family).mismatches.filter(first)),
    );
    return pairs.map(({ a, b, why }) => ({
      severity: 'bad' as const,
      subjects: [a, b].map(({ port }) => ({ kind: 'port' as const, id: port.id })),
      facts: { why, areas: [a.area, b.area] },
    }));
  },
  says: ({ why, areas }, network, [a, b]) =>
    `${portTitle(network, a?.id ?? null)} and ${portTitle(network, b?.id ?? null)} are on one subnet but do not become neighbours: ${mismatchText(why, areas)}. Set both alike.`,
});

/** Static routes that are not used because nothing leads to their next hop. */
export const routeIdle = defineRule({
  key: 'route-unreachable',
  title: 'Static routes that lead nowhere',
  why: 'A static route whose next hop is in no subnet of the router is not used, or leads to where nobody is.',
  standard: 'RFC 1812, 5.2',
  reads: routingReads,
  find: (network) => {
    const devices = new Set([...network.all('route')].map((route) => route.deviceId));
    return [...devices].flatMap((deviceId) =>
      vrfsOf(network, deviceId).flatMap((vrfId) =>
        routeTable(network, deviceId, vrfId)
          .idle.filter(({ reason }) => reason.because !== 'preferred')
          .map(({ route, reason }) => ({
            severity: 'bad' as const,
            subjects: [{ kind: 'device' as const, id: deviceId }],
            facts: { prefix: route.prefix, reason },
          })),
      ),
    );
  },
  says: ({ prefix, reason }, network, [device]) =>
    `The route of ${nameOf(network, 'device', device?.id ?? null)} to ${prefix} is not used: ${idleText(reason)}. Correct the next hop, or give the device an address in its subnet.`,
});

/** Who has an address of a VRF: on a port, or as the shared one of a redundancy group. */
function isSomebodys(network: Network, vrfId: string | null, text: string): boolean {
  const ip = parseIp(text);
  if (ip === null) return true;
  if (findAddress(network, ip).some((one) => one.vrfId === vrfId && one.addresses.length > 0)) return true;
  return network.countOf('redundanciesByVirtual', formatIp(ip)) > 0;
}

/** Next hops in a subnet of ours that no device has; those of providers are beyond what is documented. */
export const nextHopNobody = defineRule({
  key: 'next-hop-nobody',
  title: 'Next hops that nobody has',
  why: 'Traffic is sent to an address at which nobody is recorded: it is lost there, or the record is wrong.',
  reads: allOf(routingReads, { prefix: ['vrfId', 'prefix'] }),
  find: (network) =>
    [...network.all('route')].flatMap(({ id, deviceId, vrfId, prefix, via }) => {
      if (via === null || parseIp(via) === null || isSomebodys(network, vrfId, via)) return [];
      const ways = routeTable(network, deviceId, vrfId).ways.get(id) ?? [];
      // What a provider's router has is not ours to know.
      if (!ways.some(({ portId }) => portId !== null && !leadsOut(network, portId))) return [];
      return [
        {
          severity: 'warn' as const,
          subjects: [{ kind: 'device' as const, id: deviceId }],
          facts: { prefix, via },
        },
      ];
    }),
  says: ({ prefix, via }, network, [device]) =>
    `The route of ${nameOf(network, 'device', device?.id ?? null)} to ${prefix} leads to ${via}, which no device has. Give the address to the next router, or correct the route.`,
});

/** Whether a port, or what it runs over, is plugged into a circuit whose other end is not documented. */
function leadsOut(network: Network, portId: string): boolean {
  const port = network.get('port', portId);
  const circuit = network.findOne('circuitByPort', portId);
  if (circuit !== null) return circuit.aPortId === null || circuit.bPortId === null;
  return port !== null && port.parentId !== null && leadsOut(network, port.parentId);
}

export const routingRules: readonly Rule[] = [ospfMismatch, routeIdle, nextHopNobody];

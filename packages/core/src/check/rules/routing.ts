import { findAddress } from '../../address/plan.ts';
import { formatIp, parseIp } from '../../model/ip.ts';
import type { Network } from '../../model/network.ts';
import { portTitle } from '../../model/ports.ts';
import { vrfsOf } from '../../routing/interfaces.ts';
import { topologyOf, type Mismatch } from '../../routing/ospfGraph.ts';
import { routeTable } from '../../routing/routeTable.ts';
import { idleText } from '../../routing/staticRoutes.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

/** VRFs that have anything in them; null is the global table. */
const vrfIds = (network: Network): (string | null)[] => [
  null,
  ...[...network.all('vrf')].map((vrf) => vrf.id),
];

/** Routers on one subnet that do not become neighbours (RFC 2328 section 10.5). */
export const ospfMismatch: Rule = {
  key: 'ospf-mismatch',
  title: 'OSPF that does not agree',
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
    return pairs.map(({ a, b, text }): Finding =>
      tell(
        network,
        'ospf-mismatch',
        'bad',
        [
          { kind: 'port', row: a.port },
          { kind: 'port', row: b.port },
        ],
        `${portTitle(network, a.port.id)} and ${portTitle(network, b.port.id)} are on one subnet but do not become neighbours: ${text}. Set both alike.`,
      ),
    );
  },
};

/** Static routes that are not used because nothing leads to their next hop. */
export const routeIdle: Rule = {
  key: 'route-unreachable',
  title: 'Static routes that lead nowhere',
  find: (network) => {
    const devices = new Set([...network.all('route')].map((route) => route.deviceId));
    return [...devices].flatMap((deviceId) => {
      const device = network.get('device', deviceId);
      if (device === null) return [];
      return vrfsOf(network, deviceId).flatMap((vrfId) =>
        routeTable(network, deviceId, vrfId)
          .idle.filter(({ reason }) => reason.because !== 'preferred')
          .map(({ route, reason }) =>
            tell(
              network,
              'route-unreachable',
              'bad',
              [{ kind: 'device', row: device }],
              `The route of ${device.name} to ${route.prefix} is not used: ${idleText(reason)}. Correct the next hop, or give the device an address in its subnet.`,
            ),
          ),
      );
    });
  },
};

/** Who has an address of a VRF: on a port, or as the shared one of a redundancy group. */
function isSomebodys(network: Network, vrfId: string | null, text: string): boolean {
  const ip = parseIp(text);
  if (ip === null) return true;
  if (findAddress(network, ip).some((one) => one.vrfId === vrfId && one.addresses.length > 0)) return true;
  return network.countOf('redundanciesByVirtual', formatIp(ip)) > 0;
}

/** Next hops in a subnet of ours that no device has; those of providers are beyond what is documented. */
export const nextHopNobody: Rule = {
  key: 'next-hop-nobody',
  title: 'Next hops that nobody has',
  find: (network) =>
    [...network.all('route')].flatMap((route): Finding[] => {
      const device = network.get('device', route.deviceId);
      const via = route.via === null ? null : parseIp(route.via);
      if (device === null || via === null || isSomebodys(network, route.vrfId, route.via ?? '')) return [];
      const ways = routeTable(network, device.id, route.vrfId).ways.get(route.id) ?? [];
      // What a provider's router has is not ours to know.
      const inside = ways.filter(({ portId }) => portId !== null && !leadsOut(network, portId));
      if (inside.length === 0) return [];
      return [
        tell(
          network,
          'next-hop-nobody',
          'warn',
          [{ kind: 'device', row: device }],
          `The route of ${device.name} to ${route.prefix} leads to ${route.via ?? ''}, which no device has. Give the address to the next router, or correct the route.`,
        ),
      ];
    }),
};

/** Whether a port, or what it runs over, is plugged into a circuit whose other end is not documented. */
function leadsOut(network: Network, portId: string): boolean {
  const port = network.get('port', portId);
  const circuit = network.findOne('circuitByPort', portId);
  if (circuit !== null) return circuit.aPortId === null || circuit.bPortId === null;
  return port !== null && port.parentId !== null && leadsOut(network, port.parentId);
}

export const routingRules: readonly Rule[] = [ospfMismatch, routeIdle, nextHopNobody];

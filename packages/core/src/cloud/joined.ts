import type { Prefix } from '../model/kinds/logical/prefix.ts';
import type { Network } from '../model/network/network.ts';
import { overlaps, parsePrefix } from '../model/values/ip.ts';
import { prefixTree } from '../addressing/plan.ts';
import { blocksOf, gatewaysOf, networkOfVrf } from './inventory.ts';

/** What a virtual network is joined to: another of them, or the VRF of the premises that a tunnel or line ends in. */
export type Joined =
  | { to: 'network'; networkId: string; by: 'peering' | 'hub'; id: string }
  | { to: 'vrf'; vrfId: string | null; by: 'gateway'; id: string };

/** The VRFs that the tunnels and lines of a gateway are in, but those of the clouds themselves. */
export function vrfsBehind(network: Network, deviceId: string): (string | null)[] {
  const ids = new Set<string | null>();
  for (const port of network.find('everyPortByDevice', deviceId)) {
    const line = port.form === 'tunnel' || network.countOf('circuitByPort', port.id) > 0;
    if (line && networkOfVrf(network, port.vrfId) === null) ids.add(port.vrfId);
  }
  return [...ids];
}

/** All that a virtual network is joined to directly: accepted peerings, routers of the region, tunnels and lines. */
export function joinedTo(network: Network, networkId: string): Joined[] {
  const found: Joined[] = [];
  for (const peering of network.find('peeringsByNetwork', networkId))
    if (peering.aAccepted && peering.bAccepted)
      found.push({
        to: 'network',
        networkId: peering.aNetworkId === networkId ? peering.bNetworkId : peering.aNetworkId,
        by: 'peering',
        id: peering.id,
      });
  for (const { hubId } of network.find('hubAttachmentsByNetwork', networkId)) {
    for (const other of network.find('hubAttachmentsByHub', hubId))
      if (other.networkId !== null && other.networkId !== networkId)
        found.push({ to: 'network', networkId: other.networkId, by: 'hub', id: hubId });
    for (const vrfId of vrfsBehind(network, hubId))
      found.push({ to: 'vrf', vrfId, by: 'gateway', id: hubId });
  }
  for (const { device } of gatewaysOf(network, networkId))
    for (const vrfId of vrfsBehind(network, device.id))
      found.push({ to: 'vrf', vrfId, by: 'gateway', id: device.id });
  return found;
}

export interface Overlap {
  block: Prefix;
  other: Prefix;
  joined: Joined;
}

/** Where blocks of a network overlap addresses of what it is joined to: packets for one of the two go astray. */
export function overlapsOf(network: Network, networkId: string): Overlap[] {
  const found = new Map<string, Overlap>();
  for (const joined of joinedTo(network, networkId))
    for (const { row: block, prefix } of blocksOf(network, networkId)) {
      const others =
        joined.to === 'network'
          ? blocksOf(network, joined.networkId).map(({ row }) => row)
          : // A pool of the premises may hold what is kept for the cloud: what is used there counts.
            [
              ...prefixTree(network, joined.vrfId).inside(prefix),
              ...prefixTree(network, joined.vrfId).around(prefix),
            ]
              .flatMap(({ ids }) => ids.flatMap((id) => network.get('prefix', id) ?? []))
              .filter(({ role }) => role !== 'pool');
      for (const other of others) {
        const read = parsePrefix(other.prefix);
        if (read !== null && overlaps(prefix, read))
          found.set(`${block.id} ${other.id}`, { block, other, joined });
      }
    }
  return [...found.values()];
}

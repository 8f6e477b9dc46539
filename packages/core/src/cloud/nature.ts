import { inForce } from '../lens/inForce.ts';
import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import { derivedBy } from '../model/network/derived.ts';
import { keptWhile } from '../model/network/reads.ts';
import type { Network } from '../model/network/network.ts';
import { effectiveRoutes, defaultRoute } from './effectiveRoutes.ts';
import { follow, onTheInternet } from './follow.ts';
import { gatewayOf } from './inventory.ts';
import { routeReads } from './reads.ts';

/**
 * What a subnet is to the internet: open to connections from there, able to begin them outward only, or neither.
 * Without a route table nobody can say.
 */
export const natures = ['open', 'outward only', 'closed', 'unknown'] as const;
export type Nature = (typeof natures)[number];

export interface NatureOf {
  nature: Nature;
  /** The gateway that decides it, by family; null: none in that family. */
  by: { 4: string | null; 6: string | null };
}

function inFamily(
  network: Network,
  subnet: CloudSubnet,
  family: 4 | 6,
): { nature: Nature; by: string | null } {
  const closed = { nature: 'closed' as const, by: null };
  const ip = onTheInternet[family];
  if (ip === null || defaultRoute(effectiveRoutes(network, subnet), family) === null) return closed;
  const { arrival } = follow(network, subnet, ip);
  if (arrival.at !== 'internet') return closed;
  const gateway = gatewayOf(network, arrival.deviceId)?.gateway;
  const open = gateway?.direction === 'both' && !gateway.translates && gateway.networkId === subnet.placeId;
  return { nature: open ? 'open' : 'outward only', by: arrival.deviceId };
}

/** The nature of a subnet, computed from where its default routes lead: open in one family is open. */
export const natureOf = (whole: Network, subnet: CloudSubnet): NatureOf => nature(inForce(whole), subnet);

const nature = derivedBy((network, subnet: CloudSubnet): NatureOf => {
  if (network.get('routeTable', subnet.routeTableId) === null)
    return { nature: 'unknown', by: { 4: null, 6: null } };
  const [v4, v6] = [inFamily(network, subnet, 4), inFamily(network, subnet, 6)];
  const first = natures.find((one) => v4.nature === one || v6.nature === one) ?? 'closed';
  return { nature: first, by: { 4: v4.by, 6: v6.by } };
}, keptWhile(routeReads));

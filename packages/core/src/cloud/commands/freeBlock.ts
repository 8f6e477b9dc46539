import { prefixTree } from '../../addressing/plan.ts';
import { PrefixTree } from '../../addressing/prefixTree.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { formatPrefix, holds, overlaps, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import { compareNames } from '../../model/values/order.ts';
import { blocksOf, networksIn } from '../inventory.ts';

/** Pools of the address plan that a new virtual network can take its block from: of the premises, with what they are for. */
export const poolsForClouds = (network: Network): Prefix[] =>
  [...network.all('prefix')]
    .filter(
      ({ role, vrfId, status, prefix }) =>
        role === 'pool' &&
        status !== 'retired' &&
        !prefix.includes(':') &&
        (vrfId === null || network.countOf('virtualNetworkByVrf', vrfId) === 0),
    )
    .sort((a, b) => {
      // What is called a cloud is meant for it.
      const meant = (one: Prefix): number => (/cloud/i.test(one.name ?? '') ? 0 : 1);
      return meant(a) - meant(b) || compareNames(a.prefix, b.prefix);
    });

/**
 * The first free block of a length in a pool: on nothing that the pool holds in its VRF, and on no block of any virtual
 * network, so that each can be joined to the others and to the premises. Null where there is none.
 */
export function freeBlock(network: Network, pool: Prefix, length: number): string | null {
  const outer = parsePrefix(pool.prefix);
  if (outer === null || length < outer.length) return null;
  let tree = PrefixTree.empty;
  for (const { prefix, ids } of prefixTree(network, pool.vrfId).inside(outer))
    for (const id of ids) tree = tree.with(prefix, id);
  for (const place of networksIn(network, null))
    for (const { prefix, row } of blocksOf(network, place.id)) {
      if (prefix.family !== outer.family || !overlaps(outer, prefix)) continue;
      if (holds(prefix, outer)) return null;
      tree = tree.with(prefix, row.id);
    }
  const found = tree.nextFree(outer, length);
  return found === null ? null : formatPrefix(found);
}

/** The first block of a length in private space that no network has: where there is no pool to take it from. */
export function freePrivateBlock(network: Network, length: number): string | null {
  const taken = networksIn(network, null).flatMap(({ id }) =>
    blocksOf(network, id).map(({ prefix }) => prefix),
  );
  const used = [...network.all('prefix')].flatMap(({ prefix }) => parsePrefix(prefix) ?? []);
  const space = parsePrefix('10.0.0.0/8');
  if (space === null || length < 8) return null;
  let tree = PrefixTree.empty;
  const inSpace = (one: IpPrefix): boolean => one.family === 4 && holds(space, one) && one.length > 8;
  [...taken, ...used].filter(inSpace).forEach((prefix, at) => {
    tree = tree.with(prefix, String(at));
  });
  const found = tree.nextFree(space, length);
  return found === null ? null : formatPrefix(found);
}

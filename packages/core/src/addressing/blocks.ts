import type { Prefix } from '../model/kinds/logical/prefix.ts';
import { bitsOf, parsePrefix, sizeOf, type IpPrefix } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { prefixTree } from './plan.ts';
import { PrefixTree } from './prefixTree.ts';

export interface BlockOptions {
  /** The neighbour of the same size stays free, so that each can double. */
  growth?: boolean;
  /** All together in one block that summarises into one route. */
  aligned?: boolean;
}

/** Free prefixes in a pool, and the block that summarises them where that was asked for. */
export interface Blocks {
  prefixes: IpPrefix[];
  summary: IpPrefix | null;
}

const taken = '·';

/** The first free prefixes of these lengths in a space, in the order given; null where there is no room for all. */
export function takeBlocks(
  tree: PrefixTree,
  outer: IpPrefix,
  lengths: readonly number[],
  growth: readonly boolean[] = [],
): { prefixes: IpPrefix[]; tree: PrefixTree } | null {
  const prefixes: IpPrefix[] = [];
  let now = tree;
  for (const [at, length] of lengths.entries()) {
    const wished = growth[at] === true && length - 1 > outer.length ? length - 1 : length;
    const block = now.nextFree(outer, wished);
    if (block === null) return null;
    // What is kept for growth is not given to the next one either.
    now = now.with(block, taken);
    prefixes.push({ ...block, length });
  }
  return { prefixes, tree: now };
}

/** The length of the smallest block that holds so many prefixes of these lengths, each on its own boundary. */
export function lengthFor(
  family: 4 | 6,
  lengths: readonly number[],
  growth: readonly boolean[] = [],
): number {
  const total = lengths.reduce(
    (sum, length, at) =>
      sum + sizeOf({ family, value: 0n, length: growth[at] === true ? length - 1 : length }),
    0n,
  );
  let length = bitsOf(family);
  while (length > 0 && sizeOf({ family, value: 0n, length }) < total) length--;
  return length;
}

/**
 * So many free prefixes of one length in a pool, the first ones by address; with `aligned` inside one free block that
 * holds nothing else, so that one route stands for all of them. Null where the pool has no room.
 */
export function freeBlocks(
  network: Network,
  pool: Prefix,
  length: number,
  count: number,
  { growth = false, aligned = false }: BlockOptions = {},
): Blocks | null {
  const outer = parsePrefix(pool.prefix);
  if (outer === null || length <= outer.length || length > bitsOf(outer.family)) return null;
  const lengths = Array.from({ length: count }, () => length);
  const growths = lengths.map(() => growth);
  const tree = prefixTree(network, pool.vrfId);
  if (!aligned) {
    const made = takeBlocks(tree, outer, lengths, growths);
    return made === null ? null : { prefixes: made.prefixes, summary: null };
  }
  const whole = lengthFor(outer.family, lengths, growths);
  if (whole <= outer.length) return null;
  const summary = tree.nextFree(outer, whole);
  if (summary === null) return null;
  const made = takeBlocks(PrefixTree.empty, summary, lengths, growths);
  return made === null ? null : { prefixes: made.prefixes, summary };
}

/** Where a prefix of a length could stand: the first free place of each free block, the tightest fit first. */
export function candidates(network: Network, pool: Prefix, length: number, most = 4): IpPrefix[] {
  const outer = parsePrefix(pool.prefix);
  if (outer === null || length <= outer.length || length > bitsOf(outer.family)) return [];
  const tree = prefixTree(network, pool.vrfId);
  const first = tree.nextFree(outer, length);
  const others = tree
    .free(outer)
    .filter((block) => block.length <= length)
    .sort((a, b) => b.length - a.length || (a.value < b.value ? -1 : 1))
    .map((block): IpPrefix => ({ ...block, length }))
    .filter((block) => first === null || block.value !== first.value);
  return [...(first === null ? [] : [first]), ...others].slice(0, most);
}

/** What stands right before and right after a prefix in its VRF, at its own level. */
export function bordersOf(
  network: Network,
  vrfId: string | null,
  prefix: IpPrefix,
): { before: Prefix | null; after: Prefix | null } {
  const tree = prefixTree(network, vrfId);
  const step = sizeOf(prefix);
  /** The outermost prefix around an address that does not hold the prefix itself. */
  const rowAt = (value: bigint): Prefix | null => {
    if (value < 0n || value >= 1n << BigInt(bitsOf(prefix.family))) return null;
    const [entry] = tree
      .around({ family: prefix.family, value, length: bitsOf(prefix.family) })
      .filter(({ prefix: one }) => one.value > prefix.value || one.value + sizeOf(one) < prefix.value + step);
    return network.get('prefix', entry?.ids[0] ?? null);
  };
  return { before: rowAt(prefix.value - 1n), after: rowAt(prefix.value + step) };
}

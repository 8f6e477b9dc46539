import type { ProviderProfile } from '../../model/kinds/cloud/providerProfile.ts';
import { profileAround } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { formatPrefix, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import type { Nature } from '../nature.ts';

/** What a tier of a network is for, and how much of it there is. */
export interface TierWish {
  name: string;
  nature: Exclude<Nature, 'unknown'>;
  /** Hosts in each zone. */
  hosts: number;
}

/** A new network by need: what must be reached from outside, what goes out by itself, what does neither. */
export interface NetworkWish {
  name: string;
  regionId: string;
  zoneIds: readonly string[];
  /** An IPv4 block of its own. */
  block: string;
  tiers: readonly TierWish[];
  /** A translating gateway in every zone, or one for all: what a lost zone may cost. */
  translation: 'in each zone' | 'once';
}

/** How large each subnet is and where it lies in the block. */
export interface PlannedSubnet {
  tier: TierWish;
  zoneId: string | null;
  name: string;
  prefix: string;
}
export interface NetworkPlan {
  subnets: PlannedSubnet[];
  /** The smallest block that all of it fits into. */
  needs: number;
}

const kept = (profile: ProviderProfile | null): number =>
  profile === null ? 2 : profile.keptFirst + profile.keptLast;

/** The length of the smallest IPv4 subnet with room for so many hosts beside the addresses that the provider keeps. */
export function lengthFor(profile: ProviderProfile | null, hosts: number): number {
  const longest = profile?.longestBlock ?? 29;
  for (let length = longest; length >= 8; length--)
    if (2 ** (32 - length) - kept(profile) >= hosts) return length;
  return 8;
}

/** The zones that subnets are cut for: those wished, or none where subnets of the provider reach over the region. */
const zonesFor = (profile: ProviderProfile | null, zoneIds: readonly string[]): (string | null)[] =>
  profile?.subnets === 'regional' || zoneIds.length === 0 ? [null] : [...zoneIds];

/** Bits that tell so many apart. */
const bitsFor = (count: number): number => Math.ceil(Math.log2(Math.max(1, count)));

interface TierBlock {
  tier: TierWish;
  /** Of one subnet, and of the tier as a whole: so that one prefix says the tier. */
  length: number;
  whole: number;
}
const blocksFor = (profile: ProviderProfile | null, tiers: readonly TierWish[], zones: number): TierBlock[] =>
  tiers.map((tier) => {
    const length = lengthFor(profile, tier.hosts);
    return { tier, length, whole: length - bitsFor(zones) };
  });

/** How long a block may be at most for these tiers: the sum of theirs, rounded up to a power of two. */
export function blockNeeded(
  profile: ProviderProfile | null,
  tiers: readonly TierWish[],
  zoneIds: readonly string[],
): number {
  const zones = zonesFor(profile, zoneIds).length;
  const size = blocksFor(profile, tiers, zones).reduce((sum, { whole }) => sum + 2 ** (32 - whole), 0);
  return 32 - bitsFor(size);
}

/**
 * Cuts a block: each tier is one aligned prefix with a subnet for every zone in it, the largest tier first, so that
 * rules and routes can name a tier by one prefix. Null where it does not fit.
 */
export function cutBlock(
  network: Network,
  { regionId, zoneIds, block, tiers }: Pick<NetworkWish, 'regionId' | 'zoneIds' | 'block' | 'tiers'>,
): NetworkPlan | { why: string } {
  const outer = parsePrefix(block);
  if (outer === null) return { why: `“${block}” is not a prefix such as 10.64.0.0/16.` };
  if (outer.family !== 4) return { why: `${block} is IPv6. Give an IPv4 block; IPv6 is added beside it.` };
  if (tiers.length === 0) return { why: 'Say what the network is for: at least one tier.' };
  const profile = profileAround(network, regionId);
  const zones = zonesFor(profile, zoneIds);
  const needs = blockNeeded(profile, tiers, zoneIds);
  if (needs < outer.length)
    return {
      why: `${block} is too small: these hosts need a /${needs}. Choose a larger block, or fewer hosts.`,
    };
  if (profile !== null && outer.length < profile.shortestBlock)
    return { why: `${profile.name} takes blocks from /${profile.shortestBlock} on; ${block} is larger.` };
  const order = blocksFor(profile, tiers, zones.length).sort((a, b) => a.whole - b.whole);
  const at = new Map<TierWish, IpPrefix[]>();
  let next = outer.value;
  for (const { tier, length, whole } of order) {
    const step = 1n << BigInt(32 - length);
    at.set(
      tier,
      zones.map((_, index) => ({ family: 4, value: next + BigInt(index) * step, length })),
    );
    next += 1n << BigInt(32 - whole);
  }
  const subnets = tiers.flatMap((tier) =>
    zones.map((zoneId, index) => {
      const prefix = at.get(tier)?.[index];
      const zone = network.get('place', zoneId)?.name ?? null;
      return {
        tier,
        zoneId,
        name: zone === null ? tier.name : `${tier.name}-${zone}`,
        prefix: prefix === undefined ? block : formatPrefix(prefix),
      };
    }),
  );
  return { subnets, needs };
}

import { lengthFor, takeBlocks } from '../blocks.ts';
import { childrenOf, prefixTree } from '../plan.ts';
import { PrefixTree, summarise } from '../prefixTree.ts';
import { formatPrefix, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import type { SiteTemplate, TemplatePart } from '../../model/kinds/logical/siteTemplate.ts';
import type { Vlan } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain } from '../../model/network/places.ts';
import { vlanNumbered } from '../../switching/bridges.ts';
import { addPrefixes, dhcpRange, gatewayBy, type PrefixWish } from './allocate.ts';
import { refuse, type Attempt } from '../../commands/attempt.ts';

export interface SiteWish {
  template: SiteTemplate;
  place: Place;
  /** The pool of the region that the block of the site is taken from, one for each VRF that its VLANs are of. */
  pools: readonly Prefix[];
  /** Length of the block of the site; null: as its neighbours have it, or as small as it can be. */
  siteLength?: number | null;
}

/** What a site gets in one VRF: a block of its own, and the prefixes in it. */
export interface SiteBlock {
  pool: Prefix;
  block: IpPrefix;
  /** The prefixes that stand for all of the site's as routes: one, where all lie in the block. */
  summary: IpPrefix[];
  parts: { part: TemplatePart; prefix: IpPrefix; vlan: Vlan | null }[];
  free: IpPrefix[];
}
export interface SitePlan {
  blocks: SiteBlock[];
  attempt: Attempt;
}

/** The VLAN numbering that holds in a place. */
const numberingOf = (network: Network, place: Place): string | null =>
  placeChain(network, place.id).reduce<string | null>((nearest, one) => one.vlanNumberingId ?? nearest, null);

/** How long the blocks of the sites in a pool mostly are. */
function usualLength(network: Network, pool: Prefix): number | null {
  const counts = new Map<number, number>();
  for (const child of childrenOf(network, pool)) {
    const prefix = child.role === 'pool' && child.placeId !== null ? parsePrefix(child.prefix) : null;
    if (prefix !== null) counts.set(prefix.length, (counts.get(prefix.length) ?? 0) + 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most?.[0] ?? null;
}

/** Longer parts come later, so that each begins on its own boundary without holes between. */
const bySize = (a: TemplatePart, b: TemplatePart): number => a.length - b.length;
const parted = (parts: readonly TemplatePart[]): { lengths: number[]; growth: boolean[] } => ({
  lengths: parts.map((part) => part.length),
  growth: parts.map((part) => part.growth),
});

/**
 * What a site gets by a template: in each VRF that its VLANs are of one block on its own boundary in the pool of the
 * region, so that one route stands for the site, and in it every prefix of the template with its VLAN, gateway and
 * DHCP range. Refused with the numbers where a pool has no room, or a VLAN is not defined.
 */
export function planSite(
  network: Network,
  wish: SiteWish,
): { ok: false; why: string } | ({ ok: true } & SitePlan) {
  const { template, place, pools } = wish;
  const numberingId = numberingOf(network, place);
  const byPool = new Map<string, { pool: Prefix; parts: { part: TemplatePart; vlan: Vlan | null }[] }>();
  for (const part of template.parts) {
    const vlan = part.vid === null ? null : vlanNumbered(network, numberingId, part.vid);
    if (part.vid !== null && vlan === null)
      return refuse(
        `${part.name}: there is no VLAN ${part.vid} in the numbering of ${place.name}. Define it, or name its VLAN numbering in the record of the place.`,
      );
    const pool = pools.find((one) => vlan === null || one.vrfId === vlan.vrfId);
    if (pool === undefined) {
      const vrf = network.get('vrf', vlan?.vrfId ?? null)?.name ?? 'the global table';
      return refuse(`${part.name} is of ${vrf}. Choose a pool of ${vrf} too.`);
    }
    const known = byPool.get(pool.id) ?? { pool, parts: [] };
    known.parts.push({ part, vlan });
    byPool.set(pool.id, known);
  }
  const blocks: SiteBlock[] = [];
  for (const { pool, parts } of byPool.values()) {
    const outer = parsePrefix(pool.prefix);
    if (outer === null) continue;
    const sorted = [...parts].sort((a, b) => bySize(a.part, b.part));
    const { lengths, growth } = parted(sorted.map(({ part }) => part));
    const least = lengthFor(outer.family, lengths, growth);
    const length = Math.min(least, wish.siteLength ?? usualLength(network, pool) ?? least);
    const block = length <= outer.length ? null : prefixTree(network, pool.vrfId).nextFree(outer, length);
    if (block === null)
      return refuse(
        `${pool.prefix} ${pool.name ?? ''} has no free /${length}, which ${place.name} would need for ${parts.length} prefixes. Choose another pool, or a smaller block.`,
      );
    const taken = takeBlocks(PrefixTree.empty, block, lengths, growth);
    if (taken === null)
      return refuse(
        `${formatPrefix(block)} has no room for all ${parts.length} prefixes. Choose a larger block.`,
      );
    blocks.push({
      pool,
      block,
      parts: sorted.flatMap(({ part, vlan }, at) => {
        const prefix = taken.prefixes[at];
        return prefix === undefined ? [] : [{ part, prefix, vlan }];
      }),
      summary: summarise([block, ...taken.prefixes]),
      free: taken.tree.free(block),
    });
  }
  const wishes = blocks.flatMap(({ pool, block, parts }): PrefixWish[] => [
    {
      prefix: formatPrefix(block),
      vrfId: pool.vrfId,
      role: 'pool',
      name: place.name,
      placeId: place.id,
      status: 'planned',
    },
    ...parts.map(({ part, prefix, vlan }): PrefixWish => {
      const gateway =
        part.gateway === null || part.role === 'loopback' ? null : gatewayBy(part.gateway, prefix);
      return {
        prefix: formatPrefix(prefix),
        vrfId: pool.vrfId,
        role: part.role,
        name: `${part.name}, ${place.name}`,
        placeId: place.id,
        vlanId: vlan?.id ?? null,
        status: 'planned',
        gateway,
        ranges: dhcpRange(prefix, part.dhcpShare, gateway),
      };
    }),
  ]);
  const attempt = addPrefixes(
    network,
    wishes,
    `Planned ${place.name} as ${template.name}: ${template.parts.length} prefixes in ${blocks.map(({ block }) => formatPrefix(block)).join(' and ')}`,
  );
  return { ok: true, blocks, attempt };
}

/** IPv6 for what has IPv4: the number of the VLAN, as it is written, in the group before the host part. */
export function ipv6ForVlan(site: IpPrefix, vid: number): IpPrefix | null {
  const room = 64 - site.length;
  const number = BigInt(`0x${vid}`);
  if (site.family !== 6 || room < 1 || number >= 1n << BigInt(Math.min(16, room))) return null;
  return { family: 6, value: site.value | (number << 64n), length: 64 };
}

/** A /64 for each VLAN that has an IPv4 prefix at a place, numbered by the VLAN, in an IPv6 pool of that place. */
export function planIpv6(network: Network, pool: Prefix): Attempt {
  const site = parsePrefix(pool.prefix);
  if (site === null || site.family !== 6 || pool.role !== 'pool')
    return refuse(`${pool.prefix} is no pool of IPv6. Choose one such as 2001:db8:40::/48.`);
  const placeId = pool.placeId;
  if (placeId === null)
    return refuse(`${pool.prefix} is of no place. Say in its record which site it is for.`);
  const wishes: PrefixWish[] = [];
  for (const row of network.find('prefixesByPlace', placeId)) {
    const vlan = network.get('vlan', row.vlanId);
    if (vlan === null || row.vrfId !== pool.vrfId || row.status === 'retired' || row.prefix.includes(':'))
      continue;
    const block = ipv6ForVlan(site, vlan.vid);
    if (block === null)
      return refuse(
        `VLAN ${vlan.vid} does not fit into ${pool.prefix}: between it and /64 there are ${64 - site.length} bits.`,
      );
    const text = formatPrefix(block);
    const there = prefixTree(network, pool.vrfId).at(block).length > 0;
    if (there || wishes.some((wish) => wish.prefix === text)) continue;
    wishes.push({
      prefix: text,
      vrfId: pool.vrfId,
      role: 'subnet',
      name: row.name,
      placeId,
      vlanId: vlan.id,
      status: row.status,
      gateway: gatewayBy('first', block),
    });
  }
  if (wishes.length === 0) return refuse('Every VLAN with an IPv4 prefix here has its IPv6 prefix already.');
  return addPrefixes(
    network,
    wishes,
    `Added ${wishes.length} IPv6 prefixes in ${pool.prefix} by VLAN number`,
  );
}

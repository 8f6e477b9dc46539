import { parentOf, prefixesAround, prefixTree } from '../plan.ts';
import { create, type Change } from '../../change/change.ts';
import { newId } from '../../model/values/ids.ts';
import { formatPrefix, holds, readPrefix, usable, formatIp, type IpPrefix } from '../../model/values/ip.ts';
import { blankPrefix, type AddressRange, type Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

export type PrefixWish = Pick<Prefix, 'prefix' | 'vrfId'> & Partial<Omit<Prefix, 'id' | 'prefix' | 'vrfId'>>;

export const titled = (row: Pick<Prefix, 'prefix' | 'name'>): string =>
  row.name === null || row.name === undefined ? row.prefix : `${row.prefix} ${row.name}`;

/** The first or last address that hosts can have, as the gateway by convention. */
export function gatewayBy(place: 'first' | 'last', prefix: IpPrefix): string {
  const { first, last } = usable(prefix);
  return formatIp({ family: prefix.family, value: place === 'first' ? first : last });
}

/** The share of a prefix's hosts, from the end, that DHCP hands out; none where the share is 0 or the prefix too small. */
export function dhcpRange(prefix: IpPrefix, share: number, gateway: string | null): AddressRange[] {
  const { first, last, count } = usable(prefix);
  const many = (count * BigInt(Math.round(share))) / 100n;
  if (share <= 0 || many < 1n || count < 4n) return [];
  const text = (value: bigint): string => formatIp({ family: prefix.family, value });
  // A gateway at the end stays outside of what is handed out.
  const end = gateway === text(last) ? last - 1n : last;
  const start = end - many + 1n > first ? end - many + 1n : first + 1n;
  return [{ use: 'DHCP', from: text(start), to: text(end), note: '' }];
}

/** Why a prefix cannot stand where it is wished, in numbers; null when it can. */
export function conflict(network: Network, wish: PrefixWish, prefix: IpPrefix): string | null {
  const around = prefixesAround(network, wish.vrfId, prefix);
  const same = around.find((row) => row.prefix === wish.prefix);
  const vrf = network.get('vrf', wish.vrfId)?.name ?? 'the global table';
  if (same !== undefined)
    return `${wish.prefix} is in ${vrf} already: ${same.name ?? same.role}. Choose free space.`;
  const outer = around.at(-1);
  if (outer !== undefined && outer.role !== 'pool')
    return `${wish.prefix} lies inside ${titled(outer)}, a ${outer.role}: its addresses are given to hosts there. Choose space in a pool.`;
  if (wish.role === 'pool') return null;
  const inside = prefixTree(network, wish.vrfId)
    .children(prefix)
    .flatMap((entry) => entry.ids.flatMap((id) => network.get('prefix', id) ?? []));
  const [first] = inside;
  if (first === undefined) return null;
  const wider = inside.length === 1 ? titled(first) : `${titled(first)} and ${inside.length - 1} more`;
  return `${wish.prefix} would overlap ${wider}. Make it a pool around them, or choose free space.`;
}

/** Adds a prefix where there is room for it. An address inside one is told with the prefix that was meant. */
export const addPrefix = (network: Network, wish: PrefixWish): Attempt => addPrefixes(network, [wish]);

/**
 * Adds prefixes in one step: each must have room beside what is there and beside those before it, of which pools may
 * hold later ones.
 */
export function addPrefixes(network: Network, wishes: readonly PrefixWish[], what?: string): Attempt {
  const changes: Change[] = [];
  const rows: { prefix: IpPrefix; row: Prefix }[] = [];
  for (const wish of wishes) {
    const read = readPrefix(wish.prefix.trim());
    if (!read.ok) return refuse(`“${wish.prefix}” ${read.reason}.`);
    const text = formatPrefix(read.prefix);
    const why = conflict(network, { ...wish, prefix: text }, read.prefix);
    if (why !== null) return refuse(why);
    const beside = rows.find(
      ({ prefix, row }) =>
        row.vrfId === wish.vrfId &&
        ((row.role !== 'pool' && holds(prefix, read.prefix)) ||
          (wish.role !== 'pool' && holds(read.prefix, prefix))),
    );
    if (beside !== undefined)
      return refuse(`${text} would overlap ${titled(beside.row)}, which is asked for at the same time.`);
    const row: Prefix = { ...blankPrefix, ...wish, prefix: text, id: newId() };
    rows.push({ prefix: read.prefix, row });
    changes.push(create('prefix', row));
  }
  const [first] = rows;
  if (first === undefined) return refuse('Nothing was asked for.');
  const sentence =
    what ??
    (rows.length === 1
      ? `Added ${first.row.role} ${titled(first.row)}`
      : `Added ${rows.length} prefixes, ${first.row.prefix} to ${rows.at(-1)?.row.prefix ?? ''}`);
  return judged(network, changes, sentence);
}

/** The innermost pool around a prefix, or the pool itself. */
export function poolOf(network: Network, row: Prefix): Prefix | null {
  if (row.role === 'pool') return row;
  const outer = parentOf(network, row);
  return outer === null ? null : poolOf(network, outer);
}

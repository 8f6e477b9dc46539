import { derived, type CarryOver } from '../model/network/derived.ts';
import type { Address } from '../model/kinds/logical/address.ts';
import type { Prefix } from '../model/kinds/logical/prefix.ts';
import { blockKey, blockLength } from '../model/values/addressBlock.ts';
import {
  formatIp,
  holds,
  hostNumber,
  parseInterface,
  parseIp,
  parsePrefix,
  prefixAround,
  sizeOf,
  type IpAddress,
  type IpPrefix,
} from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';
import { PrefixTree } from './prefixTree.ts';
import { hostRange } from '../model/network/cloudPlaces.ts';
import { virtualsIn } from './virtuals.ts';

/** The prefixes of each VRF as a tree; `global` for those of none. Retired ones take no space. */
type Trees = ReadonlyMap<string, PrefixTree>;
const keyOf = (row: Pick<Prefix, 'vrfId'>): string => row.vrfId ?? 'global';

/** The trees of an earlier network, changed where prefixes were touched since. */
const changedTrees: CarryOver<Trees> = (before, _network, touched) => {
  const trees = new Map(before);
  const put = (row: Prefix | null, add: boolean): void => {
    const prefix = row === null || row.status === 'retired' ? null : parsePrefix(row.prefix);
    if (row === null || prefix === null) return;
    const tree = trees.get(keyOf(row)) ?? PrefixTree.empty;
    trees.set(keyOf(row), add ? tree.with(prefix, row.id) : tree.without(prefix, row.id));
  };
  for (const row of touched) {
    if (row.kind !== 'prefix') continue;
    put(row.before, false);
    put(row.after, true);
  }
  return trees;
};

function fromAll(network: Network): Trees {
  const entries = new Map<string, [IpPrefix, string][]>();
  for (const row of network.all('prefix')) {
    const prefix = row.status === 'retired' ? null : parsePrefix(row.prefix);
    if (prefix === null) continue;
    const list = entries.get(keyOf(row));
    if (list === undefined) entries.set(keyOf(row), [[prefix, row.id]]);
    else list.push([prefix, row.id]);
  }
  return new Map([...entries].map(([vrf, list]) => [vrf, PrefixTree.of(list)]));
}

const treesOf = derived(fromAll, changedTrees);

/** The prefixes of a VRF (null: the global table) that are planned or active, as a tree of their row ids. */
export const prefixTree = (network: Network, vrfId: string | null): PrefixTree =>
  treesOf(network).get(vrfId ?? 'global') ?? PrefixTree.empty;

const rowsOf = (network: Network, ids: readonly string[]): Prefix[] =>
  ids.flatMap((id) => network.get('prefix', id) ?? []);

/** The prefixes of a VRF that hold an address or a prefix, from the outermost in. */
export const prefixesAround = (
  network: Network,
  vrfId: string | null,
  inner: IpAddress | IpPrefix,
): Prefix[] =>
  prefixTree(network, vrfId)
    .around(inner)
    .flatMap((entry) => rowsOf(network, entry.ids));

/** The smallest prefix of a VRF that an address is in. */
export const prefixOf = (network: Network, vrfId: string | null, address: IpAddress): Prefix | null =>
  prefixesAround(network, vrfId, address).at(-1) ?? null;

/** The prefix right around one; null for one that nothing holds. */
export function parentOf(network: Network, row: Prefix): Prefix | null {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null) return null;
  const around = prefixesAround(network, row.vrfId, prefix);
  return around.filter((one) => one.prefix !== row.prefix).at(-1) ?? null;
}

/** The outermost prefixes inside one, in order of address. */
export function childrenOf(network: Network, row: Prefix): Prefix[] {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null) return [];
  return prefixTree(network, row.vrfId)
    .children(prefix)
    .flatMap((entry) => rowsOf(network, entry.ids));
}

/** More blocks than this are not looked through one by one: all addresses of the VRF are, once. */
const mostBlocks = 4096n;

/** The addresses in a prefix of a VRF, in no particular order. */
export function addressesIn(network: Network, vrfId: string | null, prefix: IpPrefix): Address[] {
  const length = blockLength[prefix.family];
  const first = Number(prefix.value);
  const end = first + 2 ** (32 - prefix.length);
  const inside = (row: Address): boolean => {
    // IPv4 is compared as a plain number: a plan of thousands of rows reads each of its addresses.
    if (prefix.family === 4) {
      const value = hostNumber(row.address);
      return value !== null && first <= value && value < end;
    }
    const at = parseInterface(row.address);
    return at !== null && holds(prefix, at.address);
  };
  if (prefix.length >= length)
    return network.find('addressesByBlock', blockKey(vrfId, prefix)).filter(inside);
  const blocks = 1n << BigInt(length - prefix.length);
  if (blocks <= mostBlocks) {
    const step = sizeOf({ ...prefix, length });
    const found: Address[] = [];
    for (let at = 0n; at < blocks; at++)
      found.push(
        ...network.find('addressesByBlock', blockKey(vrfId, { ...prefix, value: prefix.value + at * step })),
      );
    return found;
  }
  const all = vrfId === null ? [...network.all('address')] : network.find('addressesByVrf', vrfId);
  return all.filter((row) => row.vrfId === vrfId && inside(row));
}

/** How many addresses of a prefix are given. Counts whole blocks without looking at each address. */
export function countAddresses(network: Network, vrfId: string | null, prefix: IpPrefix): number {
  const length = blockLength[prefix.family];
  const blocks = prefix.length > length ? 0n : 1n << BigInt(length - prefix.length);
  if (blocks === 0n || blocks > mostBlocks) return addressesIn(network, vrfId, prefix).length;
  const step = sizeOf({ ...prefix, length });
  let count = 0;
  for (let at = 0n; at < blocks; at++)
    count += network.countOf(
      'addressesByBlock',
      blockKey(vrfId, { ...prefix, value: prefix.value + at * step }),
    );
  return count;
}

/** How full a prefix is. */
export interface PrefixUse {
  /** Of a pool: prefixes right inside; of others: addresses given or shared by routers, each host once. */
  taken: number;
  /** Share of its space that is taken, 0 to 1: by prefixes in a pool, by addresses, ranges and gateway elsewhere. */
  share: number;
}

const ratio = (part: bigint, whole: bigint): number => Number((part * 1_000_000n) / whole) / 1_000_000;

/** Addresses of a prefix that no host may be given: those in ranges, and the gateway; in order, none twice. */
function keptSpans(row: Prefix): [first: bigint, last: bigint][] {
  const spans = row.ranges.flatMap(({ from, to }): [bigint, bigint][] => {
    const [first, last] = [parseIp(from), parseIp(to)];
    return first === null || last === null ? [] : [[first.value, last.value]];
  });
  const gateway = row.gateway === null ? null : parseIp(row.gateway);
  if (gateway !== null) spans.push([gateway.value, gateway.value]);
  spans.sort((a, b) => (a[0] < b[0] ? -1 : a[0] > b[0] ? 1 : 0));
  const joined: [first: bigint, last: bigint][] = [];
  for (const [first, last] of spans) {
    const before = joined.at(-1);
    if (before === undefined || first > before[1]) joined.push([first, last]);
    else if (last > before[1]) before[1] = last;
  }
  return joined;
}

export function useOf(network: Network, row: Prefix): PrefixUse {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null) return { taken: 0, share: 0 };
  if (row.role === 'pool') {
    const tree = prefixTree(network, row.vrfId);
    return {
      taken: tree.countChildren(prefix),
      share: ratio(tree.coveredInside(prefix), sizeOf(prefix)),
    };
  }
  const spans = keptSpans(row);
  // A host has one text (rows are kept so), whatever the length behind it.
  const hosts = new Set<string>();
  let kept = 0n;
  for (const [first, last] of spans) kept += last - first + 1n;
  for (const { address } of addressesIn(network, row.vrfId, prefix))
    hosts.add(address.slice(0, address.indexOf('/')));
  for (const { address } of virtualsIn(network, row.vrfId, prefix)) hosts.add(formatIp(address));
  const isKept = (host: string): boolean => {
    const value = parseIp(host)?.value ?? -1n;
    return spans.some(([first, last]) => first <= value && value <= last);
  };
  let beside = BigInt(hosts.size);
  if (spans.length > 0) for (const host of hosts) if (isKept(host)) beside--;
  const { count } = hostRange(network, row, prefix);
  return { taken: hosts.size, share: Math.min(1, ratio(kept + beside, count)) };
}

/**
 * The first address of a prefix that a host can have: not the network or broadcast address, no gateway, in no range,
 * in no smaller prefix, shared by no routers, and given to nobody. Null when it is full. `from` begins the search after an address.
 */
export function nextFreeAddress(
  network: Network,
  row: Prefix,
  from: IpAddress | null = null,
): IpAddress | null {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null) return null;
  const { first, last } = hostRange(network, row, prefix);
  const spans = keptSpans(row);
  for (const child of childrenOf(network, row)) {
    const inner = parsePrefix(child.prefix);
    if (inner !== null) spans.push([inner.value, inner.value + sizeOf(inner) - 1n]);
  }
  const shared = new Set(virtualsIn(network, row.vrfId, prefix).map(({ address }) => address.value));
  let at = from === null || from.value < first ? first : from.value + 1n;
  const length = blockLength[prefix.family];
  let block = '';
  let given = new Set<bigint>();
  while (at <= last) {
    const span = spans.find(([start, end]) => start <= at && at <= end);
    if (span !== undefined) {
      at = span[1] + 1n;
      continue;
    }
    const here = { family: prefix.family, value: at };
    const key = blockKey(row.vrfId, here);
    if (key !== block) {
      block = key;
      const rows = network.find('addressesByBlock', key);
      given = new Set(rows.map((one) => parseInterface(one.address)?.address.value ?? -1n));
      const whole = prefixAround(here, length);
      if (BigInt(given.size) === sizeOf(whole) && whole.value === at) {
        at += sizeOf(whole);
        continue;
      }
    }
    if (!given.has(at) && !shared.has(at)) return here;
    at++;
  }
  return null;
}

/** Where an address belongs and who has it, in every VRF that knows it. */
export interface AddressFound {
  text: string;
  vrfId: string | null;
  prefix: Prefix | null;
  addresses: Address[];
}

/** Looks an address up: in each VRF where a prefix holds it or where it is given. */
export function findAddress(network: Network, address: IpAddress): AddressFound[] {
  const text = formatIp(address);
  const given = network.find('addressesByHost', text);
  const vrfs: (string | null)[] = [null, ...[...network.all('vrf')].map((vrf) => vrf.id)];
  return vrfs.flatMap((vrfId) => {
    const addresses = given.filter((row) => row.vrfId === vrfId);
    const prefix = prefixOf(network, vrfId, address);
    return addresses.length === 0 && prefix === null ? [] : [{ text, vrfId, prefix, addresses }];
  });
}

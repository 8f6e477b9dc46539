import { childrenOf, nextFreeAddress, parentOf, prefixTree } from '../plan.ts';
import { buddy } from '../prefixTree.ts';
import { titled } from './allocate.ts';
import { create, update } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { type Prefix } from '../../model/kinds/logical/prefix.ts';
import {
  bitsOf,
  formatIp,
  formatPrefix,
  holds,
  parseInterface,
  parsePrefix,
  usable,
  type IpPrefix,
} from '../../model/values/ip.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** The first free prefix of a length in a pool; with `growth` its neighbour of the same size is free too. */
export function nextFreePrefix(
  network: Network,
  pool: Prefix,
  length: number,
  { growth = false } = {},
): IpPrefix | null {
  const outer = parsePrefix(pool.prefix);
  if (outer === null || length <= outer.length || length > bitsOf(outer.family)) return null;
  const wished = growth && length - 1 > outer.length ? length - 1 : length;
  const block = prefixTree(network, pool.vrfId).nextFree(outer, wished);
  return block === null ? null : { ...block, length };
}

/** What can be made of a free block: one of its size, two of half, four of a quarter …, with the hosts of each. */
export interface Offer {
  length: number;
  count: number;
  hosts: bigint;
  first: IpPrefix;
}
export function offersIn(block: IpPrefix, most = 4): Offer[] {
  const offers: Offer[] = [];
  for (let length = block.length; length <= bitsOf(block.family) && offers.length < most; length++) {
    const first = { ...block, length };
    offers.push({ length, count: 2 ** (length - block.length), hosts: usable(first).count, first });
  }
  return offers;
}

/** Cuts a prefix in two halves: the first keeps its row; refused where an address or gateway is in the second. */
export function splitPrefix(network: Network, row: Prefix): Attempt {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null || prefix.length >= bitsOf(prefix.family))
    return refuse(`${row.prefix} cannot be split.`);
  const lower: IpPrefix = { ...prefix, length: prefix.length + 1 };
  const upper = buddy(lower);
  const gateway = row.gateway === null ? null : parseInterface(row.gateway);
  if (gateway !== null && holds(upper, gateway.address))
    return refuse(
      `The gateway ${row.gateway ?? ''} is in the second half, ${formatPrefix(upper)}. Move it to the first half.`,
    );
  const crossing = row.ranges.find(({ to }) => {
    const last = parseInterface(to);
    return last !== null && holds(upper, last.address);
  });
  if (crossing !== undefined)
    return refuse(
      `The range ${crossing.from} to ${crossing.to} reaches into the second half, ${formatPrefix(upper)}. Shorten it first.`,
    );
  const other: Prefix = {
    ...row,
    id: newId(),
    prefix: formatPrefix(upper),
    gateway: null,
    ranges: [],
    name: null,
  };
  return judged(
    network,
    [update('prefix', row, { prefix: formatPrefix(lower) }), create('prefix', other)],
    `Split ${row.prefix} into ${formatPrefix(lower)} and ${formatPrefix(upper)}`,
  );
}

/** Joins a prefix with its neighbour of the same size; of the two rows the given one stays. */
export function mergePrefix(network: Network, row: Prefix): Attempt {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null || prefix.length === 0) return refuse(`${row.prefix} cannot be joined.`);
  const beside = buddy(prefix);
  const whole: IpPrefix = {
    ...prefix,
    length: prefix.length - 1,
    value: prefix.value < beside.value ? prefix.value : beside.value,
  };
  const tree = prefixTree(network, row.vrfId);
  const [otherId, ...more] = tree.at(beside);
  const other = network.get('prefix', otherId ?? null);
  if (more.length > 0) return refuse(`${formatPrefix(beside)} is there twice. Remove one first.`);
  if (other !== null && (other.role !== row.role || other.vlanId !== row.vlanId))
    return refuse(
      `${titled(other)} is a ${other.role} of another use than ${titled(row)}. Make them alike, or retire one.`,
    );
  if (other === null && tree.countInside(beside) > 0)
    return refuse(`${formatPrefix(beside)} holds other prefixes. Retire or move them first.`);
  const outer = parentOf(network, row);
  const room = outer === null ? null : parsePrefix(outer.prefix);
  if (room !== null && room.length >= whole.length)
    return refuse(`${formatPrefix(whole)} would be larger than its pool ${outer?.prefix ?? ''}.`);
  return judged(
    network,
    [
      ...(other === null ? [] : removal(network, [{ kind: 'prefix', id: other.id }]).changes),
      update('prefix', row, {
        prefix: formatPrefix(whole),
        ranges: [...row.ranges, ...(other?.ranges ?? [])],
        gateway: row.gateway ?? other?.gateway ?? null,
      }),
    ],
    `Joined ${row.prefix} and ${formatPrefix(beside)} to ${formatPrefix(whole)}`,
  );
}

/** Retires a prefix: its space is free again. Refused while addresses or prefixes are in it. */
export function deletePrefix(network: Network, row: Prefix, given: number): Attempt {
  const inside = childrenOf(network, row);
  if (row.role !== 'pool' && given > 0)
    return refuse(
      `${given} ${given === 1 ? 'address is' : 'addresses are'} given in ${titled(row)}. Take them back or renumber first.`,
    );
  return judged(
    network,
    removal(network, [{ kind: 'prefix', id: row.id }]).changes,
    inside.length > 0
      ? `Deleted ${row.role} ${titled(row)}; ${inside.length} prefixes in it stay`
      : `Deleted ${row.role} ${titled(row)}`,
  );
}

/** Gives a port the next free address of a prefix. */
export function giveAddress(network: Network, row: Prefix, port: Port): Attempt {
  const prefix = parsePrefix(row.prefix);
  const next = nextFreeAddress(network, row);
  if (prefix === null || row.role === 'pool')
    return refuse(`${titled(row)} is a pool: choose a subnet in it.`);
  if (next === null) return refuse(`${titled(row)} is full. Take another prefix, or enlarge it.`);
  const length = row.role === 'loopback' ? bitsOf(prefix.family) : prefix.length;
  const address = `${formatIp(next)}/${length}`;
  const first = network.countOf('addressesByPort', port.id) === 0;
  return judged(
    network,
    [
      create('address', {
        ...blankAddress,
        id: newId(),
        address,
        vrfId: row.vrfId,
        portId: port.id,
        use: first ? 'interface' : 'secondary',
      }),
    ],
    `Gave ${portTitle(network, port.id)} ${address}`,
  );
}

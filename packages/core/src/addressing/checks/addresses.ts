import { update } from '../../change/change.ts';
import type { Subject } from '../../change/removal.ts';
import { judged } from '../../commands/attempt.ts';
import { addressesIn, nextFreeAddress, prefixesAround, prefixOf } from '../plan.ts';
import { ownerText } from '../owner.ts';
import { virtualsOf } from '../virtuals.ts';
import type { Address } from '../../model/kinds/logical/address.ts';
import {
  bitsOf,
  formatIp,
  holds,
  lastOf,
  parseInterface,
  parseIp,
  parsePrefix,
  prefixAround,
  usable,
  type IpAddress,
} from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { circuitAt, portTitle } from '../../model/network/ports.ts';
import { defineRule, type Evidence, type Rule } from '../../check/finding.ts';
import { idsOf, nameOf } from '../../check/names.ts';
import { bothOf, rowParts } from '../../check/rowParts.ts';
import { isOfCloudSubnet } from '../../model/network/cloudPlaces.ts';
import { prefixesOfSubnet } from './cloudPrefixes.ts';

const hostOf = (row: Address): string => row.address.slice(0, row.address.indexOf('/'));
const hostKey = (row: Address): string => `${row.vrfId ?? ''} ${hostOf(row)}`;
const subjectOf = (row: Address): Subject => ({ kind: 'address', id: row.id });

/** "10.1.1.1/24 (on kq-core-1:vlan10)". */
function titled(network: Network, subject: Subject | undefined): string {
  const row = network.get('address', subject?.id ?? null);
  return row === null ? '' : `${row.address} (${ownerText(network, row)})`;
}

/** Addresses among the subjects, in order of who has them. */
const byOwner = (network: Network, subjects: readonly Subject[]): Address[] =>
  idsOf(subjects, 'address')
    .flatMap((id) => network.get('address', id) ?? [])
    .sort((a, b) => compareNames(ownerText(network, a), ownerText(network, b)));

/** What to do about an address that two have. */
function remedy(network: Network, row: Address): string {
  const at = parseInterface(row.address);
  const prefix = at === null ? null : prefixOf(network, row.vrfId, at.address);
  const next = prefix === null ? null : nextFreeAddress(network, prefix);
  return next === null
    ? 'Give one of them another address.'
    : `Give one of them another, such as ${formatIp(next)}.`;
}

function givenTwice(network: Network, key: string): Evidence<{ host: string; given: number }>[] {
  const [vrfId = '', host = ''] = key.split(' ');
  const rows = network.find('addressesByHost', host).filter((row) => (row.vrfId ?? '') === vrfId);
  if (rows.length < 2) return [];
  return [{ severity: 'bad', subjects: rows.map(subjectOf), facts: { host, given: rows.length } }];
}

/** One host has an address in a VRF, or one address would answer twice. */
export const addressDuplicate = defineRule({
  key: 'address-duplicate',
  title: 'Addresses given twice',
  why: 'Two hosts with one address answer for each other: connections break at one of them, and at which one changes.',
  standard: 'RFC 5227',
  reads: { address: ['address', 'vrfId'] },
  find: {
    *each(network) {
      const seen = new Set<string>();
      const twice = new Set<string>();
      for (const row of network.all('address')) {
        const key = hostKey(row);
        if (seen.has(key)) twice.add(key);
        else seen.add(key);
      }
      for (const key of twice) yield [key, givenTwice(network, key)];
    },
    judge: givenTwice,
    concerned: (_network, touched) => bothOf(touched, 'address').map(hostKey),
  },
  says: ({ host, given }, network, subjects) => {
    const rows = byOwner(network, subjects);
    const [first] = rows;
    return `${host} is given ${given} times: ${rows.map((row) => ownerText(network, row)).join(' and ')}. ${first === undefined ? '' : remedy(network, first)}`;
  },
  about: (_facts, network, subjects) => byOwner(network, subjects).map((row) => `address ${row.address}`),
  mends: (_facts, network, subjects) =>
    byOwner(network, subjects).flatMap((row) => {
      const at = parseInterface(row.address);
      const prefix = at === null ? null : prefixOf(network, row.vrfId, at.address);
      const next = prefix === null ? null : nextFreeAddress(network, prefix);
      if (at === null || next === null) return [];
      const address = `${formatIp(next)}/${at.length}`;
      const sentence = `Moved the address ${ownerText(network, row)} from ${row.address} to ${address}`;
      return [
        {
          wish: `Move the address ${ownerText(network, row)} to ${address}`,
          way: 'Move one of the addresses to a free one',
          attempt: judged(network, [update('address', row, { address })], sentence),
        },
      ];
    }),
});

type Shared = { host: string; portIds: readonly string[]; groups: readonly number[]; apart: boolean };

/** A shared address belongs to one group, and to no port outside of it. */
export const virtualDuplicate = defineRule<Shared>({
  key: 'virtual-duplicate',
  title: 'Shared addresses that somebody else has',
  why: 'The address that routers share must be nobody’s own, or the gateway moves to a host that does not forward.',
  standard: 'RFC 9568',
  reads: {
    redundancy: ['portId', 'group', 'virtual'],
    address: ['address', 'portId', 'vrfId'],
    port: ['vrfId'],
  },
  find: (network) =>
    virtualsOf(network).flatMap(({ vrfId, address, parts }): Evidence<Shared>[] => {
      const host = formatIp(address);
      const members = new Set(parts.map((part) => part.portId));
      const others = network
        .find('addressesByHost', host)
        .filter((row) => row.vrfId === vrfId && row.portId !== null && !members.has(row.portId));
      const groups = [...new Set(parts.map((part) => part.group))].sort((a, b) => a - b);
      const about = parts.map(({ id }) => ({ kind: 'redundancy' as const, id }));
      const facts = { host, portIds: [...members], groups };
      const found: Evidence<Shared>[] = [];
      if (others.length > 0)
        found.push({
          severity: 'bad',
          subjects: [...others.map(subjectOf), ...about],
          facts: { ...facts, apart: false },
        });
      if (groups.length > 1)
        found.push({ severity: 'bad', subjects: about, facts: { ...facts, apart: true } });
      return found;
    }),
  says: ({ host, portIds, groups, apart }, network, subjects) => {
    const ports = portIds
      .map((id) => portTitle(network, id))
      .sort(compareNames)
      .join(' and ');
    if (apart)
      return `${host} is shared in groups ${groups.join(' and ')} of ${ports}: the groups do not hear each other and both answer. Use one group for it, or another address for the second.`;
    const others = byOwner(network, subjects).map((row) => ownerText(network, row));
    return `${host} is shared by ${ports} (group ${groups.join(', ')}) and is also ${others.join(' and ')}. Give the port another address, or make it part of the group.`;
  },
});

/** A gateway is an address that a host can have. */
export const gatewayNoHost = defineRule({
  key: 'gateway-no-host',
  title: 'Gateways that no host can be',
  why: 'The first and the last address of an IPv4 subnet mean the subnet and everybody in it: no router can be there.',
  standard: 'RFC 1122, 3.2.1.3',
  reads: { prefix: ['prefix', 'gateway'] },
  find: rowParts('prefix', (_network, row) => {
    const prefix = parsePrefix(row.prefix);
    const gateway = row.gateway === null ? null : parseIp(row.gateway);
    // The first address of an IPv6 subnet is that of all its routers (RFC 4291 section 2.6.1).
    if (prefix?.family !== 4 || gateway === null) return null;
    const { first, last } = usable(prefix);
    if (first <= gateway.value && gateway.value <= last) return null;
    const end: 'network' | 'broadcast' = gateway.value < first ? 'network' : 'broadcast';
    return {
      severity: 'bad',
      subjects: [{ kind: 'prefix', id: row.id }],
      facts: {
        gateway: row.gateway ?? '',
        prefix: row.prefix,
        end,
        first: formatIp({ family: 4, value: first }),
        last: formatIp({ family: 4, value: last }),
      },
    };
  }),
  says: ({ gateway, prefix, end, first, last }) =>
    `${gateway}, the gateway of ${prefix}, is its ${end} address, which no router can have. Choose one from ${first} to ${last}.`,
  mends: ({ first, last }, network, subjects) =>
    idsOf(subjects, 'prefix').flatMap((id) => {
      const row = network.get('prefix', id);
      if (row === null) return [];
      return [...new Set([first, last])].map((gateway) => ({
        wish: `Take ${gateway} as the gateway`,
        way: 'Take the first or last address for hosts as the gateway',
        attempt: judged(
          network,
          [update('prefix', row, { gateway })],
          `Set the gateway of ${row.prefix} to ${gateway}`,
        ),
      }));
    }),
});

/** How an address stands to the prefixes around it: in none, or of another length than the innermost. */
function misplaced(network: Network, row: Address): { length: number; insideId: string | null } | null {
  const at = parseInterface(row.address);
  if (at === null) return null;
  const { address, length } = at;
  const around = prefixesAround(network, row.vrfId, address).filter((one) => one.role !== 'pool');
  const inner = around.at(-1);
  if (inner === undefined) return { length, insideId: null };
  const own = around.some((one) => parsePrefix(one.prefix)?.length === length);
  const isHost = length === bitsOf(address.family);
  return own || (inner.role === 'loopback' && isHost) ? null : { length, insideId: inner.id };
}

export const addressOutside = defineRule({
  key: 'address-outside-prefix',
  title: 'Addresses outside their prefix',
  why: 'A host takes what is in its own prefix as near: with another length than the subnet’s it looks for neighbours at the gateway, or the other way round.',
  standard: 'RFC 1122, 3.3.1.1',
  reads: { address: ['address', 'vrfId'], prefix: ['vrfId', 'prefix', 'role'] },
  find: rowParts(
    'address',
    (network, row) => {
      const facts = misplaced(network, row);
      return facts === null ? null : { severity: 'bad', subjects: [subjectOf(row)], facts };
    },
    (network, touched) =>
      bothOf(touched, 'prefix').flatMap((row) => {
        const prefix = parsePrefix(row.prefix);
        return prefix === null ? [] : addressesIn(network, row.vrfId, prefix).map(({ id }) => id);
      }),
  ),
  says: ({ length, insideId }, network, [subject]) => {
    const row = network.get('address', subject?.id ?? null);
    const inside = network.get('prefix', insideId)?.prefix ?? '';
    return insideId === null
      ? `${titled(network, subject)} is in no prefix of ${network.get('vrf', row?.vrfId ?? null)?.name ?? 'the global table'}. Add its prefix, or correct the address.`
      : `${titled(network, subject)} says /${length}, but it is in ${inside}. Correct the length to /${parsePrefix(inside)?.length ?? ''}.`;
  },
  mends: ({ insideId }, network, subjects) => {
    const length = parsePrefix(network.get('prefix', insideId)?.prefix ?? '')?.length;
    return idsOf(subjects, 'address').flatMap((id) => {
      const row = network.get('address', id);
      if (row === null || length === undefined) return [];
      const address = `${hostOf(row)}/${length}`;
      const sentence = `Corrected the length of ${row.address} to /${length}`;
      return [
        {
          wish: `Correct the length to /${length}`,
          way: 'Correct the length',
          attempt: judged(network, [update('address', row, { address })], sentence),
        },
      ];
    });
  },
});

/** The first and last address of an IPv4 subnet are not for hosts (RFC 1122 section 3.2.1.3). */
export const addressNotForHosts = defineRule({
  key: 'address-not-for-hosts',
  title: 'Network and broadcast addresses given to hosts',
  why: 'The first and the last address of an IPv4 subnet mean the subnet and everybody in it: no host is reached there.',
  standard: 'RFC 1122, 3.2.1.3',
  reads: { address: ['address'] },
  find: rowParts('address', (_network, row) => {
    const at = parseInterface(row.address);
    if (at === null || at.address.family === 6 || at.length >= 31) return null;
    const subnet = prefixAround(at.address, at.length);
    const isFirst = at.address.value === subnet.value;
    if (!isFirst && at.address.value !== lastOf(subnet).value) return null;
    const end: 'network' | 'broadcast' = isFirst ? 'network' : 'broadcast';
    return { severity: 'bad', subjects: [subjectOf(row)], facts: { end } };
  }),
  says: ({ end }, network, [subject]) =>
    `${titled(network, subject)} is the ${end} address of its subnet, which no host can have. Take another.`,
});

export const loopbackLength = defineRule({
  key: 'loopback-length',
  title: 'Loopbacks that are not one address',
  why: 'A loopback is one address: a longer prefix takes addresses that others may need and draws their traffic to this router.',
  reads: { address: ['address', 'portId'], port: ['form'] },
  find: rowParts(
    'address',
    (network, row) => {
      const port = network.get('port', row.portId);
      const at = parseInterface(row.address);
      if (port?.form !== 'loopback' || at === null || at.length === bitsOf(at.address.family)) return null;
      const should = `${formatIp(at.address)}/${bitsOf(at.address.family)}`;
      return { severity: 'warn', subjects: [subjectOf(row)], facts: { portId: port.id, should } };
    },
    (network, touched) =>
      bothOf(touched, 'port').flatMap(({ id }) => network.find('addressesByPort', id).map((row) => row.id)),
  ),
  says: ({ portId, should }, network, [subject]) =>
    `${portTitle(network, portId)} has ${nameOf(network, 'address', subject?.id ?? null)}: a loopback is one address. Write ${should}.`,
});

/** Whether a port has an address in a VRF, or shares it. */
const isThere = (network: Network, vrfId: string | null, host: string): boolean =>
  network.find('addressesByHost', host).some((row) => row.portId !== null && row.vrfId === vrfId) ||
  network
    .find('redundanciesByVirtual', host)
    .some((part) => (network.get('port', part.portId)?.vrfId ?? null) === vrfId);

/** The prefixes that a host is in, whatever their VRF. */
function prefixesOfHost(network: Network, host: string): string[] {
  const address = parseIp(host);
  if (address === null) return [];
  const vrfIds = [null, ...[...network.all('vrf')].map(({ id }) => id)];
  return vrfIds.flatMap((vrfId) => prefixesAround(network, vrfId, address).map(({ id }) => id));
}

export const gatewayMissing = defineRule({
  key: 'gateway-missing',
  title: 'Gateways that nobody is',
  why: 'Hosts send what is not for their own subnet to the gateway; where nobody has it, they reach no further.',
  standard: 'RFC 1122, 3.3.1',
  reads: {
    prefix: ['role', 'status', 'gateway', 'vrfId', 'prefix'],
    cloudSubnet: ['prefixId', 'v6PrefixId'],
    address: ['address', 'portId', 'vrfId'],
    redundancy: ['portId', 'virtual'],
    port: ['vrfId'],
  },
  find: rowParts(
    'prefix',
    (network, row) => {
      if (row.role !== 'subnet' || row.status !== 'active') return null;
      // In a cloud the provider is the gateway.
      if (isOfCloudSubnet(network, row.id)) return null;
      const { gateway } = row;
      if (gateway !== null && isThere(network, row.vrfId, gateway)) return null;
      return {
        severity: 'warn',
        subjects: [{ kind: 'prefix', id: row.id }],
        facts: { gateway, prefix: row.prefix },
      };
    },
    (network, touched) => [
      ...prefixesOfSubnet(network, touched),
      ...bothOf(touched, 'address').flatMap((row) => prefixesOfHost(network, hostOf(row))),
      ...bothOf(touched, 'redundancy').flatMap((part) => prefixesOfHost(network, part.virtual)),
      ...bothOf(touched, 'port').flatMap((port) =>
        network.find('redundanciesByPort', port.id).flatMap((part) => prefixesOfHost(network, part.virtual)),
      ),
    ],
  ),
  says: ({ gateway, prefix }) =>
    gateway === null
      ? `${prefix} has no gateway: its hosts reach nothing else. Choose one, by convention the first or the last address.`
      : `${gateway}, the gateway of ${prefix}, is on no router. Give it to a port, or to a redundancy group.`,
});

/** RFC 1918, RFC 4193 and RFC 6598. */
const privateSpace = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '100.64.0.0/10', 'fc00::/7'].flatMap(
  (text) => parsePrefix(text) ?? [],
);
export const isPrivate = (address: IpAddress): boolean => privateSpace.some((space) => holds(space, address));

export const privateAtInternet = defineRule({
  key: 'private-at-internet',
  title: 'Private addresses facing the internet',
  why: 'Private addresses are not routed in the internet: nothing comes back to them.',
  standard: 'RFC 1918; RFC 6890',
  reads: { address: ['address', 'portId'], circuit: ['kind', 'aPortId', 'bPortId'] },
  find: rowParts(
    'address',
    (network, row) => {
      const circuit = row.portId === null ? null : circuitAt(network, row.portId);
      const at = parseInterface(row.address);
      if (circuit?.kind !== 'internet' || at === null || !isPrivate(at.address)) return null;
      return { severity: 'bad', subjects: [subjectOf(row)], facts: { circuitId: circuit.id } };
    },
    (network, touched) =>
      bothOf(touched, 'circuit')
        .flatMap(({ aPortId, bPortId }) => [aPortId, bPortId])
        .flatMap((id) => (id === null ? [] : network.find('addressesByPort', id).map((row) => row.id))),
  ),
  says: ({ circuitId }, network, [subject]) =>
    `${titled(network, subject)} is private space on the internet circuit ${nameOf(network, 'circuit', circuitId)}: nothing finds its way back to it. Use the address the provider gave.`,
});

export const addressRules: readonly Rule[] = [
  addressDuplicate,
  virtualDuplicate,
  gatewayNoHost,
  addressOutside,
  addressNotForHosts,
  loopbackLength,
  gatewayMissing,
  privateAtInternet,
];

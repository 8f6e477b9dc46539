import { nextFreeAddress, prefixOf, prefixesAround } from '../../address/plan.ts';
import type { Address } from '../../model/kinds/address.ts';
import type { Prefix } from '../../model/kinds/prefix.ts';
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
} from '../../model/ip.ts';
import type { Network } from '../../model/network.ts';
import { compareNames } from '../../model/order.ts';
import { subnetText } from '../../address/subnet.ts';
import { virtualsOf } from '../../address/virtuals.ts';
import { circuitAt, portTitle } from '../../model/ports.ts';
import { layer2Of } from '../../switching/layer2.ts';
import type { Finding, Rule } from '../finding.ts';
import { tell } from '../tell.ts';

const ownerOf = (network: Network, row: Address): string =>
  row.portId === null
    ? `kept${row.dnsName === null ? '' : ` for ${row.dnsName}`}`
    : `on ${portTitle(network, row.portId)}`;

/** What to do about an address that two have. */
function remedy(network: Network, row: Address): string {
  const at = parseInterface(row.address);
  const prefix = at === null ? null : prefixOf(network, row.vrfId, at.address);
  const next = prefix === null ? null : nextFreeAddress(network, prefix);
  return next === null
    ? 'Give one of them another address.'
    : `Give one of them another, such as ${formatIp(next)}.`;
}

/** One host has an address in a VRF, or one address would answer twice. */
export const addressDuplicate: Rule = {
  key: 'address-duplicate',
  title: 'Addresses given twice',
  find: (network) => {
    const byHost = new Map<string, Address[]>();
    for (const row of network.all('address')) {
      const key = `${row.vrfId ?? ''} ${row.address.slice(0, row.address.indexOf('/'))}`;
      const list = byHost.get(key);
      if (list === undefined) byHost.set(key, [row]);
      else list.push(row);
    }
    return [...byHost.values()].flatMap((given): Finding[] => {
      const rows = given.sort((a, b) => compareNames(ownerOf(network, a), ownerOf(network, b)));
      const [first, second] = rows;
      if (first === undefined || second === undefined) return [];
      const host = first.address.slice(0, first.address.indexOf('/'));
      return [
        tell(
          network,
          'address-duplicate',
          'bad',
          rows.map((row) => ({ kind: 'address', row })),
          `${host} is given ${rows.length} times: ${rows.map((row) => ownerOf(network, row)).join(' and ')}. ${remedy(network, first)}`,
        ),
      ];
    });
  },
};

/** A shared address belongs to one group, and to no port outside of it. */
export const virtualDuplicate: Rule = {
  key: 'virtual-duplicate',
  title: 'Shared addresses that somebody else has',
  find: (network) =>
    virtualsOf(network).flatMap(({ vrfId, address, parts }): Finding[] => {
      const text = formatIp(address);
      const members = new Set(parts.map((part) => part.portId));
      const others = network
        .find('addressesByHost', text)
        .filter((row) => row.vrfId === vrfId && row.portId !== null && !members.has(row.portId));
      const groups = [...new Set(parts.map((part) => part.group))].sort((a, b) => a - b);
      const ports = [...members].map((id) => portTitle(network, id)).sort(compareNames);
      const about = parts.map((row) => ({ kind: 'redundancy' as const, row }));
      const found: Finding[] = [];
      if (others.length > 0)
        found.push(
          tell(
            network,
            'virtual-duplicate',
            'bad',
            [...others.map((row) => ({ kind: 'address' as const, row })), ...about],
            `${text} is shared by ${ports.join(' and ')} (group ${groups.join(', ')}) and is also ${others.map((row) => ownerOf(network, row)).join(' and ')}. Give the port another address, or make it part of the group.`,
          ),
        );
      if (groups.length > 1)
        found.push(
          tell(
            network,
            'virtual-duplicate',
            'bad',
            about,
            `${text} is shared in groups ${groups.join(' and ')} of ${ports.join(' and ')}: the groups do not hear each other and both answer. Use one group for it, or another address for the second.`,
          ),
        );
      return found;
    }),
};

/** A gateway is an address that a host can have. */
export const gatewayNoHost: Rule = {
  key: 'gateway-no-host',
  title: 'Gateways that no host can be',
  find: (network) =>
    [...network.all('prefix')].flatMap((row): Finding[] => {
      const prefix = parsePrefix(row.prefix);
      const gateway = row.gateway === null ? null : parseIp(row.gateway);
      // The first address of an IPv6 subnet is that of all its routers (RFC 4291 section 2.6.1).
      if (prefix?.family !== 4 || gateway === null || row.status === 'retired') return [];
      const { first, last } = usable(prefix);
      if (first <= gateway.value && gateway.value <= last) return [];
      const what = gateway.value < first ? 'network' : 'broadcast';
      return [
        tell(
          network,
          'gateway-no-host',
          'bad',
          [{ kind: 'prefix', row }],
          `${row.gateway ?? ''}, the gateway of ${row.prefix}, is its ${what} address, which no router can have. Choose one from ${formatIp({ family: prefix.family, value: first })} to ${formatIp({ family: prefix.family, value: last })}.`,
        ),
      ];
    }),
};

function misplaced(network: Network, row: Address): string | null {
  const at = parseInterface(row.address);
  if (at === null) return null;
  const { address, length } = at;
  const host = length === bitsOf(address.family);
  const around = prefixesAround(network, row.vrfId, address).filter((one) => one.role !== 'pool');
  const vrf = network.get('vrf', row.vrfId)?.name ?? 'the global table';
  if (around.length === 0)
    return `${row.address} (${ownerOf(network, row)}) is in no prefix of ${vrf}. Add its prefix, or correct the address.`;
  const own = around.find((one) => parsePrefix(one.prefix)?.length === length);
  const inner = around.at(-1);
  if (own !== undefined || inner === undefined || (inner.role === 'loopback' && host)) return null;
  return `${row.address} (${ownerOf(network, row)}) says /${length}, but it is in ${inner.prefix}. Correct the length to /${parsePrefix(inner.prefix)?.length ?? ''}.`;
}

export const addressOutside: Rule = {
  key: 'address-outside-prefix',
  title: 'Addresses outside their prefix',
  find: (network) =>
    [...network.all('address')].flatMap((row): Finding[] => {
      const why = misplaced(network, row);
      return why === null
        ? []
        : [tell(network, 'address-outside-prefix', 'bad', [{ kind: 'address', row }], why)];
    }),
};

/** The first and last address of an IPv4 subnet are not for hosts (RFC 1122 section 3.2.1.3). */
export const addressNotForHosts: Rule = {
  key: 'address-not-for-hosts',
  title: 'Network and broadcast addresses given to hosts',
  find: (network) =>
    [...network.all('address')].flatMap((row): Finding[] => {
      const at = parseInterface(row.address);
      if (at === null || at.address.family === 6 || at.length >= 31) return [];
      const subnet = prefixAround(at.address, at.length);
      const what =
        at.address.value === subnet.value
          ? 'network address'
          : at.address.value === lastOf(subnet).value
            ? 'broadcast address'
            : null;
      if (what === null) return [];
      return [
        tell(
          network,
          'address-not-for-hosts',
          'bad',
          [{ kind: 'address', row }],
          `${row.address} (${ownerOf(network, row)}) is the ${what} of its subnet, which no host can have. Take another.`,
        ),
      ];
    }),
};

export const loopbackLength: Rule = {
  key: 'loopback-length',
  title: 'Loopbacks that are not one address',
  find: (network) =>
    [...network.all('address')].flatMap((row): Finding[] => {
      const port = network.get('port', row.portId);
      const at = parseInterface(row.address);
      if (port?.form !== 'loopback' || at === null || at.length === bitsOf(at.address.family)) return [];
      return [
        tell(
          network,
          'loopback-length',
          'warn',
          [{ kind: 'address', row }],
          `${portTitle(network, port.id)} has ${row.address}: a loopback is one address. Write ${formatIp(at.address)}/${bitsOf(at.address.family)}.`,
        ),
      ];
    }),
};

/** Every virtual address and address on a port, by VRF and host. */
function answered(network: Network): Set<string> {
  const found = new Set<string>();
  for (const row of network.all('address'))
    if (row.portId !== null)
      found.add(`${row.vrfId ?? ''} ${row.address.slice(0, row.address.indexOf('/'))}`);
  for (const part of network.all('redundancy'))
    found.add(`${network.get('port', part.portId)?.vrfId ?? ''} ${part.virtual}`);
  return found;
}

export const gatewayMissing: Rule = {
  key: 'gateway-missing',
  title: 'Gateways that nobody is',
  find: (network) => {
    const there = answered(network);
    return [...network.all('prefix')].flatMap((row): Finding[] => {
      if (row.role !== 'subnet' || row.status !== 'active') return [];
      if (row.gateway !== null && there.has(`${row.vrfId ?? ''} ${row.gateway}`)) return [];
      const message =
        row.gateway === null
          ? `${row.prefix} has no gateway: its hosts reach nothing else. Choose one, by convention the first or the last address.`
          : `${row.gateway}, the gateway of ${row.prefix}, is on no router. Give it to a port, or to a redundancy group.`;
      return [tell(network, 'gateway-missing', 'warn', [{ kind: 'prefix', row }], message)];
    });
  },
};

/** RFC 1918, RFC 4193 and RFC 6598. */
const privateSpace = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', '100.64.0.0/10', 'fc00::/7'].flatMap(
  (text) => parsePrefix(text) ?? [],
);
export const isPrivate = (address: IpAddress): boolean => privateSpace.some((space) => holds(space, address));

export const privateAtInternet: Rule = {
  key: 'private-at-internet',
  title: 'Private addresses facing the internet',
  find: (network) =>
    [...network.all('address')].flatMap((row): Finding[] => {
      const circuit = row.portId === null ? null : circuitAt(network, row.portId);
      const at = parseInterface(row.address);
      if (circuit?.kind !== 'internet' || at === null || !isPrivate(at.address)) return [];
      return [
        tell(
          network,
          'private-at-internet',
          'bad',
          [{ kind: 'address', row }],
          `${row.address} (${ownerOf(network, row)}) is private space on the internet circuit ${circuit.number}: nothing finds its way back to it. Use the address the provider gave.`,
        ),
      ];
    }),
};

/** Addresses of ports by the broadcast domain that their port is in. */
function bySegment(network: Network): Map<string, { row: Address; subnet: string }[]> {
  const layer2 = layer2Of(network);
  const found = new Map<string, { row: Address; subnet: string }[]>();
  for (const row of network.all('address')) {
    const port = network.get('port', row.portId);
    const segment = port === null ? null : layer2.segmentOf(port);
    const subnet = subnetText(row);
    if (segment === null || subnet === null) continue;
    found.set(segment, [...(found.get(segment) ?? []), { row, subnet }]);
  }
  return found;
}

/** The ends of one link speak to each other only inside one subnet. */
export const linkEndsDiffer: Rule = {
  key: 'link-ends-differ',
  title: 'Links whose ends are in different subnets',
  find: (network) =>
    [...bySegment(network)].flatMap(([segment, here]): Finding[] => {
      if (!segment.startsWith('l')) return [];
      const ports = [...new Set(here.map(({ row }) => row.portId))];
      const [a, b] = ports.map((id) => here.filter(({ row }) => row.portId === id));
      if (a === undefined || b === undefined) return [];
      const families = [4, 6] as const;
      return families.flatMap((family): Finding[] => {
        const of = (side: typeof here) =>
          side.filter(({ row }) => parseInterface(row.address)?.address.family === family);
        const [x, y] = [of(a), of(b)];
        const [first, second] = [x[0]?.row, y[0]?.row];
        if (first === undefined || second === undefined) return [];
        if (x.some((one) => y.some((other) => other.subnet === one.subnet))) return [];
        return [
          tell(
            network,
            'link-ends-differ',
            'bad',
            [
              { kind: 'address', row: first },
              { kind: 'address', row: second },
            ],
            `The ends of one link are in different subnets: ${first.address} ${ownerOf(network, first)}, ${second.address} ${ownerOf(network, second)}. Put both into one.`,
          ),
        ];
      });
    }),
};

/** A subnet is one broadcast domain: hosts of it on two VLANs do not hear each other. */
export const prefixOnTwoVlans: Rule = {
  key: 'prefix-on-two-vlans',
  title: 'Prefixes on two VLANs',
  find: (network) => {
    const seen = new Map<string, Map<string, Address>>();
    for (const [segment, here] of bySegment(network))
      for (const { row, subnet } of here) {
        const key = `${row.vrfId ?? ''} ${subnet}`;
        const segments = seen.get(key) ?? new Map<string, Address>();
        if (!segments.has(segment)) segments.set(segment, row);
        seen.set(key, segments);
      }
    return [...seen].flatMap(([key, segments]): Finding[] => {
      const [first, second] = [...segments.values()];
      if (first === undefined || second === undefined) return [];
      const at = parseInterface(first.address);
      const prefix: Prefix | null = at === null ? null : prefixOf(network, first.vrfId, at.address);
      const text = key.slice(key.indexOf(' ') + 1);
      return [
        tell(
          network,
          'prefix-on-two-vlans',
          'bad',
          [
            ...(prefix === null ? [] : [{ kind: 'prefix' as const, row: prefix }]),
            { kind: 'address', row: first },
            { kind: 'address', row: second },
          ],
          `${text} is in ${segments.size} places that do not hear each other: ${first.address} ${ownerOf(network, first)}, ${second.address} ${ownerOf(network, second)}. Join their VLANs, or give one its own prefix.`,
        ),
      ];
    });
  },
};

export const addressRules: readonly Rule[] = [
  addressDuplicate,
  virtualDuplicate,
  gatewayNoHost,
  addressOutside,
  addressNotForHosts,
  loopbackLength,
  gatewayMissing,
  privateAtInternet,
  linkEndsDiffer,
  prefixOnTwoVlans,
];

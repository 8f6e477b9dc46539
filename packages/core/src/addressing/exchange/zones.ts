import { compareIp, formatIp, parseInterface, type IpAddress } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';

interface Named {
  name: string;
  address: IpAddress;
}

/** Addresses that have a DNS name, in order of address; each pair once. */
function namedAddresses(network: Network): Named[] {
  const found = new Map<string, Named>();
  for (const row of network.all('address')) {
    const at = parseInterface(row.address);
    if (row.dnsName === null || at === null) continue;
    const name = row.dnsName.toLowerCase();
    found.set(`${name} ${formatIp(at.address)}`, { name, address: at.address });
  }
  return [...found.values()].sort((a, b) => compareIp(a.address, b.address) || (a.name < b.name ? -1 : 1));
}

/** The domain that a name is in: all behind its first label; null for a name of one label. */
const domainOf = (name: string): string | null => {
  const dot = name.indexOf('.');
  return dot < 0 ? null : name.slice(dot + 1);
};

/** The reverse name of an address (RFC 1035 section 3.5, RFC 3596 section 2.5), without the dot at its end. */
export function reverseName(address: IpAddress): string {
  if (address.family === 4) return `${formatIp(address).split('.').reverse().join('.')}.in-addr.arpa`;
  const digits = address.value.toString(16).padStart(32, '0');
  return `${[...digits].reverse().join('.')}.ip6.arpa`;
}

/** The zone that the reverse of an address is kept in: a /24 of IPv4, a /64 of IPv6. */
function reverseZone(address: IpAddress): string {
  const labels = reverseName(address).split('.');
  return labels.slice(address.family === 4 ? 1 : 16).join('.');
}

/** Every zone that the named addresses make: the domains, then the reverse zones. */
export function zoneNames(network: Network): string[] {
  const named = namedAddresses(network);
  const forward = new Set(named.flatMap(({ name }) => domainOf(name) ?? []));
  const reverse = new Set(named.map(({ address }) => reverseZone(address)));
  return [...[...forward].sort(), ...reverse];
}

const serialStart = Date.UTC(2026, 10, 28);

/**
 * A serial for a zone made at a moment (milliseconds since 1970): it rises with every second (RFC 1982), and is above
 * those of year, month, day and two digits that were written before it counted so.
 */
export const zoneSerial = (moment: number): number =>
  2026112800 + Math.max(0, Math.floor((moment - serialStart) / 1000));

/** Names in a domain by which name servers go: `ns`, `ns1`, `ns2` … */
const serversOf = (named: readonly Named[], domain: string): string[] =>
  [...new Set(named.map(({ name }) => name))]
    .filter((name) => domainOf(name) === domain && /^ns\d*\./.test(name))
    .sort();

/** `A` or `AAAA` of a name. */
const addressRecord = (label: string, address: IpAddress): string =>
  `${label}\tIN\t${address.family === 4 ? 'A' : 'AAAA'}\t${formatIp(address)}`;

/**
 * A zone as a master file (RFC 1035 section 5): A and AAAA of a domain, or PTR of a reverse zone, which a name server
 * loads as it is. Its servers are the addresses called `ns`, `ns1` … in the domain; where there are none the file says
 * so and names `ns.invalid` (RFC 2606), because a server in the zone without an address would be refused. Null for a
 * zone that no address is in.
 */
export function zoneFile(network: Network, zone: string, serial: number): string | null {
  const named = namedAddresses(network);
  const reverse = zone.endsWith('.arpa');
  const records = reverse
    ? named
        .filter(({ address }) => reverseZone(address) === zone)
        .map(({ name, address }) => {
          const own = reverseName(address).slice(0, -zone.length - 1);
          return `${own}\tIN\tPTR\t${name}.`;
        })
    : named
        .filter(({ name }) => domainOf(name) === zone)
        .map(({ name, address }) => addressRecord(name.slice(0, name.indexOf('.')), address));
  if (records.length === 0) return null;
  const inZone = reverse ? named.filter(({ address }) => reverseZone(address) === zone) : [];
  const home = reverse ? (inZone.flatMap(({ name }) => domainOf(name) ?? [])[0] ?? null) : zone;
  const servers = home === null ? [] : serversOf(named, home);
  const [first = 'ns.invalid'] = servers;
  return [
    `$ORIGIN ${zone}.`,
    '$TTL 3600',
    ...(servers.length > 0
      ? []
      : [
          `; No address is called ns.${home ?? 'invalid'}: put the name of the name server in place of ns.invalid.`,
        ]),
    `@\tIN\tSOA\t${first}. hostmaster.${home ?? 'invalid'}. ${serial} 7200 900 1209600 3600`,
    ...(servers.length > 0 ? servers : [first]).map((name) => `@\tIN\tNS\t${name}.`),
    ...records,
    '',
  ].join('\n');
}

/** A hosts file: address, whole name, first label. */
export const hostsFile = (network: Network): string =>
  [
    '# Made from the address plan.',
    ...namedAddresses(network).map(({ name, address }) => {
      const short = name.split('.')[0] ?? name;
      return `${formatIp(address)}\t${name}${short === name ? '' : ` ${short}`}`;
    }),
    '',
  ].join('\n');

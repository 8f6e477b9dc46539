import { compareIp, formatIp, parseInterface, type IpAddress } from '../model/ip.ts';
import type { Network } from '../model/network.ts';

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

/**
 * A zone as a master file (RFC 1035 section 5): A and AAAA of a domain, or PTR of a reverse zone. The server's name is
 * `ns` in the domain. Null for a zone that no address is in. `serial` is usually year, month, day and two digits.
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
        .map(
          ({ name, address }) =>
            `${name.slice(0, name.indexOf('.'))}\tIN\t${address.family === 4 ? 'A' : 'AAAA'}\t${formatIp(address)}`,
        );
  if (records.length === 0) return null;
  const home = reverse ? (named.flatMap(({ name }) => domainOf(name) ?? [])[0] ?? 'invalid') : zone;
  return [
    `$ORIGIN ${zone}.`,
    '$TTL 3600',
    `@\tIN\tSOA\tns.${home}. hostmaster.${home}. ${serial} 7200 900 1209600 3600`,
    `@\tIN\tNS\tns.${home}.`,
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

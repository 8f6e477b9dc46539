import { hasPorts, type Protocol } from '../model/kinds/cloud/ports.ts';
import type { TrafficRule } from '../model/kinds/cloud/ruleSet.ts';

/** A service by its name in the registry of service names and port numbers (RFC 6335). */
export interface Service {
  name: string;
  protocol: Protocol;
  port: number;
  title: string;
  /** It is what things are looked after by: open to everybody it is an invitation. */
  admin?: true;
}

/** Services that rules are written for, by the names of the registry (RFC 6335). */
export const services: readonly Service[] = [
  { name: 'ftp-data', protocol: 'TCP', port: 20, title: 'file transfer, data' },
  { name: 'ftp', protocol: 'TCP', port: 21, title: 'file transfer', admin: true },
  { name: 'ssh', protocol: 'TCP', port: 22, title: 'secure shell', admin: true },
  { name: 'telnet', protocol: 'TCP', port: 23, title: 'terminal without encryption', admin: true },
  { name: 'smtp', protocol: 'TCP', port: 25, title: 'mail between servers' },
  { name: 'domain', protocol: 'UDP', port: 53, title: 'names' },
  { name: 'domain', protocol: 'TCP', port: 53, title: 'names, long answers' },
  { name: 'bootps', protocol: 'UDP', port: 67, title: 'DHCP server' },
  { name: 'tftp', protocol: 'UDP', port: 69, title: 'plain file transfer', admin: true },
  { name: 'http', protocol: 'TCP', port: 80, title: 'web without encryption' },
  { name: 'kerberos', protocol: 'TCP', port: 88, title: 'tickets of sign-in' },
  { name: 'ntp', protocol: 'UDP', port: 123, title: 'time' },
  { name: 'snmp', protocol: 'UDP', port: 161, title: 'management of devices', admin: true },
  { name: 'snmptrap', protocol: 'UDP', port: 162, title: 'alarms of devices' },
  { name: 'bgp', protocol: 'TCP', port: 179, title: 'routes between networks' },
  { name: 'ldap', protocol: 'TCP', port: 389, title: 'directory' },
  { name: 'https', protocol: 'TCP', port: 443, title: 'web' },
  { name: 'isakmp', protocol: 'UDP', port: 500, title: 'keys of tunnels' },
  { name: 'syslog', protocol: 'UDP', port: 514, title: 'log' },
  { name: 'rtsp', protocol: 'TCP', port: 554, title: 'pictures of cameras' },
  { name: 'submission', protocol: 'TCP', port: 587, title: 'mail handed in' },
  { name: 'ldaps', protocol: 'TCP', port: 636, title: 'directory, encrypted' },
  { name: 'netconf-ssh', protocol: 'TCP', port: 830, title: 'settings of devices', admin: true },
  { name: 'imaps', protocol: 'TCP', port: 993, title: 'mail read, encrypted' },
  { name: 'radius', protocol: 'UDP', port: 1812, title: 'who may join' },
  { name: 'nfs', protocol: 'TCP', port: 2049, title: 'shared files' },
  { name: 'ipsec-nat-t', protocol: 'UDP', port: 4500, title: 'tunnels through translation' },
  { name: 'sip', protocol: 'UDP', port: 5060, title: 'calls' },
  { name: 'sips', protocol: 'TCP', port: 5061, title: 'calls, encrypted' },
  { name: 'amqps', protocol: 'TCP', port: 5671, title: 'messages, encrypted' },
  { name: 'amqp', protocol: 'TCP', port: 5672, title: 'messages' },
  { name: 'rfb', protocol: 'TCP', port: 5900, title: 'screen from afar', admin: true },
  { name: 'syslog-tls', protocol: 'TCP', port: 6514, title: 'log, encrypted' },
  { name: 'http-alt', protocol: 'TCP', port: 8080, title: 'web, second port' },
  { name: 'secure-mqtt', protocol: 'TCP', port: 8883, title: 'telemetry, encrypted' },
];

/** Ports by which things are looked after, with what else is used for it and has no name of its own in that registry. */
export const adminPorts: readonly { protocol: Protocol; port: number; title: string }[] = [
  ...services
    .filter(({ admin }) => admin === true)
    .map(({ protocol, port, title }) => ({ protocol, port, title })),
  { protocol: 'TCP', port: 3389, title: 'desktop from afar' },
];

/** The name of a service, where it is just one port of a protocol; null for all else. */
export const serviceName = (protocol: Protocol, ports: string | null): string | null =>
  services.find((one) => one.protocol === protocol && String(one.port) === ports)?.name ?? null;

/** Services whose name begins as typed, or whose title holds it, best first. */
export function servicesLike(text: string): Service[] {
  const word = text.trim().toLowerCase();
  const rank = ({ name, port, title }: Service): number =>
    name === word || String(port) === word ? 0 : name.startsWith(word) ? 1 : title.includes(word) ? 2 : 3;
  return services.filter((one) => rank(one) < 3).sort((a, b) => rank(a) - rank(b) || a.port - b.port);
}

/** What a rule is about, in words: a service by its name, or protocol and ports. */
export function trafficText({ protocol, ports }: Pick<TrafficRule, 'protocol' | 'ports'>): string {
  const service = serviceName(protocol, ports);
  if (protocol === 'any') return 'anything';
  if (ports === null) return hasPorts(protocol) ? `${protocol} to any port` : protocol;
  return service === null ? `${protocol} ${ports}` : `${service} (${protocol} ${ports})`;
}

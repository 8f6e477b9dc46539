import { addressesInSet } from './members.ts';
import { allPorts, hasPorts, readPorts, type PortRange } from '../../model/kinds/cloud/ports.ts';
import type { TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import type { Network } from '../../model/network/network.ts';
import { everywhere, lastOf, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import { spansUnited, trafficOf, type Peers, type Span, type Traffic } from './traffic.ts';

const spanOf = (prefix: IpPrefix): Span => ({ from: prefix.value, to: lastOf(prefix).value });

/** Prefixes as peers. */
export function peersOfPrefixes(prefixes: readonly IpPrefix[]): Peers {
  const found = new Map<string, readonly Span[]>();
  for (const family of [4, 6] as const) {
    const spans = spansUnited(prefixes.filter((one) => one.family === family).map(spanOf), []);
    if (spans.length > 0) found.set(String(family), spans);
  }
  return found;
}
export const everybody: Peers = peersOfPrefixes([everywhere[4], everywhere[6]]);

const read = (texts: readonly string[]): IpPrefix[] => texts.flatMap((text) => parsePrefix(text) ?? []);

/** Whom a rule is about: by prefix, by the prefixes of a list, by who is in a rule set now, or everybody. */
export function peersOf(network: Network, rule: TrafficRule): Peers {
  if (rule.prefix !== null) return peersOfPrefixes(read([rule.prefix]));
  if (rule.listId !== null)
    return peersOfPrefixes(read(network.get('prefixList', rule.listId)?.prefixes ?? []));
  if (rule.peerSetId !== null) return peersOfPrefixes(addressesInSet(network, rule.peerSetId));
  return everybody;
}

export function rangesOf({ protocol, ports }: Pick<TrafficRule, 'protocol' | 'ports'>): readonly PortRange[] {
  if (ports === null || !hasPorts(protocol)) return [allPorts];
  const found = readPorts(ports);
  return found.ok ? found.ranges : [];
}

/** ICMP is of IPv4, ICMPv6 of IPv6. */
const ofFamily: Partial<Record<TrafficRule['protocol'], '4' | '6'>> = { ICMP: '4', ICMPv6: '6' };

function inFamily(peers: Peers, protocol: TrafficRule['protocol']): Peers {
  const family = ofFamily[protocol];
  if (family === undefined) return peers;
  return new Map([...peers].filter(([space]) => space !== (family === '4' ? '6' : '4')));
}

/** The packets that a rule is about, with those who are in rule sets now. */
export const trafficOfRule = (network: Network, rule: TrafficRule): Traffic =>
  trafficOf(rule.protocol, rangesOf(rule), inFamily(peersOf(network, rule), rule.protocol));

/** The space of those who will be in a rule set, whoever they are. */
export const setSpace = (setId: string): string => `set ${setId}`;

/** The same whoever will be in rule sets: the members of one are a space of their own. */
export const trafficOfRuleAlways = (network: Network, rule: TrafficRule): Traffic =>
  rule.peerSetId === null
    ? trafficOfRule(network, rule)
    : trafficOf(rule.protocol, rangesOf(rule), new Map([[setSpace(rule.peerSetId), [{ from: 0n, to: 0n }]]]));

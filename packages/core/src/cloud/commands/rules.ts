import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { profileAround } from '../../model/network/cloudPlaces.ts';
import {
  blankRuleSet,
  blankTrafficRule,
  type RuleSet,
  type TrafficRule,
} from '../../model/kinds/cloud/ruleSet.ts';
import { hasPorts, portsText, protocols, readPorts, type Protocol } from '../../model/kinds/cloud/ports.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import { formatPrefix, parseIp, prefixAround, readPrefix } from '../../model/values/ip.ts';
import type { Network } from '../../model/network/network.ts';
import { rulesOf } from '../rules/letsPass.ts';
import { services, trafficText } from '../services.ts';
import type { Made } from './places.ts';

/** What of a rule is chosen; where it stands in its set follows. */
export type RuleWish = Pick<
  TrafficRule,
  'direction' | 'verdict' | 'protocol' | 'ports' | 'prefix' | 'listId' | 'peerSetId' | 'notes'
>;
export const anyRule: RuleWish = {
  ...{ direction: 'in', verdict: 'allow', protocol: 'TCP', ports: null },
  ...{ prefix: null, listId: null, peerSetId: null, notes: null },
};

/** Rules are numbered in tens, so that others fit between. */
const step = 10;

/** A rule set of a network, of a sort of the profile or as it is usual. */
export function addRuleSet(
  network: Network,
  place: Place,
  wish: { name: string; sort: string | null },
): Made<{ ruleSet: RuleSet }> {
  const sort = profileAround(network, place.id)?.ruleSets.find((one) => one.sort === wish.sort);
  const row: RuleSet = {
    ...blankRuleSet,
    ...(sort === undefined
      ? {}
      : {
          ...{ sort: sort.sort, ties: sort.ties, remembers: sort.remembers, ordered: sort.ordered },
          ...{ otherwiseIn: sort.otherwiseIn, otherwiseOut: sort.otherwiseOut },
        }),
    ...{ id: newId(), placeId: place.id, name: wish.name.trim() },
  };
  const attempt = judged(
    network,
    [create('ruleSet', row)],
    `Added the rule set ${row.name} to ${place.name}`,
  );
  return attempt.ok ? { ...attempt, ruleSet: row } : attempt;
}

/** A rule at the end of its direction, or before another. */
export function addRule(
  network: Network,
  set: RuleSet,
  wish: RuleWish,
  before: TrafficRule | null = null,
): Attempt {
  const rules = rulesOf(network, set.id, wish.direction);
  const end = (rules.at(-1)?.position ?? 0) + step;
  const row: TrafficRule = { ...blankTrafficRule, ...wish, id: newId(), setId: set.id, position: end };
  const sentence = `Added to ${set.name}: ${ruleSentence(network, row)}`;
  if (before === null) return judged(network, [create('trafficRule', row)], sentence);
  const at = rules.findIndex(({ id }) => id === before.id);
  const previous = rules[at - 1]?.position ?? 0;
  if (before.position - previous > 1)
    return judged(
      network,
      [create('trafficRule', { ...row, position: Math.floor((previous + before.position) / 2) })],
      sentence,
    );
  return judged(network, renumbered([...rules.slice(0, at), row, ...rules.slice(at)], row), sentence);
}

/** The rules in this order, numbered in tens; one of them may be new. */
function renumbered(rules: readonly TrafficRule[], fresh: TrafficRule | null): (Change | null)[] {
  return rules.map((rule, index) => {
    const position = (index + 1) * step;
    return rule === fresh
      ? create('trafficRule', { ...rule, position })
      : update('trafficRule', rule, { position });
  });
}

export const changeRule = (network: Network, rule: TrafficRule, wish: Partial<RuleWish>): Attempt =>
  judged(
    network,
    [update('trafficRule', rule, wish)],
    `Changed a rule of ${network.get('ruleSet', rule.setId)?.name ?? ''}: ${ruleSentence(network, { ...rule, ...wish })}`,
  );

export const dropRule = (network: Network, rule: TrafficRule): Attempt =>
  judged(
    network,
    [remove('trafficRule', rule)],
    `Took out of ${network.get('ruleSet', rule.setId)?.name ?? ''}: ${ruleSentence(network, rule)}`,
  );

/** Moves a rule one place up or down within its direction. */
export function moveRule(network: Network, rule: TrafficRule, by: -1 | 1): Attempt {
  const rules = rulesOf(network, rule.setId, rule.direction);
  const at = rules.findIndex(({ id }) => id === rule.id);
  const other = rules[at + by];
  if (other === undefined) return refuse(`It stands ${by < 0 ? 'first' : 'last'} already.`);
  return judged(
    network,
    [
      update('trafficRule', rule, { position: other.position }),
      update('trafficRule', other, { position: rule.position }),
    ],
    `Moved a rule of ${network.get('ruleSet', rule.setId)?.name ?? ''} ${by < 0 ? 'up' : 'down'}`,
  );
}

/** Whom a rule is about, in words. */
export function peerText(
  network: Network,
  rule: Pick<TrafficRule, 'prefix' | 'listId' | 'peerSetId'>,
): string {
  if (rule.prefix !== null) return rule.prefix;
  if (rule.listId !== null) return network.get('prefixList', rule.listId)?.name ?? '';
  if (rule.peerSetId !== null) return `members of ${network.get('ruleSet', rule.peerSetId)?.name ?? ''}`;
  return 'everybody';
}

/** A rule as one says it: "allow https (TCP 443) from everybody". */
export const ruleSentence = (network: Network, rule: RuleWish): string =>
  `${rule.verdict} ${trafficText(rule)} ${rule.direction === 'in' ? 'from' : 'to'} ${peerText(network, rule)}`;

/** What somebody means by protocol and ports: `https`, `tcp 8000-8100`, `443`, `icmp`, `any`. */
export function readTraffic(text: string): { protocol: Protocol; ports: string | null } | { why: string } {
  const word = text.trim().toLowerCase();
  if (word === '' || word === 'any' || word === 'anything') return { protocol: 'any', ports: null };
  const service = services.find(({ name }) => name === word);
  if (service !== undefined) return { protocol: service.protocol, ports: String(service.port) };
  const parts = /^(tcp|udp|sctp|icmpv6|icmp|gre|esp|ah)?\s*(.*)$/.exec(word);
  const named = parts?.[1];
  const protocol: Protocol = protocols.find((one) => one.toLowerCase() === named) ?? 'TCP';
  const rest = parts?.[2] ?? '';
  if (rest === '') return { protocol, ports: null };
  if (!hasPorts(protocol)) return { why: `${protocol} has no ports. Leave them out.` };
  if (!/^[\d\s,-]+$/.test(rest))
    return {
      why: `“${text.trim()}” is no service of that name, nor ports. Write https, TCP 8000-8100, or any.`,
    };
  const read = readPorts(rest);
  return read.ok ? { protocol, ports: portsText(read.ranges) } : { why: `The ports ${read.reason}.` };
}

/** What somebody means by a peer: `everybody`, an address, a prefix, the name of a list or of a rule set of the network. */
export function readPeer(
  network: Network,
  placeId: string | null,
  text: string,
): Pick<TrafficRule, 'prefix' | 'listId' | 'peerSetId'> | { why: string } {
  const word = text.trim().toLowerCase();
  const nobody = { prefix: null, listId: null, peerSetId: null };
  if (word === '' || word === 'everybody' || word === 'any') return nobody;
  const ip = parseIp(word);
  if (ip !== null) return { ...nobody, prefix: formatPrefix(prefixAround(ip, ip.family === 4 ? 32 : 128)) };
  if (word.includes('/')) {
    const read = readPrefix(word);
    return read.ok
      ? { ...nobody, prefix: formatPrefix(read.prefix) }
      : { why: `“${text.trim()}” ${read.reason}.` };
  }
  const list = [...network.all('prefixList')].find(({ name }) => name.toLowerCase() === word);
  if (list !== undefined) return { ...nobody, listId: list.id };
  const set = network
    .find('ruleSetsByNetwork', placeId ?? '')
    .find(({ name }) => name.toLowerCase() === word.replace(/^members of /, ''));
  return set === undefined
    ? {
        why: `“${text.trim()}” is no address, list or rule set here. Write 10.40.0.0/14, everybody, or the name of one.`,
      }
    : { ...nobody, peerSetId: set.id };
}

import type { RuleSet, TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import type { Network } from '../../model/network/network.ts';
import { rulesOf, type RuleDirection } from './letsPass.ts';
import { everybody, setSpace, trafficOfRuleAlways } from './ruleTraffic.ts';
import {
  isNone,
  meet,
  noTraffic,
  portsMeet,
  spansWithout,
  united,
  without,
  type Peers,
  type Traffic,
} from './traffic.ts';

/** A rule that changes nothing, and the rules that see to it. */
export interface ShadowedRule {
  rule: TrafficRule;
  /** All it says has been decided before it, or is denied by others; or it only says again what others allow. */
  how: 'decided before' | 'denied' | 'said already';
  by: TrafficRule[];
}

const isEverybody = (peers: Peers): boolean =>
  [...everybody].every(([space, spans]) => spansWithout(spans, peers.get(space) ?? []).length === 0);

/** Where everybody is covered, the members of any rule set are. */
function coverSets(traffic: Traffic, spaces: readonly string[]): Traffic {
  if (spaces.length === 0) return traffic;
  const members = spaces.map((space) => [space, [{ from: 0n, to: 0n }]] as const);
  return new Map(
    [...traffic].map(([atom, segments]) => [
      atom,
      segments.map((segment) =>
        isEverybody(segment.peers) ||
        (atom === 'ICMP' && coversFamily(segment.peers, '4')) ||
        (atom === 'ICMPv6' && coversFamily(segment.peers, '6'))
          ? { ...segment, peers: new Map([...segment.peers, ...members]) }
          : segment,
      ),
    ]),
  );
}
const coversFamily = (peers: Peers, family: '4' | '6'): boolean =>
  spansWithout(everybody.get(family) ?? [], peers.get(family) ?? []).length === 0;

/** The packets of a rule, whoever is in rule sets. */
type TrafficOf = (rule: TrafficRule) => Traffic;

/** The rules among these that cover a rule together, one alone where one does; null: they do not. */
function coveredBy(
  trafficBy: TrafficOf,
  rule: TrafficRule,
  candidates: readonly TrafficRule[],
): TrafficRule[] | null {
  const own = trafficBy(rule);
  if (isNone(own)) return null;
  const spaces = rule.peerSetId === null ? [] : [setSpace(rule.peerSetId)];
  // What has no packet in common with it covers nothing of it; members of a set are covered by everybody alone.
  const meets = spaces.length > 0 ? portsMeet : meet;
  const others = candidates.filter((one) => meets(own, trafficBy(one)));
  if (others.length === 0) return null;
  const covers = (all: readonly TrafficRule[]): boolean => {
    const sum = all.reduce((so, one) => united(so, trafficBy(one)), noTraffic);
    return isNone(without(own, coverSets(sum, spaces)));
  };
  const alone = others.find((one) => covers([one]));
  if (alone !== undefined) return [alone];
  if (!covers(others)) return null;
  // Those without which the rest covers it as well say nothing of why.
  let needed = [...others];
  for (const one of others) {
    const rest = needed.filter((other) => other !== one);
    if (covers(rest)) needed = rest;
  }
  return needed;
}

/**
 * The rules of a set that could be taken out without any packet faring otherwise: in a set in order what comes before
 * decides all of it; otherwise all it allows is denied, or allowed by another rule as well. Of two that say the same the
 * later counts as superfluous. Holds whoever will be a member of the rule sets that are named as peers.
 */
export function shadowedRules(network: Network, set: RuleSet, direction: RuleDirection): ShadowedRule[] {
  const rules = rulesOf(network, set.id, direction);
  const known = new Map(rules.map((rule) => [rule, trafficOfRuleAlways(network, rule)]));
  const trafficBy: TrafficOf = (rule) => known.get(rule) ?? noTraffic;
  const found: ShadowedRule[] = [];
  const kept = new Set(rules);
  const add = (rule: TrafficRule, how: ShadowedRule['how'], by: TrafficRule[] | null): boolean => {
    if (by === null || by.length === 0) return false;
    found.unshift({ rule, how, by });
    kept.delete(rule);
    return true;
  };
  // From the last, so that of two that say the same the later is the one too many.
  for (const rule of [...rules].reverse()) {
    const others = [...kept].filter((one) => one !== rule);
    if (set.ordered) {
      const before = others.filter(({ position }) => position < rule.position);
      add(rule, 'decided before', coveredBy(trafficBy, rule, before));
      continue;
    }
    const denials = others.filter(({ verdict }) => verdict === 'deny');
    const denied = rule.verdict === 'allow' && add(rule, 'denied', coveredBy(trafficBy, rule, denials));
    const alike = others.filter(({ verdict }) => verdict === rule.verdict);
    if (!denied) add(rule, 'said already', coveredBy(trafficBy, rule, alike));
  }
  return found;
}

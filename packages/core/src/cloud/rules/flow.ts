import type { Protocol } from '../../model/kinds/cloud/ports.ts';
import type { RuleSet, TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import type { Verdict } from '../../model/kinds/cloud/providerProfile.ts';
import type { PortRange } from '../../model/kinds/cloud/ports.ts';
import type { Network } from '../../model/network/network.ts';
import type { IpAddress } from '../../model/values/ip.ts';
import { otherwise, rulesOf, type RuleDirection } from './letsPass.ts';
import { trafficOfRule } from './ruleTraffic.ts';
import { holdsPeer, peersAt, type Atom } from './traffic.ts';

/** What is asked about: a protocol and, where it has ports, the one that is called. */
export interface Flow {
  protocol: Exclude<Protocol, 'any'> | 'other';
  port: number | null;
}

/** Ports from which connections are begun (RFC 6056, section 3.2). */
export const callingPorts: PortRange = { from: 1024, to: 65535 };

/** The destination ports of the packets of a flow: of those that call, or of those that answer. */
export const portsOf = ({ protocol, port }: Flow, answering: boolean): PortRange => {
  const ported = protocol === 'TCP' || protocol === 'UDP' || protocol === 'SCTP';
  if (!ported || port === null) return { from: 0, to: 65535 };
  return answering ? callingPorts : { from: port, to: port };
};

export const atomOf = ({ protocol }: Flow): Atom => protocol;

/** Whether a rule is about all of these packets, or some of them at least. */
function fits(
  network: Network,
  rule: TrafficRule,
  flow: Flow,
  ports: PortRange,
  peer: IpAddress,
): 'all' | 'some' | 'none' {
  const traffic = trafficOfRule(network, rule);
  const space = String(peer.family);
  if (holdsPeer(peersAt(traffic, atomOf(flow), ports), space, peer.value)) return 'all';
  const some = (traffic.get(atomOf(flow)) ?? []).some(
    ({ from, to, peers }) => from <= ports.to && to >= ports.from && holdsPeer(peers, space, peer.value),
  );
  return some ? 'some' : 'none';
}

/** What a rule set says of packets, and the rule that says it; null: none does, it is what becomes of the others. */
export interface SetVerdict {
  setId: string;
  verdict: Verdict;
  ruleId: string | null;
}

/** Decides packets rule by rule, as the set is read. What is denied for some of the ports asked about is denied. */
export function verdictOf(
  network: Network,
  set: RuleSet,
  direction: RuleDirection,
  flow: Flow,
  peer: IpAddress,
  answering = false,
): SetVerdict {
  const ports = portsOf(flow, answering);
  const rules = rulesOf(network, set.id, direction);
  const said = (verdict: Verdict, rule: TrafficRule | null): SetVerdict => ({
    setId: set.id,
    verdict,
    ruleId: rule?.id ?? null,
  });
  const denial = rules.find(
    (rule) => rule.verdict === 'deny' && fits(network, rule, flow, ports, peer) !== 'none',
  );
  if (!set.ordered) {
    if (denial !== undefined) return said('deny', denial);
    const allowing = rules.find(
      (rule) => rule.verdict === 'allow' && fits(network, rule, flow, ports, peer) === 'all',
    );
    return allowing === undefined ? said(otherwise(set, direction), null) : said('allow', allowing);
  }
  for (const rule of rules) {
    const fit = fits(network, rule, flow, ports, peer);
    if (fit === 'all') return said(rule.verdict, rule);
    // Some of the ports are denied here already: an answer that needs any of them cannot rely on the rest.
    if (fit === 'some' && rule.verdict === 'deny') return said('deny', rule);
  }
  return said(otherwise(set, direction), null);
}

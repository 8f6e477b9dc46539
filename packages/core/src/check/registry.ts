import type { Subject } from '../change/removal.ts';
import { derived } from '../model/network/derived.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import type { Finding, Rule, Severity } from './finding.ts';
import type { Mend } from './mend.ts';
import { subjectText } from './names.ts';
import { addressRules } from '../addressing/checks/addresses.ts';
import { managementAddress } from '../addressing/checks/managementAddress.ts';
import { prefixRules } from '../addressing/checks/prefixes.ts';
import { routingRules } from '../routing/checks/routing.ts';
import { segmentRules } from '../switching/checks/segments.ts';
import { spanningTreeRules } from '../switching/checks/spanningTree.ts';
import { vlanRules } from '../switching/checks/vlans.ts';
import { labelGaps } from '../cabling/checks/labelGaps.ts';
import { linkRules } from '../cabling/checks/links.ts';
import { openCables } from '../cabling/checks/openCables.ts';
import { poeBudget } from '../cabling/checks/poeBudget.ts';
import { strandsMissing } from '../cabling/checks/strands.ts';
import { rackLimits } from '../racks/checks/rackLimits.ts';

/** Every rule there is; a new one is one file and one line here. */
export const rules: readonly Rule[] = [
  openCables,
  labelGaps,
  rackLimits,
  ...linkRules,
  poeBudget,
  strandsMissing,
  ...vlanRules,
  ...spanningTreeRules,
  ...prefixRules,
  ...addressRules,
  ...segmentRules,
  ...routingRules,
  managementAddress,
];
const byKey: ReadonlyMap<string, Rule> = new Map(rules.map((rule) => [rule.key, rule]));

/**
 * All findings of all rules, as data, in no particular order. Kept for the network; after an edit only what it can
 * concern is judged again.
 */
export const findingsOf: (network: Network) => readonly Finding[] = derived((network) =>
  rules.flatMap((rule) => rule.findings(network)),
);

/** A finding in words. */
export interface ToldFinding {
  rule: string;
  severity: Severity;
  /** What it is about, as people and files call it: "cable AH-00017". */
  about: string[];
  /** The same things by id, the first of them the one it is shown at. */
  rows: Subject[];
  message: string;
}

function ruleOf({ rule: key }: Finding): Rule {
  const rule = byKey.get(key);
  if (rule === undefined) throw new Error(`There is no rule ${key}.`);
  return rule;
}

/**
 * The steps that would set a finding right, each by itself; none where only a person can know. Made for the whole
 * network as it is now: a step that has become impossible is not among them.
 */
export const mendsOf = (network: Network, finding: Finding): Mend[] =>
  ruleOf(finding).mends(finding, network);

/** What a finding says in a network that it was found in. */
export function tellFinding(network: Network, finding: Finding): ToldFinding {
  const rule = ruleOf(finding);
  return {
    rule: finding.rule,
    severity: finding.severity,
    about: rule.about?.(finding, network) ?? finding.subjects.map((subject) => subjectText(network, subject)),
    rows: [...finding.subjects],
    message: rule.says(finding, network),
  };
}

const weight = { bad: 0, warn: 1 };

const worstFirst = (a: ToldFinding, b: ToldFinding): number =>
  weight[a.severity] - weight[b.severity] ||
  (a.rule < b.rule ? -1 : a.rule > b.rule ? 1 : 0) ||
  compareNames(a.about[0] ?? '', b.about[0] ?? '') ||
  compareNames(a.message, b.message);

/** Findings with what they say, the bad ones first. */
export const toldInOrder = (
  network: Network,
  findings: readonly Finding[],
): { finding: Finding; told: ToldFinding; mendable: boolean }[] =>
  findings
    .map((finding) => ({
      finding,
      told: tellFinding(network, finding),
      mendable: ruleOf(finding).mendable,
    }))
    .sort((a, b) => worstFirst(a.told, b.told));

/** All findings of all rules in words, the bad ones first, of what is in force. */
export const checkNetwork = (network: Network): ToldFinding[] =>
  toldInOrder(network, findingsOf(network)).map(({ told }) => told);

import { inForce } from '../lens/inForce.ts';
import type { Network } from '../model/network.ts';
import { compareNames } from '../model/order.ts';
import type { Finding, Rule } from './finding.ts';
import { addressRules } from './rules/addresses.ts';
import { managementAddress } from './rules/managementAddress.ts';
import { prefixRules } from './rules/prefixes.ts';
import { routingRules } from './rules/routing.ts';
import { spanningTreeRules } from './rules/spanningTree.ts';
import { vlanRules } from './rules/vlans.ts';
import { labelGaps } from './rules/labelGaps.ts';
import { links } from './rules/links.ts';
import { openCables } from './rules/openCables.ts';
import { poeBudget } from './rules/poeBudget.ts';
import { strandsMissing } from './rules/strands.ts';
import { rackLimits } from './rules/rackLimits.ts';

/** Every rule there is; a new one is one file and one line here. */
export const rules: readonly Rule[] = [
  openCables,
  labelGaps,
  rackLimits,
  links,
  poeBudget,
  strandsMissing,
  ...vlanRules,
  ...spanningTreeRules,
  ...prefixRules,
  ...addressRules,
  ...routingRules,
  managementAddress,
];

/** All findings of all rules, the bad ones first, of what is in force. */
export function checkNetwork(network: Network): Finding[] {
  const reading = { all: network, 'in force': inForce(network) };
  const findings = rules.flatMap((rule) => rule.find(reading[rule.reads ?? 'in force']));
  const weight = (finding: Finding): number => (finding.severity === 'bad' ? 0 : 1);
  return findings.sort(
    (a, b) =>
      weight(a) - weight(b) ||
      (a.rule < b.rule ? -1 : a.rule > b.rule ? 1 : 0) ||
      compareNames(a.about[0] ?? '', b.about[0] ?? '') ||
      compareNames(a.message, b.message),
  );
}

import { derived } from '../model/network/derived.ts';
import type { Network } from '../model/network/network.ts';
import type { Finding, Rule } from './finding.ts';
import type { Mend } from './mend.ts';
import { addressUseRules } from '../addressing/checks/addressUse.ts';
import { addressRules } from '../addressing/checks/addresses.ts';
import { managementAddress } from '../addressing/checks/managementAddress.ts';
import { prefixRules } from '../addressing/checks/prefixes.ts';
import { routerIds } from '../routing/checks/routerIds.ts';
import { routingRules } from '../routing/checks/routing.ts';
import { cloudRouteRules } from '../cloud/checks/routes.ts';
import { ruleSetRules } from '../cloud/checks/ruleSets.ts';
import { cloudThingRules } from '../cloud/checks/things.ts';
import { cloudWayRules } from '../cloud/checks/ways.ts';
import { memberRules } from '../switching/checks/members.ts';
import { segmentRules } from '../switching/checks/segments.ts';
import { spanningTreeRules } from '../switching/checks/spanningTree.ts';
import { vlanRules } from '../switching/checks/vlans.ts';
import { labelGaps } from '../cabling/checks/labelGaps.ts';
import { linkRules } from '../cabling/checks/links.ts';
import { openCables } from '../cabling/checks/openCables.ts';
import { poeBudget } from '../cabling/checks/poeBudget.ts';
import { strandsMissing } from '../cabling/checks/strands.ts';
import { supportRules } from '../catalogue/checks/support.ts';
import { licenceRules } from '../purchase/checks/licences.ts';
import { inletRules } from '../racks/checks/inlets.ts';
import { rackLimits } from '../racks/checks/rackLimits.ts';
import { standingRules } from '../racks/checks/standing.ts';

/** Every rule there is; a new one is one file and one line here. */
export const rules: readonly Rule[] = [
  openCables,
  labelGaps,
  rackLimits,
  ...inletRules,
  ...standingRules,
  ...supportRules,
  ...licenceRules,
  ...linkRules,
  poeBudget,
  strandsMissing,
  ...vlanRules,
  ...memberRules,
  ...spanningTreeRules,
  ...prefixRules,
  ...addressRules,
  ...addressUseRules,
  ...segmentRules,
  ...routingRules,
  routerIds,
  managementAddress,
  ...cloudRouteRules,
  ...cloudWayRules,
  ...ruleSetRules,
  ...cloudThingRules,
];
/** Rules by the key that files and waivers call them. */
export const rulesByKey: ReadonlyMap<string, Rule> = new Map(rules.map((rule) => [rule.key, rule]));

/**
 * All findings of all rules, as data, in no particular order. Kept for the network; after an edit only what it can
 * concern is judged again.
 */
export const findingsOf: (network: Network) => readonly Finding[] = derived((network) =>
  rules.flatMap((rule) => rule.findings(network)),
);

/** The rule that found it. */
export function ruleOf({ rule: key }: Finding): Rule {
  const rule = rulesByKey.get(key);
  if (rule === undefined) throw new Error(`There is no rule ${key}.`);
  return rule;
}

/**
 * The steps that would set a finding right, each by itself; none where only a person can know. Made for the whole
 * network as it is now: a step that has become impossible is not among them.
 */
export const mendsOf = (network: Network, finding: Finding): Mend[] =>
  ruleOf(finding).mends(finding, network);

import type { RuleSet, TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import { allPorts } from '../../model/kinds/cloud/ports.ts';
import { derivedBy } from '../../model/network/derived.ts';
import { keptWhile } from '../../model/network/reads.ts';
import type { Network } from '../../model/network/network.ts';
import { ruleReads } from '../reads.ts';
import { everybody, trafficOfRule } from './ruleTraffic.ts';
import { noTraffic, shared, trafficOf, united, without, type Traffic } from './traffic.ts';

export type RuleDirection = TrafficRule['direction'];

const rulesBySet = derivedBy(
  (network, setId: string) => {
    const all = network.find('rulesBySet', setId).sort((a, b) => a.position - b.position);
    const towards = (way: RuleDirection): readonly TrafficRule[] =>
      all.filter(({ direction }) => direction === way);
    return { in: towards('in'), out: towards('out') };
  },
  keptWhile({ trafficRule: 'all' }),
);
/** The rules of a set in one direction, in order. */
export const rulesOf = (network: Network, setId: string, direction: RuleDirection): readonly TrafficRule[] =>
  rulesBySet(network, setId)[direction];

/** Every packet there can be. */
export const allTraffic = trafficOf('any', [allPorts], everybody);

/** What becomes of the packets that no rule of a set speaks of. */
export const otherwise = (set: RuleSet, direction: RuleDirection) =>
  direction === 'in' ? set.otherwiseIn : set.otherwiseOut;

function passed(network: Network, set: RuleSet, direction: RuleDirection): Traffic {
  const rules = rulesOf(network, set.id, direction);
  const base = otherwise(set, direction) === 'allow' ? allTraffic : noTraffic;
  if (set.ordered)
    // From the last to the first: each takes its packets out of what the later ones say.
    return rules.reduceRight((below, rule) => {
      const own = trafficOfRule(network, rule);
      return rule.verdict === 'allow' ? united(below, own) : without(below, own);
    }, base);
  const of = (verdict: TrafficRule['verdict']): Traffic =>
    rules
      .filter((rule) => rule.verdict === verdict)
      .reduce((sum, rule) => united(sum, trafficOfRule(network, rule)), noTraffic);
  return without(united(base, of('allow')), of('deny'));
}

const bySet = derivedBy((network, key: string): Traffic => {
  const [setId = '', direction] = key.split(' ');
  const set = network.get('ruleSet', setId);
  return set === null ? noTraffic : passed(network, set, direction === 'in' ? 'in' : 'out');
}, keptWhile(ruleReads));

/** The packets that a rule set lets pass in a direction, by who is in rule sets now. */
export const letsPass = (network: Network, setId: string, direction: RuleDirection): Traffic =>
  bySet(network, `${setId} ${direction}`);

/** What several rule sets at one place let pass: those in order each have to, the others are one set of rules. */
export function letPassTogether(
  network: Network,
  setIds: readonly string[],
  direction: RuleDirection,
): Traffic {
  const sets = setIds.flatMap((id) => network.get('ruleSet', id) ?? []);
  if (sets.length === 0) return allTraffic;
  const ordered = sets.filter((set) => set.ordered);
  const open = sets.filter((set) => !set.ordered);
  const parts = ordered.map(({ id }) => letsPass(network, id, direction));
  if (open.length > 0) parts.push(letUnordered(network, open, direction));
  const [first = allTraffic, ...rest] = parts;
  return rest.reduce(shared, first);
}

/** Sets without an order at one interface are one: what any of them allows passes, unless one of them denies it. */
function letUnordered(network: Network, sets: readonly RuleSet[], direction: RuleDirection): Traffic {
  const [only] = sets;
  if (sets.length === 1 && only !== undefined) return letsPass(network, only.id, direction);
  const allowed = sets.reduce((sum, { id }) => united(sum, letsPass(network, id, direction)), noTraffic);
  const denied = sets
    .flatMap(({ id }) => rulesOf(network, id, direction))
    .filter(({ verdict }) => verdict === 'deny')
    .reduce((sum, rule) => united(sum, trafficOfRule(network, rule)), noTraffic);
  return without(allowed, denied);
}

import { create, remove } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { kinds } from '../../model/kinds.ts';
import type { Requirement, RequirementKind } from '../../model/kinds/review/requirement.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { roles, pluralOf } from '../../model/values/roles.ts';
import { factOf } from '../completeness/facts.ts';

export type RequirementWish = Pick<Requirement, 'on' | 'role' | 'status' | 'fact'>;

/** "Serial of every active switch": what is asked for, as one says it. */
export function requirementText({ on, role, status, fact }: RequirementWish): string {
  const label = factOf(on, fact)?.label ?? fact;
  const what = role === 'any' ? kinds[on].many : pluralOf(role, roles[role].label);
  return `${label} of ${status === 'any' ? 'all' : `all ${status}`} ${what}`;
}

/** Asks for a fact of every thing of a kind, of a role, by status. */
export function addRequirement(network: Network, wish: RequirementWish): Attempt {
  if (factOf(wish.on, wish.fact) === null)
    return refuse(`${kinds[wish.on].many} have no fact ${wish.fact} that can be asked for.`);
  return judged(
    network,
    [create('requirement', { id: newId(), ...wish })],
    `Asked for ${requirementText(wish)}`,
  );
}

export const removeRequirement = (network: Network, row: Requirement): Attempt =>
  judged(network, [remove('requirement', row)], `Asked no more for ${requirementText(row)}`);

const of = (
  on: RequirementKind,
  fact: string,
  role: Requirement['role'] = 'any',
  status: Requirement['status'] = 'any',
): RequirementWish => ({ on, fact, role, status });

/** What most houses ask for, to begin with. */
export const usualRequirements: readonly RequirementWish[] = [
  of('device', 'model'),
  of('device', 'place', 'any', 'active'),
  ...(['SW', 'RT', 'FW'] as const).flatMap((role) => [
    of('device', 'serial', role, 'active'),
    of('device', 'assetNumber', role, 'active'),
    of('device', 'supportUntil', role, 'active'),
    of('device', 'managementAddress', role, 'active'),
    of('device', 'twoFeeds', role, 'active'),
  ]),
  of('device', 'serial', 'SV', 'active'),
  of('device', 'twoFeeds', 'SV', 'active'),
  of('rack', 'feeds'),
  of('rack', 'massLimitKg'),
  of('cable', 'type'),
  of('cable', 'bothEnds', 'any', 'active'),
  of('circuit', 'provider'),
  of('place', 'address'),
];

/** Asks for all of that which is not asked for already. */
export function beginRequirements(network: Network): Attempt {
  const known = new Set(
    [...network.all('requirement')].map(({ on, role, status, fact }) => `${on} ${fact} ${role} ${status}`),
  );
  const fresh = usualRequirements.filter(
    ({ on, role, status, fact }) => !known.has(`${on} ${fact} ${role} ${status}`),
  );
  if (fresh.length === 0) return refuse('All of it is asked for already.');
  return judged(
    network,
    fresh.map((wish) => create('requirement', { id: newId(), ...wish })),
    `Asked for the usual ${fresh.length} facts`,
  );
}

import { applyChanges } from '../../change/apply.ts';
import type { Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { Network } from '../../model/network/network.ts';
import { documentedAccount } from '../observed/documented.ts';
import { differencesOf, type Difference } from '../observed/differences.ts';
import type { ObservedAccount } from '../observed/observed.ts';
import { deviceWays } from './taking/deviceWays.ts';
import { nameWays } from './taking/nameWays.ts';
import { networkWays } from './taking/networkWays.ts';
import { Refused, Taking, type Facts, type Ways } from './taking/taking.ts';
import { trafficWays } from './taking/trafficWays.ts';

const ways: Record<Difference['sort'], Ways> = {
  ...networkWays,
  ...deviceWays,
  ...trafficWays,
  ...nameWays,
};

/** All facts of a thing as the account has them. */
const observedFacts = (difference: Difference, all: Facts): Facts =>
  Object.fromEntries([
    ...Object.entries(all),
    ...difference.facts.map(({ name, observed }) => [name, observed] as const),
  ]);

/** What of some differences can be taken over, and what cannot, with the reason. */
export interface TakenOver {
  attempt: Attempt;
  taken: readonly string[];
  left: readonly { id: string; why: string }[];
}

/**
 * Takes differences over into the model: what is not documented is added, what differs becomes as it was read, what is
 * not there any more is removed; instances and gateways are retired, for what hangs on them is not forgotten. Each in
 * the order in which one needs the other; one that cannot be is left, with the reason.
 *
 * @param facts what was read of each thing by the id of its difference
 */
export function takeOver(
  network: Network,
  accountId: string,
  differences: readonly Difference[],
  facts: ReadonlyMap<string, Facts>,
): TakenOver {
  let staged = network;
  const changes: Change[] = [];
  const taken: string[] = [];
  const left: { id: string; why: string }[] = [];
  const one = (difference: Difference): void => {
    const { id, key, how, sort } = difference;
    const all = observedFacts(difference, facts.get(id) ?? {});
    try {
      const taking = new Taking(staged, accountId);
      const way = ways[sort];
      const made =
        how === 'not documented'
          ? way.added(taking, key, all)
          : how === 'different'
            ? way.changed(taking, key, all)
            : way.gone(taking, key);
      const real = made.filter((change) => change !== null);
      const applied = applyChanges(staged, real);
      if (!applied.ok) throw new Refused(applied.problems[0]?.message ?? 'It cannot be done.');
      staged = applied.network;
      changes.push(...real);
      taken.push(id);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      left.push({ id, why: error.message });
    }
  };
  // What goes makes room first, the parts before the whole; then what comes, the whole before its parts.
  const going = differences.filter(({ how }) => how === 'not there');
  for (const difference of going.slice().reverse()) one(difference);
  for (const difference of differences) if (!going.includes(difference)) one(difference);
  const account = network.get('place', accountId)?.name ?? '';
  const count = `${taken.length} ${taken.length === 1 ? 'difference' : 'differences'}`;
  const attempt =
    taken.length === 0
      ? refuse(left[0]?.why ?? 'Nothing differs.')
      : judged(network, changes, `Took over ${count} from the account ${account}`);
  return { attempt, taken, left };
}

/** The differences of an account now. */
export const accountDifferences = (
  network: Network,
  accountId: string,
  observed: ObservedAccount,
): Difference[] =>
  differencesOf(
    documentedAccount(network, accountId, {
      lists: new Set(observed.prefixLists.map(({ name }) => name)),
      zones: new Set(observed.zones.map(({ name }) => name)),
    }),
    observed,
  );

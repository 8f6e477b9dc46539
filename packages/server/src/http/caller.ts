import { contract, type Endpoint, type Name } from '@visograph/api';
import type { ProjectStore } from '../store/projectStore.ts';
import type { Who } from './authorise.ts';
import { audienceOf, meantBy, penFor, type Meant } from './meant.ts';
import { Refusal } from './problem.ts';
import type { Caller } from './route.ts';

/** What a handler has of a call besides who makes it: the network that is meant, and the way to write into it. */
export function caller(
  store: ProjectStore,
  name: Name,
  who: Who,
  query: (name: string) => string | null,
): Pick<Caller, 'network' | 'networkAt' | 'pen'> {
  const endpoint: Endpoint = contract[name];
  const writes = endpoint.network === 'write';
  if (query('at') !== null && writes)
    throw new Refusal(
      409,
      'What was cannot be changed',
      'You look at an earlier moment of the project. Go back to now to change it.',
    );
  const plan = (): string | null => {
    if (endpoint.network === undefined) throw new Error(`${name} does not say that it needs a network.`);
    return query('plan');
  };
  let meant: Promise<Meant> | null = null;
  const meantAt = (at: string | null): Promise<Meant> =>
    meantBy(store, { projectId: who.projectId, accountId: who.account.id }, audienceOf(who.role), {
      plan: plan(),
      at,
      built: writes ? null : query('built'),
    });
  return {
    network: () => (meant ??= meantAt(query('at'))),
    networkAt: (revision) => meantAt(String(revision)),
    pen: () => penFor(store, who.projectId, who.account, plan()),
  };
}

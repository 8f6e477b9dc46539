import { kinds } from '../kinds.ts';
import type { Network, Touched } from './network.ts';

/**
 * What was worked out for an earlier network, made right for this one by what was touched since; null where that
 * cannot be said and it is to be worked out anew.
 */
export type CarryOver<T> = (
  before: T,
  network: Network,
  touched: readonly Touched[],
  base: Network,
) => T | null;

/** So many networks back, an earlier result is sought: about as many edits as are made while nobody asks. */
const mostSteps = 50;

/**
 * Keeps what `make` works out for a network: once for each, and from one to those made from it as far as `carry` can
 * say. Nothing outlives the network it is of. `make` must be pure.
 */
export function derived<T extends object>(
  make: (network: Network) => T,
  carry?: CarryOver<T>,
): (network: Network) => T {
  const known = new WeakMap<Network, T>();
  const carried = (network: Network): T | null => {
    if (carry === undefined) return null;
    const steps: (readonly Touched[])[] = [];
    for (let at: Network | undefined = network; at?.origin != null && steps.length < mostSteps;) {
      steps.push(at.origin.touched);
      at = at.origin.base.deref();
      const before = at === undefined ? undefined : known.get(at);
      if (at !== undefined && before !== undefined) return carry(before, network, steps.reverse().flat(), at);
    }
    return null;
  };
  return (network) => {
    const found = known.get(network);
    if (found !== undefined) return found;
    const made = carried(network) ?? make(network);
    known.set(network, made);
    return made;
  };
}

/** Kept while only what is drawn and planned on paper was touched: no computation of a network reads that. */
export const keptOnPaper = <T>(before: T, _network: Network, touched: readonly Touched[]): T | null =>
  touched.every(({ kind }) => kinds[kind].paper === true) ? before : null;

/** One of several results of a network, each worked out when first asked for by its key. */
export function derivedBy<K, T>(
  make: (network: Network, key: K) => T,
  carry?: CarryOver<Map<K, T>>,
): (network: Network, key: K) => T {
  const all = derived<Map<K, T>>(() => new Map(), carry);
  return (network, key) => {
    const known = all(network);
    const found = known.get(key);
    if (found !== undefined) return found;
    const made = make(network, key);
    known.set(key, made);
    return made;
  };
}

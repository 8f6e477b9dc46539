import type { Kind, Rows } from '../model/kinds.ts';
import type { Network, Touched } from '../model/network/network.ts';
import type { Facts, Evidence, Parts } from './finding.ts';

/**
 * A rule that judges the rows of a kind one by one. `concerned` tells which rows hang on a row of another kind that it
 * reads; where it is left out, all do. `among` names the rows to look at where most are of no matter.
 */
export function rowParts<K extends Kind, F extends Facts>(
  kind: K,
  judge: (network: Network, row: Rows[K]) => Evidence<F> | null,
  concerned: Parts<F>['concerned'] = () => null,
  among: (network: Network) => Iterable<Rows[K]> = (network) => network.all(kind),
): Parts<F> {
  return {
    *each(network) {
      for (const row of among(network)) {
        const found = judge(network, row);
        if (found !== null) yield [row.id, [found]];
      }
    },
    judge: (network, id) => {
      const row = network.get(kind, id);
      const found = row === null ? null : judge(network, row);
      return found === null ? [] : [found];
    },
    concerned: (network, touched, base) =>
      touched.kind === kind ? [idOf(touched)] : concerned(network, touched, base),
  };
}

const idOf = ({ before, after }: Touched): string => (after ?? before)?.id ?? '';

/** A touched row of a kind, as it was and as it is. */
export const bothOf = <K extends Kind>(touched: Touched, kind: K): Rows[K][] =>
  touched.kind === kind
    ? [touched.before, touched.after].filter((row): row is Rows[K] & NonNullable<typeof row> => row !== null)
    : [];

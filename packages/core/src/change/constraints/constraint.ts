import type { Kind, Rows } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import type { Problem } from '../../model/fields/problem.ts';

/**
 * A rule of the physical world about one row, tested on the network as it would be after the change: for every new
 * row, and for a changed one when a field it depends on was touched.
 */
export interface Constraint<K extends Kind> {
  fields: readonly (keyof Rows[K] & string)[];
  check: (network: Network, row: Rows[K]) => Problem[];
}
export type Constraints = { [K in Kind]?: Constraint<K>[] };

import { inNumbers, removal } from '../change/removal.ts';
import { kinds, type Kind, type Rows } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { rowTitle } from '../model/fields/titles.ts';
import { judged, type Attempt } from './attempt.ts';

/** Takes out a row of any kind with what belongs to it, or says what holds it. */
export function deleteRow<K extends Kind>(network: Network, kind: K, row: Rows[K]): Attempt {
  const { changes, along } = removal(network, [{ kind, id: row.id }]);
  const rest = inNumbers(along);
  const title = `${kinds[kind].one} ${rowTitle(network, kind, row)}`;
  return judged(network, changes, `Deleted ${title}${rest === '' ? '' : ` with ${rest}`}`);
}

import { inSchemaOrder } from '../model/fields/storage.ts';
import { isKind, withFields } from '../model/kinds.ts';
import { type Network } from '../model/network/network.ts';
import type { Change } from './change.ts';

/** So many changes are made between two turns. */
const stride = 1000;

/**
 * The network after changes that were judged when they were written: nothing is judged again, and others get their turn
 * in between. Yields how many are made; returns null where a row that is changed is not there, which only a network of
 * another moment lacks.
 */
export function* replaying(network: Network, changes: readonly Change[]): Generator<number, Network | null> {
  const draft = network.draft();
  for (const [at, change] of changes.entries()) {
    const { kind, id } = change;
    // A kind that a later version no longer has.
    if (!isKind(kind)) continue;
    if (change.op === 'create') draft.put(kind, inSchemaOrder(kind, { ...change.after }));
    else {
      const row = draft.get(kind, id);
      if (row === null) return null;
      if (change.op === 'delete') draft.drop(kind, id);
      else draft.put(kind, inSchemaOrder(kind, { ...withFields(row, change.after) }));
    }
    if (at % stride === stride - 1) yield at + 1;
  }
  return draft.finish();
}

import { removal, type Subject } from '../change/removal.ts';
import { withFields, type Row } from '../model/kinds.ts';
import type { Network, NetworkDraft } from '../model/network/network.ts';

/** Cuts rows out of a draft for a lens, without judging it: what is left is part of a network that was judged. */
export function cutOut(network: Network, draft: NetworkDraft, named: readonly Subject[]): void {
  for (const change of removal(network, named).changes) {
    if (change.op === 'delete') draft.drop(change.kind, change.id);
    else if (change.op === 'update') {
      const row: Row | null = draft.get(change.kind, change.id);
      if (row !== null) draft.put(change.kind, withFields(row, change.after));
    }
  }
}

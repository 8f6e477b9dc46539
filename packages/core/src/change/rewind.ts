import { kinds, withFields, type Kind, type Row } from '../model/kinds.ts';
import { inSchemaOrder } from '../model/fields/storage.ts';
import type { Network } from '../model/network/network.ts';
import type { Change } from './change.ts';

/**
 * The network as it was before these entries of its journal, oldest first. What was written was judged then, so that
 * nothing is judged again; a row deleted before its kind had all the fields of today comes back with those left blank.
 */
export function rewound(network: Network, entries: readonly (readonly Change[])[]): Network {
  const rows = new Map<string, { kind: Kind; row: Row | null }>();
  for (const changes of [...entries].reverse())
    for (const change of [...changes].reverse()) {
      const { kind, id } = change;
      if (!(kind in kinds)) continue;
      if (change.op === 'create') rows.set(id, { kind, row: null });
      else if (change.op === 'delete')
        rows.set(id, { kind, row: { ...kinds[kind].blank, ...change.before } });
      else {
        const later = rows.get(id)?.row ?? network.get(kind, id);
        if (later !== null) rows.set(id, { kind, row: withFields(later, change.before) });
      }
    }
  const draft = network.draft();
  for (const [id, { kind, row }] of rows) {
    if (row === null) draft.drop(kind, id);
    else draft.put(kind, inSchemaOrder(kind, row));
  }
  return draft.finish();
}

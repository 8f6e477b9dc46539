import { update, type Change } from '../../change/change.ts';
import { nextCableLabel } from '../labels.ts';
import type { Cable } from '../../model/kinds/lines/cable.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { judged, type Attempt } from '../../commands/attempt.ts';

export interface Relabelled {
  cable: Cable;
  to: string;
}

/**
 * New labels for cables by the project's scheme, in the order of their present ones: the numbers they leave are used
 * again, so that a sequence closes its gaps. Those that keep their label are left out of the preview.
 */
export function relabel(
  network: Network,
  cables: readonly Cable[],
): { rows: Relabelled[]; attempt: Attempt } {
  const sorted = [...cables].sort((a, b) => compareNames(a.label, b.label));
  // Without the cables concerned all their numbers are free; each takes the lowest that is left.
  const draft = network.draft();
  for (const cable of sorted) draft.put('cable', { ...cable, label: `\u0000${cable.id}` });
  let staged = draft.finish();
  const rows: Relabelled[] = [];
  const changes: Change[] = [];
  for (const cable of sorted) {
    const to = nextCableLabel(staged, network.get('port', cable.aPortId), network.get('port', cable.bPortId));
    const next = staged.passingDraft();
    next.put('cable', { ...cable, label: to });
    staged = next.finish();
    const change = update('cable', cable, { label: to });
    if (change === null) continue;
    changes.push(change);
    rows.push({ cable, to });
  }
  return {
    rows,
    attempt: judged(network, changes, `Relabelled ${rows.length} ${rows.length === 1 ? 'cable' : 'cables'}`),
  };
}

import { applyChanges, type ChangeSet } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { type Network } from '@visograph/core/model';
import type { Committed } from '../data/projectSync.ts';

/** Keeps what was typed into a cell of the VLAN grid; gives the reason when it cannot be kept. */
export function editVlan(
  network: Network,
  id: string,
  key: string,
  text: string,
  commit: (set: ChangeSet) => Committed,
): string | null {
  const vlan = network.get('vlan', id);
  if (vlan === null) return 'This VLAN is no longer there.';
  const value = text.trim();
  const set = editRow(network, 'vlan', vlan, key === 'name' ? { name: value } : { purpose: value || null });
  const tried = applyChanges(network, set.changes);
  if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
  commit(set);
  return null;
}

import { cableSchedule } from '@visograph/core/cabling';
import { applyChanges, type ChangeSet } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { type Cable, type Network } from '@visograph/core/model';
import type { GridColumn, GridRow } from '../kit/grid/Grid.tsx';

export const cableColumns: readonly GridColumn[] = [
  { key: 'label', label: 'Cable', width: 82, editable: true },
  { key: 'type', label: 'Type', width: 114, text: true },
  { key: 'lengthM', label: 'Length (m)', width: 78, numeric: true, editable: true },
  { key: 'aDevice', label: 'A device', width: 98 },
  { key: 'aPort', label: 'A port', width: 64 },
  { key: 'aPlace', label: 'A place', width: 112, text: true },
  { key: 'bDevice', label: 'B device', width: 98 },
  { key: 'bPort', label: 'B port', width: 64 },
  { key: 'bPlace', label: 'B place', width: 112, text: true },
];

/** The cables of a scope as grid rows. */
export function cableRows(network: Network, scopeId: string | null): GridRow[] {
  const table = cableSchedule(network, scopeId);
  return table.rows.map((cells, at) => ({ id: table.ids[at] ?? '', cells }));
}

/** Tries an edit of one cell; gives the reason why not, or null when it was made. */
export function editCable(
  network: Network,
  cable: Cable,
  key: string,
  text: string,
  commit: (set: ChangeSet) => { ok: boolean },
): string | null {
  const trimmed = text.trim();
  const number = trimmed === '' ? null : Number(trimmed.replace(',', '.'));
  if (key === 'lengthM' && number !== null && !Number.isFinite(number))
    return `“${trimmed}” is not a length in metres.`;
  const set = editRow(network, 'cable', cable, key === 'lengthM' ? { lengthM: number } : { label: trimmed });
  const tried = applyChanges(network, set.changes);
  if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
  commit(set);
  return null;
}

import { applyChanges, type ChangeSet } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { type Device, type Network } from '@visograph/core/model';
import { findReport } from '@visograph/core/report';
import type { GridColumn, GridRow } from '../../kit/grid/Grid.tsx';

export const deviceColumns: readonly GridColumn[] = [
  { key: 'name', label: 'Name', width: 112, editable: true },
  { key: 'role', label: 'Role', width: 96, text: true },
  { key: 'model', label: 'Model', width: 146, text: true },
  { key: 'status', label: 'Status', width: 58, text: true, editable: true },
  { key: 'place', label: 'Place', width: 100, text: true },
  { key: 'rack', label: 'Rack', width: 60 },
  { key: 'unit', label: 'Unit', width: 46, numeric: true },
  { key: 'serial', label: 'Serial', width: 108, editable: true },
  { key: 'portsUsed', label: 'Used', width: 48, numeric: true },
  { key: 'ports', label: 'Ports', width: 48, numeric: true },
];

/** The devices of a scope as grid rows. */
export function deviceRows(network: Network, scopeId: string | null): GridRow[] {
  const table = findReport('devices')?.make(network, scopeId);
  return (table?.rows ?? []).map((cells, at) => ({ id: table?.ids[at] ?? '', cells }));
}

/** Tries an edit of one cell; gives the reason why not, or null when it was made. */
export function editDevice(
  network: Network,
  device: Device,
  key: string,
  text: string,
  commit: (set: ChangeSet) => { ok: boolean },
): string | null {
  const value = text.trim() === '' ? null : text.trim();
  if (value === null && key !== 'serial') return 'Give a value.';
  const set = editRow(network, 'device', device, { [key]: value });
  const tried = applyChanges(network, set.changes);
  if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
  commit(set);
  return null;
}

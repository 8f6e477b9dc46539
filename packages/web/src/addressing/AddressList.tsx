import { addressSchedule } from '@visograph/core/addressing';
import { applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { parseInterface, formatIp } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import type { GridColumn, GridRow } from '../kit/grid/Grid.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';
import { Empty } from '../kit/panel/panels.tsx';

const columns: readonly GridColumn[] = [
  { key: 'vrf', label: 'VRF', width: 70 },
  { key: 'address', label: 'Address', width: 170, editable: true },
  { key: 'device', label: 'Device', width: 130, text: true },
  { key: 'port', label: 'Port', width: 90 },
  { key: 'use', label: 'Use', width: 84 },
  { key: 'dnsName', label: 'DNS name', width: 220, editable: true },
  { key: 'notes', label: 'Notes', width: 140, text: true, editable: true },
];

/** Every address of the scope as rows: moved, named and noted by typing, filling and pasting. */
export function AddressList({ filter }: { filter: string }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { scopeId, select } = useWhereabouts();
  const rows = useMemo((): GridRow[] => {
    const made = addressSchedule(network, scopeId);
    return made.rows.map((cells, at) => ({ id: made.ids[at] ?? '', cells }));
  }, [network, scopeId]);
  const edit = (id: string, key: string, text: string): string | null => {
    const row = network.get('address', id);
    if (row === null) return 'This address is no longer there.';
    const typed = text.trim();
    const read = key === 'address' ? parseInterface(typed) : null;
    if (key === 'address' && read === null) return `“${typed}” is not an address such as 10.40.8.5/22.`;
    const length = parseInterface(row.address)?.length ?? 32;
    const fields =
      key === 'address' && read !== null
        ? { address: `${formatIp(read.address)}/${typed.includes('/') ? read.length : length}` }
        : { [key]: typed === '' ? null : typed };
    const host = fields['address']?.slice(0, fields['address'].indexOf('/'));
    const taken =
      host === undefined
        ? undefined
        : network.find('addressesByHost', host).find((one) => one.vrfId === row.vrfId && one.id !== id);
    if (taken !== undefined) return `${host ?? ''} is given already.`;
    const set = editRow(network, 'address', row, fields);
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
    commit(set);
    return null;
  };
  return (
    <ViewedGrid
      view="addresses"
      schedule="addresses"
      label="Addresses"
      columns={columns}
      rows={rows}
      filter={filter}
      selectedId={null}
      onSelect={(id) => {
        const portId = network.get('address', id)?.portId ?? null;
        if (portId !== null) select({ kind: 'port', id: portId });
      }}
      onEdit={canEdit ? edit : undefined}
      empty={
        <Empty title={filter === '' ? 'No addresses here yet' : 'No address contains that'}>
          {filter === ''
            ? 'Ports get theirs in their record; a list is imported by “More”.'
            : 'Clear the filter to see all.'}
        </Empty>
      }
    />
  );
}

import type { ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import type { GridRow } from '../../kit/grid/Grid.tsx';
import { ViewedGrid } from '../../views/ViewedGrid.tsx';
import { deviceColumns, editDevice, type DeviceView } from './deviceRows.tsx';

interface Props {
  label: string;
  /** What the grid is called in addresses and views. */
  view: string;
  /** What of the devices is listed; the rows are of the same. */
  listed?: DeviceView;
  rows: readonly GridRow[];
  /** Takes names and rows below the last one. */
  onAppend?: (text: string) => string | null;
  filter?: string;
  empty?: ReactNode;
}

/** Devices as rows: chosen and edited here as everywhere. */
export function DeviceGrid({
  label,
  view: name,
  listed = 'standing',
  rows,
  onAppend,
  filter,
  empty,
}: Props): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const ofPort = selection?.kind === 'port' ? (network.get('port', selection.id)?.deviceId ?? null) : null;
  const edit = (id: string, key: string, text: string): string | null => {
    const device = network.get('device', id);
    return device === null
      ? 'This device is no longer there.'
      : editDevice(network, device, key, text, commit);
  };
  return (
    <ViewedGrid
      view={`${name}-${listed}`}
      schedule={listed === 'standing' ? 'devices' : 'inventory'}
      label={label}
      columns={deviceColumns[listed]}
      rows={rows}
      filter={filter}
      selectedId={selection?.kind === 'device' ? selection.id : ofPort}
      onSelect={(id) => select({ kind: 'device', id })}
      onEdit={canEdit ? edit : undefined}
      onAppend={canEdit ? onAppend : undefined}
      appends="Type the name of a new device, or paste names or rows of a spreadsheet"
      empty={empty}
    />
  );
}

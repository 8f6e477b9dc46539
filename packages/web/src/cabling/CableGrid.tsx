import type { ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import type { GridRow } from '../kit/grid/Grid.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';
import { cableColumns, editCable } from './cableRows.ts';

interface Props {
  label: string;
  /** What the grid is called in addresses and views. */
  view: string;
  rows: readonly GridRow[];
  filter?: string;
  empty?: ReactNode;
}

/** Cables as rows: chosen and edited here as everywhere. */
export function CableGrid({ label, view: name, rows, filter, empty }: Props): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const edit = (id: string, key: string, text: string): string | null => {
    const cable = network.get('cable', id);
    return cable === null ? 'This cable is no longer there.' : editCable(network, cable, key, text, commit);
  };
  return (
    <ViewedGrid
      view={name}
      schedule="cables"
      label={label}
      columns={cableColumns}
      rows={rows}
      filter={filter}
      selectedId={selection?.kind === 'cable' ? selection.id : null}
      onSelect={(id) => select({ kind: 'cable', id })}
      onEdit={canEdit ? edit : undefined}
      empty={empty}
    />
  );
}

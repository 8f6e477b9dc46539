import type { ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Grid, type GridRow } from '../kit/grid/Grid.tsx';
import { cableColumns, editCable } from './cableRows.ts';

interface Props {
  label: string;
  rows: readonly GridRow[];
  filter?: string;
  empty?: ReactNode;
}

/** Cables as rows: chosen and edited here as everywhere. */
export function CableGrid({ label, rows, filter, empty }: Props): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const edit = (id: string, key: string, text: string): string | null => {
    const cable = network.get('cable', id);
    return cable === null ? 'This cable is no longer there.' : editCable(network, cable, key, text, commit);
  };
  return (
    <Grid
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

import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Keycap } from '../kit/controls.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Empty, Work, WorkHead } from '../kit/panels.tsx';
import { CableGrid } from './CableGrid.tsx';
import { cableRows } from './cableRows.ts';

/** All cables with an end in the scope. */
export default function CablesSection(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { scopeId, selection } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [filter, setFilter] = useState('');
  const rows = useMemo(() => cableRows(network, scopeId), [network, scopeId]);
  return (
    <Work>
      <WorkHead>
        <h1>Cables</h1>
        <p>{`${rows.length} cables`}</p>
        <div>
          <Filter value={filter} onChange={setFilter} />
          {canEdit && (
            <Button
              $tone="primary"
              onPress={() =>
                setDock({
                  form: 'connect',
                  aPortId: null,
                  aDeviceId: selection?.kind === 'device' ? selection.id : null,
                  bPortId: null,
                })
              }
            >
              Connect<Keycap>C</Keycap>
            </Button>
          )}
        </div>
      </WorkHead>
      <CableGrid
        label="Cables"
        rows={rows}
        filter={filter}
        empty={
          <Empty title={filter === '' ? 'No cables here yet' : 'No cable contains that'}>
            {filter === '' ? 'Select a device and press C to connect it.' : 'Clear the filter to see all.'}
          </Empty>
        }
      />
    </Work>
  );
}

import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Button } from '../../kit/controls.tsx';
import { Filter } from '../../kit/Filter.tsx';
import { Views } from '../../kit/Views.tsx';
import { Empty, Work, WorkHead } from '../../kit/panel/panels.tsx';
import { DeviceGrid } from './DeviceGrid.tsx';
import { deviceRows, deviceViews, type DeviceView } from './deviceRows.ts';

/** All devices of the scope. */
export default function EquipmentSection(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { scopeId } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [filter, setFilter] = useState('');
  const [listed, setListed] = useState<DeviceView>('standing');
  const rows = useMemo(() => deviceRows(network, scopeId, listed), [network, scopeId, listed]);
  return (
    <Work>
      <WorkHead>
        <h1>Equipment</h1>
        <p>{`${rows.length} devices`}</p>
        <Views views={deviceViews} shown={listed} onShow={setListed} />
        <div>
          <Filter value={filter} onChange={setFilter} />
          {canEdit && (
            <Button $tone="primary" onPress={() => setDock({ form: 'addDevice', rackId: null, unit: null })}>
              Add device
            </Button>
          )}
        </div>
      </WorkHead>
      <DeviceGrid
        label="Devices"
        listed={listed}
        rows={rows}
        filter={filter}
        empty={
          <Empty title={filter === '' ? 'No devices here yet' : 'No device contains that'}>
            {filter === ''
              ? 'Add one from the catalogue, or choose a wider scope.'
              : 'Clear the filter to see all.'}
          </Empty>
        }
      />
    </Work>
  );
}

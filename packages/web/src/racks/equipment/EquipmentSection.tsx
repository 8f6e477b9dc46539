import { readEquipmentList } from '@visograph/core/racks';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useBeginning } from '../../start/beginning.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Button } from '../../kit/controls.tsx';
import { Filter } from '../../kit/Filter.tsx';
import { Views } from '../../kit/Views.tsx';
import { Empty, Work, WorkHead } from '../../kit/panel/panels.tsx';
import { DeviceGrid } from './DeviceGrid.tsx';
import { ImportEquipment } from './ImportEquipment.tsx';
import { deviceRows, deviceViews, type DeviceView } from './deviceRows.tsx';

/** All devices of the scope. */
export default function EquipmentSection(): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { scopeId } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [filter, setFilter] = useState('');
  const [listed, setListed] = useState<DeviceView>('standing');
  const beginning = useBeginning();
  const [importing, setImporting] = useState(beginning.importing === true);
  const [pasted, setPasted] = useState<string | null>(null);
  const importList = (text: string | null): void => {
    setPasted(text);
    setImporting(true);
  };
  const append = (text: string): string | null => {
    if (/[\n\t]/.test(text.trim())) {
      importList(text);
      return null;
    }
    const wish = { columns: null, models: {}, makePlaces: false, managementVid: null, placeId: scopeId };
    const { results, set } = readEquipmentList(network, [[text.trim()]], wish);
    const [row] = results;
    if (row?.does === 'new' && commit({ ...set, sentence: `Added ${row.label}` }).ok) return null;
    return row?.does === 'cannot' ? `${text.trim()}: ${row.detail}.` : `${text.trim()} is there already.`;
  };
  const rows = useMemo(() => deviceRows(network, scopeId, listed), [network, scopeId, listed]);
  return (
    <Work>
      <WorkHead>
        <h1>Equipment</h1>
        <p>{`${rows.length} devices`}</p>
        <Views views={deviceViews} shown={listed} onShow={setListed} />
        <div>
          <Filter value={filter} onChange={setFilter} />
          {canEdit && <Button onPress={() => importList(null)}>Import</Button>}
          {canEdit && (
            <Button $tone="primary" onPress={() => setDock({ form: 'addDevice', rackId: null, unit: null })}>
              Add device
            </Button>
          )}
        </div>
      </WorkHead>
      <DeviceGrid
        view="devices"
        label="Devices"
        listed={listed}
        rows={rows}
        onAppend={append}
        filter={filter}
        empty={
          <Empty title={filter === '' ? 'No devices here yet' : 'No device contains that'}>
            {filter === ''
              ? 'Import a list, paste names or rows below, add one from the catalogue, or choose a wider scope.'
              : 'Clear the filter to see all.'}
          </Empty>
        }
      />
      <ImportEquipment open={importing} onOpenChange={setImporting} pasted={pasted} />
    </Work>
  );
}

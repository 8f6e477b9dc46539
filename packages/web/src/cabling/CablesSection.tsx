import { useMemo, useState, type ReactNode } from 'react';
import { useSearchParams } from 'react-router';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useBeginning } from '../start/beginning.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Keycap } from '../kit/controls.tsx';
import { Filter } from '../kit/Filter.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { Views } from '../kit/Views.tsx';
import { CableGrid } from './CableGrid.tsx';
import { cableRows } from './cableRows.ts';
import { Circuits } from './Circuits.tsx';
import { FreePorts } from './FreePorts.tsx';
import { ImportCables } from './ImportCables.tsx';
import { Relabel } from './Relabel.tsx';

const views = { cables: 'Cables', circuits: 'Circuits', ports: 'Free ports' };
type View = keyof typeof views;

/** All cables and circuits with an end in the scope, and the ports that are still free. */
export default function CablesSection(): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { scopeId, selection } = useWhereabouts();
  const { setDock } = useWorkspace();
  const [search, setSearch] = useSearchParams();
  const [filter, setFilter] = useState('');
  const beginning = useBeginning();
  const [importing, setImporting] = useState(beginning.importing === true);
  const [labelling, setLabelling] = useState(false);
  const shown: View =
    search.get('show') === 'circuits' ? 'circuits' : search.get('show') === 'ports' ? 'ports' : 'cables';
  const rows = useMemo(() => cableRows(network, scopeId), [network, scopeId]);
  const show = (next: View): void => {
    const query = new URLSearchParams(search);
    query.set('show', next);
    setSearch(query, { replace: true });
  };
  return (
    <Work>
      <WorkHead>
        <h1>{views[shown]}</h1>
        {shown === 'cables' && <p>{`${rows.length} cables`}</p>}
        <div>
          <Views views={views} shown={shown} onShow={show} />
          {shown !== 'ports' && <Filter value={filter} onChange={setFilter} />}
          {canEdit && shown === 'cables' && (
            <>
              <Button onPress={() => setImporting(true)}>Import</Button>
              <Button onPress={() => setLabelling(true)}>Labels</Button>
            </>
          )}
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
      {shown === 'circuits' && <Circuits filter={filter} />}
      {shown === 'ports' && <FreePorts />}
      {shown === 'cables' && (
        <CableGrid
          view="cables"
          label="Cables"
          rows={rows}
          filter={filter}
          empty={
            <Empty title={filter === '' ? 'No cables here yet' : 'No cable contains that'}>
              {filter === ''
                ? 'Select a device and press C to connect it, or import a cable list.'
                : 'Clear the filter to see all.'}
            </Empty>
          }
        />
      )}
      <ImportCables open={importing} onOpenChange={setImporting} />
      {labelling && <Relabel open={labelling} onClose={() => setLabelling(false)} />}
    </Work>
  );
}

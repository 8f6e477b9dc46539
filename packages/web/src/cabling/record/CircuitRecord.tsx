import { deleteCircuit } from '@visograph/core/cabling';
import { editRow } from '@visograph/core/commands';
import {
  circuitKinds,
  cableStatuses,
  filledBy,
  portTitle,
  portsOf,
  speedText,
  whereIs,
  type Circuit,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { useWorkspace } from '../../data/workspace.tsx';
import { Picker } from '../../kit/choice.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { OnSheetCard } from '../../sheets/record/OnSheetCard.tsx';
import { RowHistory } from '../../record/RowHistory.tsx';
import { RunCard } from './RunCard.tsx';

/** One end of a circuit: a port, or the provider's network. */
function CircuitEnd({ circuit, side }: { circuit: Circuit; side: 'aPortId' | 'bPortId' }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const [choosing, setChoosing] = useState(false);
  const [deviceId, setDevice] = useState<string | null>(null);
  const portId = circuit[side];
  const devices = useMemo(
    () =>
      [...network.all('device')]
        .filter((device) => device.role !== 'PP' && network.countOf('portsByDevice', device.id) > 0)
        .map((device) => ({ id: device.id, text: device.name, detail: whereIs(network, device) })),
    [network],
  );
  const put = (id: string | null): void => {
    if (commit(editRow(network, 'circuit', circuit, { [side]: id })).ok) setChoosing(false);
  };
  const title = side === 'aPortId' ? 'A end' : 'B end';
  const ports =
    deviceId === null ? [] : portsOf(network, deviceId).filter((port) => filledBy(network, port.id) === null);
  return (
    <>
      <dt>{title}</dt>
      <dd>
        {portId === null ? (
          (circuit.provider ?? 'open')
        ) : (
          <Goto to={{ kind: 'port', id: portId }}>{portTitle(network, portId).replace(':', ' ')}</Goto>
        )}{' '}
        {canEdit && (
          <Button
            $tone="quiet"
            aria-label={`${portId === null ? 'Plug in' : 'Unplug'} the ${title}`}
            style={{ height: 20, padding: '0 4px' }}
            onPress={() => (portId === null ? setChoosing(!choosing) : put(null))}
          >
            {portId === null ? 'Plug in' : 'Unplug'}
          </Button>
        )}
      </dd>
      {choosing && portId === null && (
        <>
          <dt />
          <dd>
            <Picker label={`${title}: device`} options={devices} value={deviceId} onChange={setDevice} />
            <Picker
              label={`${title}: port`}
              options={ports.map((port) => ({ id: port.id, text: port.name }))}
              value={null}
              onChange={(id) => id !== null && put(id)}
            />
          </dd>
        </>
      )}
    </>
  );
}

export function CircuitRecord({ circuit }: { circuit: Circuit }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const first = circuit.aPortId ?? circuit.bPortId;
  return (
    <>
      <Head>
        <h2>{circuit.number}</h2>
        <p>
          {[
            circuit.kind,
            circuit.provider,
            circuit.bandwidthBps === null ? null : speedText(circuit.bandwidthBps),
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
        <div>
          {first !== null && (
            <Button onPress={() => setDock({ form: 'trace', portId: first })}>
              Trace<Keycap>T</Keycap>
            </Button>
          )}
          {canEdit && (
            <Button
              onPress={() => {
                if (commit(deleteCircuit(view.network, circuit)).ok) select(null);
              }}
            >
              Delete
            </Button>
          )}
        </div>
      </Head>
      <Card title="Ends">
        <Facts>
          <CircuitEnd circuit={circuit} side="aPortId" />
          <CircuitEnd circuit={circuit} side="bPortId" />
        </Facts>
      </Card>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="circuit" row={circuit} field="number" optional={false} />
          <EditableFact kind="circuit" row={circuit} field="provider" />
          <ChosenFact kind="circuit" row={circuit} field="kind" options={circuitKinds} />
          <EditableFact kind="circuit" row={circuit} field="bandwidthBps" numeric />
          <EditableFact kind="circuit" row={circuit} field="lengthM" numeric />
          <EditableFact kind="circuit" row={circuit} field="handover" />
          <ChosenFact kind="circuit" row={circuit} field="status" options={cableStatuses} />
          <EditableFact kind="circuit" row={circuit} field="notes" />
        </Facts>
      </Card>
      {first !== null && view.network.get('port', first) !== null && <RunCard portId={first} />}
      <OnSheetCard kind="circuit" id={circuit.id} label={circuit.number} />
      <RowHistory rowId={circuit.id} />
    </>
  );
}

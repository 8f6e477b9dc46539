import { poeDevice, poeSource, reservePort } from '@visograph/core/cabling';
import {
  cableAt,
  circuitAt,
  connectors,
  otherEnds,
  lacpModes,
  macOf,
  portStrands,
  portTitle,
  speedText,
  whereIs,
  type Port,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useWorkspace } from '../../data/workspace.tsx';
import { Button, Keycap } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { CagePicker } from './CagePicker.tsx';
import { DisconnectButton } from './DisconnectButton.tsx';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from '../../record/parts.tsx';
import { PortAddressesCard } from '../../addressing/record/AddressesCard.tsx';
import { PortSpanningTreeCard } from '../../switching/record/SpanningTreeCard.tsx';
import { SwitchingCard } from '../../switching/record/SwitchingCard.tsx';
import { PortRoutingCard } from '../../routing/record/PortRoutingCard.tsx';
import { RunCard } from './RunCard.tsx';

export function PortRecord({ port }: { port: Port }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { setDock } = useWorkspace();
  const device = network.get('device', port.deviceId);
  const cable = cableAt(network, port.id);
  const circuit = circuitAt(network, port.id);
  const far = cable === null ? [] : otherEnds(network, cable, port.id);
  const partner = network.get('port', port.leadsToId);
  const gives = poeSource(network, port);
  const takes = poeDevice(network, device);
  const free = cable === null && circuit === null;
  const state = free ? (port.reserved === null ? 'free' : 'reserved') : 'connected';
  return (
    <>
      <Head>
        <h2>{portTitle(network, port.id).replace(':', ' ')}</h2>
        <p>
          {port.form === 'physical'
            ? `port · ${port.connector === null ? 'connector unknown' : connectors[port.connector].label} · ${state}`
            : port.form}
        </p>
        <div>
          {canEdit && free && port.form === 'physical' && (
            <Button
              onPress={() =>
                setDock({ form: 'connect', aPortId: port.id, aDeviceId: port.deviceId, bPortId: null })
              }
            >
              Connect<Keycap>C</Keycap>
            </Button>
          )}
          <Button onPress={() => setDock({ form: 'trace', portId: port.id })}>
            Trace<Keycap>T</Keycap>
          </Button>
          {canEdit && cable !== null && <DisconnectButton cable={cable} onGone={() => undefined} />}
        </div>
      </Head>
      <Card title="Facts">
        <Facts>
          <dt>Device</dt>
          <dd>{device !== null && <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>}</dd>
          <EditableFact kind="port" row={port} field="name" optional={false} />
          <dt>Where</dt>
          <dd>{device === null ? '' : whereIs(network, device)}</dd>
          <dt>Speed</dt>
          <dd>{port.speedBps === null ? '–' : speedText(port.speedBps)}</dd>
          <dt>Face</dt>
          <dd>{port.face}</dd>
          {gives !== null && (
            <>
              <dt>Feeds</dt>
              <dd>{`up to PoE class ${gives}`}</dd>
            </>
          )}
          {takes !== null && port.role === 'network' && (
            <>
              <dt>Takes</dt>
              <dd>{`PoE class ${takes}`}</dd>
            </>
          )}
          <CagePicker port={port} />
          {partner !== null && (
            <>
              <dt>Passes to</dt>
              <dd>
                <Goto to={{ kind: 'port', id: partner.id }}>{partner.name}</Goto>
                {port.leadsToStrand !== null &&
                  ` strands ${port.leadsToStrand}–${port.leadsToStrand + portStrands(port) - 1}`}
              </dd>
            </>
          )}
          {port.form === 'aggregate' && (
            <ChosenFact kind="port" row={port} field="lacp" options={lacpModes} />
          )}
          {port.form === 'subinterface' && <EditableFact kind="port" row={port} field="innerVid" numeric />}
          {port.form === 'tunnel' && <EditableFact kind="port" row={port} field="farAddress" />}
          {port.role !== 'panel' && port.role !== 'powerIn' && port.role !== 'powerOut' && (
            <EditableFact kind="port" row={port} field="mac" canonical={(text) => macOf(text) ?? text} />
          )}
          <EditableFact kind="port" row={port} field="reserved" />
          <EditableFact kind="port" row={port} field="notes" />
        </Facts>
        {canEdit && port.reserved !== null && (
          <Button $tone="quiet" onPress={() => void commit(reservePort(network, port, null))}>
            Free it
          </Button>
        )}
      </Card>
      {port.role !== 'powerIn' && port.role !== 'powerOut' && port.leadsToId === null && (
        <>
          {(port.form === 'physical' || port.form === 'aggregate') && <SwitchingCard port={port} />}
          {(port.mode === 'access' || port.mode === 'trunk') && <PortSpanningTreeCard port={port} />}
          <PortAddressesCard port={port} />
          <PortRoutingCard port={port} />
        </>
      )}
      {port.form === 'physical' && (
        <Card title="Connection">
          {free && <Hint>Free.</Hint>}
          {cable !== null && (
            <Facts>
              <dt>Cable</dt>
              <dd>
                <Goto to={{ kind: 'cable', id: cable.id }}>{cable.label}</Goto>
              </dd>
              <dt>{far.length > 1 ? 'Far ends' : 'Far end'}</dt>
              <dd>
                {far.length === 0
                  ? 'open'
                  : far.map((id) => (
                      <div key={id}>
                        <Goto to={{ kind: 'port', id }}>{portTitle(network, id).replace(':', ' ')}</Goto>
                      </div>
                    ))}
              </dd>
            </Facts>
          )}
          {circuit !== null && (
            <Facts>
              <dt>Circuit</dt>
              <dd>
                <Goto to={{ kind: 'circuit', id: circuit.id }}>{circuit.number}</Goto>
              </dd>
              <dt>Provider</dt>
              <dd>{circuit.provider ?? 'our own'}</dd>
            </Facts>
          )}
        </Card>
      )}
      {!free && <RunCard portId={port.id} />}
    </>
  );
}

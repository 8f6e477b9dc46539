import { cableAt, connectors, disconnect, otherEnd, portTitle, whereIs, type Port } from '@visograph/core';
import type { ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Keycap } from '../kit/controls.tsx';
import { Hint } from '../kit/panels.tsx';
import { Card, EditableFact, Facts, Goto, Head } from './parts.tsx';

export function PortRecord({ port }: { port: Port }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { setDock } = useWorkspace();
  const device = network.get('device', port.deviceId);
  const cable = cableAt(network, port.id);
  const far = cable === null ? null : otherEnd(network, cable, port.id);
  const partner = network.get('port', port.passThroughId);
  const speed =
    port.speedBps === null
      ? '–'
      : port.speedBps >= 1e9
        ? `${port.speedBps / 1e9} Gbit/s`
        : `${port.speedBps / 1e6} Mbit/s`;
  return (
    <>
      <Head>
        <h2>{portTitle(network, port.id).replace(':', ' ')}</h2>
        <p>{`port · ${port.connector === null ? 'connector unknown' : connectors[port.connector].label} · ${cable === null ? 'free' : 'connected'}`}</p>
        <div>
          {canEdit && cable === null && (
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
          {canEdit && cable !== null && (
            <Button onPress={() => void commit(disconnect(network, cable))}>Disconnect</Button>
          )}
        </div>
      </Head>
      <Card title="Facts">
        <Facts>
          <dt>Device</dt>
          <dd>{device !== null && <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>}</dd>
          <dt>Where</dt>
          <dd>{device === null ? '' : whereIs(network, device)}</dd>
          <dt>Speed</dt>
          <dd>{speed}</dd>
          <dt>Face</dt>
          <dd>{port.face}</dd>
          {partner !== null && (
            <>
              <dt>Passes to</dt>
              <dd>
                <Goto to={{ kind: 'port', id: partner.id }}>{partner.name}</Goto>
              </dd>
            </>
          )}
          <EditableFact kind="port" row={port} field="notes" />
        </Facts>
      </Card>
      <Card title="Connection">
        {cable === null ? (
          <Hint>Free.</Hint>
        ) : (
          <Facts>
            <dt>Cable</dt>
            <dd>
              <Goto to={{ kind: 'cable', id: cable.id }}>{cable.label}</Goto>
            </dd>
            <dt>Far end</dt>
            <dd>
              {far === null ? (
                'open'
              ) : (
                <Goto to={{ kind: 'port', id: far }}>{portTitle(network, far).replace(':', ' ')}</Goto>
              )}
            </dd>
          </Facts>
        )}
      </Card>
    </>
  );
}

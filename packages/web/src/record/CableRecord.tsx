import { cableStatuses, disconnect, modelTitle, whereIs, type Cable } from '@visograph/core';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Keycap } from '../kit/controls.tsx';
import { mono } from '../theme/mono.ts';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from './parts.tsx';
import { RowHistory } from './RowHistory.tsx';

const Ends = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
  > div > span {
    color: ${({ theme }) => theme.inkSoft};
  }
  p {
    ${mono}
    font-size: 12.5px;
  }
`;

export function CableRecord({ cable }: { cable: Cable }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const type = network.get('model', cable.typeId);
  const first = cable.aPortId ?? cable.bPortId;
  const end = (title: string, portId: string | null): ReactNode => {
    const port = network.get('port', portId);
    const device = network.get('device', port?.deviceId ?? null);
    return (
      <div>
        <span>{title}</span>
        {port === null || device === null ? (
          <p>open</p>
        ) : (
          <>
            <p>
              <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>
            </p>
            <p>
              <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>
            </p>
            <p>{whereIs(network, device)}</p>
          </>
        )}
      </div>
    );
  };
  return (
    <>
      <Head>
        <h2>{cable.label}</h2>
        <p>
          {[
            'cable',
            type === null ? null : modelTitle(type),
            cable.lengthM === null ? null : `${cable.lengthM} m`,
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
                if (commit(disconnect(network, cable)).ok)
                  select(first === null ? null : { kind: 'port', id: first });
              }}
            >
              Disconnect
            </Button>
          )}
        </div>
      </Head>
      <Card title="Ends">
        <Ends>
          {end('A end', cable.aPortId)}
          {end('B end', cable.bPortId)}
        </Ends>
      </Card>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="cable" row={cable} field="label" optional={false} />
          <EditableFact kind="cable" row={cable} field="lengthM" numeric />
          <ChosenFact kind="cable" row={cable} field="status" options={cableStatuses} />
          <EditableFact kind="cable" row={cable} field="notes" />
        </Facts>
      </Card>
      <RowHistory rowId={cable.id} />
    </>
  );
}

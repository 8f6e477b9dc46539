import { deleteRack, placePath, rackContents, rackUse, type Rack } from '@visograph/core';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button } from '../kit/controls.tsx';
import { Hint } from '../kit/panels.tsx';
import { mono } from '../theme/mono.ts';
import { Card, ChosenFact, EditableFact, Facts, Goto, Head } from './parts.tsx';
import { RowHistory } from './RowHistory.tsx';

const Contents = styled.table`
  width: 100%;
  border-collapse: collapse;
  ${mono}
  font-size: 12.5px;
  td,
  th {
    padding: 3px 6px 3px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    text-align: left;
  }
  th {
    font-weight: 400;
    color: ${({ theme }) => theme.inkSoft};
  }
  td:first-child {
    white-space: nowrap;
    width: 58px;
  }
`;
const Meter = styled.div`
  height: 10px;
  border-radius: 2px;
  background: ${({ theme }) => theme.band};
  margin: 2px 0 6px;
  > div {
    height: 100%;
    border-radius: 2px;
    background: ${({ theme }) => theme.family.passive};
  }
`;

export function RackRecord({ rack }: { rack: Rack }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { select } = useWhereabouts();
  const { setDock } = useWorkspace();
  const use = rackUse(network, rack);
  const devices = rackContents(network, rack);
  const span = (unit: number | null, units: number): string =>
    unit === null ? 'side' : units > 1 ? `${unit}–${unit + units - 1}` : String(unit);
  return (
    <>
      <Head>
        <h2>{rack.name}</h2>
        <p>{`rack · ${placePath(network, rack.placeId).replaceAll('/', ' › ')}`}</p>
        {canEdit && (
          <div>
            <Button onPress={() => setDock({ form: 'addDevice', rackId: rack.id, unit: null })}>
              Add device
            </Button>
            {devices.length === 0 && (
              <Button
                onPress={() => {
                  if (commit(deleteRack(network, rack)).ok) select({ kind: 'place', id: rack.placeId });
                }}
              >
                Delete rack
              </Button>
            )}
          </div>
        )}
      </Head>
      <Card title="Units">
        <Meter
          role="meter"
          aria-valuenow={use.used}
          aria-valuemin={0}
          aria-valuemax={use.units}
          aria-label="Units used"
        >
          <div style={{ width: `${(use.used / use.units) * 100}%` }} />
        </Meter>
        {`${use.used} of ${use.units} U used, ${use.free} free`}
      </Card>
      <Card title="Facts">
        <Facts>
          <EditableFact kind="rack" row={rack} field="name" optional={false} />
          <EditableFact kind="rack" row={rack} field="units" numeric optional={false} />
          <ChosenFact kind="rack" row={rack} field="numbering" options={['up', 'down']} />
          <EditableFact kind="rack" row={rack} field="position" numeric optional={false} />
          <EditableFact kind="rack" row={rack} field="massLimitKg" numeric />
        </Facts>
      </Card>
      <Card title="Contents">
        {devices.length === 0 && <Hint>Nothing yet. Choose a free unit to add a device.</Hint>}
        <Contents hidden={devices.length === 0}>
          <thead>
            <tr>
              <th scope="col">U</th>
              <th scope="col">Device</th>
            </tr>
          </thead>
          <tbody>
            {devices.map((device) => (
              <tr key={device.id}>
                <td>{span(device.unit, device.units)}</td>
                <td>
                  <Goto to={{ kind: 'device', id: device.id }}>{device.name}</Goto>
                </td>
              </tr>
            ))}
          </tbody>
        </Contents>
      </Card>
      <RowHistory rowId={rack.id} />
    </>
  );
}

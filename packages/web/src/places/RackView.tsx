import { elevationScene, rackUse, type Rack } from '@visograph/core';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useWorkspace } from '../data/workspace.tsx';
import { Button, Keycap } from '../kit/controls.tsx';
import { DeviceChip } from '../kit/DeviceChip.tsx';
import { Work, WorkHead } from '../kit/panels.tsx';
import { RackElevation } from './RackElevation.tsx';

const Scroll = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 10px 16px 12px;
  > svg {
    margin: 0 auto;
  }
`;
const SideList = styled.div`
  display: flex;
  gap: 8px;
  max-width: 802px;
  margin: 8px auto 0;
  align-items: center;
  color: ${({ theme }) => theme.inkSoft};
  ul {
    display: flex;
    gap: 8px;
  }
`;

/** One rack, front and rear. */
export function RackView({ rack }: { rack: Rack }): ReactNode {
  const { view, canEdit, project } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const { setDock, dock, ghost } = useWorkspace();
  const scene = useMemo(() => elevationScene(network, rack), [network, rack]);
  const use = rackUse(network, rack);
  const portId = selection?.kind === 'port' ? selection.id : null;
  const deviceId =
    selection?.kind === 'device' ? selection.id : (network.get('port', portId)?.deviceId ?? null);
  return (
    <Work>
      <WorkHead>
        <h1>{`${rack.name} · elevation`}</h1>
        <p>{`${use.used} of ${use.units} U used · ${use.free} free`}</p>
        <div>
          <Button
            onPress={() => window.location.assign(`/api/v1/projects/${project.id}/racks/${rack.id}/svg`)}
          >
            Save SVG
          </Button>
          {canEdit && (
            <>
              <Button
                onPress={() =>
                  setDock({ form: 'connect', aPortId: portId, aDeviceId: deviceId, bPortId: null })
                }
              >
                Connect<Keycap>C</Keycap>
              </Button>
              <Button
                $tone="primary"
                onPress={() => setDock({ form: 'addDevice', rackId: rack.id, unit: null })}
              >
                Add device
              </Button>
            </>
          )}
        </div>
      </WorkHead>
      <Scroll>
        <RackElevation
          scene={scene}
          selectedDeviceId={deviceId}
          selectedPortId={portId}
          ghost={ghost?.rackId === rack.id && dock?.form === 'addDevice' ? ghost : null}
          onDevice={(id) => select({ kind: 'device', id })}
          onPort={(id) => select({ kind: 'port', id })}
          onFree={canEdit ? (unit) => setDock({ form: 'addDevice', rackId: rack.id, unit }) : undefined}
        />
        {scene.side.length > 0 && (
          <SideList>
            <span>At the side</span>
            <ul aria-label="At the side">
              {scene.side.map((device) => (
                <li key={device.deviceId}>
                  <DeviceChip
                    name={device.name}
                    role={device.role}
                    selected={device.deviceId === deviceId}
                    onChoose={() => select({ kind: 'device', id: device.deviceId })}
                  />
                </li>
              ))}
            </ul>
          </SideList>
        )}
      </Scroll>
    </Work>
  );
}

import { describeInstance, instanceRoles } from '@visograph/core/cloud';
import { isInCloud, isOneOf, type Device } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { useDo } from '../../data/useDo.ts';
import { Button } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { RowFacts } from '../../record/KindRecord.tsx';
import { ListFacts } from '../../record/ListFacts.tsx';
import { Card } from '../../record/parts.tsx';
import { HubCard } from './HubCard.tsx';
import { InterfaceCards } from './InterfaceCards.tsx';
import { ReachCard } from './ReachCard.tsx';
import { TargetsCard } from './TargetsCard.tsx';

function InstanceCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const row = network.findOne('instanceByDevice', device.id);
  return (
    <Card title="Instance">
      {row !== null ? (
        <RowFacts kind="instance" row={row} without={device.role === 'LB' ? [] : ['facing']} />
      ) : canEdit ? (
        <Button onPress={() => act(describeInstance(network, device))}>Say its size and state</Button>
      ) : (
        <Hint>Nobody has said its size.</Hint>
      )}
    </Card>
  );
}

/** What a device of a cloud is besides: an instance with its interfaces, or a gateway; nothing for all others. */
export function CloudDeviceCards({ device }: { device: Device }): ReactNode {
  const { network } = useProject().view;
  const gateway = network.findOne('gatewayByDevice', device.id);
  if (gateway !== null)
    return (
      <>
        <Card title="Gateway">
          <RowFacts kind="gateway" row={gateway} />
        </Card>
        <ListFacts kind="gateway" row={gateway} />
        {gateway.direction === 'between' && gateway.networkId === null && <HubCard device={device} />}
      </>
    );
  if (!isInCloud(network, device) || !isOneOf(instanceRoles, device.role)) return null;
  return (
    <>
      <InstanceCard device={device} />
      <InterfaceCards deviceId={device.id} />
      {device.role === 'LB' && <TargetsCard device={device} />}
      <ReachCard device={device} />
    </>
  );
}

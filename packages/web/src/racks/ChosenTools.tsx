import { moveBlock, swapDevices, takeOut, type Attempt, type Device, type Rack } from '@visograph/core';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { KeepKit } from '../record/KeepKit.tsx';
import { useBench } from './bench.tsx';

const Panel = styled.div`
  position: absolute;
  left: 10px;
  top: 8px;
  z-index: 5;
  display: flex;
  gap: 5px;
  align-items: center;
  max-width: 60%;
  padding: 4px 5px 4px 9px;
  border: 1px solid ${({ theme }) => theme.accent};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  font-size: 12px;
  > button {
    height: 24px;
    padding: 0 8px;
    font-size: 12.5px;
  }
`;

const upwards = (rack: Rack | null): number => (rack?.numbering === 'down' ? -1 : 1);

/** What can be done with the devices that are chosen, over the racks so that nothing below moves. */
export function ChosenTools({ devices }: { devices: readonly Device[] }): ReactNode {
  const { view, commit, canEdit, sync } = useProject();
  const { network } = view;
  const bench = useBench();
  const chosen = devices.filter((device) => bench.chosen.has(device.id));
  const [first, second] = chosen;
  if (!canEdit || first === undefined) return null;
  const keep = (attempt: Attempt): void => {
    if (attempt.ok) commit(attempt.set);
    else sync.announce({ tone: 'bad', text: attempt.why.replace(/\.?$/, '.') });
  };
  const step = upwards(network.get('rack', first.rackId));
  return (
    <Panel role="group" aria-label="Chosen devices">
      <span>{chosen.length === 1 ? first.name : `${chosen.length} chosen`}</span>
      {chosen.length > 1 && (
        <>
          <Button onPress={() => keep(moveBlock(network, chosen, { units: step }))}>Up</Button>
          <Button onPress={() => keep(moveBlock(network, chosen, { units: -step }))}>Down</Button>
          {chosen.length === 2 && second !== undefined && (
            <Button onPress={() => keep(swapDevices(network, first, second))}>Swap</Button>
          )}
        </>
      )}
      <Button onPress={() => keep(takeOut(network, chosen))}>Take out</Button>
      {chosen.length > 1 && <KeepKit racks={[]} devices={chosen} />}
    </Panel>
  );
}

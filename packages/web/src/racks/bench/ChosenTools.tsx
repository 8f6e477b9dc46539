import { type Attempt } from '@visograph/core/commands';
import { type Device, type Rack } from '@visograph/core/model';
import { moveBlock, swapDevices, takeOut } from '@visograph/core/racks';
import type { ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { ToolLine } from '../../kit/tools.tsx';
import { KeepKit } from '../../catalogue/record/KeepKit.tsx';
import { ToPartsList } from '../../purchase/ToPartsList.tsx';
import { useBench } from './bench.tsx';

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
    <ToolLine role="group" aria-label="Chosen devices">
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
      {chosen.length > 1 && <ToPartsList deviceIds={chosen.map(({ id }) => id)} />}
    </ToolLine>
  );
}

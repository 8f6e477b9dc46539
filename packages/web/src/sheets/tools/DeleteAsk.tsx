import { type ChangeSet } from '@visograph/core/change';
import { type Mark, type Sheet } from '@visograph/core/model';
import { deleteDevice } from '@visograph/core/racks';
import { removeMarks, type Plate } from '@visograph/core/sheets';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Button } from '../../kit/controls.tsx';
import { PanelDialog } from '../../kit/panel/panelDialog.tsx';
import type { SheetActs } from '../useSheetActs.ts';

const Choices = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
  margin: 10px 0;
`;

interface Props {
  sheet: Sheet;
  plates: readonly Plate[];
  markIds: readonly string[];
  acts: SheetActs;
  onClose: () => void;
}

/** Where chosen things are to go from: this sheet alone, or the network. Marks are on the sheet only. */
export function DeleteAsk({ sheet, plates, markIds, acts, onClose }: Props): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const devices = plates
    .filter((plate) => plate.form !== 'place')
    .flatMap((plate) => plate.deviceIds)
    .map((id) => network.get('device', id))
    .filter((device) => device !== null);
  const marks = markIds.map((id) => network.get('mark', id)).filter((mark): mark is Mark => mark !== null);
  const many = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;
  const alone = devices.length === 1 ? devices[0] : undefined;
  const what = alone?.name ?? many(devices.length, 'device');
  const ports = devices.reduce((sum, device) => sum + network.countOf('portsByDevice', device.id), 0);
  const removeAll = (): void => {
    const changes = new Map<string, ChangeSet['changes'][number]>();
    for (const device of devices)
      for (const change of deleteDevice(network, device).changes) {
        const before = changes.get(change.id);
        // A cable between two of them goes: that stands above an end of it being unplugged.
        if (before === undefined || change.op === 'delete') changes.set(change.id, change);
      }
    if (
      acts.commit({ changes: [...changes.values()], sentence: `Deleted ${what} with ${many(ports, 'port')}` })
    )
      onClose();
  };
  return (
    <PanelDialog title="Delete" open onOpenChange={(open) => !open && onClose()}>
      <Choices>
        {marks.length > 0 && (
          <Button
            onPress={() => {
              if (acts.commit(removeMarks(sheet, marks))) onClose();
            }}
          >
            {`Delete ${many(marks.length, 'mark')}`}
          </Button>
        )}
        {plates.length > 0 && (
          <Button
            onPress={() => {
              acts.leave(plates);
              onClose();
            }}
          >
            {`From this sheet: leave out ${plates.length === 1 ? (plates[0]?.name ?? '') : `${plates.length} plates`}, ${plates.length === 1 && devices.length < 2 ? 'it stays' : 'they stay'} in the network`}
          </Button>
        )}
        {devices.length > 0 && (
          <Button onPress={removeAll}>
            {`From the network: delete ${what} with ${many(ports, 'port')} and what is cabled to them`}
          </Button>
        )}
      </Choices>
    </PanelDialog>
  );
}

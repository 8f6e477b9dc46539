import { setTransceiver } from '@visograph/core/cabling';
import { fitsCage, isCage, modelTitle, speedText, type Port } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Picker } from '../../kit/choice.tsx';
import { EditableFact } from '../../record/parts.tsx';

/** What sits in a cage: chosen from the transceivers that fit it. */
export function CagePicker({ port }: { port: Port }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  if (!isCage(port.connector)) return null;
  const now = network.get('model', port.transceiverId);
  const fitting = [...network.all('model')].filter(
    (model) =>
      model.form === 'transceiver' &&
      model.optics !== null &&
      fitsCage(model.optics.formFactor, port.connector) &&
      (!model.retired || model.id === port.transceiverId),
  );
  const options = [
    { id: 'none', text: 'empty' },
    ...fitting.map((model) => ({
      id: model.id,
      text: modelTitle(model),
      detail: model.optics === null ? undefined : speedText(model.optics.speedBps),
    })),
  ];
  return (
    <>
      <dt>Transceiver</dt>
      <dd>
        {canEdit ? (
          <Picker
            label="Transceiver"
            hideLabel
            options={options}
            value={port.transceiverId ?? 'none'}
            onChange={(id) => void commit(setTransceiver(network, port, id === 'none' ? null : id))}
          />
        ) : now === null ? (
          'empty'
        ) : (
          modelTitle(now)
        )}
      </dd>
      {now !== null && <EditableFact kind="port" row={port} field="transceiverSerial" />}
    </>
  );
}

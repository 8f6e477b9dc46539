import { addTarget, instancesOf, networksOfDevice } from '@visograph/core/cloud';
import { deleteRow } from '@visograph/core/commands';
import { countField, noted, transportProtocols, type Device } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useDo } from '../../data/useDo.ts';
import { useFormActs } from '../../data/useFormActs.ts';
import { ChoiceIn, NumberIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactLine, FactList } from '../../record/factList.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const targetForm = z.object({
  deviceId: noted(z.string({ error: 'is to be chosen' }), { label: 'Target' }),
  protocol: noted(z.enum(transportProtocols), { label: 'Protocol' }),
  listens: countField('Listens on', 1, 65535),
  port: countField('Sends to port', 1, 65535),
});
function AddTarget({ device }: { device: Device }): ReactNode {
  const { network } = useProject().view;
  const others = networksOfDevice(network, device)
    .flatMap((id) => instancesOf(network, id))
    .filter(({ id }) => id !== device.id);
  const form = useSchemaForm(targetForm, {
    ...{ deviceId: others[0]?.id ?? '', protocol: 'TCP' as const, listens: 443, port: 443 },
  });
  const { act } = useFormActs(form);
  if (others.length === 0) return <Hint>There is nothing in its network that it could send to.</Hint>;
  return (
    <Form
      label={`Add a target of ${device.name}`}
      form={form}
      quiet
      action="Add target"
      onSend={({ deviceId, ...wish }) => {
        const target = network.get('device', deviceId);
        if (target === null) return form.refuse([{ field: 'deviceId', message: 'Choose a target.' }]);
        return act(addTarget(network, device, target, wish));
      }}
    >
      <ChoiceIn name="deviceId" options={others.map(({ id, name }) => ({ id, text: name }))} />
      <ChoiceIn name="protocol" options={transportProtocols.map((id) => ({ id, text: id }))} />
      <NumberIn name="listens" />
      <NumberIn name="port" />
    </Form>
  );
}

/** Where a load balancer sends what it takes in. */
export function TargetsCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const targets = network
    .find('targetsByBalancer', device.id)
    .sort((a, b) => a.listens - b.listens || (a.deviceId < b.deviceId ? -1 : 1));
  return (
    <Card title="Sends to">
      {targets.length === 0 && <Hint>Nothing yet</Hint>}
      <FactList>
        {targets.map((row) => {
          const name = network.get('device', row.deviceId)?.name ?? '';
          return (
            <FactLine
              key={row.id}
              label={`Send ${row.protocol} ${row.listens} no longer to ${name}`}
              onRemove={canEdit ? () => act(deleteRow(network, 'balancerTarget', row)) : null}
            >
              {`${row.protocol} ${row.listens} → `}
              <Goto to={{ kind: 'device', id: row.deviceId }}>{name}</Goto>
              {` ${row.port}`}
            </FactLine>
          );
        })}
      </FactList>
      {canEdit && <AddTarget key={device.id} device={device} />}
    </Card>
  );
}

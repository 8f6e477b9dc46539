import { attachmentsOf, attachToHub, blocksBehind, networksIn } from '@visograph/core/cloud';
import { deleteRow } from '@visograph/core/commands';
import { byName, noted, type Device } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useDo } from '../../data/useDo.ts';
import { useFormActs } from '../../data/useFormActs.ts';
import { ChoiceIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactLine, FactList } from '../../record/factList.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const attachForm = z.object({
  networkId: noted(z.string({ error: 'is to be chosen' }), { label: 'Network' }),
});
function Attach({ hub }: { hub: Device }): ReactNode {
  const { network } = useProject().view;
  const attached = new Set(network.find('hubAttachmentsByHub', hub.id).map(({ networkId }) => networkId));
  const open = networksIn(network, null).filter(({ id }) => !attached.has(id));
  const form = useSchemaForm(attachForm, { networkId: open[0]?.id ?? '' });
  const { act } = useFormActs(form);
  if (open.length === 0) return <Hint>Every network is attached.</Hint>;
  return (
    <Form
      label={`Attach a network to ${hub.name}`}
      form={form}
      row
      quiet
      action="Attach"
      onSend={({ networkId }) => {
        const place = network.get('place', networkId);
        if (place === null)
          return form.refuse([{ field: 'networkId', message: 'Choose a network that is not attached yet.' }]);
        return act(attachToHub(network, place, hub, blocksBehind(network, hub.id, place.id)));
      }}
    >
      <ChoiceIn name="networkId" width={160} options={open.map(({ id, name }) => ({ id, text: name }))} />
    </Form>
  );
}

/** What a router of the region joins, and by which of its tables each of them is looked up. */
export function HubCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const tables = network.find('routeTablesByHub', device.id).sort(byName);
  return (
    <Card title="Joins">
      <FactList>
        {attachmentsOf(network, device.id).map((row) => (
          <FactLine
            key={row.id}
            label={`Detach ${row.name}`}
            onRemove={canEdit ? () => act(deleteRow(network, 'hubAttachment', row)) : null}
          >
            <Goto to={{ kind: 'hubAttachment', id: row.id }}>{row.name}</Goto>
            <small>
              {row.tableId === null
                ? ' by no table: nothing goes on'
                : ` by ${network.get('routeTable', row.tableId)?.name ?? ''}`}
            </small>
          </FactLine>
        ))}
      </FactList>
      {tables.map((table) => (
        <div key={table.id}>
          <Goto to={{ kind: 'routeTable', id: table.id }}>{`Table ${table.name}`}</Goto>
        </div>
      ))}
      {canEdit && <Attach key={device.id} hub={device} />}
    </Card>
  );
}

import {
  addInterface,
  configuredForms,
  deleteInterface,
  type ConfiguredForm,
} from '@visograph/core/addressing';
import { noted, portsOf, vidSchema, type Device, type Port } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Picker } from '../../kit/choice.tsx';
import { ChoiceIn, NumberIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactLine, FactList, useActs } from '../../record/factList.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const formNames: Record<ConfiguredForm | 'virtual', string> = {
  virtual: 'interface',
  vlan: 'VLAN interface',
  subinterface: 'subinterface',
  aggregate: 'aggregate',
  loopback: 'loopback',
  tunnel: 'tunnel',
};
const newPort = z.object({
  form: noted(z.enum(configuredForms), { label: 'New port' }),
  vid: noted(vidSchema.nullable(), { label: 'VLAN' }),
  parentId: noted(z.string().nullable(), { label: 'Over' }),
  members: noted(z.array(z.string()), { label: 'Members' }),
});
const nothing: z.infer<typeof newPort> = { form: 'vlan', vid: null, parentId: null, members: [] };

/** A port that is only configured: what it needs depends on what it is. */
function AddInterface({ device, ports }: { device: Device; ports: readonly Port[] }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(newPort, nothing);
  const { act } = useFormActs(form);
  const what = form.control.watch('form');
  const members = form.control.watch('members');
  const physical = portsOf(network, device.id).filter((port) => port.role === 'network');
  const over = [...physical, ...ports.filter((port) => port.form === 'aggregate')];
  const numbered = what === 'vlan' || what === 'subinterface';
  return (
    <Form
      label="Add a configured port"
      form={form}
      row
      quiet
      action="Add port"
      onSend={(wish) =>
        act(
          addInterface(network, device, {
            form: wish.form,
            vid: numbered ? wish.vid : null,
            parent: network.get('port', wish.parentId),
            members: wish.members.flatMap((id) => network.get('port', id) ?? []),
          }),
          // The next one is often of the same form, over the same port.
          () => form.control.reset({ ...wish, vid: null, members: [] }),
        )
      }
    >
      <ChoiceIn
        name="form"
        width={124}
        options={configuredForms.map((id) => ({ id, text: formNames[id] }))}
      />
      {numbered && <NumberIn name="vid" width={60} />}
      {(what === 'subinterface' || what === 'tunnel') && (
        <ChoiceIn
          name="parentId"
          search
          width={110}
          options={over.map((port) => ({ id: port.id, text: port.name }))}
        />
      )}
      {what === 'aggregate' && (
        <Picker
          label={members.length === 0 ? 'Members' : `${members.length} chosen, more`}
          width={130}
          value={null}
          options={physical
            .filter((port) => port.aggregateId === null && !members.includes(port.id))
            .map((port) => ({ id: port.id, text: port.name }))}
          onChange={(id) => id !== null && form.control.setValue('members', [...members, id])}
        />
      )}
    </Form>
  );
}

/** Ports of a device that are only configured: added and taken out. */
export function InterfacesCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const ports = network.find('logicalPortsByDevice', device.id).sort((a, b) => (a.name < b.name ? -1 : 1));
  if (!canEdit && ports.length === 0) return null;
  return (
    <Card title="Configured ports">
      <FactList aria-label="Configured ports">
        {ports.map((port) => (
          <FactLine
            key={port.id}
            label={`Take out ${port.name}`}
            onRemove={canEdit ? () => act(deleteInterface(network, port)) : null}
          >
            <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>{' '}
            <small>{port.form === 'physical' ? '' : formNames[port.form]}</small>
          </FactLine>
        ))}
      </FactList>
      {canEdit && <AddInterface key={device.id} device={device} ports={ports} />}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

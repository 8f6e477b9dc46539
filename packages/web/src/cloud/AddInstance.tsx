import { addInstance, instanceRoles, subnetsOf } from '@visograph/core/cloud';
import { byName, nameField, noted, roles, type Place } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Asked } from './Asked.tsx';

const instanceForm = z.object({
  name: trimmed(nameField('Name', 80)),
  role: noted(z.enum(instanceRoles), { label: 'Role' }),
  subnetId: noted(z.string({ error: 'is to be chosen' }), { label: 'Subnet' }),
  setId: noted(z.string().nullable(), { label: 'Rule set' }),
});

function Fields({ place, close }: { place: Place; close: () => void }): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const subnets = subnetsOf(network, place.id);
  const sets = network
    .find('ruleSetsByNetwork', place.id)
    .filter(({ ties }) => ties === 'interfaces')
    .sort(byName);
  const form = useSchemaForm(instanceForm, {
    ...{ name: '', role: 'VM' as const, subnetId: subnets[0]?.id ?? '', setId: null },
  });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add an instance"
      form={form}
      action="Add instance"
      onSend={(wish) => {
        const subnet = network.get('cloudSubnet', wish.subnetId);
        if (subnet === null)
          return form.refuse([{ field: 'subnetId', message: 'Choose the subnet it stands in.' }]);
        const attempt = addInstance(network, subnet, {
          name: wish.name,
          role: wish.role,
          setIds: wish.setId === null ? [] : [wish.setId],
        });
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'device', id: attempt.deviceId });
          close();
        });
        return undefined;
      }}
    >
      <TextIn name="name" autoFocus />
      <ChoiceIn
        name="role"
        options={instanceRoles.map((id) => ({ id, text: roles[id].label, detail: id }))}
      />
      <ChoiceIn name="subnetId" options={subnets.map(({ id, name }) => ({ id, text: name }))} />
      <ChoiceIn name="setId" none="none" options={sets.map(({ id, name }) => ({ id, text: name }))} />
    </Form>
  );
}

/** Puts something new into a subnet of a network. */
export function AddInstance({ place }: { place: Place }): ReactNode {
  const { network } = useProject().view;
  return (
    <Asked
      text="Add instance"
      primary
      end
      isDisabled={network.countOf('cloudSubnetsByNetwork', place.id) === 0}
    >
      {(close) => <Fields place={place} close={close} />}
    </Asked>
  );
}

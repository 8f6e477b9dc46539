import { addRedundancy, leaveRedundancy } from '@visograph/core/addressing';
import { editRow } from '@visograph/core/commands';
import { countField, isArea, noted, ospfNetworks, type Ospf, type Port } from '@visograph/core/model';
import { ospfCost } from '@visograph/core/routing';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { Choice } from '../../kit/choice.tsx';
import { NumberIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Hint } from '../../kit/panel/panels.tsx';
import { Tick } from '../../kit/Tick.tsx';
import { FactLine, FactList, useActs } from '../../record/factList.tsx';
import { Card } from '../../record/parts.tsx';

const newOspf: Ospf = { area: '0', cost: null, passive: false, network: 'broadcast' };
const ospfTexts = z.object({
  area: noted(
    z
      .string()
      .trim()
      .superRefine((text, context) => {
        if (text !== '' && !isArea(text))
          context.addIssue({
            code: 'custom',
            message: `Area “${text}” is neither a number nor like 0.0.0.1.`,
          });
      }),
    { label: 'OSPF area' },
  ),
  cost: noted(countField('Cost', 1, 65535).nullable(), { label: 'Cost' }),
});
const newMember = z.object({
  group: countField('VRRP group', 1, 255),
  virtual: noted(z.string().trim().min(1, 'is empty'), { label: 'Shared address' }),
});

/** Whether a port speaks OSPF: its area and cost; without an area it does not. */
function OspfForm({ port }: { port: Port }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { ospf } = port;
  const now = { area: ospf?.area ?? '', cost: ospf?.cost ?? null };
  const form = useSchemaForm(ospfTexts, now, now);
  const { make } = useFormActs(form);
  return (
    <Form
      label="OSPF"
      form={form}
      row
      action="Keep"
      changes
      readOnly={!canEdit}
      onSend={({ area, cost }) =>
        make(
          editRow(network, 'port', port, { ospf: area === '' ? null : { ...(ospf ?? newOspf), area, cost } }),
        )
      }
    >
      <TextIn name="area" mono width={80} />
      <NumberIn
        name="cost"
        width={96}
        label={`Cost${ospf === null ? '' : `, now ${ospfCost(network, port)}`}`}
      />
    </Form>
  );
}

/** Joins a group of ports that share an address. */
function JoinGroup({ port }: { port: Port }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(newMember, { virtual: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Join a group"
      form={form}
      row
      quiet
      action="Add to group"
      onSend={(wish) => act(addRedundancy(network, port, wish))}
    >
      <NumberIn name="group" width={80} />
      <TextIn name="virtual" mono width={124} />
    </Form>
  );
}

/** How a port with addresses takes part in OSPF, and in groups that share an address. */
export function PortRoutingCard({ port }: { port: Port }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const shared = network.find('redundanciesByPort', port.id);
  const { ospf } = port;
  if (network.countOf('addressesByPort', port.id) === 0 && ospf === null) return null;
  const set = (next: Ospf): void => void commit(editRow(network, 'port', port, { ospf: next }));
  return (
    <Card title="Routing">
      <OspfForm key={port.id} port={port} />
      {ospf !== null && (
        <>
          <Tick
            isSelected={ospf.passive}
            isDisabled={!canEdit}
            onChange={(passive) => set({ ...ospf, passive })}
          >
            Passive: tells the subnet, has no neighbours
          </Tick>
          <Choice
            label="Network type"
            width={150}
            value={ospf.network}
            options={ospfNetworks.map((id) => ({ id, text: id, disabled: !canEdit }))}
            onChange={(id) => set({ ...ospf, network: id })}
          />
        </>
      )}
      <FactList aria-label="Shared addresses">
        {shared.map((part) => (
          <FactLine
            key={part.id}
            label={`Leave group ${part.group}`}
            onRemove={canEdit ? () => act(leaveRedundancy(network, part)) : null}
          >
            {part.virtual} <small>{`shared, group ${part.group}, priority ${part.priority}`}</small>
          </FactLine>
        ))}
      </FactList>
      {canEdit && <JoinGroup key={`group ${port.id}`} port={port} />}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

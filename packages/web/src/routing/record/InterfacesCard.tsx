import {
  addInterface,
  configuredForms,
  deleteInterface,
  type ConfiguredForm,
} from '@visograph/core/addressing';
import { portsOf, type Device } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Choice, Picker } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { FactForm, FactLine, FactList, useActs } from '../../record/factList.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const formNames: Record<ConfiguredForm, string> = {
  vlan: 'VLAN interface',
  subinterface: 'subinterface',
  aggregate: 'aggregate',
  loopback: 'loopback',
  tunnel: 'tunnel',
};

/** Ports of a device that are only configured: added and taken out. */
export function InterfacesCard({ device }: { device: Device }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { why, act } = useActs();
  const [form, setForm] = useState<ConfiguredForm>('vlan');
  const [vid, setVid] = useState('');
  const [parentId, setParent] = useState<string | null>(null);
  const [members, setMembers] = useState<readonly string[]>([]);
  const ports = network.find('logicalPortsByDevice', device.id).sort((a, b) => (a.name < b.name ? -1 : 1));
  const physical = portsOf(network, device.id).filter((port) => port.role === 'network');
  if (!canEdit && ports.length === 0) return null;
  const over = [...physical, ...ports.filter((port) => port.form === 'aggregate')];
  const numbered = form === 'vlan' || form === 'subinterface';
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
      {canEdit && (
        <FactForm
          onSubmit={(event) => {
            event.preventDefault();
            const made = addInterface(network, device, {
              form,
              vid: numbered && vid.trim() !== '' ? Number(vid) : null,
              parent: network.get('port', parentId),
              members: members.flatMap((id) => network.get('port', id) ?? []),
            });
            act(made, () => {
              setVid('');
              setMembers([]);
            });
          }}
        >
          <Choice
            label="New port"
            width={124}
            value={form}
            options={configuredForms.map((id) => ({ id, text: formNames[id] }))}
            onChange={(id) => setForm(configuredForms.find((one) => one === id) ?? 'vlan')}
          />
          {numbered && <Field label="VLAN" mono width={60} value={vid} onChange={setVid} />}
          {(form === 'subinterface' || form === 'tunnel') && (
            <Picker
              label="Over"
              width={110}
              value={parentId}
              options={over.map((port) => ({ id: port.id, text: port.name }))}
              onChange={setParent}
            />
          )}
          {form === 'aggregate' && (
            <Picker
              label={members.length === 0 ? 'Members' : `${members.length} chosen, more`}
              width={130}
              value={null}
              options={physical
                .filter((port) => port.aggregateId === null && !members.includes(port.id))
                .map((port) => ({ id: port.id, text: port.name }))}
              onChange={(id) => id !== null && setMembers([...members, id])}
            />
          )}
          <Button type="submit">Add port</Button>
        </FactForm>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

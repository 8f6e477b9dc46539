import { connectorNames, connectors, portRoles, type PortGroup } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Choice } from '../../kit/choice.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panel/panels.tsx';
import { portCount } from '../figures.ts';

const Group = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: flex-end;
  padding: 6px 0 8px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > small {
    flex-basis: 100%;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

const roleLabels: Record<PortGroup['role'], string> = {
  network: 'network',
  uplink: 'uplink',
  management: 'management',
  console: 'console',
  powerIn: 'power inlet',
  powerOut: 'power outlet',
  panel: 'pass-through',
};
const speeds: readonly [string, number | null][] = [
  ['–', null],
  ['100M', 1e8],
  ['1G', 1e9],
  ['2.5G', 2.5e9],
  ['5G', 5e9],
  ['10G', 1e10],
  ['25G', 2.5e10],
  ['40G', 4e10],
  ['100G', 1e11],
];
const fresh: PortGroup = {
  pattern: 'gi1/1-8',
  connector: 'RJ45',
  speedBps: 1e9,
  role: 'network',
  face: 'front',
  rows: 1,
  order: 'down',
  block: 0,
  rearPattern: null,
  rearConnector: null,
  mdi: 'auto',
  poeClass: null,
  phase: null,
};
const plain = (values: readonly (string | number)[]) =>
  values.map((value) => ({ id: String(value), text: String(value) }));

interface Props {
  groups: readonly PortGroup[];
  onChange: (groups: PortGroup[]) => void;
}

/** The ports of a model: names from a pattern, what they are, and how they sit on the face. */
export function PortGroupsEditor({ groups, onChange }: Props): ReactNode {
  const set = (at: number, change: Partial<PortGroup>): void =>
    onChange(groups.map((group, index) => (index === at ? { ...group, ...change } : group)));
  return (
    <div>
      {groups.map((group, at) => (
        <Group key={at} role="group" aria-label={`Port group ${at + 1}`}>
          <Field
            label="Names"
            value={group.pattern}
            onChange={(pattern) => set(at, { pattern })}
            mono
            width={132}
          />
          <Choice
            label="Connector"
            width={118}
            value={group.connector}
            options={connectorNames.map((name) => ({ id: name, text: connectors[name].label }))}
            onChange={(next) =>
              set(at, { connector: connectorNames.find((name) => name === next) ?? group.connector })
            }
          />
          <Choice
            label="Speed"
            width={76}
            value={String(group.speedBps)}
            options={speeds.map(([text, bps]) => ({ id: String(bps), text }))}
            onChange={(next) => set(at, { speedBps: next === 'null' ? null : Number(next) })}
          />
          <Choice
            label="Role"
            width={116}
            value={group.role}
            options={portRoles.map((role) => ({ id: role, text: roleLabels[role] }))}
            onChange={(next) => {
              const role = portRoles.find((one) => one === next) ?? group.role;
              set(at, { role, rearPattern: role === 'panel' ? (group.rearPattern ?? 'R1-8') : null });
            }}
          />
          <Choice
            label="Face"
            width={76}
            value={group.face}
            options={plain(['front', 'rear'])}
            onChange={(next) => set(at, { face: next === 'rear' ? 'rear' : 'front' })}
          />
          <Choice
            label="Rows"
            width={58}
            value={String(group.rows)}
            options={plain([1, 2, 3, 4])}
            onChange={(next) => set(at, { rows: Number(next) })}
          />
          <Choice
            label="Numbered"
            width={142}
            value={group.order}
            options={[
              { id: 'down', text: 'down, then across' },
              { id: 'across', text: 'across, then down' },
            ]}
            onChange={(next) => set(at, { order: next === 'across' ? 'across' : 'down' })}
          />
          <Choice
            label="Gap after"
            width={82}
            value={String(group.block)}
            options={[{ id: '0', text: 'none' }, ...plain([2, 3, 4, 6, 8, 12])]}
            onChange={(next) => set(at, { block: Number(next) })}
          />
          {group.connector === 'RJ45' && group.role === 'network' && (
            <Choice
              label="PoE class"
              width={76}
              value={String(group.poeClass)}
              options={[{ id: 'null', text: 'none' }, ...plain([1, 2, 3, 4, 5, 6, 7, 8])]}
              onChange={(next) => set(at, { poeClass: next === 'null' ? null : Number(next) })}
            />
          )}
          {group.role === 'panel' && (
            <Field
              label="Names at the other face"
              value={group.rearPattern ?? ''}
              onChange={(rearPattern) => set(at, { rearPattern: rearPattern === '' ? null : rearPattern })}
              mono
              width={150}
            />
          )}
          {group.role === 'powerOut' && (
            <Choice
              label="Phase"
              width={70}
              value={String(group.phase)}
              options={[{ id: 'null', text: 'one' }, ...plain([1, 2, 3])]}
              onChange={(next) => set(at, { phase: next === 'null' ? null : Number(next) })}
            />
          )}
          <Button $tone="quiet" onPress={() => onChange(groups.filter((_, index) => index !== at))}>
            Remove
          </Button>
          <small>{`${portCount(group.pattern)} ports`}</small>
        </Group>
      ))}
      {groups.length === 0 && <Hint>No ports yet.</Hint>}
      <div style={{ marginTop: 6 }}>
        <Button onPress={() => onChange([...groups, fresh])}>Add ports</Button>
      </div>
    </div>
  );
}

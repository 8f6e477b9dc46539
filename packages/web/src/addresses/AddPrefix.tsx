import {
  addPrefix,
  formatPrefix,
  gatewayBy,
  lengthForHosts,
  nextFreePrefix,
  parsePrefix,
  prefixRoles,
  readPrefix,
  type IpPrefix,
  type Prefix,
  type PrefixRole,
} from '@visograph/core';
import { useState, type ReactNode } from 'react';
import { Dialog } from 'react-aria-components';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button, Choice, Field, Picker } from '../kit/controls.tsx';
import { Hint } from '../kit/panels.tsx';

const Form = styled(Dialog)`
  padding: 12px;
  width: 320px;
  outline: none;
  form {
    display: grid;
    gap: 8px;
  }
`;

/** `/24` or `500 hosts`: the length that is asked for; null: something else was typed. */
function wishedLength(text: string, family: 4 | 6): number | null {
  const length = /^\/(\d{1,3})$/.exec(text.trim());
  if (length !== null) return Number(length[1]);
  const hosts = /^(\d+)\s*hosts?$/i.exec(text.trim());
  return hosts === null ? null : lengthForHosts(family, Number(hosts[1]));
}

interface Props {
  vrfId: string | null;
  /** The pool that a size alone is taken from. */
  pool: Prefix | null;
  start: IpPrefix | null;
  onDone: (id: string) => void;
}

/** A new prefix: by its text, or by its size, which takes the first free one of the pool. */
export function AddPrefix({ vrfId, pool, start, onDone }: Props): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [text, setText] = useState(start === null ? '' : formatPrefix(start));
  const [name, setName] = useState('');
  const [role, setRole] = useState<PrefixRole>('subnet');
  const [vlanId, setVlan] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const outer = pool === null ? null : parsePrefix(pool.prefix);
  const length = outer === null ? null : wishedLength(text, outer.family);
  const found = pool === null || length === null ? null : nextFreePrefix(network, pool, length);
  const asked = found === null ? text.trim() : formatPrefix(found);
  const add = (close: () => void): void => {
    if (length !== null && found === null)
      return setWrong(`${pool?.prefix ?? ''} has no free /${length}. Take a smaller one, or another pool.`);
    const read = readPrefix(asked);
    const attempt = addPrefix(network, {
      prefix: asked,
      vrfId,
      role,
      name: name.trim() || null,
      vlanId: role === 'pool' ? null : vlanId,
      placeId: pool?.placeId ?? null,
      gateway: role === 'subnet' && read.ok ? gatewayBy('first', read.prefix) : null,
    });
    if (!attempt.ok) return setWrong(attempt.why);
    const [made] = attempt.set.changes;
    if (!commit(attempt.set).ok) return;
    close();
    if (made !== undefined) onDone(made.id);
  };
  const vlans = [...network.all('vlan')].map((vlan) => ({
    id: vlan.id,
    text: `${vlan.vid} ${vlan.name}`,
    detail: network.get('vlanGroup', vlan.groupId)?.name ?? '',
  }));
  return (
    <Form aria-label="Add prefix">
      {({ close }) => (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            add(close);
          }}
        >
          <Field
            label={pool === null ? 'Prefix' : `Prefix, or a size in ${pool.prefix}`}
            value={text}
            onChange={(next) => {
              setText(next);
              setWrong(null);
            }}
            mono
            autoFocus
            help={
              pool === null
                ? '10.40.8.0/22; choose a pool first to ask for a size'
                : '10.40.8.0/22, /24 or 500 hosts'
            }
          />
          {found !== null && <Hint role="status">{`First free: ${formatPrefix(found)}`}</Hint>}
          <Choice
            label="Role"
            value={role}
            options={prefixRoles.map((one) => ({ id: one, text: one }))}
            onChange={(next) => setRole(prefixRoles.find((one) => one === next) ?? 'subnet')}
          />
          <Field label="Name" value={name} onChange={setName} />
          {role !== 'pool' && role !== 'loopback' && (
            <Picker label="VLAN" options={vlans} value={vlanId} onChange={setVlan} />
          )}
          {wrong !== null && <Hint role="alert">{wrong}</Hint>}
          <Button type="submit" $tone="primary">
            Add prefix
          </Button>
        </form>
      )}
    </Form>
  );
}

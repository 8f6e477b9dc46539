import { nextFreeAddress, reserveAddress } from '@visograph/core/addressing';
import { formatIp, type Prefix } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';
import { FactForm, useActs } from '../../record/factList.tsx';
import { Card } from '../../record/parts.tsx';

/** Keeps an address of a subnet without a port, for a name: the next free one where none is typed. */
export function KeepAddress({ row }: { row: Prefix }): ReactNode {
  const { network } = useProject().view;
  const { why, act } = useActs();
  const [text, setText] = useState('');
  const [name, setName] = useState('');
  const next = nextFreeAddress(network, row);
  if (row.role === 'pool' || row.status === 'retired') return null;
  return (
    <Card title="Keep an address">
      <FactForm
        onSubmit={(event) => {
          event.preventDefault();
          const wish = text.trim() || (next === null ? '' : formatIp(next));
          act(reserveAddress(network, wish, row.vrfId, { dnsName: name.trim() || null }), () => {
            setText('');
            setName('');
          });
        }}
      >
        <Field
          label={next === null ? 'Address' : `Address, or ${formatIp(next)}`}
          mono
          width={148}
          value={text}
          onChange={setText}
        />
        <Field label="DNS name" mono width={148} value={name} onChange={setName} />
        <Button type="submit">Keep address</Button>
      </FactForm>
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

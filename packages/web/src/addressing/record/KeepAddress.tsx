import { nextFreeAddress, reserveAddress } from '@visograph/core/addressing';
import { formatIp, noted, type Prefix } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { Card } from '../../record/parts.tsx';

const wish = z.object({
  address: z.string().trim(),
  dnsName: noted(z.string().trim(), { label: 'DNS name' }),
});

/** Keeps an address of a subnet without a port, for a name: the next free one where none is typed. */
export function KeepAddress({ row }: { row: Prefix }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(wish, { address: '', dnsName: '' });
  const { act } = useFormActs(form);
  const next = nextFreeAddress(network, row);
  if (row.role === 'pool' || row.status === 'retired') return null;
  return (
    <Card title="Keep an address">
      <Form
        label="Keep an address"
        form={form}
        row
        quiet
        action="Keep address"
        onSend={({ address, dnsName }) =>
          act(
            reserveAddress(network, address || (next === null ? '' : formatIp(next)), row.vrfId, {
              dnsName: dnsName || null,
            }),
          )
        }
      >
        <TextIn
          name="address"
          label={next === null ? 'Address' : `Address, or ${formatIp(next)}`}
          mono
          width={148}
        />
        <TextIn name="dnsName" mono width={148} />
      </Form>
    </Card>
  );
}

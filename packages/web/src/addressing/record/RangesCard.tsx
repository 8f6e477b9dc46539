import { editRow } from '@visograph/core/commands';
import { noted, rangeUses, type AddressRange, type Prefix } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../../data/project.tsx';
import { useFormActs } from '../../data/useFormActs.ts';
import { ChoiceIn, TextIn } from '../../kit/form/fields.tsx';
import { Form } from '../../kit/form/Form.tsx';
import { useSchemaForm } from '../../kit/form/useSchemaForm.ts';
import { FactLine, FactList } from '../../record/factList.tsx';
import { Card } from '../../record/parts.tsx';

const address = (label: string) => noted(z.string().trim().min(1, 'is empty'), { label });
const newRange = z.object({
  use: noted(z.enum(rangeUses), { label: 'Use' }),
  from: address('From'),
  to: address('To'),
});

/** Runs of addresses that DHCP hands out, or that are kept: added and taken away. */
export function RangesCard({ row }: { row: Prefix }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const form = useSchemaForm(newRange, { use: 'DHCP', from: '', to: '' });
  const { make } = useFormActs(form);
  const set = (ranges: AddressRange[]) => editRow(network, 'prefix', row, { ranges });
  if (!canEdit && row.ranges.length === 0) return null;
  return (
    <Card title="Ranges">
      <FactList aria-label="Ranges">
        {row.ranges.map((range) => (
          <FactLine
            key={`${range.from}${range.to}`}
            label={`Remove the range from ${range.from}`}
            onRemove={canEdit ? () => void commit(set(row.ranges.filter((one) => one !== range))) : null}
          >
            {`${range.from} – ${range.to}`} <small>{range.use}</small>
          </FactLine>
        ))}
      </FactList>
      {canEdit && (
        <Form
          label="Add a range"
          form={form}
          row
          quiet
          action="Add range"
          onSend={(range) => make(set([...row.ranges, { ...range, note: '' }]))}
        >
          <ChoiceIn name="use" width={92} options={rangeUses.map((id) => ({ id, text: id }))} />
          <TextIn name="from" mono width={92} />
          <TextIn name="to" mono width={92} />
        </Form>
      )}
    </Card>
  );
}

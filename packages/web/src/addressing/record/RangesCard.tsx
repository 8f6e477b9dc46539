import { applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { rangeUses, type AddressRange, type Prefix } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { useProject } from '../../data/project.tsx';
import { Button, Choice, Field } from '../../kit/controls.tsx';
import { Hint } from '../../kit/panels.tsx';
import { FactForm, FactLine, FactList } from '../../record/factList.tsx';
import { Card } from '../../record/parts.tsx';

/** Runs of addresses that DHCP hands out, or that are kept: added and taken away. */
export function RangesCard({ row }: { row: Prefix }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const [use, setUse] = useState<AddressRange['use']>('DHCP');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const set = (ranges: AddressRange[]): boolean => {
    const change = editRow(network, 'prefix', row, { ranges });
    const tried = applyChanges(network, change.changes);
    setWhy(tried.ok ? null : (tried.problems[0]?.message ?? 'Not allowed.'));
    return tried.ok && commit(change).ok;
  };
  if (!canEdit && row.ranges.length === 0) return null;
  return (
    <Card title="Ranges">
      <FactList aria-label="Ranges">
        {row.ranges.map((range) => (
          <FactLine
            key={`${range.from}${range.to}`}
            label={`Remove the range from ${range.from}`}
            onRemove={canEdit ? () => void set(row.ranges.filter((one) => one !== range)) : null}
          >
            {`${range.from} – ${range.to}`} <small>{range.use}</small>
          </FactLine>
        ))}
      </FactList>
      {canEdit && (
        <FactForm
          onSubmit={(event) => {
            event.preventDefault();
            const range = { use, from: from.trim(), to: to.trim(), note: '' };
            if (set([...row.ranges, range])) {
              setFrom('');
              setTo('');
            }
          }}
        >
          <Choice
            label="Use"
            width={92}
            value={use}
            options={rangeUses.map((id) => ({ id, text: id }))}
            onChange={(id) => setUse(rangeUses.find((one) => one === id) ?? 'DHCP')}
          />
          <Field label="From" mono width={92} value={from} onChange={setFrom} />
          <Field label="To" mono width={92} value={to} onChange={setTo} />
          <Button type="submit" isDisabled={from.trim() === '' || to.trim() === ''}>
            Add range
          </Button>
        </FactForm>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

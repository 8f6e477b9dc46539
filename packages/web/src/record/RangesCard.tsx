import { applyChanges, editRow, rangeUses, type AddressRange, type Prefix } from '@visograph/core';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button, Choice, Field } from '../kit/controls.tsx';
import { Hint } from '../kit/panels.tsx';
import { mono } from '../theme/mono.ts';
import { Card } from './parts.tsx';

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 22px;
    ${mono}
    font-size: 12.5px;
  }
  li > span {
    flex: 1;
  }
  button {
    height: 22px;
    padding: 0 6px;
  }
`;
const Fields = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: flex-end;
  margin-top: 6px;
`;

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
      <List aria-label="Ranges">
        {row.ranges.map((range) => (
          <li key={`${range.from}${range.to}`}>
            <span>{`${range.from} – ${range.to}`}</span>
            <Hint>{range.use}</Hint>
            {canEdit && (
              <Button
                $tone="quiet"
                aria-label={`Remove the range from ${range.from}`}
                onPress={() => set(row.ranges.filter((one) => one !== range))}
              >
                ×
              </Button>
            )}
          </li>
        ))}
      </List>
      {canEdit && (
        <Fields
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
        </Fields>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
    </Card>
  );
}

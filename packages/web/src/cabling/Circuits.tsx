import { circuitSchedule } from '@visograph/core/cabling';
import { applyChanges, create } from '@visograph/core/change';
import { blankCircuit, newId } from '@visograph/core/model';
import { useMemo, useState, type FormEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button, Field } from '../kit/controls.tsx';
import { Grid } from '../kit/grid/Grid.tsx';
import { Empty } from '../kit/panel/panels.tsx';

const Add = styled.form`
  flex: none;
  display: flex;
  gap: 8px;
  align-items: end;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.ground};
`;
export const circuitColumns = [
  { key: 'number', label: 'Circuit', width: 124 },
  { key: 'provider', label: 'Provider', width: 92, text: true },
  { key: 'kind', label: 'Kind', width: 86, text: true },
  { key: 'bandwidth', label: 'Bandwidth', width: 76 },
  { key: 'a', label: 'A end', width: 136 },
  { key: 'b', label: 'B end', width: 136 },
  { key: 'handover', label: 'Hand-over point', width: 104, text: true },
  { key: 'status', label: 'Status', width: 64, text: true },
];

/** Provider circuits and radio hops of the scope; a new one is named here and completed in its record. */
export function Circuits({ filter }: { filter: string }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const [number, setNumber] = useState('');
  const [provider, setProvider] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const rows = useMemo(() => {
    const table = circuitSchedule(network, scopeId);
    return table.rows.map((cells, at) => ({ id: table.ids[at] ?? '', cells }));
  }, [network, scopeId]);
  const add = (event: FormEvent): void => {
    event.preventDefault();
    const circuit = {
      ...blankCircuit,
      id: newId(),
      number: number.trim(),
      provider: provider.trim() === '' ? null : provider.trim(),
    };
    const set = { changes: [create('circuit', circuit)], sentence: `Added circuit ${circuit.number}` };
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return setWrong(tried.problems[0]?.message ?? 'It cannot be added.');
    if (!commit(set).ok) return;
    setNumber('');
    setProvider('');
    setWrong(null);
    select({ kind: 'circuit', id: circuit.id });
  };
  return (
    <>
      {canEdit && (
        <Add onSubmit={add} aria-label="Add circuit">
          <Field
            label="Circuit number"
            value={number}
            onChange={(text) => {
              setNumber(text);
              setWrong(null);
            }}
            mono
            required
            error={wrong}
          />
          <Field label="Provider" value={provider} onChange={setProvider} />
          <Button type="submit">Add circuit</Button>
        </Add>
      )}
      <Grid
        label="Circuits"
        columns={circuitColumns}
        rows={rows}
        filter={filter}
        selectedId={selection?.kind === 'circuit' ? selection.id : null}
        onSelect={(id) => select({ kind: 'circuit', id })}
        empty={
          <Empty title="No circuits here yet">
            Write the number of a provider’s circuit above, then plug its ends in the record.
          </Empty>
        }
      />
    </>
  );
}

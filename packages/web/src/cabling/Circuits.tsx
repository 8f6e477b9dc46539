import { circuitSchedule } from '@visograph/core/cabling';
import { create } from '@visograph/core/change';
import { blankCircuit, circuitSchema, newId, noted } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { ViewedGrid } from '../views/ViewedGrid.tsx';
import { Empty } from '../kit/panel/panels.tsx';

const Add = styled.div`
  flex: none;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.ground};
`;
const newCircuit = z.object({
  number: noted(trimmed(circuitSchema.shape.number), { label: 'Circuit number' }),
  provider: noted(z.string().trim(), { label: 'Provider' }),
});
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

/** A circuit by its number and provider; the rest is said in its record. */
function AddCircuit(): ReactNode {
  const { select } = useWhereabouts();
  const form = useSchemaForm(newCircuit, { number: '', provider: '' });
  const { make } = useFormActs(form);
  return (
    <Form
      label="Add circuit"
      form={form}
      row
      quiet
      action="Add circuit"
      onSend={({ number, provider }) => {
        const circuit = { ...blankCircuit, id: newId(), number, provider: provider || null };
        make({ changes: [create('circuit', circuit)], sentence: `Added circuit ${number}` }, () =>
          select({ kind: 'circuit', id: circuit.id }),
        );
      }}
    >
      <TextIn name="number" mono />
      <TextIn name="provider" />
    </Form>
  );
}

/** Provider circuits and radio hops of the scope; a new one is named here and completed in its record. */
export function Circuits({ filter }: { filter: string }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const rows = useMemo(() => {
    const table = circuitSchedule(network, scopeId);
    return table.rows.map((cells, at) => ({ id: table.ids[at] ?? '', cells }));
  }, [network, scopeId]);
  return (
    <>
      {canEdit && (
        <Add>
          <AddCircuit />
        </Add>
      )}
      <ViewedGrid
        view="circuits"
        schedule="circuits"
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

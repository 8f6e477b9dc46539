import { deleteVrf } from '@visograph/core/addressing';
import { applyChanges, create } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { blankVrf, byName, colourCount, nameField, newId } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { styled, useTheme } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useFormActs } from '../data/useFormActs.ts';
import { Button } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Coloured } from '../kit/grid/drawn.tsx';
import type { GridColumn } from '../kit/grid/Grid.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';
import { Empty, Hint } from '../kit/panel/panels.tsx';

const columns: readonly GridColumn[] = [
  { key: 'name', label: 'Name', width: 150, text: true, editable: true },
  { key: 'routeDistinguisher', label: 'Route distinguisher', width: 170, editable: true },
  {
    ...{ key: 'colour', label: 'Colour', width: 76, editable: true },
    draw: (value) => <Coloured colour={Number(value) - 1}>{value}</Coloured>,
  },
  { key: 'prefixes', label: 'Prefixes', width: 80, numeric: true },
  { key: 'addresses', label: 'Addresses', width: 90, numeric: true },
  { key: 'vlans', label: 'VLANs', width: 70, numeric: true },
  { key: 'notes', label: 'Notes', width: 160, text: true, editable: true },
];
const newVrf = z.object({ name: trimmed(nameField('New VRF')) });
const Bar = styled.div`
  display: flex;
  gap: 10px;
  align-items: flex-end;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  > span {
    flex: 1;
  }
  i {
    display: inline-block;
    width: 12px;
    height: 12px;
    border-radius: 2px;
    margin-left: 3px;
  }
`;

/** Routing instances: named, told apart by colour, with what is in each. */
export function VrfsView(): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const tokens = useTheme();
  const form = useSchemaForm(newVrf, { name: '' });
  const { make } = useFormActs(form);
  const add = ({ name }: { name: string }): void =>
    make({
      changes: [
        create('vrf', { ...blankVrf, id: newId(), name, colour: (network.count('vrf') + 6) % colourCount }),
      ],
      sentence: `Added VRF ${name}`,
    });
  const [chosen, setChosen] = useState<string | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const rows = [...network.all('vrf')].sort(byName).map((vrf) => ({
    id: vrf.id,
    cells: {
      name: vrf.name,
      routeDistinguisher: vrf.routeDistinguisher,
      colour: vrf.colour + 1,
      prefixes: network.countOf('prefixesByVrf', vrf.id),
      addresses: network.countOf('addressesByVrf', vrf.id),
      vlans: network.countOf('vlansByVrf', vrf.id),
      notes: vrf.notes,
    },
  }));
  const edit = (id: string, key: string, text: string): string | null => {
    const vrf = network.get('vrf', id);
    if (vrf === null) return 'This VRF is no longer there.';
    const typed = text.trim();
    const fields =
      key === 'colour'
        ? { colour: Number(typed) - 1 }
        : { [key]: typed === '' && key !== 'name' ? null : typed };
    const set = editRow(network, 'vrf', vrf, fields);
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
    commit(set);
    return null;
  };
  return (
    <>
      <Bar>
        {canEdit && (
          <>
            <Form label="Add a VRF" form={form} row action="Add VRF" onSend={add}>
              <TextIn name="name" width={170} />
            </Form>
            <Button
              isDisabled={chosen === null}
              onPress={() => {
                const attempt = deleteVrf(network, chosen ?? '');
                setWhy(attempt.ok ? null : attempt.why);
                if (attempt.ok && commit(attempt.set).ok) setChosen(null);
              }}
            >
              Delete VRF
            </Button>
          </>
        )}
        <span>{why !== null && <Hint role="alert">{why}</Hint>}</span>
        <Hint>
          Colours 1 to 12
          {tokens.set.map((colour) => (
            <i key={colour} style={{ background: colour }} />
          ))}
        </Hint>
      </Bar>
      <ViewedGrid
        view="vrfs"
        label="VRFs"
        columns={columns}
        rows={rows}
        selectedId={chosen}
        onSelect={setChosen}
        onEdit={canEdit ? edit : undefined}
        empty={
          <Empty title="No VRFs yet">Everything is in the global table. Add one to keep traffic apart.</Empty>
        }
      />
    </>
  );
}

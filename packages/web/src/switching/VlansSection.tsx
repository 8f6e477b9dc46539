import { nameField, noted, vlanSchema, type Vlan } from '@visograph/core/model';
import { createVlan, firstFreeVid, vlanSchedule, vlansInScope } from '@visograph/core/switching';
import { useMemo, useState, type ReactNode } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import { useSearchParams } from 'react-router';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { Button, Floating } from '../kit/controls.tsx';
import { ChoiceIn, NumberIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Filter } from '../kit/Filter.tsx';
import { Coloured } from '../kit/grid/drawn.tsx';
import type { GridColumn, GridRow } from '../kit/grid/Grid.tsx';
import { ViewedGrid } from '../views/ViewedGrid.tsx';
import { Empty, Work, WorkHead } from '../kit/panel/panels.tsx';
import { Views } from '../kit/Views.tsx';
import { editVlan } from './editVlan.ts';
import { MatrixView } from './MatrixView.tsx';
import { ProfilesView } from './ProfilesView.tsx';

const columns: readonly GridColumn[] = [
  { key: 'numbering', label: 'Numbering', width: 70, text: true },
  { key: 'vid', label: 'Number', width: 66, numeric: true },
  {
    ...{ key: 'name', label: 'Name', width: 128, text: true, editable: true },
    draw: (value, { colour }) => <Coloured colour={Number(colour)}>{value}</Coloured>,
  },
  { key: 'purpose', label: 'Purpose', width: 90, text: true, editable: true },
  { key: 'vrf', label: 'VRF', width: 60 },
  { key: 'prefixes', label: 'Prefixes', width: 176 },
  { key: 'switches', label: 'Switches', width: 76, numeric: true },
  { key: 'ports', label: 'Ports', width: 60, numeric: true },
  { key: 'users', label: 'Users', width: 60, numeric: true },
  { key: 'parts', label: 'Parts', width: 56, numeric: true },
];

const Floated = styled(Dialog)`
  padding: 12px;
  width: 300px;
  outline: none;
`;

/** Stands for a numbering that is made with its first VLAN. */
const fresh = 'new';

const newVlan = z
  .object({
    numbering: noted(z.string(), { label: 'VLAN numbering' }),
    numberingName: noted(z.string().trim(), {
      label: 'Name of the VLAN numbering',
      help: 'Places say in their record which numbering holds there',
    }),
    vid: vlanSchema.shape.vid,
    name: trimmed(nameField('Name')),
  })
  .refine(({ numbering, numberingName }) => numbering !== fresh || numberingName !== '', {
    path: ['numberingName'],
    message: 'is empty',
  });

/** A new VLAN: the numbering, the first free number in it, a name. */
function AddVlan({ onDone }: { onDone: (vlan: Vlan) => void }): ReactNode {
  const { network } = useProject().view;
  const numberings = [...network.all('vlanNumbering')];
  const free = (id: string): number => (id === fresh ? 1 : (firstFreeVid(network, id) ?? 1));
  const first = numberings[0]?.id ?? fresh;
  const form = useSchemaForm(newVlan, { numbering: first, numberingName: '', vid: free(first), name: '' });
  const { act } = useFormActs(form);
  const numbering = form.control.watch('numbering');
  return (
    <Floated aria-label="Add VLAN">
      {({ close }) => (
        <Form
          label="Add VLAN"
          form={form}
          action="Add VLAN"
          onSend={(wish) => {
            const numberingId = wish.numbering === fresh ? null : wish.numbering;
            const made = createVlan(network, { ...wish, numberingId });
            act(made.ok ? { ok: true, set: made.set } : made, () => {
              if (made.ok) onDone(made.vlan);
              close();
            });
          }}
        >
          {numberings.length > 0 && (
            <ChoiceIn
              name="numbering"
              options={[
                ...numberings.map((one) => ({ id: one.id, text: one.name })),
                { id: fresh, text: 'A new numbering' },
              ]}
              onChosen={(id) => form.control.setValue('vid', free(id ?? fresh))}
            />
          )}
          {numbering === fresh && <TextIn name="numberingName" />}
          <NumberIn name="vid" />
          <TextIn name="name" autoFocus />
        </Form>
      )}
    </Floated>
  );
}

const views = {
  list: 'VLANs',
  links: 'On links',
  switches: 'On switches',
  profiles: 'Port profiles',
};
type View = keyof typeof views;
const isView = (text: string | null): text is View => text !== null && text in views;

/** The VLANs that hold in the scope: what carries them, who uses them, and into how many parts they fall. */
function VlanList({ filter }: { filter: string }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { scopeId, selection, select } = useWhereabouts();
  const rows = useMemo((): GridRow[] => {
    const made = vlanSchedule(network, scopeId);
    return made.rows.map((cells, at) => {
      const id = made.ids[at] ?? '';
      return { id, cells: { ...cells, colour: network.get('vlan', id)?.colour ?? 0 } };
    });
  }, [network, scopeId]);
  return (
    <ViewedGrid
      view="vlans"
      schedule="vlans"
      label="VLANs"
      columns={columns}
      rows={rows}
      filter={filter}
      selectedId={selection?.kind === 'vlan' ? selection.id : null}
      onSelect={(id) => select({ kind: 'vlan', id })}
      onEdit={canEdit ? (id, key, text) => editVlan(network, id, key, text, commit) : undefined}
      empty={
        <Empty title={filter === '' ? 'No VLANs here yet' : 'No VLAN contains that'}>
          {filter === ''
            ? 'Add the first: a number, a name, and the numbering it belongs to.'
            : 'Clear the filter to see all.'}
        </Empty>
      }
    />
  );
}

/** VLANs as a list, over the links and switches that carry them, and the profiles that ports are set by. */
export default function VlansSection(): ReactNode {
  const { view, canEdit } = useProject();
  const { scopeId, select } = useWhereabouts();
  const [search, setSearch] = useSearchParams();
  const [filter, setFilter] = useState('');
  const asked = search.get('show');
  const shown: View = isView(asked) ? asked : 'list';
  const show = (next: View): void => {
    const query = new URLSearchParams(search);
    query.set('show', next);
    setSearch(query, { replace: true });
  };
  const count = vlansInScope(view.network, scopeId).length;
  return (
    <Work>
      <WorkHead>
        <h1>VLANs</h1>
        <p>{`${count} ${count === 1 ? 'VLAN' : 'VLANs'}`}</p>
        <div>
          <Views views={views} shown={shown} onShow={show} />
          {shown === 'list' && <Filter value={filter} onChange={setFilter} />}
          {canEdit && shown === 'list' && (
            <DialogTrigger>
              <Button $tone="primary">Add VLAN</Button>
              <Floating placement="bottom end">
                <AddVlan onDone={(vlan) => select({ kind: 'vlan', id: vlan.id })} />
              </Floating>
            </DialogTrigger>
          )}
        </div>
      </WorkHead>
      {shown === 'list' && <VlanList filter={filter} />}
      {(shown === 'links' || shown === 'switches') && <MatrixView key={shown} by={shown} />}
      {shown === 'profiles' && <ProfilesView />}
    </Work>
  );
}

import {
  addRecord,
  addZone,
  readZoneFile,
  recordsOf,
  takeInZone,
  zoneAsFile,
  zonesSeenIn,
} from '@visograph/core/cloud';
import { zoneSerial } from '@visograph/core/addressing';
import { editRow } from '@visograph/core/commands';
import { applyChanges } from '@visograph/core/change';
import { nameField, noted, recordTypes, type DnsZone, type Place } from '@visograph/core/model';
import { useRef, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useDo } from '../data/useDo.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { FileInput } from '../kit/FileInput.tsx';
import { ChoiceIn, TextIn, TickIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Grid, type GridColumn } from '../kit/grid/Grid.tsx';
import { Empty, Hint } from '../kit/panel/panels.tsx';
import { saveFile } from '../kit/saveFile.ts';
import { Asked } from './Asked.tsx';

const Bar = styled.div`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: flex-end;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  ul {
    flex-basis: 100%;
    margin: 0;
    padding-left: 18px;
    max-height: 120px;
    overflow: auto;
    font-size: 12px;
    color: ${({ theme }) => theme.warn};
  }
`;

const zoneForm = z.object({
  name: trimmed(nameField('Zone', 253)),
  isPrivate: noted(z.boolean(), { label: 'Private: seen in this network alone' }),
});
function ZoneFields({ place, onDone }: { place: Place; onDone: (id: string) => void }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(zoneForm, { name: '', isPrivate: true });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a zone"
      form={form}
      action="Add zone"
      onSend={(wish) => {
        const attempt = addZone(network, place, wish);
        act(attempt, () => attempt.ok && onDone(attempt.zone.id));
      }}
    >
      <TextIn name="name" autoFocus />
      <TickIn name="isPrivate" />
    </Form>
  );
}

const recordForm = z.object({
  name: noted(z.string(), { label: 'Name' }),
  type: noted(z.enum(recordTypes), { label: 'Type' }),
  value: noted(z.string(), { label: 'Value' }),
});
function AddRecord({ zone }: { zone: DnsZone }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(recordForm, { name: '', type: 'A', value: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Add a record to ${zone.name}`}
      form={form}
      row
      quiet
      action="Add record"
      onSend={({ name, type, value }) =>
        act(addRecord(network, zone, { name: name.trim() || '@', type, value: value.trim() }))
      }
    >
      <TextIn name="name" width={120} />
      <ChoiceIn name="type" width={88} options={recordTypes.map((id) => ({ id, text: id }))} />
      <TextIn name="value" width={180} />
    </Form>
  );
}

const columns: readonly GridColumn[] = [
  { key: 'name', label: 'Name', width: 150, editable: true },
  { key: 'type', label: 'Type', width: 70 },
  { key: 'value', label: 'Value', width: 230, editable: true },
  { key: 'ttlS', label: 'Seconds', width: 80, numeric: true, editable: true },
];

/** Takes a zone file in: what can be read, what cannot by line, and what it comes to. */
function ZoneFileButtons({ zone }: { zone: DnsZone }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const input = useRef<HTMLInputElement>(null);
  const [told, setTold] = useState<readonly string[]>([]);
  const take = async (file: File): Promise<void> => {
    const read = readZoneFile(zone.name, await file.text());
    const attempt = takeInZone(network, zone, read.records, { removes: false });
    const what = attempt.ok
      ? attempt.set.changes.length === 0
        ? `All ${read.records.length} records of ${file.name} are there already.`
        : null
      : attempt.why;
    if (attempt.ok && attempt.set.changes.length > 0) act(attempt);
    setTold([
      ...(what === null ? [] : [what]),
      ...read.faults.map(({ line, why }) => `Line ${line}: ${why}.`),
    ]);
  };
  return (
    <>
      <Button
        onPress={() =>
          saveFile(`${zone.name}.zone`, zoneAsFile(network, zone, zoneSerial(Date.now())), 'text/plain')
        }
      >
        Save as file
      </Button>
      {canEdit && (
        <>
          <Button onPress={() => input.current?.click()}>Take in a file</Button>
          <FileInput
            input={input}
            label="Zone file"
            accept=".zone,.txt,text/plain"
            onFile={(file) => void take(file)}
          />
        </>
      )}
      {told.length > 0 && (
        <ul role="alert">
          {told.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
    </>
  );
}

/** The zones of names that are seen in a network, with their records. */
export function NamesView({ place }: { place: Place }): ReactNode {
  const { view, canEdit, commit } = useProject();
  const { network } = view;
  const { selection, select } = useWhereabouts();
  const [open, setOpen] = useState<string | null>(null);
  const zones = zonesSeenIn(network, place.id);
  const zone = zones.find(({ id }) => id === open) ?? zones[0] ?? null;
  const add = canEdit && (
    <Asked text="Add zone" primary={zone === null}>
      {(close) => (
        <ZoneFields
          place={place}
          onDone={(id) => {
            setOpen(id);
            close();
          }}
        />
      )}
    </Asked>
  );
  if (zone === null)
    return (
      <Empty title="No zone of names yet">
        A private zone is seen in this network alone, a public one by everybody.
        {add}
      </Empty>
    );
  const edit = (id: string, key: string, typed: string): string | null => {
    const row = network.get('dnsRecord', id);
    if (row === null) return 'This record is no longer there.';
    const value = typed.trim();
    const fields = key === 'ttlS' ? { ttlS: value === '' ? null : Number(value) } : { [key]: value };
    const set = editRow(network, 'dnsRecord', row, fields);
    const tried = applyChanges(network, set.changes);
    if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
    commit(set);
    return null;
  };
  return (
    <>
      <Bar>
        <Choice
          label="Zone"
          width={220}
          value={zone.id}
          options={zones.map(({ id, name, isPrivate }) => ({
            id,
            text: `${name}${isPrivate ? ', private' : ''}`,
          }))}
          onChange={(id) => setOpen(id)}
        />
        {add}
        <ZoneFileButtons key={zone.id} zone={zone} />
      </Bar>
      {canEdit && (
        <Bar>
          <AddRecord key={zone.id} zone={zone} />
        </Bar>
      )}
      <Grid
        label="Records"
        columns={columns}
        rows={recordsOf(network, zone.id).map(({ id, name, type, value, ttlS }) => ({
          id,
          cells: { name, type, value, ttlS },
        }))}
        selectedId={selection?.kind === 'dnsRecord' ? selection.id : null}
        onSelect={(id) => select({ kind: 'dnsRecord', id })}
        onEdit={canEdit ? edit : undefined}
        empty={
          <Empty title="No records yet">
            {canEdit && <Hint>Type one above, or take in a zone file.</Hint>}
          </Empty>
        }
      />
    </>
  );
}

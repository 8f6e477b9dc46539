import { editRow } from '@visograph/core/commands';
import { nameField, noted, type Device } from '@visograph/core/model';
import { ownFieldNames } from '@visograph/core/sheets';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { Field } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Card } from './parts.tsx';

const Line = styled.form`
  display: flex;
  gap: 6px;
  align-items: flex-end;
  margin-bottom: 4px;
`;

const newField = z.object({
  name: trimmed(nameField('New field', 40)),
  value: noted(z.string().trim().min(1, 'is empty').max(500, 'is longer than 500 characters'), {
    label: 'Value',
  }),
});
function AddField({ onAdd }: { onAdd: (name: string, value: string) => void }): ReactNode {
  const form = useSchemaForm(newField, { name: '', value: '' });
  return (
    <Form
      label="Add a field"
      form={form}
      row
      quiet
      action="Add field"
      onSend={({ name, value }) => {
        onAdd(name, value);
        form.control.reset();
      }}
    >
      <TextIn name="name" width={104} />
      <TextIn name="value" width={104} />
    </Form>
  );
}

/** Fields of one's own: a name and a text; elevations can be coloured by them. */
export function OwnFields({ device }: { device: Device }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const [draft, setDraft] = useState<Record<string, string>>({});
  const names = [
    ...new Set([...ownFieldNames([...network.all('device')]), ...Object.keys(device.extra)]),
  ].slice(0, 12);
  const keep = (field: string, value: string): void => {
    const { [field]: _old, ...rest } = device.extra;
    const extra = value.trim() === '' ? rest : { ...rest, [field]: value.trim() };
    const set = editRow(network, 'device', device, { extra });
    if (set.changes.length > 0)
      commit({ ...set, sentence: `Set ${field} of ${device.name} to ${value.trim() || 'nothing'}` });
    const { [field]: _typed, ...left } = draft;
    setDraft(left);
  };
  if (!canEdit && Object.keys(device.extra).length === 0) return null;
  return (
    <Card title="Own fields">
      {names.map((field) => (
        <Line
          key={field}
          onSubmit={(event) => {
            event.preventDefault();
            keep(field, draft[field] ?? '');
          }}
          onBlur={() => draft[field] !== undefined && keep(field, draft[field] ?? '')}
        >
          <Field
            label={field}
            value={draft[field] ?? device.extra[field] ?? ''}
            onChange={(value) => setDraft({ ...draft, [field]: value })}
          />
        </Line>
      ))}
      {canEdit && <AddField key={device.id} onAdd={keep} />}
    </Card>
  );
}

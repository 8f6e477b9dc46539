import { editRow } from '@visograph/core/commands';
import { type Device } from '@visograph/core/model';
import { ownFieldNames } from '@visograph/core/sheets';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button, Field } from '../kit/controls.tsx';
import { Card } from './parts.tsx';

const Line = styled.form`
  display: flex;
  gap: 6px;
  align-items: flex-end;
  margin-bottom: 4px;
`;

/** Fields of one's own: a name and a text; elevations can be coloured by them. */
export function OwnFields({ device }: { device: Device }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const [draft, setDraft] = useState<Record<string, string>>({});
  const [name, setName] = useState('');
  const [text, setText] = useState('');
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
      {canEdit && (
        <Line
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim() === '') return;
            keep(name.trim(), text);
            setName('');
            setText('');
          }}
        >
          <Field label="New field" value={name} onChange={setName} />
          <Field label="Value" value={text} onChange={setText} />
          <Button type="submit">Add field</Button>
        </Line>
      )}
    </Card>
  );
}

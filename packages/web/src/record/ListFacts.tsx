import { applyChanges } from '@visograph/core/change';
import { editHeld } from '@visograph/core/commands';
import { held, listFieldsOf, noted, type Kind, type ListField, type Row } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Hint } from '../kit/panel/panels.tsx';
import { Tick } from '../kit/Tick.tsx';
import { FactLine, FactList } from './factList.tsx';
import { Card } from './parts.tsx';

interface ListProps {
  kind: Kind;
  row: Row;
  of: ListField;
}

/** Sets a list of a row as one step; gives the reason where it cannot be. */
function useSetList({ kind, row, of }: ListProps): (next: unknown) => string | null {
  const { view, commit } = useProject();
  return (next) => {
    const set = editHeld(view.network, kind, row, { [of.field]: next });
    if (set.changes.length === 0) return null;
    const tried = applyChanges(view.network, set.changes);
    if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
    commit(set);
    return null;
  };
}

const textsOf = (row: Row, field: string): string[] => {
  const value = held(row)[field];
  return Array.isArray(value) ? value.map(String) : [];
};

const textForm = z.object({ value: noted(z.string().trim(), { label: 'Value' }) });
function Texts(props: ListProps): ReactNode {
  const { of, row } = props;
  const { canEdit } = useProject();
  const set = useSetList(props);
  const [wrong, setWrong] = useState<string | null>(null);
  const texts = textsOf(row, of.field);
  const form = useSchemaForm(textForm, { value: '' });
  return (
    <>
      {texts.length > 0 && (
        <FactList>
          {texts.map((text, at) => (
            <FactLine
              key={text}
              label={`Take ${text} out of ${of.label.toLowerCase()}`}
              onRemove={canEdit ? () => setWrong(set(texts.filter((_, one) => one !== at))) : null}
            >
              {text}
            </FactLine>
          ))}
        </FactList>
      )}
      {texts.length === 0 && <Hint>None</Hint>}
      {wrong !== null && <Hint role="alert">{wrong}</Hint>}
      {canEdit && (
        <Form
          label={`Add to ${of.label.toLowerCase()}`}
          form={form}
          row
          quiet
          action="Add"
          onSend={({ value }) => {
            if (value === '') return form.refuse([{ field: 'value', message: 'Write what is to be added.' }]);
            if (texts.includes(value))
              return form.refuse([{ field: 'value', message: `${value} is in it already.` }]);
            const why = set([...texts, value]);
            if (why !== null) return form.refuse([{ field: 'value', message: why }]);
            return form.control.reset();
          }}
        >
          <TextIn name="value" width={150} />
        </Form>
      )}
    </>
  );
}

function Words(props: ListProps): ReactNode {
  const { of, row } = props;
  const { canEdit } = useProject();
  const set = useSetList(props);
  const [wrong, setWrong] = useState<string | null>(null);
  const chosen = textsOf(row, of.field);
  return (
    <>
      {of.words.map((word) => (
        <Tick
          key={word}
          isSelected={chosen.includes(word)}
          isDisabled={!canEdit}
          onChange={(on) =>
            setWrong(set(of.words.filter((one) => (one === word ? on : chosen.includes(one)))))
          }
        >
          {word}
        </Tick>
      ))}
      {wrong !== null && <Hint role="alert">{wrong}</Hint>}
    </>
  );
}

const labelForm = z.object({
  key: noted(z.string().trim(), { label: 'Key' }),
  value: noted(z.string().trim(), { label: 'Value' }),
});
function Labels(props: ListProps): ReactNode {
  const { of, row } = props;
  const { canEdit } = useProject();
  const set = useSetList(props);
  const [wrong, setWrong] = useState<string | null>(null);
  const value = held(row)[of.field];
  const labels = typeof value === 'object' && value !== null ? Object.entries({ ...value }) : [];
  const form = useSchemaForm(labelForm, { key: of.words[0] ?? '', value: '' });
  return (
    <>
      {labels.length > 0 && (
        <FactList>
          {labels.map(([key, text]) => (
            <FactLine
              key={key}
              label={`Take the label ${key} off`}
              onRemove={
                canEdit
                  ? () => setWrong(set(Object.fromEntries(labels.filter(([one]) => one !== key))))
                  : null
              }
            >
              {`${key}: ${String(text)}`}
            </FactLine>
          ))}
        </FactList>
      )}
      {labels.length === 0 && <Hint>None</Hint>}
      {wrong !== null && <Hint role="alert">{wrong}</Hint>}
      {canEdit && (
        <Form
          label={`Add to ${of.label.toLowerCase()}`}
          form={form}
          row
          quiet
          action="Set"
          onSend={({ key, value: text }) => {
            if (key === '') return form.refuse([{ field: 'key', message: 'Write a key.' }]);
            const given = of.numeric ? Number(text) : text;
            if (text === '' || Number.isNaN(given))
              return form.refuse([
                { field: 'value', message: of.numeric ? 'Write a whole number.' : 'Write a value.' },
              ]);
            const why = set(Object.fromEntries([...labels.filter(([one]) => one !== key), [key, given]]));
            if (why !== null) return form.refuse([{ field: 'value', message: why }]);
            return form.control.reset();
          }}
        >
          {of.words.length > 0 ? (
            <ChoiceIn name="key" width={120} options={of.words.map((id) => ({ id, text: id }))} />
          ) : (
            <TextIn name="key" width={104} />
          )}
          <TextIn name="value" width={104} />
        </Form>
      )}
    </>
  );
}

/** The facts of a row that are many, each in a card of its own: texts, words, labels. */
export function ListFacts({ kind, row }: { kind: Kind; row: Row }): ReactNode {
  const { canEdit } = useProject();
  return listFieldsOf(kind).map((of) => {
    const value = held(row)[of.field];
    const isEmpty = Array.isArray(value)
      ? value.length === 0
      : Object.keys({ ...(value ?? {}) }).length === 0;
    if (isEmpty && !canEdit) return null;
    const List = of.form === 'texts' ? Texts : of.form === 'words' ? Words : Labels;
    return (
      <Card key={`${row.id} ${of.field}`} title={of.label}>
        <List kind={kind} row={row} of={of} />
      </Card>
    );
  });
}

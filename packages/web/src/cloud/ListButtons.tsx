import { addPrefixList, demandLabel } from '@visograph/core/cloud';
import { labelledThings, nameField, noted } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { useFormActs } from '../data/useFormActs.ts';
import { ChoiceIn, LinesIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Asked } from './Asked.tsx';

const listForm = z.object({
  name: trimmed(nameField('Name', 60)),
  prefixes: noted(z.string(), { label: 'Prefixes', help: 'One on each line' }),
});
function NewList({ close }: { close: () => void }): ReactNode {
  const { network } = useProject().view;
  const { select } = useWhereabouts();
  const form = useSchemaForm(listForm, { name: '', prefixes: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add a named list of prefixes"
      form={form}
      action="Add list"
      onSend={({ name, prefixes }) => {
        const texts = prefixes.split(/[\s,]+/).filter((one) => one !== '');
        const attempt = addPrefixList(network, { name, prefixes: texts });
        act(attempt, () => {
          if (attempt.ok) select({ kind: 'prefixList', id: attempt.list.id });
          close();
        });
      }}
    >
      <TextIn name="name" autoFocus />
      <LinesIn name="prefixes" />
    </Form>
  );
}
/** Begins a list of prefixes that rules and routes can name. */
export const AddListButton = (): ReactNode => (
  <Asked text="Add named list" end>
    {(close) => <NewList close={close} />}
  </Asked>
);

const demandForm = z.object({
  key: trimmed(nameField('Key', 40)),
  on: noted(z.enum(labelledThings), { label: 'On' }),
});
function Demand({ close }: { close: () => void }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(demandForm, { key: '', on: 'instances' as const });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Demand a label"
      form={form}
      action="Demand it"
      onSend={(wish) => act(demandLabel(network, wish), close)}
    >
      <TextIn name="key" autoFocus />
      <ChoiceIn name="on" options={labelledThings.map((id) => ({ id, text: id }))} />
    </Form>
  );
}
/** Says which label every thing of a sort has to carry; Review tells of those that do not. */
export const DemandLabelButton = (): ReactNode => (
  <Asked text="Demand a label" end>
    {(close) => <Demand close={close} />}
  </Asked>
);

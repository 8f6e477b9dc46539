import { addAccount, addRegion, profilesToChoose } from '@visograph/core/cloud';
import { nameField, noted, type Place } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useFormActs } from '../data/useFormActs.ts';
import { ChoiceIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';

const zonesField = noted(z.string(), { label: 'Zones', help: 'Names with commas between; none is allowed' });
const namesOf = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

const accountForm = z.object({
  name: trimmed(nameField('Account', 80)),
  provider: noted(z.string().nullable(), { label: 'Provider' }),
  region: noted(z.string(), { label: 'First region' }),
  zones: zonesField,
});

/** An account of a provider, with a first region and its zones. */
export function NewAccount({ onDone }: { onDone: (accountId: string) => void }): ReactNode {
  const { network } = useProject().view;
  const profiles = profilesToChoose(network);
  const form = useSchemaForm(accountForm, {
    ...{ name: '', provider: profiles[0]?.name ?? null, region: '', zones: '' },
  });
  const { act } = useFormActs(form);
  return (
    <Form
      label="Add an account"
      form={form}
      action="Add account"
      onSend={(wish) => {
        const attempt = addAccount(network, { ...wish, zones: namesOf(wish.zones) });
        act(attempt, () => attempt.ok && onDone(attempt.accountId));
      }}
    >
      <TextIn name="name" />
      <ChoiceIn
        name="provider"
        none="not said yet"
        options={profiles.map(({ name }) => ({ id: name, text: name }))}
      />
      <TextIn name="region" />
      <TextIn name="zones" />
    </Form>
  );
}

const regionForm = z.object({ name: trimmed(nameField('Region', 80)), zones: zonesField });

/** A further region of an account. */
export function NewRegion({ account, onDone }: { account: Place; onDone: () => void }): ReactNode {
  const { network } = useProject().view;
  const form = useSchemaForm(regionForm, { name: '', zones: '' });
  const { act } = useFormActs(form);
  return (
    <Form
      label={`Add a region to ${account.name}`}
      form={form}
      action="Add region"
      onSend={(wish) =>
        act(addRegion(network, account, { name: wish.name, zones: namesOf(wish.zones) }), onDone)
      }
    >
      <TextIn name="name" />
      <TextIn name="zones" />
    </Form>
  );
}

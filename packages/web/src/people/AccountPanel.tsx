import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { version } from '@visograph/api/version';
import { nameField, noted } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { call } from '../data/api.ts';
import { useSession, type Session } from '../data/session.ts';
import { Button } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { Hint } from '../kit/panel/panels.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { whenText } from '../history/useHistory.ts';
import { dayText } from './dayText.ts';
import { emailField, newPasswordField, passwordField } from './entry.tsx';

type Person = NonNullable<Session['account']>;

const Columns = styled.div`
  display: grid;
  grid-template-columns: 250px 320px;
  gap: 22px 32px;
  margin-top: 14px;
  h3 {
    margin-bottom: 8px;
  }
  @media (max-width: 720px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Sessions = styled.ul`
  margin-bottom: 10px;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    padding: 5px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    color: ${({ theme }) => theme.inkSoft};
    font-size: 12px;
  }
`;
const Done = styled.span`
  color: ${({ theme }) => theme.ok};
`;
const Trouble = styled.p`
  color: ${({ theme }) => theme.bad};
  font-size: 12px;
`;

const who = z.object({
  name: trimmed(nameField('Name')),
  email: emailField,
  password: noted(z.string(), { label: 'Password', help: 'To change the address' }),
});

function Who({ person }: { person: Person }): ReactNode {
  const client = useQueryClient();
  const { name, email } = person;
  const form = useSchemaForm(who, { name, email, password: '' }, { name, email, password: '' });
  const change = useMutation({
    mutationFn: ({ password, ...wish }: z.infer<typeof who>) =>
      call('PUT /account', { body: { ...wish, ...(password === '' ? {} : { password }) } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['session'] }),
    onError: (error) => form.refuse([{ field: null, message: error.message }]),
  });
  const other = form.control.watch('email') !== email;
  return (
    <section>
      <h3>Name and address</h3>
      <Form
        label="Name and address"
        form={form}
        action="Save"
        changes
        busy={change.isPending}
        onSend={(wish) => change.mutate(wish)}
      >
        <TextIn name="name" autoComplete="name" />
        <TextIn name="email" type="email" autoComplete="username" />
        {other && <TextIn name="password" type="password" autoComplete="current-password" />}
      </Form>
    </section>
  );
}

const passwords = z.object({
  current: noted(z.string().min(1, 'is empty'), { label: 'Current password' }),
  password: newPasswordField('New password'),
});

function Password({ email }: { email: string }): ReactNode {
  const client = useQueryClient();
  const form = useSchemaForm(passwords, { current: '', password: '' });
  const change = useMutation({
    mutationFn: (body: z.infer<typeof passwords>) => call('PUT /account/password', { body }),
    onSuccess: () => {
      form.control.reset();
      return client.invalidateQueries({ queryKey: ['sessions'] });
    },
    onError: (error) => form.refuse([{ field: 'current', message: error.message }]),
  });
  return (
    <section>
      <h3>Password</h3>
      <Form
        label="Password"
        form={form}
        action="Change password"
        quiet
        busy={change.isPending}
        beside={change.isSuccess && <Done role="status">Changed; signed out everywhere else</Done>}
        onSend={(wish) => change.mutate(wish)}
      >
        {/* Whoever keeps passwords for a person is told whose this is. */}
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <TextIn name="current" type="password" autoComplete="current-password" />
        <TextIn name="password" type="password" autoComplete="new-password" />
      </Form>
    </section>
  );
}

function SignedInAt(): ReactNode {
  const client = useQueryClient();
  const sessions = useQuery({ queryKey: ['sessions'], queryFn: () => call('GET /account/sessions', {}) });
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: ['sessions'] });
  const end = useMutation({
    mutationFn: (session: string | null) =>
      session === null
        ? call('DELETE /account/sessions', {})
        : call('DELETE /account/sessions/:session', { params: { session } }),
    onSettled: again,
  });
  const others = sessions.data?.filter(({ own }) => !own).length ?? 0;
  const trouble = end.error ?? sessions.error;
  return (
    <section>
      <h3>Where you are signed in</h3>
      <Sessions aria-label="Where you are signed in">
        {sessions.data?.map(({ id, own, program, since, until }) => (
          <li key={id}>
            <div>
              {program ?? 'A program that does not say what it is'}
              <small>
                {since === null ? '' : `since ${whenText(since)}, `}
                {`until ${dayText(until)}`}
              </small>
            </div>
            {own ? (
              <Hint>This window</Hint>
            ) : (
              <Button onPress={() => end.mutate(id)} aria-label={`End ${program ?? 'this session'}`}>
                End
              </Button>
            )}
          </li>
        ))}
      </Sessions>
      {others > 1 && <Button onPress={() => end.mutate(null)}>{`End all ${others} others`}</Button>}
      {trouble !== null && <Trouble role="alert">{trouble.message}</Trouble>}
    </section>
  );
}

const proof = z.object({ password: passwordField });

function Removal(): ReactNode {
  const [asked, setAsked] = useState(false);
  const form = useSchemaForm(proof, { password: '' });
  const remove = useMutation({
    mutationFn: (body: z.infer<typeof proof>) => call('POST /account/removal', { body }),
    onSuccess: () => location.replace('/'),
    onError: (error) => form.refuse([{ field: null, message: error.message }]),
  });
  return (
    <section>
      <h3>Remove this account</h3>
      {asked ? (
        <Form
          label="Remove this account"
          form={form}
          action="Remove for good"
          busy={remove.isPending}
          beside={
            <Button $tone="quiet" onPress={() => setAsked(false)}>
              Keep it
            </Button>
          }
          onSend={(wish) => remove.mutate(wish)}
        >
          <TextIn name="password" type="password" autoComplete="current-password" autoFocus />
        </Form>
      ) : (
        <Button onPress={() => setAsked(true)}>Remove …</Button>
      )}
      <p style={{ marginTop: 6 }}>
        <Hint>What you did stays in the history of your projects, with your name.</Hint>
      </p>
    </section>
  );
}

/** The own account: name and address, password, where it is signed in, its removal. */
export function AccountPanel({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const person = useSession().data?.account ?? null;
  return (
    <PanelDialog title="Your account" open={open && person !== null} onOpenChange={onOpenChange}>
      {person !== null && (
        <Columns>
          <Who person={person} />
          <SignedInAt />
          <Password email={person.email} />
          <Removal />
          <Hint>{`Visograph ${version}`}</Hint>
        </Columns>
      )}
    </PanelDialog>
  );
}

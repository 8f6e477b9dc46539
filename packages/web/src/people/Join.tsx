import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import type { z } from 'zod';
import { call } from '../data/api.ts';
import { useSession, useSignOut } from '../data/session.ts';
import { Button } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { EntryCard, EntryPage, keyOfLink, newAccount } from './entry.tsx';
import { SignInForm } from './SignIn.tsx';

type NewAccount = z.infer<typeof newAccount>;
const roleText = { owner: 'an owner', editor: 'an editor', reader: 'a reader' };

function useAccept() {
  return useMutation({
    mutationFn: (account: NewAccount | null) =>
      call('POST /invitations/accept', {
        body: { key: keyOfLink(), ...(account === null ? {} : { account }) },
      }),
    // Anew: who is signed in has changed, and the link has been used.
    onSuccess: ({ projectId }) => location.replace(`/p/${projectId}/start`),
  });
}

function MakeAccount({
  heading,
  text,
  email,
  onKnown,
}: {
  heading: string;
  text: string;
  email: string;
  onKnown: () => void;
}): ReactNode {
  const form = useSchemaForm(newAccount, { name: '', email, password: '' });
  const accept = useAccept();
  return (
    <EntryCard>
      <h1>{heading}</h1>
      <p>{text}</p>
      <Form
        label="New account"
        form={form}
        action="Join"
        busy={accept.isPending}
        beside={
          <Button $tone="quiet" onPress={onKnown}>
            I have an account
          </Button>
        }
        onSend={(wish) =>
          accept.mutate(wish, {
            onError: (error) => form.refuse([{ field: null, message: error.message }]),
          })
        }
      >
        <TextIn name="name" autoFocus autoComplete="name" />
        <TextIn name="email" type="email" autoComplete="username" />
        <TextIn name="password" type="password" autoComplete="new-password" />
      </Form>
    </EntryCard>
  );
}

/** An invitation: what it is to, and coming in with a new account or with the one that is signed in. */
export function Join(): ReactNode {
  const session = useSession();
  const signOut = useSignOut();
  const client = useQueryClient();
  const accept = useAccept();
  const [known, setKnown] = useState(false);
  const invitation = useQuery({
    queryKey: ['invitation'],
    queryFn: () => call('POST /invitations/look', { body: { key: keyOfLink() } }),
    retry: false,
    // Looking must not ask again and again while a form is filled in.
    staleTime: Infinity,
  });
  const account = session.data?.account ?? null;
  if (invitation.isPending || session.isPending) return null;
  if (invitation.data === undefined)
    return (
      <EntryPage>
        <EntryCard>
          <h1>Invitation</h1>
          <p role="alert">{invitation.error.message}</p>
          <Button onPress={() => location.replace('/')}>To Visograph</Button>
        </EntryCard>
      </EntryPage>
    );
  const { project, role, by, email } = invitation.data;
  const text = `${by} invites you, as ${roleText[role]}.`;
  if (account !== null)
    return (
      <EntryPage>
        <EntryCard>
          <h1>{project}</h1>
          <p>{text}</p>
          <p>{`You are signed in as ${account.name}, ${account.email}.`}</p>
          <Button $tone="primary" autoFocus onPress={() => accept.mutate(null)} isDisabled={accept.isPending}>
            {`Join as ${account.name}`}
          </Button>
          <Button
            $tone="quiet"
            onPress={() =>
              signOut.mutate(undefined, {
                onSuccess: () => {
                  setKnown(false);
                  void client.invalidateQueries({ queryKey: ['invitation'] });
                },
              })
            }
          >
            With another account
          </Button>
          {accept.error !== null && <p role="alert">{accept.error.message}</p>}
        </EntryCard>
      </EntryPage>
    );
  return (
    <EntryPage>
      {known ? (
        <SignInForm
          heading={project}
          text={`${text} Sign in to join.`}
          otherwise={<Button onPress={() => setKnown(false)}>Make an account instead</Button>}
        />
      ) : (
        <MakeAccount heading={project} text={text} email={email} onKnown={() => setKnown(true)} />
      )}
    </EntryPage>
  );
}

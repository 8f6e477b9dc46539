import { useMutation } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { z } from 'zod';
import { call } from '../data/api.ts';
import { useFirstAccount, useSession, useSignIn } from '../data/session.ts';
import { Button } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { emailField, EntryCard, EntryPage, newAccount, passwordField } from './entry.tsx';

const asked = z.object({ email: emailField, password: passwordField });
const address = z.object({ email: emailField });

interface AskProps {
  heading: string;
  /** What it is for, below the heading. */
  text?: string;
  onDone?: () => void;
  /** Another way in than this one. */
  otherwise?: ReactNode;
}

/** Has a link for a new password sent; without a mail server says who can make one. */
function Forgotten({ email, onBack }: { email: string; onBack: () => void }): ReactNode {
  const form = useSchemaForm(address, { email });
  const mail = useSession().data?.mail ?? false;
  const ask = useMutation({
    mutationFn: (body: z.infer<typeof address>) => call('POST /password-resets', { body }),
    onError: (error) => form.refuse([{ field: null, message: error.message }]),
  });
  const sent = ask.isSuccess ? ask.variables.email : null;
  const text =
    sent !== null
      ? `If there is an account with the address ${sent}, a link is on its way to it. It works for an hour.`
      : mail
        ? 'A link is sent to the address of your account.'
        : 'This server sends no mail. Whoever runs it makes a link for you, which you then open here.';
  return (
    <EntryCard>
      <h1>A new password</h1>
      <p role="status">{text}</p>
      {mail && sent === null && (
        <Form
          label="A new password"
          form={form}
          action="Send the link"
          busy={ask.isPending}
          onSend={(wish) => ask.mutate(wish)}
        >
          <TextIn name="email" type="email" autoComplete="username" autoFocus />
        </Form>
      )}
      <Button onPress={onBack} autoFocus={!mail || sent !== null}>
        Back to sign in
      </Button>
    </EntryCard>
  );
}

/** Sign-in. What was typed stays after a refusal. */
export function SignInForm({
  heading,
  text = 'Sign in to your network.',
  onDone,
  otherwise,
}: AskProps): ReactNode {
  const form = useSchemaForm(asked, { email: '', password: '' });
  const signIn = useSignIn();
  const [forgotten, setForgotten] = useState(false);
  if (forgotten)
    return <Forgotten email={form.control.getValues('email')} onBack={() => setForgotten(false)} />;
  return (
    <EntryCard>
      <h1>{heading}</h1>
      <p>{text}</p>
      <Form
        label="Sign in"
        form={form}
        action="Sign in"
        busy={signIn.isPending}
        beside={
          <Button $tone="quiet" onPress={() => setForgotten(true)}>
            Password forgotten
          </Button>
        }
        onSend={(wish) =>
          signIn.mutate(wish, {
            onSuccess: onDone,
            onError: (error) => form.refuse([{ field: null, message: error.message }]),
          })
        }
      >
        <TextIn name="email" type="email" autoComplete="username" autoFocus />
        <TextIn name="password" type="password" autoComplete="current-password" />
      </Form>
      {otherwise}
    </EntryCard>
  );
}

/** The first account of a new server. */
function FirstAccount(): ReactNode {
  const form = useSchemaForm(newAccount, { name: '', email: '', password: '' });
  const first = useFirstAccount();
  return (
    <EntryCard>
      <h1>Visograph</h1>
      <p>Make the first account of this server. It can begin projects and invite others.</p>
      <Form
        label="First account"
        form={form}
        action="Make account"
        busy={first.isPending}
        onSend={(wish) =>
          first.mutate(wish, {
            onError: (error) => form.refuse([{ field: null, message: error.message }]),
          })
        }
      >
        <TextIn name="name" autoFocus />
        <TextIn name="email" type="email" autoComplete="username" />
        <TextIn name="password" type="password" autoComplete="new-password" />
      </Form>
    </EntryCard>
  );
}

export function SignIn({
  firstStart,
  unreachable,
}: {
  firstStart: boolean;
  unreachable: boolean;
}): ReactNode {
  return (
    <EntryPage>
      {unreachable ? (
        <EntryCard>
          <h1>Visograph</h1>
          <p>The server cannot be reached. Check that it runs, then reload this page.</p>
        </EntryCard>
      ) : firstStart ? (
        <FirstAccount />
      ) : (
        <SignInForm heading="Visograph" />
      )}
    </EntryPage>
  );
}

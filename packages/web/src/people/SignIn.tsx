import { nameField, noted } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { z } from 'zod';
import { useFirstAccount, useSignIn } from '../data/session.ts';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';

const Page = styled.main`
  height: 100%;
  display: grid;
  place-items: center;
  background-color: ${({ theme }) => theme.ground};
  background-image: radial-gradient(${({ theme }) => theme.rule} 1px, transparent 1px);
  background-size: 16px 16px;
`;
const Card = styled.div`
  width: 340px;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  border-left: 6px solid ${({ theme }) => theme.accent};
  border-radius: 3px;
  padding: 26px 26px 24px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  h1 {
    font-size: 19px;
    line-height: 24px;
  }
  > p {
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const email = noted(z.string().trim().min(1, 'is empty'), { label: 'E-mail' });
const asked = z.object({ email, password: noted(z.string().min(1, 'is empty'), { label: 'Password' }) });
const firstAsked = z.object({
  name: trimmed(nameField('Name')),
  email,
  password: noted(z.string().min(10, 'has fewer than 10 characters'), {
    label: 'Password',
    help: 'At least 10 characters',
  }),
});

interface AskProps {
  heading: string;
  onDone?: () => void;
}

/** Sign-in. What was typed stays after a refusal. */
export function SignInForm({ heading, onDone }: AskProps): ReactNode {
  const form = useSchemaForm(asked, { email: '', password: '' });
  const signIn = useSignIn();
  return (
    <Card>
      <h1>{heading}</h1>
      <p>Sign in to your network.</p>
      <Form
        label="Sign in"
        form={form}
        action="Sign in"
        busy={signIn.isPending}
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
    </Card>
  );
}

/** The first account of a new server. */
function FirstAccount(): ReactNode {
  const form = useSchemaForm(firstAsked, { name: '', email: '', password: '' });
  const first = useFirstAccount();
  return (
    <Card>
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
    </Card>
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
    <Page>
      {unreachable ? (
        <Card>
          <h1>Visograph</h1>
          <p>The server cannot be reached. Check that it runs, then reload this page.</p>
        </Card>
      ) : firstStart ? (
        <FirstAccount />
      ) : (
        <SignInForm heading="Visograph" />
      )}
    </Page>
  );
}

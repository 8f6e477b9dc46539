import { useState, type FormEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useFirstAccount, useSignIn } from '../data/session.ts';
import { Button, Field } from '../kit/controls.tsx';

const Page = styled.main`
  height: 100%;
  display: grid;
  place-items: center;
  background-color: ${({ theme }) => theme.ground};
  background-image: radial-gradient(${({ theme }) => theme.rule} 1px, transparent 1px);
  background-size: 16px 16px;
`;
const Card = styled.form`
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
const Trouble = styled.div`
  color: ${({ theme }) => theme.bad};
`;

/** Sign-in; on a new server, making the first account. What was typed stays after a refusal. */
export function SignInForm({
  firstStart,
  heading,
  onDone,
}: {
  firstStart: boolean;
  heading: string;
  onDone?: () => void;
}): ReactNode {
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useSignIn();
  const first = useFirstAccount();
  const work = firstStart ? first : signIn;
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (firstStart) first.mutate({ name, email, password });
    else signIn.mutate({ email, password }, { onSuccess: onDone });
  };
  return (
    <Card onSubmit={submit}>
      <h1>{heading}</h1>
      <p>
        {firstStart
          ? 'Make the first account of this server. It can begin projects and invite others.'
          : 'Sign in to your network.'}
      </p>
      {firstStart && <Field label="Name" value={name} onChange={setName} name="name" required autoFocus />}
      <Field
        label="E-mail"
        value={email}
        onChange={setEmail}
        type="email"
        name="email"
        autoComplete="username"
        required
        autoFocus={!firstStart}
      />
      <Field
        label="Password"
        value={password}
        onChange={setPassword}
        type="password"
        name="password"
        autoComplete={firstStart ? 'new-password' : 'current-password'}
        help={firstStart ? 'At least 10 characters' : undefined}
        required
      />
      <Trouble role="alert">{work.error?.message}</Trouble>
      <Button type="submit" $tone="primary" isDisabled={work.isPending}>
        {firstStart ? 'Make account' : 'Sign in'}
      </Button>
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
        <Card as="div">
          <h1>Visograph</h1>
          <p>The server cannot be reached. Check that it runs, then reload this page.</p>
        </Card>
      ) : (
        <SignInForm firstStart={firstStart} heading="Visograph" />
      )}
    </Page>
  );
}

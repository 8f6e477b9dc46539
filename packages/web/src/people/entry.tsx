import { passwordLength } from '@visograph/api/limits';
import { nameField, noted } from '@visograph/core/model';
import { styled } from 'styled-components';
import { z } from 'zod';
import { trimmed } from '../kit/form/useSchemaForm.ts';

/** Where one comes in: signing in, an invitation, a new password. */
export const EntryPage = styled.main`
  height: 100%;
  display: grid;
  place-items: center;
  background-color: ${({ theme }) => theme.ground};
  background-image: radial-gradient(${({ theme }) => theme.rule} 1px, transparent 1px);
  background-size: 16px 16px;
`;
export const EntryCard = styled.div`
  width: 340px;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  border-left: 6px solid ${({ theme }) => theme.accent};
  border-radius: 3px;
  padding: 26px 26px 24px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  overflow-wrap: anywhere;
  h1 {
    font-size: 19px;
    line-height: 24px;
  }
  > p {
    color: ${({ theme }) => theme.inkSoft};
  }
  > button {
    align-self: start;
  }
`;

export const emailField = noted(z.string().trim().min(1, 'is empty'), { label: 'E-mail' });
export const passwordField = noted(z.string().min(1, 'is empty'), { label: 'Password' });
export const newPasswordField = (label: string): z.ZodType<string, string> =>
  noted(z.string().min(passwordLength, `has fewer than ${passwordLength} characters`), {
    label,
    help: `At least ${passwordLength} characters`,
  });
/** What a new account is asked for. */
export const newAccount = z.object({
  name: trimmed(nameField('Name')),
  email: emailField,
  password: newPasswordField('Password'),
});

/** The key of a link: behind the #, where neither servers nor other pages are told it. */
export const keyOfLink = (): string => location.hash.slice(1);

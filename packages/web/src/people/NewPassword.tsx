import { useMutation } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { call } from '../data/api.ts';
import { Button } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { EntryCard, EntryPage, keyOfLink, newPasswordField } from './entry.tsx';

const wished = z.object({ password: newPasswordField('New password') });

/** A new password by the link that was sent or handed on. */
export function NewPassword(): ReactNode {
  const form = useSchemaForm(wished, { password: '' });
  const set = useMutation({
    mutationFn: ({ password }: z.infer<typeof wished>) =>
      call('PUT /password-resets', { body: { key: keyOfLink(), password } }),
    onSuccess: () => location.replace('/'),
    onError: (error) => form.refuse([{ field: null, message: error.message }]),
  });
  return (
    <EntryPage>
      <EntryCard>
        <h1>A new password</h1>
        <p>Setting it signs you in here, and out everywhere else.</p>
        <Form
          label="A new password"
          form={form}
          action="Set password"
          busy={set.isPending}
          beside={
            <Button $tone="quiet" onPress={() => location.replace('/')}>
              Leave it
            </Button>
          }
          onSend={(wish) => set.mutate(wish)}
        >
          <TextIn name="password" type="password" autoComplete="new-password" autoFocus />
        </Form>
      </EntryCard>
    </EntryPage>
  );
}

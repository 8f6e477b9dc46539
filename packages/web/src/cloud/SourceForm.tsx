import { nameField, noted } from '@visograph/core/model';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { ApiError, call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';

const sourceForm = z.object({
  url: noted(z.url({ protocol: /^https?$/, error: 'is no address such as https://account.example' }), {
    label: 'Address',
    help: 'Where the account answers',
  }),
  client: trimmed(nameField('Client', 200)),
  secret: noted(z.string().min(1, 'is empty'), {
    label: 'Secret',
    help: 'Kept encrypted on the server; nobody is told it again',
  }),
});

/** From where an account is read, and as whom. What was typed stays where it is refused. */
export function SourceForm({
  placeId,
  now,
  onDone,
}: {
  placeId: string;
  now: { url: string; client: string } | null;
  onDone: () => void;
}): ReactNode {
  const { project } = useProject();
  const client = useQueryClient();
  const form = useSchemaForm(sourceForm, { url: now?.url ?? '', client: now?.client ?? '', secret: '' });
  const keep = useMutation({
    mutationFn: (body: z.infer<typeof sourceForm>) =>
      call('PUT /projects/:project/account-sources/:place', {
        params: { project: project.id, place: placeId },
        body,
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['account source', placeId] });
      onDone();
    },
    onError: (error) =>
      form.refuse([{ field: null, message: error instanceof ApiError ? error.detail : String(error) }]),
  });
  return (
    <Form
      label="From where the account is read"
      form={form}
      action="Keep"
      busy={keep.isPending}
      onSend={(wish) => keep.mutate(wish)}
    >
      <TextIn name="url" autoFocus />
      <TextIn name="client" />
      <TextIn name="secret" type="password" autoComplete="off" />
    </Form>
  );
}

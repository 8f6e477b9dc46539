import { useMutation } from '@tanstack/react-query';
import { noted } from '@visograph/core/model';
import { useMemo, type ReactNode } from 'react';
import { z } from 'zod';
import { call } from '../data/api.ts';
import type { ProjectSummary } from '../data/session.ts';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';

/** What nothing brings back is asked for by its name. */
export function DeleteForGood({
  project: { id, name },
  onGone,
  onClose,
}: {
  project: ProjectSummary;
  onGone: () => void;
  onClose: () => void;
}): ReactNode {
  const schema = useMemo(
    () =>
      z.object({
        name: noted(
          z.string().refine((text) => text.trim() === name, `is not ${name}`),
          { label: 'Name of the project' },
        ),
      }),
    [name],
  );
  const form = useSchemaForm(schema, { name: '' });
  const remove = useMutation({
    mutationFn: () => call('DELETE /projects/:project', { params: { project: id } }),
    onSuccess: () => {
      onGone();
      onClose();
    },
    onError: (error) => form.refuse([{ field: null, message: error.message }]),
  });
  return (
    <PanelDialog title={`Delete ${name} for good`} open onOpenChange={onClose}>
      <p style={{ margin: '10px 0 14px', maxWidth: '52ch' }}>
        Its network, sheets, plans and history are deleted, and nothing brings them back. Type its name to go
        on.
      </p>
      <Form
        label={`Delete ${name} for good`}
        form={form}
        action="Delete for good"
        busy={remove.isPending}
        onSend={() => remove.mutate()}
      >
        <TextIn name="name" autoFocus />
      </Form>
    </PanelDialog>
  );
}

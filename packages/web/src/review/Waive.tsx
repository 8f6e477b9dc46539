import { waive, type Finding } from '@visograph/core/check';
import { waiverSchema } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { useProject } from '../data/project.tsx';
import { useSession } from '../data/session.ts';
import { DateIn, TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { useSchemaForm } from '../kit/form/useSchemaForm.ts';

const schema = z.object({
  reason: waiverSchema.shape.reason,
  until: waiverSchema.shape.until,
});

/** Says that what is found is meant to be so: why, and until when. */
export function Waive({
  findings,
  day,
  onDone,
}: {
  findings: readonly Finding[];
  day: string;
  onDone: () => void;
}): ReactNode {
  const { view, commit } = useProject();
  const by = useSession().data?.account?.name ?? '';
  const form = useSchemaForm(schema, { reason: '', until: null });
  return (
    <Form
      label="Waive"
      form={form}
      action={findings.length === 1 ? 'Waive it' : `Waive all ${findings.length}`}
      onSend={({ reason, until }) => {
        const attempt = waive(view.network, findings, { reason, until, by, on: day });
        if (!attempt.ok)
          form.refuse([{ field: until !== null && until < day ? 'until' : 'reason', message: attempt.why }]);
        else if (commit(attempt.set).ok) onDone();
      }}
    >
      <TextIn name="reason" autoFocus />
      <DateIn name="until" />
    </Form>
  );
}

import type { Attempt } from '@visograph/core/commands';
import { useState, type ReactNode } from 'react';
import { useProject } from '../data/project.tsx';
import { Field } from '../kit/controls.tsx';
import { ActPanel } from '../kit/panel/ActPanel.tsx';

/** Asks for the name of a schedule, and keeps it under that; what stands in the way is told beside the name. */
export function KeepPanel<A extends Attempt>({
  title,
  action,
  name: begun,
  attempt,
  onKept,
  onClose,
}: {
  title: string;
  action: string;
  name: string;
  attempt: (name: string) => A;
  onKept: (made: A) => void;
  onClose: () => void;
}): ReactNode {
  const { commit } = useProject();
  const [name, setName] = useState(begun);
  const [why, setWhy] = useState<string | null>(null);
  return (
    <ActPanel
      title={title}
      open
      onOpenChange={(stays) => !stays && onClose()}
      fields={
        <Field
          label="Name"
          value={name}
          width={320}
          autoFocus
          error={why}
          onChange={(next) => {
            setName(next);
            setWhy(null);
          }}
        />
      }
      action={action}
      onAct={() => {
        const made = attempt(name);
        if (!made.ok) {
          setWhy(made.why);
          return false;
        }
        const result = commit(made.set);
        if (!result.ok) {
          setWhy(result.problems[0]?.message ?? 'It cannot be kept.');
          return false;
        }
        onKept(made);
        return true;
      }}
    />
  );
}

import { applyChanges, type ChangeSet } from '@visograph/core/change';
import type { Attempt } from '@visograph/core/commands';
import type { FieldValues } from 'react-hook-form';
import type { SchemaForm } from '../kit/form/useSchemaForm.ts';
import { useProject } from './project.tsx';

/** What a form does to the network: what is refused is told at its field, what is done empties the form. */
export function useFormActs<V extends FieldValues>({
  control,
  refuse,
}: SchemaForm<V>): {
  /** A command of core: done, or why not. */
  act: (attempt: Attempt, done?: () => void) => void;
  /** Changes as they are, judged first. */
  make: (set: ChangeSet, done?: () => void) => void;
} {
  const { view, commit } = useProject();
  const make = (set: ChangeSet, done?: () => void): void => {
    if (set.changes.length === 0) return done?.();
    const tried = applyChanges(view.network, set.changes);
    if (!tried.ok) return refuse(tried.problems);
    if (!commit(set).ok) return;
    control.reset();
    done?.();
  };
  return {
    make,
    act: (attempt, done) =>
      attempt.ok ? make(attempt.set, done) : refuse([{ field: null, message: attempt.why }]),
  };
}

import { applyChanges } from '@visograph/core/change';
import type { Attempt } from '@visograph/core/commands';
import { useProject } from '../../data/project.tsx';

/** Takes what was tried at a field: a reason that it cannot be is given back, to be said there. */
export function useTaking(): (attempt: Attempt) => string | null {
  const { view, commit } = useProject();
  return (attempt) => {
    if (!attempt.ok) return attempt.why;
    const tried = applyChanges(view.network, attempt.set.changes);
    if (!tried.ok) return tried.problems[0]?.message ?? 'Not allowed.';
    commit(attempt.set);
    return null;
  };
}

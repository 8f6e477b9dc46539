import type { Attempt } from '@visograph/core/commands';
import { useProject } from './project.tsx';

/** Does what was tried, as one step; what stands in the way is said at the foot of the window. True when it was done. */
export function useDo(): (attempt: Attempt) => boolean {
  const { commit, sync } = useProject();
  return (attempt) => {
    if (!attempt.ok) {
      sync.announce({ tone: 'bad', text: attempt.why });
      return false;
    }
    return commit(attempt.set).ok;
  };
}

/** Keeps what was tried as one step; what changes nothing is kept already. Gives why it cannot be kept. */
export function useKeep(): (attempt: Attempt) => string | null {
  const { commit } = useProject();
  return (attempt) => {
    if (!attempt.ok) return attempt.why;
    if (attempt.set.changes.length === 0) return null;
    const result = commit(attempt.set);
    return result.ok ? null : (result.problems[0]?.message ?? 'It cannot be kept.');
  };
}

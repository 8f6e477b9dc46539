import type { Answer } from '@visograph/api';
import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { call } from './api.ts';
import { useProject } from './project.tsx';

/** The plan that is worked in, kept in the address so that it holds wherever one goes; null: as built. */
export function usePlan(): [plan: string | null, set: (plan: string | null) => void] {
  const [search, setSearch] = useSearchParams();
  const set = (plan: string | null): void => {
    const next = new URLSearchParams(search);
    next.delete('at');
    if (plan === null) next.delete('plan');
    else next.set('plan', plan);
    setSearch(next);
  };
  return [search.get('plan'), set];
}

/** What is known of a plan, and where it contradicts as built; asked again with every step of it. */
export function usePlanFacts(plan: string): UseQueryResult<Answer<'GET /projects/:project/plans/:plan'>> {
  const { project, view } = useProject();
  return useQuery({
    queryKey: ['plan', project.id, plan, view.revision, view.network],
    queryFn: () => call('GET /projects/:project/plans/:plan', { params: { project: project.id, plan } }),
    placeholderData: (known) => known,
    structuralSharing: false,
    retry: false,
  });
}

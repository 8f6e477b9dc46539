import { Network } from '@visograph/core/model';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { call } from './api.ts';

/** An earlier moment of the project that is looked at. */
export interface Moment {
  revision: string;
  /** As it was then; null until it has come. */
  network: Network | null;
  /** Why it cannot be shown. */
  failed: string | null;
}

/** Which moment is looked at, kept in the address so that it holds wherever one goes; null: now. */
export function useRevision(): [revision: string | null, set: (revision: number | null) => void] {
  const [search, setSearch] = useSearchParams();
  const set = (revision: number | null): void => {
    const next = new URLSearchParams(search);
    if (revision === null) next.delete('at');
    else next.set('at', String(revision));
    setSearch(next);
  };
  return [search.get('at'), set];
}

/** The network of the moment that is looked at; null where that is now. What was never changes, so it is asked once. */
export function useMoment(projectId: string, plan: string | null): Moment | null {
  const [revision] = useRevision();
  const { data, error } = useQuery({
    queryKey: ['moment', projectId, plan, revision],
    queryFn: async () =>
      Network.of(
        (
          await call('GET /projects/:project/network', {
            params: { project: projectId },
            query: { at: revision ?? '', plan: plan ?? undefined },
          })
        ).rows,
      ),
    enabled: revision !== null,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    structuralSharing: false,
  });
  return useMemo(
    () =>
      revision === null
        ? null
        : {
            revision,
            network: data ?? null,
            failed: error === null ? null : error instanceof Error ? error.message : 'It cannot be shown.',
          },
    [revision, data, error],
  );
}

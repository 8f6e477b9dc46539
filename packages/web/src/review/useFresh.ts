import { aboutKey, type Reviewed } from '@visograph/core/check';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { callJob } from '../data/jobs.ts';
import { useProject } from '../data/project.tsx';
import { useMeantQuery } from '../data/shown.ts';

const keyOf = (rule: string, about: readonly { kind: string; id: string }[]): string =>
  `${rule} ${aboutKey(about)}`;

export interface Fresh {
  /** Of these findings, those that were not there at that revision; all of them where none is asked for. */
  of: (findings: readonly Reviewed[]) => readonly Reviewed[];
  pending: boolean;
  /** Why it cannot be told. */
  trouble: string | null;
}

/** What is new since a revision, as the server compares the two moments. */
export function useFresh(since: string | null): Fresh {
  const { project, view } = useProject();
  const meant = useMeantQuery();
  const { data, error, isPending } = useQuery({
    queryKey: ['fresh findings', project.id, meant, since, view.revision],
    queryFn: async ({ signal }) =>
      callJob(
        'GET /projects/:project/findings',
        { params: { project: project.id }, query: { ...meant, since: since ?? '' } },
        { signal },
      ),
    enabled: since !== null,
    retry: false,
    staleTime: 60_000,
  });
  return useMemo(() => {
    if (since === null) return { of: (findings) => findings, pending: false, trouble: null };
    const known = new Set(data?.map(({ rule, rows }) => keyOf(rule, rows)));
    return {
      of: (findings) => findings.filter(({ finding }) => known.has(keyOf(finding.rule, finding.subjects))),
      pending: isPending,
      trouble: error === null ? null : error.message,
    };
  }, [since, data, isPending, error]);
}

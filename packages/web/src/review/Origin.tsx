import type { Finding } from '@visograph/core/check';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { callJob } from '../data/jobs.ts';
import { useProject } from '../data/project.tsx';
import { useMeantQuery } from '../data/shown.ts';
import { whenText } from '../history/useHistory.ts';

/** Since when a finding is there, and whose step brought it. */
export function Origin({ finding }: { finding: Finding }): ReactNode {
  const { project, view } = useProject();
  const meant = useMeantQuery();
  const { rule, subjects } = finding;
  const { data, isPending, isError } = useQuery({
    queryKey: ['origin', project.id, meant, view.revision, rule, subjects],
    queryFn: async ({ signal }) =>
      callJob(
        'POST /projects/:project/findings/origin',
        {
          params: { project: project.id },
          query: { ...meant },
          body: { rule, about: subjects.map(({ kind, id }) => ({ kind, id })) },
        },
        { signal },
      ),
    retry: false,
    staleTime: 60_000,
  });
  if (isPending) return <p>Looking through the history …</p>;
  // An edit that is not written yet may have brought it, or taken it away.
  if (isError) return <p>Since the last moment: it is not in the history yet.</p>;
  const { entry, searchedFrom } = data;
  if (entry === null)
    return <p>{searchedFrom === 0 ? 'As long as there is a history.' : `Since before r${searchedFrom}.`}</p>;
  return (
    <p>
      {`${whenText(entry.at)}, ${entry.author}: `}
      <q>{entry.sentence}</q>
    </p>
  );
}

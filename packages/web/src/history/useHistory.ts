import type { Answer } from '@visograph/api';
import { keepPreviousData, useQuery, type UseQueryResult } from '@tanstack/react-query';
import { call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';

type HistoryLine = Answer<'GET /projects/:project/changes'>[number];

/** The newest entries of the journal; about one row where its id is given. Follows every change. */
export function useHistory(rowId: string | null): UseQueryResult<HistoryLine[]> {
  const { project, view, plan } = useProject();
  return useQuery({
    queryKey: ['history', project.id, plan, rowId, view.revision],
    queryFn: () =>
      call('GET /projects/:project/changes', {
        params: { project: project.id },
        query: { row: rowId ?? undefined, plan: plan ?? undefined },
      }),
    placeholderData: keepPreviousData,
  });
}

const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** "Today 09:41" or "3 Oct 2026 09:41". */
export function whenText(at: string): string {
  const date = new Date(at);
  const today = day.format(new Date()) === day.format(date);
  return `${today ? 'Today' : day.format(date)} ${clock.format(date)}`;
}

import { keepPreviousData, useQuery, type UseQueryResult } from '@tanstack/react-query';
import { call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';

export interface HistoryLine {
  id: string;
  revision: number;
  author: string;
  at: string;
  sentence: string;
}

/** The newest entries of the journal; about one row where its id is given. Follows every change. */
export function useHistory(rowId: string | null): UseQueryResult<HistoryLine[]> {
  const { project, view } = useProject();
  return useQuery({
    queryKey: ['history', project.id, rowId, view.revision],
    queryFn: () =>
      call<HistoryLine[]>('GET', `/projects/${project.id}/changes${rowId === null ? '' : `?row=${rowId}`}`),
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

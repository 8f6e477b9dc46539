import type { Answer } from '@visograph/api';
import {
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from '@tanstack/react-query';
import { call } from './api.ts';

export type Session = Answer<'GET /session'>;
export type ProjectSummary = Answer<'GET /projects'>[number];

export const useSession = (): UseQueryResult<Session> =>
  useQuery({ queryKey: ['session'], queryFn: () => call('GET /session', {}), staleTime: 60_000 });

export const useProjects = (): UseQueryResult<ProjectSummary[]> =>
  useQuery({
    queryKey: ['projects'],
    queryFn: () => call('GET /projects', {}),
    staleTime: 60_000,
  });

export function useSignIn(): UseMutationResult<Session, Error, { email: string; password: string }> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (credentials) => call('POST /session', { body: credentials }),
    onSuccess: async (session) => {
      client.setQueryData(['session'], session);
      await client.invalidateQueries({ queryKey: ['projects'] });
    },
  });
}

export function useFirstAccount(): UseMutationResult<
  Session,
  Error,
  { name: string; email: string; password: string }
> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (person) => call('POST /first-account', { body: person }),
    onSuccess: (session) => client.setQueryData(['session'], session),
  });
}

export function useSignOut(): UseMutationResult<void, Error, void> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call('DELETE /session', {}),
    onSuccess: () => {
      const mail = client.getQueryData<Session>(['session'])?.mail ?? false;
      client.clear();
      client.setQueryData<Session>(['session'], { account: null, firstStart: false, mail });
    },
  });
}

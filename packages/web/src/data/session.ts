import {
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from '@tanstack/react-query';
import { call } from './api.ts';

export interface Person {
  id: string;
  name: string;
  email: string;
}
export interface Session {
  account: Person | null;
  firstStart: boolean;
}
export interface ProjectSummary {
  id: string;
  name: string;
  role: 'owner' | 'editor' | 'reader';
  revision: number;
}

export const useSession = (): UseQueryResult<Session> =>
  useQuery({ queryKey: ['session'], queryFn: () => call<Session>('GET', '/session'), staleTime: 60_000 });

export const useProjects = (): UseQueryResult<ProjectSummary[]> =>
  useQuery({
    queryKey: ['projects'],
    queryFn: () => call<ProjectSummary[]>('GET', '/projects'),
    staleTime: 60_000,
  });

export function useSignIn(): UseMutationResult<Session, Error, { email: string; password: string }> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (credentials) => call<Session>('POST', '/session', credentials),
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
    mutationFn: (person) => call<Session>('POST', '/first-account', person),
    onSuccess: (session) => client.setQueryData(['session'], session),
  });
}

export function useSignOut(): UseMutationResult<void, Error, void> {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call<void>('DELETE', '/session'),
    onSuccess: () => {
      client.clear();
      client.setQueryData(['session'], { account: null, firstStart: false });
    },
  });
}

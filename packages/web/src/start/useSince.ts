import type { Answer } from '@visograph/api';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { addressOf, call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';

export type Since = Answer<'GET /projects/:project/since'>;

/** What others did since the person was last there: asked once for as long as the window is open. */
export function useSince(): Since | null {
  const { project } = useProject();
  const key = `visograph.since.${project.id}`;
  const { data } = useQuery({
    queryKey: ['since', project.id],
    queryFn: async () => {
      // A page that is loaded again is the same visit.
      const from = sessionStorage.getItem(key);
      const since = await call('GET /projects/:project/since', {
        params: { project: project.id },
        query: from === null ? {} : { after: from },
      });
      sessionStorage.setItem(key, String(since.seen ?? 0));
      return since;
    },
    staleTime: Infinity,
    gcTime: Infinity,
  });
  return data ?? null;
}

/** Tells the server how far the person has seen the project, when the window is left. */
export function useSeen(): void {
  const { project, view } = useProject();
  const { revision } = view;
  const since = useSince();
  const newest = useRef({ revision, asked: since !== null });
  useEffect(() => {
    newest.current = { revision, asked: since !== null };
  }, [revision, since]);
  useEffect(() => {
    const tell = (): void => {
      const { revision: at, asked } = newest.current;
      if (!asked || at === 0) return;
      void fetch(addressOf('PUT /projects/:project/seen', { params: { project: project.id } }), {
        method: 'PUT',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ revision: at }),
        keepalive: true,
      }).catch(() => undefined);
    };
    const hidden = (): void => {
      if (document.visibilityState === 'hidden') tell();
    };
    document.addEventListener('visibilitychange', hidden);
    window.addEventListener('pagehide', tell);
    return () => {
      document.removeEventListener('visibilitychange', hidden);
      window.removeEventListener('pagehide', tell);
      tell();
    };
  }, [project.id]);
}

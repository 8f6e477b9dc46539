/** Projects and who is in them, as people make them over the API: for tests. */
import { blankPlace, newId } from '@visograph/core/model';
import type { Caller } from '../testServer.ts';

export interface Told {
  detail: string;
}
export interface Sent extends Told {
  id: string;
  key: string;
  mailed: boolean;
  until: string;
}
export interface Project {
  id: string;
  name: string;
  standing: string;
  until: string | null;
  role: string;
}

export const begin = async (who: Caller, name: string): Promise<string> =>
  (await who.call<{ id: string }>('POST', '/projects', { name })).body.id;
export const accept = (who: Caller, key: string, account?: object) =>
  who.call<Told & { projectId: string; account: { id: string } }>('POST', '/invitations/accept', {
    key,
    ...(account === undefined ? {} : { account }),
  });
export const projectsOf = async (who: Caller): Promise<Project[]> =>
  (await who.call<Project[]>('GET', '/projects')).body;

export const placeIn = (who: Caller, project: string, name: string) => {
  const id = newId();
  const changes = [
    { op: 'create', kind: 'place', id, after: { ...blankPlace, id, name, kind: 'site', parentId: null } },
  ];
  return who.call<Told>('POST', `/projects/${project}/changes`, {
    id: newId(),
    sentence: `Added ${name}`,
    changes,
  });
};

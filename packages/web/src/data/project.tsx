import type { ChangeSet } from '@visograph/core/change';
import type { Network } from '@visograph/core/model';
import { useQueryClient } from '@tanstack/react-query';
import {
  createContext,
  useContext,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react';
import { useMoment, type Moment } from './moment.ts';
import type { ProjectSummary } from './session.ts';
import { ProjectSync, type Committed, type View } from './projectSync.ts';

interface ProjectValue {
  project: ProjectSummary;
  /** The plan that is worked in; null: as built. */
  plan: string | null;
  sync: ProjectSync;
  view: View;
  canEdit: boolean;
  /** An earlier moment that is looked at, read only; null: now. */
  moment: Moment | null;
  commit: (set: ChangeSet) => Committed;
}
const Context = createContext<ProjectValue | null>(null);

interface ProviderProps {
  project: ProjectSummary;
  accountId: string;
  plan: string | null;
  children: ReactNode;
}

export function ProjectProvider({ project, accountId, plan, children }: ProviderProps): ReactNode {
  const client = useQueryClient();
  const [sync] = useState(
    () =>
      new ProjectSync({ projectId: project.id, line: plan }, accountId, () => {
        void client.invalidateQueries({ queryKey: ['projects'] });
      }),
  );
  useEffect(() => {
    void sync.open();
    return () => sync.close();
  }, [sync]);
  const now = useSyncExternalStore(sync.subscribe, sync.current);
  const moment = useMoment(project.id, plan);
  const value = useMemo<ProjectValue>(() => {
    const view = moment?.network == null ? now : { ...now, network: moment.network };
    const archived = project.standing === 'archived';
    const canEdit = project.role !== 'reader' && moment === null && !archived;
    const commit = (set: ChangeSet): Committed => {
      if (!canEdit) {
        const text = archived
          ? `${project.name} is archived: it can be read, and nobody changes it. An owner can bring it back.`
          : moment === null
            ? 'You are a reader of this project: ask an owner for the editor role to change it.'
            : `This is the project as it was at r${moment.revision}. Go back to now to change it.`;
        sync.announce({ tone: 'bad', text });
        return { ok: false, problems: [] };
      }
      const result = sync.commit(set);
      const problem = result.ok ? undefined : result.problems[0];
      if (problem !== undefined) sync.announce({ tone: 'bad', text: problem.message });
      return result;
    };
    return { project, plan, sync, view, canEdit, moment, commit };
  }, [project, plan, sync, now, moment]);
  return <Context value={value}>{children}</Context>;
}

export function useProject(): ProjectValue {
  const value = useContext(Context);
  if (value === null) throw new Error('useProject stands outside a ProjectProvider');
  return value;
}

/** Why nothing can be added here, or who can: for a reader, and for whoever looks at an earlier moment. */
export function useWhoCan(): (what: string) => string {
  const { moment, project } = useProject();
  if (project.standing === 'archived')
    return (what) => `This project is archived. An owner can bring it back to ${what}.`;
  return (what) =>
    moment === null
      ? `Somebody with the editor role can ${what}.`
      : `There was nothing at r${moment.revision}. Go back to now to ${what}.`;
}

export const useNetwork = (): Network => useProject().view.network;

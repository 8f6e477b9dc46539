import type { ChangeSet, Network } from '@visograph/core';
import {
  createContext,
  useContext,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react';
import type { ProjectSummary } from './session.ts';
import { ProjectSync, type Committed, type View } from './projectSync.ts';

interface ProjectValue {
  project: ProjectSummary;
  sync: ProjectSync;
  view: View;
  canEdit: boolean;
  commit: (set: ChangeSet) => Committed;
}
const Context = createContext<ProjectValue | null>(null);

interface ProviderProps {
  project: ProjectSummary;
  accountId: string;
  children: ReactNode;
}

export function ProjectProvider({ project, accountId, children }: ProviderProps): ReactNode {
  const [sync] = useState(() => new ProjectSync(project.id, accountId));
  useEffect(() => {
    void sync.open();
    return () => sync.close();
  }, [sync]);
  const view = useSyncExternalStore(sync.subscribe, sync.current);
  const value = useMemo<ProjectValue>(() => {
    const canEdit = project.role !== 'reader';
    const commit = (set: ChangeSet): Committed => {
      if (!canEdit) {
        const text = 'You are a reader of this project: ask an owner for the editor role to change it.';
        sync.announce({ tone: 'bad', text });
        return { ok: false, problems: [] };
      }
      const result = sync.commit(set);
      const problem = result.ok ? undefined : result.problems[0];
      if (problem !== undefined) sync.announce({ tone: 'bad', text: problem.message });
      return result;
    };
    return { project, sync, view, canEdit, commit };
  }, [project, sync, view]);
  return <Context value={value}>{children}</Context>;
}

export function useProject(): ProjectValue {
  const value = useContext(Context);
  if (value === null) throw new Error('useProject stands outside a ProjectProvider');
  return value;
}

export const useNetwork = (): Network => useProject().view.network;

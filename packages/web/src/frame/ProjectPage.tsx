import type { ReactNode } from 'react';
import { Navigate, useParams } from 'react-router';
import { usePlan } from '../data/plan.ts';
import { ProjectProvider } from '../data/project.tsx';
import { useProjects, useSession } from '../data/session.ts';
import { WorkspaceProvider } from '../data/workspace.tsx';
import { Frame } from './Frame.tsx';

/** One project: its network loaded and kept in step, inside the frame. */
export default function ProjectPage(): ReactNode {
  const { project: id } = useParams();
  const [plan] = usePlan();
  const projects = useProjects();
  const accountId = useSession().data?.account?.id ?? '';
  const project = projects.data?.find((one) => one.id === id);
  if (projects.isPending) return null;
  if (project === undefined || project.standing === 'deleted') return <Navigate to="/projects" replace />;
  return (
    <ProjectProvider
      key={`${project.id}/${plan ?? ''}/${accountId}`}
      project={project}
      accountId={accountId}
      plan={plan}
    >
      <WorkspaceProvider>
        <Frame />
      </WorkspaceProvider>
    </ProjectProvider>
  );
}

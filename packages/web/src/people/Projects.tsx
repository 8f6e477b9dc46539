import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nameField } from '@visograph/core/model';
import { EllipsisVertical } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Button as AriaButton, Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { z } from 'zod';
import { call } from '../data/api.ts';
import { useProjects, useSession, useSignOut, type ProjectSummary } from '../data/session.ts';
import { Button, Floating } from '../kit/controls.tsx';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';
import { AccountPanel } from './AccountPanel.tsx';
import { dayText } from './dayText.ts';
import { DeleteForGood } from './DeleteForGood.tsx';

type Standing = ProjectSummary['standing'];

const Page = styled.main`
  max-width: 560px;
  margin: 0 auto;
  padding: 56px 20px;
  display: flex;
  flex-direction: column;
  gap: 16px;
  h1 {
    font-size: 19px;
    line-height: 24px;
  }
  h2 {
    font-size: 13px;
    margin-bottom: 8px;
  }
  small {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Person = styled.header`
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
  h1 {
    flex: 1;
  }
`;
const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  margin-bottom: 8px;
  border: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
  border-radius: 3px;
  > a,
  > div {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 12px 14px;
    text-decoration: none;
    overflow-wrap: anywhere;
  }
  small {
    white-space: nowrap;
  }
`;
const More = styled(AriaButton)`
  border: 0;
  border-left: 1px solid ${({ theme }) => theme.rule};
  background: none;
  color: ${({ theme }) => theme.inkSoft};
  width: 34px;
  &[data-hovered],
  &[data-focus-visible] {
    background: ${({ theme }) => theme.accentWash};
  }
`;
const Items = styled(Menu)`
  padding: 3px;
  outline: none;
  [role='menuitem'] {
    padding: 5px 10px;
    border-radius: 2px;
    outline: none;
    &[data-focused] {
      background: ${({ theme }) => theme.accentWash};
    }
  }
`;
const Trouble = styled.p`
  color: ${({ theme }) => theme.bad};
`;

const newProject = z.object({ name: trimmed(nameField('New project')) });

const acts: Record<Standing, { id: Standing | 'gone'; text: string }[]> = {
  active: [
    { id: 'archived', text: 'Archive: read only for all' },
    { id: 'deleted', text: 'Delete: it can be brought back' },
  ],
  archived: [
    { id: 'active', text: 'Bring back' },
    { id: 'deleted', text: 'Delete: it can be brought back' },
  ],
  deleted: [
    { id: 'active', text: 'Bring back' },
    { id: 'gone', text: 'Delete for good …' },
  ],
};

function ProjectRow({
  project,
  onAct,
}: {
  project: ProjectSummary;
  onAct: (project: ProjectSummary, act: Standing | 'gone') => void;
}): ReactNode {
  const { id, name, role, revision, standing, until } = project;
  const facts = until === null ? `${role} · r${revision}` : `gone for good on ${dayText(until)}`;
  return (
    <Row>
      {standing === 'deleted' ? (
        <div>
          {name} <small>{facts}</small>
        </div>
      ) : (
        <Link to={`/p/${id}/start`}>
          {name} <small>{facts}</small>
        </Link>
      )}
      {role === 'owner' && (
        <MenuTrigger>
          <More aria-label={`More of ${name}`}>
            <EllipsisVertical size={15} aria-hidden="true" />
          </More>
          <Floating placement="bottom end">
            <Items
              aria-label={`More of ${name}`}
              onAction={(key) => {
                const act = acts[standing].find((one) => one.id === key);
                if (act !== undefined) onAct(project, act.id);
              }}
            >
              {acts[standing].map(({ id: act, text }) => (
                <MenuItem key={act} id={act}>
                  {text}
                </MenuItem>
              ))}
            </Items>
          </Floating>
        </MenuTrigger>
      )}
    </Row>
  );
}

const headings: Record<Standing, string | null> = { active: null, archived: 'Archived', deleted: 'Deleted' };
const standings: readonly Standing[] = ['active', 'archived', 'deleted'];

/** The person's projects, beginning another, and what became of those no longer worked in. */
export function Projects(): ReactNode {
  const projects = useProjects();
  const session = useSession();
  const signOut = useSignOut();
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useSchemaForm(newProject, { name: '' });
  const [accountOpen, setAccountOpen] = useState(false);
  const [leaving, setLeaving] = useState<ProjectSummary | null>(null);
  const again = (): Promise<void> => client.invalidateQueries({ queryKey: ['projects'] });
  const begin = useMutation({
    mutationFn: (body: { name: string }) => call('POST /projects', { body }),
    onSuccess: async (project) => {
      await again();
      void navigate(`/p/${project.id}/start`);
    },
    onError: (error) => form.refuse([{ field: 'name', message: error.message }]),
  });
  const stand = useMutation({
    mutationFn: ({ project, standing }: { project: ProjectSummary; standing: Standing }) =>
      call('PUT /projects/:project/standing', { params: { project: project.id }, body: { standing } }),
    onSettled: again,
  });
  const act = (project: ProjectSummary, wish: Standing | 'gone'): void => {
    if (wish === 'gone') setLeaving(project);
    else stand.mutate({ project, standing: wish });
  };
  const trouble = stand.error ?? projects.error;
  return (
    <Page>
      <Person>
        <h1>Projects</h1>
        <small>{session.data?.account?.name}</small>
        <Button onPress={() => setAccountOpen(true)}>Your account</Button>
        <Button $tone="quiet" onPress={() => signOut.mutate()}>
          Sign out
        </Button>
      </Person>
      {standings.map((standing) => {
        const those = projects.data?.filter((project) => project.standing === standing) ?? [];
        const heading = headings[standing];
        return those.length === 0 ? null : (
          <section key={standing} aria-label={heading ?? 'In use'}>
            {heading !== null && <h2>{heading}</h2>}
            <ul>
              {those.map((project) => (
                <ProjectRow key={project.id} project={project} onAct={act} />
              ))}
            </ul>
          </section>
        );
      })}
      {trouble !== null && <Trouble role="alert">{trouble.message}</Trouble>}
      {projects.data?.every(({ standing }) => standing !== 'active') === true && (
        <p>There is no project in use. Begin one: it starts with a catalogue of models and cable types.</p>
      )}
      <Form
        label="Begin a project"
        form={form}
        action="Begin project"
        busy={begin.isPending}
        onSend={(wish) => begin.mutate(wish)}
      >
        <TextIn name="name" />
      </Form>
      <AccountPanel open={accountOpen} onOpenChange={setAccountOpen} />
      {leaving !== null && (
        <DeleteForGood project={leaving} onGone={() => void again()} onClose={() => setLeaving(null)} />
      )}
    </Page>
  );
}

import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nameField } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { z } from 'zod';
import { call } from '../data/api.ts';
import { useProjects } from '../data/session.ts';
import { TextIn } from '../kit/form/fields.tsx';
import { Form } from '../kit/form/Form.tsx';
import { trimmed, useSchemaForm } from '../kit/form/useSchemaForm.ts';

const Page = styled.main`
  max-width: 520px;
  margin: 72px auto;
  display: flex;
  flex-direction: column;
  gap: 16px;
  h1 {
    font-size: 19px;
    line-height: 24px;
  }
  li a {
    display: flex;
    justify-content: space-between;
    padding: 12px 14px;
    border: 1px solid ${({ theme }) => theme.rule};
    background: ${({ theme }) => theme.surface};
    text-decoration: none;
    border-radius: 3px;
    margin-bottom: 8px;
  }
  small {
    color: ${({ theme }) => theme.inkSoft};
  }
`;

const newProject = z.object({ name: trimmed(nameField('New project')) });

/** The person's projects, and beginning another. */
export function Projects(): ReactNode {
  const projects = useProjects();
  const client = useQueryClient();
  const navigate = useNavigate();
  const form = useSchemaForm(newProject, { name: '' });
  const begin = useMutation({
    mutationFn: (body: { name: string }) => call('POST /projects', { body }),
    onSuccess: async (project) => {
      await client.invalidateQueries({ queryKey: ['projects'] });
      void navigate(`/p/${project.id}/start`);
    },
    onError: (error) => form.refuse([{ field: 'name', message: error.message }]),
  });
  const start = (wish: { name: string }): void => begin.mutate(wish);
  return (
    <Page>
      <h1>Projects</h1>
      <ul>
        {projects.data?.map((project) => (
          <li key={project.id}>
            <Link to={`/p/${project.id}/start`}>
              {project.name} <small>{`${project.role} · r${project.revision}`}</small>
            </Link>
          </li>
        ))}
      </ul>
      {projects.data?.length === 0 && (
        <p>There is no project yet. Begin one: it starts with a catalogue of models and cable types.</p>
      )}
      <Form label="Begin a project" form={form} action="Begin project" busy={begin.isPending} onSend={start}>
        <TextIn name="name" />
      </Form>
    </Page>
  );
}

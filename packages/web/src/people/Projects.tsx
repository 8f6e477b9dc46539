import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { call } from '../data/api.ts';
import { useProjects } from '../data/session.ts';
import { Button, Field } from '../kit/controls.tsx';

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
  form {
    display: flex;
    gap: 8px;
    align-items: flex-end;
  }
  form > :first-child {
    flex: 1;
  }
`;

/** The person's projects, and beginning another. */
export function Projects(): ReactNode {
  const projects = useProjects();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const begin = useMutation({
    mutationFn: () => call('POST /projects', { body: { name } }),
    onSuccess: async (project) => {
      await client.invalidateQueries({ queryKey: ['projects'] });
      void navigate(`/p/${project.id}/places`);
    },
  });
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    begin.mutate();
  };
  return (
    <Page>
      <h1>Projects</h1>
      <ul>
        {projects.data?.map((project) => (
          <li key={project.id}>
            <Link to={`/p/${project.id}/places`}>
              {project.name} <small>{`${project.role} · r${project.revision}`}</small>
            </Link>
          </li>
        ))}
      </ul>
      {projects.data?.length === 0 && (
        <p>There is no project yet. Begin one: it starts with a catalogue of models and cable types.</p>
      )}
      <form onSubmit={submit}>
        <Field
          label="New project"
          value={name}
          onChange={setName}
          required
          error={begin.error?.message ?? null}
        />
        <Button type="submit" $tone="primary" isDisabled={begin.isPending}>
          Begin project
        </Button>
      </form>
    </Page>
  );
}

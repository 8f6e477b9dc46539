import { useMutation, useQueryClient } from '@tanstack/react-query';
import { addSheet } from '@visograph/core/sheets';
import { FileSpreadsheet, Map as Example, PencilRuler, TextCursorInput } from 'lucide-react';
import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { styled } from 'styled-components';
import { call } from '../data/api.ts';
import { callJob } from '../data/jobs.ts';
import { useProject, useWhoCan } from '../data/project.tsx';
import { useShownPath } from '../data/shown.ts';
import { Button } from '../kit/controls.tsx';
import type { Beginning } from './beginning.ts';

const Ways = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 14px;
  margin: 0;
  padding: 0;
  list-style: none;
  li {
    display: flex;
    flex-direction: column;
    gap: 8px;
    padding: 18px 18px 16px;
    border: 1px solid ${({ theme }) => theme.rule};
    border-radius: 3px;
    background: ${({ theme }) => theme.surface};
  }
  svg {
    color: ${({ theme }) => theme.accent};
  }
  h2 {
    font-size: 15px;
  }
  p {
    flex: 1;
    color: ${({ theme }) => theme.inkSoft};
  }
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  [role='alert'] {
    color: ${({ theme }) => theme.bad};
  }
`;

/** An empty project: the ways to begin it. */
export function WaysToBegin(): ReactNode {
  const { project, view, commit, canEdit } = useProject();
  const whoCan = useWhoCan();
  const navigate = useNavigate();
  const shownPath = useShownPath();
  const client = useQueryClient();
  const goTo = (path: string, state: Beginning): void =>
    void navigate(shownPath(`/p/${project.id}/${path}`), { state });
  const blank = (state: Beginning): void => {
    const there = [...view.network.all('sheet')].find((sheet) => sheet.projection === 'cabling');
    if (there !== undefined) return goTo(`sheets/${there.id}`, state);
    const set = addSheet(view.network, { scopeId: null });
    if (commit(set).ok) goTo(`sheets/${set.sheetId}`, state);
  };
  const example = useMutation({
    mutationFn: async () => {
      const made = await call('POST /projects', { body: { name: 'Marrow Sound Ferries' } });
      await callJob('POST /projects/:project/example', { params: { project: made.id } });
      return made;
    },
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ['projects'] });
      void navigate(`/p/${made.id}/start`);
    },
  });
  if (!canEdit) return <p>{whoCan('begin it')}</p>;
  return (
    <Ways aria-label="Ways to begin">
      <li>
        <PencilRuler size={22} />
        <h2>Draw it</h2>
        <p>
          A blank sheet: drop devices on it and pull lines between them. Rooms, racks and addresses come
          later.
        </p>
        <div>
          <Button $tone="primary" onPress={() => blank({})}>
            Begin with a blank sheet
          </Button>
        </div>
      </li>
      <li>
        <TextCursorInput size={22} />
        <h2>Type it</h2>
        <p>One line a link, drawn as it is typed: “core-1 core-2 x2”, “3 access each to core-1 core-2”.</p>
        <div>
          <Button onPress={() => blank({ typed: true })}>Type a topology</Button>
        </div>
      </li>
      <li>
        <FileSpreadsheet size={22} />
        <h2>Import it</h2>
        <p>
          Lists that are there already, as .xlsx, .csv or pasted: columns in any order, every row looked at
          first.
        </p>
        <div>
          <Button onPress={() => goTo('equipment', { importing: true })}>Equipment list</Button>
          <Button onPress={() => goTo('cables', { importing: true })}>Table of links</Button>
        </div>
      </li>
      <li>
        <Example size={22} />
        <h2>Look at an example</h2>
        <p>
          A ferry company with seven places, drawn, cabled and numbered, as a project of your own to try
          things in.
        </p>
        <div>
          <Button isDisabled={example.isPending} onPress={() => example.mutate()}>
            {example.isPending ? 'Beginning …' : 'Begin with the example'}
          </Button>
        </div>
        {example.error !== null && <p role="alert">{example.error.message}</p>}
      </li>
    </Ways>
  );
}

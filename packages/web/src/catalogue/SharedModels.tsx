import { adoptModel } from '@visograph/core/catalogue';
import { modelTitle } from '@visograph/core/model';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { call } from '../data/api.ts';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { ModelFace } from './ModelFace.tsx';

const Rows = styled.ul`
  width: 640px;
  max-width: 80vw;
  margin: 10px 0;
  max-height: 420px;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 200px auto;
    gap: 12px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
`;

/** Models that owners of other projects accepted for everybody: taken over as copies. */
export function SharedModels({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { view, commit, sync, project } = useProject();
  const { network } = view;
  const shared = useQuery({
    queryKey: ['shared models'],
    queryFn: () => call('GET /catalogue/shared', {}),
    enabled: open,
    staleTime: 0,
  });
  const rows = (shared.data ?? []).filter(({ model }) => network.get('model', model.id) === null);
  return (
    <PanelDialog title="Shared models" open={open} onOpenChange={onOpenChange}>
      <Rows aria-label="Shared models">
        {shared.isError && <Hint>The list cannot be read at the moment. Close it and try again.</Hint>}
        {shared.isSuccess && rows.length === 0 && (
          <Hint>{`No other project than ${project.name} shares a model yet. Offer one in its record; an owner accepts it.`}</Hint>
        )}
        {rows.map(({ model, project: from }) => {
          const there = network.findOne('modelByTitle', modelTitle(model).toLowerCase()) !== null;
          return (
            <li key={model.id}>
              <span>
                {modelTitle(model)} <Hint>{`from ${from}`}</Hint>
              </span>
              <ModelFace model={model} face="front" width={200} maxHeight={40} />
              <Button
                isDisabled={there}
                onPress={() => {
                  const attempt = adoptModel(network, model);
                  if (attempt.ok) commit(attempt.set);
                  else sync.announce({ tone: 'bad', text: attempt.why });
                }}
              >
                {there ? 'In this project' : 'Take over'}
              </Button>
            </li>
          );
        })}
      </Rows>
    </PanelDialog>
  );
}

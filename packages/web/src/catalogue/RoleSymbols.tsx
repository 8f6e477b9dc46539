import { update } from '@visograph/core/change';
import { roleCodes, roles, type Role } from '@visograph/core/model';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { PictureField } from './PictureField.tsx';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 8px 0;
`;

/** Own pictures for roles, drawn on plates where the model has no symbol of its own. */
export function RoleSymbols({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}): ReactNode {
  const { view, commit } = useProject();
  const [role, setRole] = useState<Role>('SW');
  const project = [...view.network.all('project')][0];
  if (project === undefined) return null;
  const keep = (symbol: string | null): void => {
    const { [role]: _old, ...others } = project.symbols;
    const change = update('project', project, {
      symbols: symbol === null ? others : { ...others, [role]: symbol },
    });
    if (change !== null)
      commit({
        changes: [change],
        sentence: `${symbol === null ? 'Removed' : 'Set'} the symbol of the role ${roles[role].label}`,
      });
  };
  return (
    <PanelDialog title="Symbols of roles" open={open} onOpenChange={onOpenChange}>
      <Hint>
        Drawn on the tab of a plate in place of its two letters, unless its model has a symbol of its own.
      </Hint>
      <Choice
        label="Role"
        width={220}
        value={role}
        options={roleCodes.map((code) => ({ id: code, text: `${code} ${roles[code].label}` }))}
        onChange={setRole}
      />
      <Line>
        <PictureField
          what="symbol"
          alt={`Symbol of the role ${roles[role].label}`}
          value={project.symbols[role] ?? null}
          onChange={keep}
          height={40}
        />
      </Line>
    </PanelDialog>
  );
}

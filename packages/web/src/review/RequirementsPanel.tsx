import { addRequirement, askedFacts, removeRequirement, requirementText } from '@visograph/core/check';
import {
  compareNames,
  kinds,
  requirementKinds,
  requirementStatuses,
  roleCodes,
  roles,
  type Requirement,
  type RequirementKind,
} from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button } from '../kit/controls.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { FactLine, FactList } from '../record/factList.tsx';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
  margin: 10px 0;
`;
const Scroll = styled.div`
  max-height: 320px;
  overflow: auto;
`;

/** What must be documented of which things: read by all, changed by an owner. */
export function RequirementsPanel({ onClose }: { onClose: () => void }): ReactNode {
  const { view, project, canEdit, commit } = useProject();
  const { network } = view;
  const [on, setOn] = useState<RequirementKind>('device');
  const [role, setRole] = useState<Requirement['role']>('any');
  const [status, setStatus] = useState<Requirement['status']>('any');
  const [fact, setFact] = useState<string>('serial');
  const [why, setWhy] = useState<string | null>(null);
  const owner = canEdit && project.role === 'owner';
  const asked = useMemo(
    () =>
      [...network.all('requirement')].sort((a, b) => compareNames(requirementText(a), requirementText(b))),
    [network],
  );
  return (
    <PanelDialog title="What must be documented" open onOpenChange={(stays) => !stays && onClose()}>
      {owner && (
        <Line role="group" aria-label="Ask for a fact">
          <Choice<RequirementKind>
            label="Of"
            width={110}
            value={on}
            options={requirementKinds.map((id) => ({ id, text: kinds[id].many }))}
            onChange={(next) => {
              setOn(next);
              setFact(askedFacts[next][0]?.key ?? '');
              if (next !== 'device') setRole('any');
            }}
          />
          {on === 'device' && (
            <Choice
              label="Role"
              width={150}
              value={role}
              options={[
                { id: 'any' as const, text: 'any' },
                ...roleCodes.map((id) => ({ id, text: roles[id].label })),
              ]}
              onChange={setRole}
            />
          )}
          <Choice
            label="Status"
            width={100}
            value={status}
            options={requirementStatuses.map((id) => ({ id, text: id }))}
            onChange={setStatus}
          />
          <Choice
            label="Fact"
            width={170}
            value={fact}
            options={askedFacts[on].map(({ key, label }) => ({ id: key, text: label }))}
            onChange={setFact}
          />
          <Button
            onPress={() => {
              const attempt = addRequirement(network, { on, role, status, fact });
              setWhy(attempt.ok ? null : attempt.why);
              if (attempt.ok) commit(attempt.set);
            }}
          >
            Ask for it
          </Button>
        </Line>
      )}
      {why !== null && <Hint role="alert">{why}</Hint>}
      <Scroll>
        <FactList aria-label="Asked for">
          {asked.map((row) => (
            <FactLine
              key={row.id}
              label={`Ask no more for ${requirementText(row)}`}
              onRemove={
                owner
                  ? () => {
                      const attempt = removeRequirement(network, row);
                      if (attempt.ok) commit(attempt.set);
                    }
                  : null
              }
            >
              {requirementText(row)}
            </FactLine>
          ))}
        </FactList>
      </Scroll>
      {asked.length === 0 && <Hint>Nothing is asked for yet.</Hint>}
    </PanelDialog>
  );
}

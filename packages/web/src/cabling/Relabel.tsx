import { cablesInScope, cablingRules, relabel } from '@visograph/core/cabling';
import { applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { labelParts } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { Button, Field } from '../kit/controls.tsx';
import { PanelDialog } from '../kit/panel/panelDialog.tsx';
import { Hint } from '../kit/panel/panels.tsx';
import { RulesForm } from './RulesForm.tsx';
import { mono } from '../theme/mono.ts';

const Body = styled.div`
  width: 520px;
  max-width: 80vw;
  margin: 10px 0;
  display: grid;
  gap: 10px;
`;
const List = styled.ul`
  max-height: 260px;
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  li {
    display: grid;
    grid-template-columns: 1fr 20px 1fr;
    padding: 2px 8px;
    ${mono}
    font-size: 12.5px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
`;
const shown = 300;

/** The project's scheme for cable labels, and new labels for the scope's cables with a preview of each. */
export function Relabel({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  const { view, commit, project: summary } = useProject();
  const { network } = view;
  const { scopeId } = useWhereabouts();
  const [project] = [...network.all('project')];
  const rules = cablingRules(network);
  const [scheme, setScheme] = useState(rules.labelScheme);
  const [digits, setDigits] = useState(String(project?.labelDigits ?? 5));
  const edit = useMemo(
    () =>
      project === undefined
        ? null
        : editRow(network, 'project', project, {
            labelDigits: Number(digits),
            cabling: { ...rules, labelScheme: scheme },
          }),
    [network, project, digits, rules, scheme],
  );
  const tried = useMemo(
    () => (edit === null || edit.changes.length === 0 ? null : applyChanges(network, edit.changes)),
    [network, edit],
  );
  const wrong = tried !== null && !tried.ok ? (tried.problems[0]?.message ?? null) : null;
  const after = tried?.ok === true ? tried.network : network;
  const cables = useMemo(() => cablesInScope(network, scopeId), [network, scopeId]);
  const result = useMemo(
    () => (open && wrong === null ? relabel(after, cables) : null),
    [open, wrong, after, cables],
  );
  return (
    <PanelDialog title="Labels and lengths" open={open} onOpenChange={(next) => !next && onClose()}>
      <Body>
        <div style={{ display: 'flex', gap: 8 }}>
          <div style={{ flex: 1 }}>
            <Field
              label="Scheme of the project"
              value={scheme}
              onChange={setScheme}
              mono
              error={wrong}
              help={labelParts.map((part) => `{${part}}`).join(' ')}
            />
          </div>
          <Field label="Digits" value={digits} onChange={setDigits} mono width={60} />
        </div>
        <div>
          <Button
            isDisabled={
              edit === null || edit.changes.length === 0 || wrong !== null || summary.role === 'reader'
            }
            onPress={() =>
              edit !== null &&
              void commit({ changes: edit.changes, sentence: `Set the scheme of cable labels to ${scheme}` })
            }
          >
            Keep the scheme for new cables
          </Button>
        </div>
        {result !== null && (
          <>
            <Hint>
              {result.rows.length === 0
                ? `The ${cables.length} cables here are labelled by the scheme without gaps.`
                : `${result.rows.length} of the ${cables.length} cables here would get another label:`}
            </Hint>
            {result.rows.length > 0 && (
              <List aria-label="New labels">
                {result.rows.slice(0, shown).map(({ cable, to }) => (
                  <li key={cable.id}>
                    <span>{cable.label}</span>
                    <span>→</span>
                    <span>{to}</span>
                  </li>
                ))}
              </List>
            )}
            {!result.attempt.ok && <p role="alert">{result.attempt.why}</p>}
            {result.rows.length > 0 && (
              <div>
                <Button
                  $tone="primary"
                  isDisabled={!result.attempt.ok}
                  onPress={() => {
                    if (!result.attempt.ok) return;
                    const changes = [
                      ...(tried?.ok === true ? (edit?.changes ?? []) : []),
                      ...result.attempt.set.changes,
                    ];
                    if (commit({ changes, sentence: result.attempt.set.sentence }).ok) onClose();
                  }}
                >
                  {`Relabel ${result.rows.length} ${result.rows.length === 1 ? 'cable' : 'cables'}`}
                </Button>
              </div>
            )}
          </>
        )}
        <h3>Lengths and losses</h3>
        <RulesForm />
      </Body>
    </PanelDialog>
  );
}

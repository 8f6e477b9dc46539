import { cablingRules } from '@visograph/core/cabling';
import { applyChanges } from '@visograph/core/change';
import { editRow } from '@visograph/core/commands';
import { singleModeLosses, type CablingRules } from '@visograph/core/model';
import { useState, type FormEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Choice } from '../kit/choice.tsx';
import { Button, Field } from '../kit/controls.tsx';

type Figure = Exclude<keyof CablingRules, 'labelScheme' | 'singleModeLoss'>;
const figures: readonly { key: Figure; label: string }[] = [
  { key: 'slackM', label: 'Slack per end, m' },
  { key: 'sideM', label: 'Face to manager, m' },
  { key: 'trayRiseM', label: 'Rack top to tray, m' },
  { key: 'rackPitchM', label: 'Rack to rack, m' },
  { key: 'detour', label: 'Straight line ×' },
  { key: 'connectorLossDb', label: 'Mated pair, dB' },
  { key: 'spliceLossDb', label: 'Splice, dB' },
];
const Form = styled.form`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 8px;
  align-items: end;
`;

/** What lengths and losses are worked out with, for the whole project. */
export function RulesForm(): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const [project] = [...network.all('project')];
  const now = cablingRules(network);
  const [typed, setTyped] = useState<Partial<Record<Figure, string>>>({});
  const [wrong, setWrong] = useState<string | null>(null);
  const keep = (event: FormEvent): void => {
    event.preventDefault();
    if (project === undefined) return;
    const cabling = { ...now };
    for (const { key, label } of figures) {
      const text = typed[key];
      if (text === undefined) continue;
      const value = Number(text.replace(',', '.'));
      if (text.trim() === '' || !Number.isFinite(value))
        return setWrong(`${label}: “${text}” is not a number.`);
      cabling[key] = value;
    }
    const edit = editRow(network, 'project', project, { cabling });
    const tried = applyChanges(network, edit.changes);
    if (!tried.ok) return setWrong(tried.problems[0]?.message ?? 'These figures cannot be kept.');
    if (edit.changes.length > 0)
      commit({
        changes: edit.changes,
        sentence: 'Changed what cable lengths and losses are worked out with',
      });
    setTyped({});
    setWrong(null);
  };
  return (
    <Form onSubmit={keep} aria-label="Lengths and losses">
      {figures.map(({ key, label }) => (
        <Field
          key={key}
          label={label}
          mono
          value={typed[key] ?? String(now[key])}
          onChange={(text) => {
            setTyped({ ...typed, [key]: text });
            setWrong(null);
          }}
        />
      ))}
      <Choice
        label="Single-mode fibre by"
        width={170}
        value={now.singleModeLoss}
        options={singleModeLosses.map((id) => ({ id, text: id, disabled: !canEdit }))}
        onChange={(id) => {
          const singleModeLoss = singleModeLosses.find((one) => one === id);
          if (project !== undefined && singleModeLoss !== undefined)
            commit({
              ...editRow(network, 'project', project, { cabling: { ...now, singleModeLoss } }),
              sentence: `Took the loss of single-mode fibre from ${singleModeLoss}`,
            });
        }}
      />
      <Button type="submit" isDisabled={!canEdit || Object.keys(typed).length === 0}>
        Keep
      </Button>
      {wrong !== null && (
        <p role="alert" style={{ gridColumn: '1 / -1' }}>
          {wrong}
        </p>
      )}
    </Form>
  );
}

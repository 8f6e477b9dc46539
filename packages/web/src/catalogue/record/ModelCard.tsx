import { changeModel, type ModelChange } from '@visograph/core/catalogue';
import { modelTitle, roles, type Device } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Picker } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Hint, Mono, StateMark } from '../../kit/panel/panels.tsx';
import { Card, Goto } from '../../record/parts.tsx';

const Preview = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  margin: 6px 0;
  ul {
    max-height: 130px;
    overflow: auto;
  }
  p {
    display: flex;
    gap: 6px;
    align-items: center;
  }
`;
const Why = styled.p`
  color: ${({ theme }) => theme.bad};
`;

const cables = (count: number): string => `${count} ${count === 1 ? 'cable' : 'cables'}`;

function ChangePreview({ change }: { change: ModelChange }): ReactNode {
  return (
    <Preview role="group" aria-label="What would happen">
      <Hint>{`${change.portsBefore} ports become ${change.portsAfter}`}</Hint>
      <p>
        <StateMark state="ok" />
        {`${cables(change.stay.length)} stay where they are`}
      </p>
      {change.move.length > 0 && (
        <>
          <p>
            <StateMark state="warn" />
            {`${cables(change.move.length)} move to another port`}
          </p>
          <ul>
            {change.move.map((move) => (
              <li key={move.port.id}>
                <Mono>{`${move.cable.label}: ${move.port.name} to ${move.becomes ?? ''}`}</Mono>
              </li>
            ))}
          </ul>
        </>
      )}
      {change.lost.length > 0 && (
        <>
          <p>
            <StateMark state="bad" />
            {`${cables(change.lost.length)} would hang loose`}
          </p>
          <ul>
            {change.lost.map((move) => (
              <li key={move.port.id}>
                <Mono>{`${move.cable.label}: no port for ${move.port.name}`}</Mono>
              </li>
            ))}
          </ul>
        </>
      )}
      {!change.attempt.ok && <Why role="alert">{change.attempt.why}</Why>}
    </Preview>
  );
}

/** The model of a device; choosing another shows what becomes of its cables before anything is changed. */
export function ModelCard({ device }: { device: Device }): ReactNode {
  const { view, commit, canEdit } = useProject();
  const { network } = view;
  const [open, setOpen] = useState(false);
  const [wishId, setWish] = useState<string | null>(null);
  const model = network.get('model', device.modelId);
  const wish = network.get('model', wishId);
  const options = useMemo(
    () =>
      open
        ? [...network.all('model')]
            .filter((one) => one.form === 'device' && !one.retired && one.id !== device.modelId)
            .map((one) => ({
              id: one.id,
              text: modelTitle(one),
              detail: `${roles[one.role ?? 'XX'].label} · ${one.units} U`,
            }))
        : [],
    [open, network, device.modelId],
  );
  const change = useMemo(
    () => (wish === null ? null : changeModel(network, device, wish)),
    [network, device, wish],
  );
  const close = (): void => {
    setOpen(false);
    setWish(null);
  };
  return (
    <Card title="Model">
      {model === null ? (
        <Hint>No model: nothing is known of its size, power and ports.</Hint>
      ) : (
        <Goto to={{ kind: 'model', id: model.id }}>{modelTitle(model)}</Goto>
      )}
      {canEdit && !open && (
        <div>
          <Button $tone="quiet" onPress={() => setOpen(true)}>
            Change model …
          </Button>
        </div>
      )}
      {open && (
        <>
          <Picker label="New model" options={options} value={wishId} onChange={setWish} autoFocus />
          {change !== null && <ChangePreview change={change} />}
          <Button
            $tone="primary"
            isDisabled={change === null || !change.attempt.ok}
            onPress={() => {
              if (change?.attempt.ok === true && commit(change.attempt.set).ok) close();
            }}
          >
            {change !== null && change.lost.length > 0
              ? `Change it, ${cables(change.lost.length)} loose`
              : 'Change model'}
          </Button>
          <Button $tone="quiet" onPress={close}>
            Cancel
          </Button>
        </>
      )}
    </Card>
  );
}

import { changeModels, type ModelsChange, type PortMove } from '@visograph/core/catalogue';
import { compareNames, modelTitle, roles, type Device, type Network } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Picker } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { Mono, StateMark } from '../../kit/panel/panels.tsx';

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

/** A port that is spoken of: with its device where there are several. */
const called = (network: Network, { port }: PortMove, several: boolean): string =>
  several ? `${network.get('device', port.deviceId)?.name ?? ''} ${port.name}` : port.name;

function ChangePreview({
  network,
  change,
  several,
}: {
  network: Network;
  change: ModelsChange;
  several: boolean;
}): ReactNode {
  return (
    <Preview role="group" aria-label="What would happen">
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
                <Mono>{`${move.cable.label}: ${called(network, move, several)} to ${move.becomes ?? ''}`}</Mono>
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
                <Mono>{`${move.cable.label}: no port for ${called(network, move, several)}`}</Mono>
              </li>
            ))}
          </ul>
        </>
      )}
      {!change.attempt.ok && <Why role="alert">{change.attempt.why}</Why>}
    </Preview>
  );
}

/**
 * Another model for one device or several: those of their role first. What becomes of their cables is shown before
 * anything is changed.
 */
export function ModelChoice({
  devices,
  onClose,
  label = 'New model',
}: {
  devices: readonly Device[];
  onClose: () => void;
  label?: string;
}): ReactNode {
  const { view, commit } = useProject();
  const { network } = view;
  const [wishId, setWish] = useState<string | null>(null);
  const wish = network.get('model', wishId);
  const options = useMemo(() => {
    const roleCodes = new Set(devices.map((device) => device.role));
    const now = new Set(devices.map((device) => device.modelId));
    return [...network.all('model')]
      .filter((one) => one.form === 'device' && !one.retired && !(now.size === 1 && now.has(one.id)))
      .map((one) => ({ one, other: one.role === null || !roleCodes.has(one.role) }))
      .sort((x, y) => Number(x.other) - Number(y.other) || compareNames(modelTitle(x.one), modelTitle(y.one)))
      .map(({ one }) => ({
        id: one.id,
        text: modelTitle(one),
        detail: `${roles[one.role ?? 'XX'].label} · ${one.units} U`,
      }));
  }, [network, devices]);
  const change = useMemo(
    () => (wish === null ? null : changeModels(network, devices, wish)),
    [network, devices, wish],
  );
  const what = devices.length === 1 ? 'Change model' : `Change ${devices.length} models`;
  return (
    <>
      <Picker label={label} options={options} value={wishId} onChange={setWish} autoFocus />
      {change !== null && <ChangePreview network={network} change={change} several={devices.length > 1} />}
      <Button
        $tone="primary"
        isDisabled={change === null || !change.attempt.ok}
        onPress={() => {
          if (change?.attempt.ok === true && commit(change.attempt.set).ok) onClose();
        }}
      >
        {change !== null && change.lost.length > 0 ? `${what}, ${cables(change.lost.length)} loose` : what}
      </Button>
      <Button $tone="quiet" onPress={onClose}>
        Cancel
      </Button>
    </>
  );
}

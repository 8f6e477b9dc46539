import { spanText } from '@visograph/core/change';
import { type Rack } from '@visograph/core/model';
import { acceptFit, proposeFit, freePositions, type FitPlacement } from '@visograph/core/racks';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../../data/project.tsx';
import { Choice } from '../../kit/choice.tsx';
import { Button } from '../../kit/controls.tsx';
import { ClosingHead, DockColumn, DockFrame } from '../../kit/panel/dock.tsx';
import { Hint, Mono, RoleMark } from '../../kit/panel/panels.tsx';
import { useBench } from './bench.tsx';
import { unracked } from './Gear.tsx';

const Scroll = styled.div`
  overflow: auto;
  min-height: 0;
  label {
    display: flex;
    gap: 7px;
    align-items: center;
    min-height: 24px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  td:first-child {
    white-space: nowrap;
  }
  td {
    padding: 1px 8px 1px 0;
    vertical-align: middle;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
  }
`;

/** Chosen devices that stand in no rack, and where they would go: each with its reason, each still movable. */
export function FitPanel({ racks }: { racks: readonly Rack[] }): ReactNode {
  const { view, commit, sync } = useProject();
  const { network } = view;
  const { plan, setPlan, setPanel } = useBench();
  const loose = useMemo(() => unracked(network, racks), [network, racks]);
  const room = racks[0]?.placeId;
  const [left, setLeft] = useState<ReadonlySet<string>>(
    () => new Set(loose.filter((device) => device.placeId !== room).map((device) => device.id)),
  );
  const [keepFree, setKeepFree] = useState(2);
  const wanted = loose.filter((device) => !left.has(device.id));
  const propose = (): void => setPlan(proposeFit(network, wanted, racks, { keepFree }));
  useEffect(() => () => setPlan(null), [setPlan]);
  const toggle = (id: string): void => {
    const next = new Set(left);
    if (!next.delete(id)) next.add(id);
    setLeft(next);
    setPlan(null);
  };
  const move = (placement: FitPlacement, unit: number): void => {
    if (plan === null) return;
    setPlan({
      ...plan,
      placements: plan.placements.map((one) =>
        one.deviceId === placement.deviceId ? { ...one, unit, reason: 'where you put it' } : one,
      ),
    });
  };
  const accept = (): void => {
    if (plan === null) return;
    const attempt = acceptFit(network, plan);
    if (!attempt.ok) return sync.announce({ tone: 'bad', text: attempt.why });
    if (commit(attempt.set).ok) setPanel(null);
  };
  const names = racks.map((rack) => rack.name).join(', ');
  return (
    <DockFrame aria-label="Fit it for me">
      <DockColumn $grow={0.8}>
        <h2>{`${wanted.length} of ${loose.length} in no rack`}</h2>
        <Scroll>
          {loose.length === 0 && <Hint>Every device of this site stands in a rack.</Hint>}
          {loose.map((device) => (
            <label key={device.id}>
              <input type="checkbox" checked={!left.has(device.id)} onChange={() => toggle(device.id)} />
              <RoleMark role={device.role} />
              <Mono>{device.name}</Mono>
            </label>
          ))}
        </Scroll>
      </DockColumn>
      <DockColumn $shaded $grow={0.7}>
        <h2>Rules</h2>
        <Choice
          label="Free units at the top"
          value={String(keepFree)}
          width={120}
          options={[0, 1, 2, 3, 4, 6, 8].map((count) => ({ id: String(count), text: `${count} U` }))}
          onChange={(next) => {
            setKeepFree(Number(next));
            setPlan(null);
          }}
        />
        <Hint>
          UPS and heavy gear low, a panel above its switch with a manager between, airflow and feeds kept
          apart.
        </Hint>
        <Button $tone="primary" onPress={propose} isDisabled={wanted.length === 0}>
          {`Propose places in ${names.length > 18 ? `${racks.length} racks` : names}`}
        </Button>
      </DockColumn>
      <DockColumn $grow={1.7}>
        <ClosingHead onClose={() => setPanel(null)}>
          {plan === null ? 'Proposal' : `Proposal · ${plan.placements.length}`}
        </ClosingHead>
        <Scroll>
          {plan === null && (
            <Hint>
              The proposal appears here and as ghosts in the racks. Nothing moves before you accept it.
            </Hint>
          )}
          <table>
            <tbody>
              {plan?.placements.map((placement) => {
                const device = network.get('device', placement.deviceId);
                const rack = network.get('rack', placement.rackId);
                if (device === null || rack === null) return null;
                return (
                  <tr key={placement.deviceId}>
                    <td>
                      <Mono>{device.name}</Mono>
                    </td>
                    <td>
                      {placement.unit === null ? (
                        <Mono>{`${rack.name} side`}</Mono>
                      ) : (
                        <Choice
                          label={`Unit of ${device.name}`}
                          hideLabel
                          width={110}
                          value={String(placement.unit)}
                          options={freePositions(network, rack, device).map((unit) => ({
                            id: String(unit),
                            text: `${rack.name} ${spanText({ unit, units: 1 })}`,
                          }))}
                          onChange={(next) => move(placement, Number(next))}
                        />
                      )}
                    </td>
                    <td>
                      <Hint>{placement.reason}</Hint>
                    </td>
                  </tr>
                );
              })}
              {plan?.unplaced.map(({ deviceId, reason }) => (
                <tr key={deviceId}>
                  <td>
                    <Mono>{network.get('device', deviceId)?.name}</Mono>
                  </td>
                  <td>left out</td>
                  <td>
                    <Hint>{reason}</Hint>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Scroll>
        {plan !== null && plan.placements.length > 0 && (
          <Button $tone="primary" onPress={accept}>
            {`Accept ${plan.placements.length}`}
          </Button>
        )}
      </DockColumn>
    </DockFrame>
  );
}

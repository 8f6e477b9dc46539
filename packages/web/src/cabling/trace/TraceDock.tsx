import { judgeRun, stopText, wholeRun, type Hop, type Run, faultText } from '@visograph/core/cabling';
import { metresText, modelTitle, portTitle, speedText, whereIs, type Network } from '@visograph/core/model';
import { useEffect, useMemo, useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../../data/shown.ts';
import { useWhereabouts } from '../../data/location.ts';
import { ClosingHead, DockColumn, DockFrame } from '../../kit/panel/dock.tsx';
import { RoleMark, StateMark } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';

const Strip = styled.ol`
  display: flex;
  align-items: center;
  overflow-x: auto;
  padding: 4px 2px 8px;
  outline: none;
`;
const Stop = styled.li`
  flex: none;
  border: 1px solid ${({ theme }) => theme.ink};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  padding: 5px 9px;
  button {
    font: inherit;
    ${mono}
    font-size: 12.5px;
    border: 0;
    background: none;
    padding: 0;
    color: ${({ theme }) => theme.ink};
  }
  small {
    display: block;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Leg = styled.li`
  flex: none;
  min-width: 104px;
  text-align: center;
  ${mono}
  font-size: 11.5px;
  color: ${({ theme }) => theme.inkSoft};
  border-top: 2px solid ${({ theme }) => theme.ink};
  margin-top: 30px;
  padding: 2px 6px 0;
  line-height: 14px;
  height: 32px;
  button {
    font: inherit;
    border: 0;
    background: none;
    padding: 0;
    color: ${({ theme }) => theme.ink};
  }
`;
const Through = styled.li`
  flex: none;
  width: 16px;
  border-top: 2px dotted ${({ theme }) => theme.ink};
`;

const metres = metresText;

function endText(network: Network, run: ReturnType<typeof wholeRun>): string {
  if (run.ends === 'loop') return 'It comes back to itself: a loop.';
  if (run.ends === 'open') {
    const last = run.hops.at(-1);
    const circuit = last !== undefined && 'circuit' in last ? network.get('circuit', last.circuit) : null;
    if (run.stop !== null) return `It ends open: ${stopText(network, run.stop)}.`;
    return circuit === null
      ? 'It ends open.'
      : `It is handed over to ${circuit.provider ?? 'its provider'}${circuit.handover === null ? '' : ` at ${circuit.handover}`}.`;
  }
  return `It ends at ${portTitle(network, run.to).replace(':', ' ')}.`;
}

const FaultLine = styled.p<{ $bad: boolean }>`
  display: flex;
  gap: 6px;
  align-items: center;
  color: ${({ theme, $bad }) => ($bad ? theme.bad : theme.warn)};
`;
const Facts = styled.p`
  display: flex;
  gap: 4px 16px;
  flex-wrap: wrap;
  font-size: 12px;
  color: ${({ theme }) => theme.inkSoft};
  b {
    ${mono}
    color: ${({ theme }) => theme.ink};
    font-weight: 400;
  }
`;

function portFacts(network: Network, portId: string): string {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  if (port === null || device === null) return '';
  const optic = network.get('model', port.transceiverId);
  const speed = port.role === 'panel' || port.speedBps === null ? null : speedText(port.speedBps);
  return [whereIs(network, device), speed, optic?.name].filter(Boolean).join(' · ');
}

/** The hops of a run as stops and legs; where it branches, the others are listed below. */
function RunStrip({ network, run }: { network: Network; run: Run }): ReactNode {
  const { select } = useWhereabouts();
  const leg = (key: string, name: string, facts: (string | null)[], pick: () => void): ReactNode => (
    <Leg key={key}>
      <button type="button" onClick={pick}>
        {name}
      </button>
      <br />
      {facts.filter(Boolean).join(' · ')}
    </Leg>
  );
  const show = (hop: Hop, at: number): ReactNode => {
    if ('circuit' in hop) {
      const circuit = network.get('circuit', hop.circuit);
      const facts = [
        circuit?.provider ?? null,
        circuit?.bandwidthBps == null ? null : speedText(circuit.bandwidthBps),
      ];
      return leg(`${hop.circuit}${at}`, circuit?.number ?? '', facts, () =>
        select({ kind: 'circuit', id: hop.circuit }),
      );
    }
    if ('cable' in hop) {
      const cable = network.get('cable', hop.cable);
      const type = network.get('model', cable?.typeId ?? null);
      const facts = [
        type === null ? null : modelTitle(type),
        cable?.lengthM == null ? null : metres(cable.lengthM),
      ];
      return leg(`${hop.cable}${at}`, cable?.label ?? '', facts, () =>
        select({ kind: 'cable', id: hop.cable }),
      );
    }
    const port = network.get('port', hop.port);
    const device = network.get('device', port?.deviceId ?? null);
    const before = run.hops[at - 1];
    return (
      <li key={`${hop.port}${at}`} style={{ display: 'contents' }}>
        {before !== undefined && 'port' in before && <Through as="span" />}
        <Stop as="div">
          <button type="button" onClick={() => select({ kind: 'port', id: hop.port })}>
            {device !== null && <RoleMark role={device.role} />}{' '}
            {portTitle(network, hop.port).replace(':', ' ')}
          </button>
          <small>{portFacts(network, hop.port)}</small>
        </Stop>
      </li>
    );
  };
  return run.hops.map(show);
}

/** The whole run of a port as a strip: each port, panel and cable on the way, with place, type and length. */
export function TraceDock({ portId, onClose }: { portId: string; onClose: () => void }): ReactNode {
  const network = useShown();
  const { select } = useWhereabouts();
  const frame = useRef<HTMLOListElement>(null);
  useEffect(() => {
    frame.current?.focus();
  }, [portId]);
  const { run, judged } = useMemo(() => {
    const whole = wholeRun(network, portId);
    return { run: whole, judged: judgeRun(network, whole) };
  }, [network, portId]);
  const cables = run.hops.filter((hop) => 'cable' in hop).length;
  const circuits = run.hops.filter((hop) => 'circuit' in hop).length;
  const counted = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;
  return (
    <DockFrame aria-label="Trace" onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <DockColumn style={{ overflowY: 'auto' }}>
        <ClosingHead
          onClose={onClose}
        >{`Run of ${portTitle(network, portId).replace(':', ' ')}`}</ClosingHead>
        <Strip ref={frame} tabIndex={0} aria-label="The run">
          <RunStrip network={network} run={run} />
        </Strip>
        <Facts>
          <span>
            {`${counted(cables, 'cable')}${circuits > 0 ? ` and ${counted(circuits, 'circuit')}` : ''}, ${metres(run.lengthM)}${run.unknownLengths > 0 ? ` and ${run.unknownLengths} of unknown length` : ''}. ${endText(network, run)}`}
          </span>
          {judged.speedBps !== null && (
            <span>
              Runs at <b>{speedText(judged.speedBps)}</b>
            </span>
          )}
          {judged.light !== null && (
            <span title={judged.light.lines.join('\n')}>
              Light left <b>{`${judged.light.marginDb.toFixed(1)} dB`}</b>
              {` of ${judged.light.budgetDb.toFixed(1)}: ${judged.light.lines.join('; ')}`}
            </span>
          )}
        </Facts>
        {judged.faults.map((fault) => (
          <FaultLine key={faultText(network, fault)} $bad={fault.severity === 'bad'}>
            <StateMark state={fault.severity} />
            {faultText(network, fault)}
          </FaultLine>
        ))}
        {run.branches.length > 0 && (
          <Facts>
            {'Branches to '}
            {run.branches.map(({ run: branch }) => {
              const end = branch.to ?? branch.from;
              return (
                <BranchEnd key={end} type="button" onClick={() => select({ kind: 'port', id: end })}>
                  {`${portTitle(network, end).replace(':', ' ')}${branch.to === null ? ' (open)' : ''}`}
                </BranchEnd>
              );
            })}
          </Facts>
        )}
      </DockColumn>
    </DockFrame>
  );
}
const BranchEnd = styled.button`
  font: inherit;
  ${mono}
  font-size: 12px;
  border: 0;
  padding: 0;
  background: none;
  color: ${({ theme }) => theme.ink};
  text-decoration: underline;
  text-underline-offset: 3px;
`;

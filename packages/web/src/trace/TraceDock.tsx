import { modelTitle, portTitle, whereIs, wholeRun, type Hop, type Network } from '@visograph/core';
import { useEffect, useRef, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useNetwork } from '../data/project.tsx';
import { useWhereabouts } from '../data/location.ts';
import { ClosingHead, DockColumn, DockFrame } from '../kit/dock.tsx';
import { Hint, RoleMark } from '../kit/panels.tsx';
import { mono } from '../theme/mono.ts';

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

const metres = (value: number): string => `${Math.round(value * 100) / 100} m`;

function endText(network: Network, run: ReturnType<typeof wholeRun>): string {
  if (run.ends === 'loop') return 'It comes back to itself: a loop.';
  if (run.ends === 'open') return 'It ends open.';
  return `It ends at ${portTitle(network, run.to).replace(':', ' ')}.`;
}

/** The whole run of a port as a strip: each port, panel and cable on the way, with place, type and length. */
export function TraceDock({ portId, onClose }: { portId: string; onClose: () => void }): ReactNode {
  const network = useNetwork();
  const { select } = useWhereabouts();
  const frame = useRef<HTMLOListElement>(null);
  useEffect(() => {
    frame.current?.focus();
  }, [portId]);
  const run = wholeRun(network, portId);
  const show = (hop: Hop, at: number): ReactNode => {
    if ('cable' in hop) {
      const cable = network.get('cable', hop.cable);
      const type = network.get('model', cable?.typeId ?? null);
      return (
        <Leg key={`${hop.cable}${at}`}>
          <button type="button" onClick={() => select({ kind: 'cable', id: hop.cable })}>
            {cable?.label}
          </button>
          <br />
          {[type === null ? null : modelTitle(type), cable?.lengthM == null ? null : metres(cable.lengthM)]
            .filter(Boolean)
            .join(' · ')}
        </Leg>
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
          <small>{device === null ? '' : whereIs(network, device)}</small>
        </Stop>
      </li>
    );
  };
  const cables = run.hops.filter((hop) => 'cable' in hop).length;
  return (
    <DockFrame aria-label="Trace" onKeyDown={(event) => event.key === 'Escape' && onClose()}>
      <DockColumn>
        <ClosingHead
          onClose={onClose}
        >{`Run of ${portTitle(network, portId).replace(':', ' ')}`}</ClosingHead>
        <Strip ref={frame} tabIndex={0} aria-label="The run">
          {run.hops.map(show)}
        </Strip>
        <Hint>
          {`${cables} ${cables === 1 ? 'cable' : 'cables'}, ${metres(run.lengthM)}${run.unknownLengths > 0 ? ` and ${run.unknownLengths} of unknown length` : ''}. ${endText(network, run)}`}
        </Hint>
      </DockColumn>
    </DockFrame>
  );
}

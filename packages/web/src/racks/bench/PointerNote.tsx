import { traceRun } from '@visograph/core/cabling';
import { spanText } from '@visograph/core/change';
import {
  metresText,
  cableAt,
  circuitAt,
  otherEnds,
  portTitle,
  roles,
  type Network,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { Point } from './benchLayout.ts';
import type { Carry } from './acts/useCarry.ts';

const Note = styled.div<{ $bad?: boolean }>`
  position: fixed;
  z-index: 50;
  max-width: 360px;
  padding: 4px 8px;
  border-radius: 3px;
  pointer-events: none;
  font-size: 12px;
  line-height: 17px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme, $bad }) => ($bad === true ? theme.bad : theme.ink)};
  border: 1px solid ${({ theme, $bad }) => ($bad === true ? theme.bad : theme.rule)};
  box-shadow: 0 4px 14px rgb(0 0 0 / 14%);
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

const place = ({ x, y }: Point) => ({
  left: Math.min(x + 14, window.innerWidth - 370),
  top: Math.min(y + 16, window.innerHeight - 80),
});

/** Both ends of what is plugged into a port, and where its run comes out. */
function portLines(network: Network, portId: string): [string, string] {
  const title = portTitle(network, portId).replace(':', ' ');
  const cable = cableAt(network, portId);
  if (cable === null) {
    const reserved = network.get('port', portId)?.reserved ?? null;
    const circuit = circuitAt(network, portId);
    if (circuit !== null) return [title, [circuit.number, circuit.provider].filter(Boolean).join(' · ')];
    return [title, reserved === null ? 'free' : `reserved for ${reserved}`];
  }
  const far = otherEnds(network, cable, portId)
    .map((id) => portTitle(network, id).replace(':', ' '))
    .join(', ');
  const run = traceRun(network, portId);
  const end = portTitle(network, run.to).replace(':', ' ');
  const beyond = end === '' || end === far || end === title ? '' : ` · the run ends at ${end}`;
  return [
    `${title} – ${far === '' ? 'open end' : far}`,
    `${cable.label}${cable.lengthM === null ? '' : ` · ${metresText(cable.lengthM)}`}${beyond}`,
  ];
}

export type Hover = { at: Point } & ({ portId: string } | { deviceId: string } | { cable: string });

/** What the pointer is over: a port with both ends of its cable, or a device. */
export function HoverNote({ network, hover }: { network: Network; hover: Hover }): ReactNode {
  let lines: [string, string];
  if ('cable' in hover) {
    const [first = '', ...rest] = hover.cable.split(' · ');
    lines = [first, rest.join(' · ')];
  } else if ('portId' in hover) lines = portLines(network, hover.portId);
  else {
    const device = network.get('device', hover.deviceId);
    if (device === null) return null;
    lines = [device.name, `${roles[device.role].label} · ${spanText(device)}`];
  }
  return (
    <Note style={place(hover.at)} role="tooltip">
      {lines[0]}
      <small>{lines[1]}</small>
    </Note>
  );
}

/** Beside the pointer while something is carried: where it would stand, or why it cannot. */
export function CarryNote({ network, carry }: { network: Network; carry: Carry }): ReactNode {
  const { target, why, outside, cargo } = carry;
  const name =
    cargo.form === 'model'
      ? cargo.model.name
      : cargo.devices.length > 1
        ? `${cargo.devices.length} devices`
        : cargo.grabbed.name;
  let text = `${name}: let go over a rack`;
  if (outside) text = `${name}: take it out of the rack`;
  else if (target !== null && why.length === 0) {
    const rack = network.get('rack', target.rackId);
    text = `${name} to ${rack?.name ?? ''} ${target.unit === null ? `at the ${target.side}` : `U${target.unit}`}${target.face === 'rear' ? ', rear' : ''}`;
  }
  return (
    <Note style={place(carry.pointer)} $bad={why.length > 0} role="status">
      {why.length === 0 ? text : why.slice(0, 3).map((line) => <div key={line}>{line}</div>)}
    </Note>
  );
}

import {
  cableAt,
  circuitAt,
  filledBy,
  otherEnd,
  portsOf,
  portTitle,
  type Device,
} from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useNetwork } from '../../data/project.tsx';
import { useWhereabouts } from '../../data/location.ts';
import { mono } from '../../theme/mono.ts';
import { useTheme } from '../../theme/theme.tsx';
import { Goto } from '../../record/parts.tsx';
import { Hint } from '../../kit/panel/panels.tsx';

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  margin-bottom: 9px;
  button {
    width: 12px;
    height: 10px;
    padding: 0;
    border-radius: 1.5px;
    border: 1px solid ${({ theme }) => theme.inkSoft};
  }
`;
const Rows = styled.ul`
  li {
    display: grid;
    grid-template-columns: 62px minmax(0, 1fr) auto;
    gap: 8px;
    padding: 2px 0;
    ${mono}
    font-size: 12.5px;
  }
`;

/** All ports as squares, filled where a cable is plugged in; and where each of those leads. */
export function PortList({ device }: { device: Device }): ReactNode {
  const network = useNetwork();
  const { selection, select } = useWhereabouts();
  const { tokens } = useTheme();
  const ports = portsOf(network, device.id);
  const used = ports.filter((port) => filledBy(network, port.id) !== null);
  const colour = (id: string, taken: boolean): string =>
    selection?.id === id ? tokens.accent : taken ? tokens.ink : tokens.surface;
  return (
    <>
      <Strip role="group" aria-label="Ports">
        {ports.map((port) => {
          const filled = filledBy(network, port.id);
          const state = filled ?? (port.reserved === null ? 'free' : `reserved for ${port.reserved}`);
          return (
            <button
              key={port.id}
              type="button"
              title={`${port.name} · ${state}`}
              aria-label={`Port ${port.name}, ${state}`}
              aria-pressed={selection?.id === port.id}
              style={{ background: colour(port.id, filled !== null) }}
              onClick={() => select({ kind: 'port', id: port.id })}
            />
          );
        })}
      </Strip>
      {used.length === 0 && <Hint>No port is connected yet.</Hint>}
      <Rows>
        {used.map((port) => {
          const cable = cableAt(network, port.id);
          const circuit = circuitAt(network, port.id);
          const far = cable === null ? null : otherEnd(network, cable, port.id);
          return (
            <li key={port.id}>
              <Goto to={{ kind: 'port', id: port.id }}>{port.name}</Goto>
              {far === null ? (
                <span>{circuit === null ? 'open end' : (circuit.provider ?? 'circuit')}</span>
              ) : (
                <Goto to={{ kind: 'port', id: far }}>{portTitle(network, far).replace(':', ' ')}</Goto>
              )}
              {cable !== null && <Goto to={{ kind: 'cable', id: cable.id }}>{cable.label}</Goto>}
              {circuit !== null && <Goto to={{ kind: 'circuit', id: circuit.id }}>{circuit.number}</Goto>}
            </li>
          );
        })}
      </Rows>
    </>
  );
}

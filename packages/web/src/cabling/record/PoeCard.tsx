import { poeLoad } from '@visograph/core/cabling';
import { grouped, type Device } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../../data/shown.ts';
import { StateMark } from '../../kit/panel/panels.tsx';
import { mono } from '../../theme/mono.ts';
import { Card, Facts, Goto } from '../../record/parts.tsx';

const Fed = styled.ul`
  margin-top: 6px;
  font-size: 12px;
  li {
    display: grid;
    grid-template-columns: 64px 1fr auto;
    gap: 8px;
    align-items: baseline;
  }
  span {
    ${mono}
  }
`;
const watts = (value: number): string => (Number.isFinite(value) ? `${grouped(value, 1)} W` : 'too far');

/** What a switch feeds: budget, promised by class, drawn with the loss of the cables, what is left. */
export function PoeCard({ device }: { device: Device }): ReactNode {
  const network = useShown();
  const load = poeLoad(network, device);
  if (load === null) return null;
  const over = load.leftW !== null && load.leftW < 0;
  return (
    <Card title="Power over Ethernet">
      <Facts>
        <dt>Budget</dt>
        <dd>{load.budgetW === null ? 'not stated' : `${grouped(load.budgetW)} W`}</dd>
        <dt>Promised</dt>
        <dd>{`${watts(load.promisedW)} to ${load.ports.length}`}</dd>
        <dt>Drawn at most</dt>
        <dd>{watts(load.drawnW)}</dd>
        {load.leftW !== null && (
          <>
            <dt>Left</dt>
            <dd>
              {over && <StateMark state="bad" />} {watts(load.leftW)}
            </dd>
          </>
        )}
      </Facts>
      <Fed aria-label="Devices fed">
        {load.ports.map((one) => (
          <li
            key={one.port.id}
            title={`${one.lengthM} m ${one.medium ?? ''}, ${watts(one.drawnW)} leave the port`}
          >
            <Goto to={{ kind: 'port', id: one.port.id }}>{one.port.name}</Goto>
            <Goto to={{ kind: 'device', id: one.device.id }}>{one.device.name}</Goto>
            <span>{`class ${one.class} · ${one.promisedW} W`}</span>
          </li>
        ))}
      </Fed>
    </Card>
  );
}

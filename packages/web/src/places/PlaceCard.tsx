import { devicesInScope, type Place } from '@visograph/core/model';
import { overText } from '@visograph/core/racks';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { StateMark } from '../kit/panel/panels.tsx';
import { mono } from '../theme/mono.ts';
import { capacityOfPlace, speedText } from './PlaceFigures.tsx';

const CardButton = styled.button`
  font: inherit;
  width: 100%;
  text-align: left;
  display: block;
  padding: 10px 13px 11px;
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.ink};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  &:hover {
    border-color: ${({ theme }) => theme.accent};
  }
  strong {
    font-size: 14px;
  }
  small {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
    margin-left: 6px;
  }
  dl {
    display: flex;
    gap: 14px;
    margin-top: 8px;
    white-space: nowrap;
  }
  dt {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  dd {
    ${mono}
    font-size: 14px;
    line-height: 20px;
  }
  p {
    margin-top: 6px;
    font-size: 12px;
    color: ${({ theme }) => theme.bad};
  }
`;
/** A place with its key figures, and what is above a limit in it. */
export function PlaceCard({ place, onOpen }: { place: Place; onOpen: () => void }): ReactNode {
  const { view } = useProject();
  const { network } = view;
  const { devices, sum } = useMemo(
    () => ({ devices: devicesInScope(network, place.id).length, sum: capacityOfPlace(network, place.id) }),
    [network, place],
  );
  const [speed, count] = [...sum.freePorts].find(([bps]) => bps === 1e9) ?? [1e9, 0];
  const facts: [string, string][] = [['Devices', String(devices)]];
  if (sum.racks > 0)
    facts.push(
      ['Racks', String(sum.racks)],
      ['Free U', String(sum.freeUnits)],
      ['Most', `${(sum.draw.maxW / 1000).toFixed(1)} kW`],
      [`Free ${speedText(speed)}`, String(count)],
    );
  return (
    <CardButton type="button" onClick={onOpen}>
      <strong>{place.name}</strong>
      <small>{place.code === null ? place.kind : `${place.kind} · ${place.code}`}</small>
      <dl>
        {facts.map(([label, value]) => (
          <div key={label}>
            <dt>{label}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {sum.over.length > 0 && (
        <p>
          <StateMark state="bad" />{' '}
          {sum.over.length > 1
            ? `${sum.over.length} figures above a limit`
            : sum.over.map((over) => overText(network, over))}
        </p>
      )}
    </CardButton>
  );
}

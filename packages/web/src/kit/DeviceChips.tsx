import type { Device } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../data/location.ts';
import { DeviceChip } from './DeviceChip.tsx';

const Chips = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  overflow: auto;
  min-height: 0;
`;

/** Devices in a line; choosing one brings up its record. */
export function DeviceChips({ devices }: { devices: readonly Device[] }): ReactNode {
  const { select, selection } = useWhereabouts();
  return (
    <Chips>
      {devices.map((device) => (
        <li key={device.id}>
          <DeviceChip
            name={device.name}
            role={device.role}
            selected={selection?.id === device.id}
            onChoose={() => select({ kind: 'device', id: device.id })}
          />
        </li>
      ))}
    </Chips>
  );
}

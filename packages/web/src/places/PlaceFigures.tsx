import { placesWithin, racksIn, type Network, type Place, grouped } from '@visograph/core/model';
import { freePortsBySpeed, rackCapacity, sumCapacity, overText } from '@visograph/core/racks';
import { useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { mono } from '../theme/mono.ts';

const List = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 26px;
  dt {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
  dd {
    ${mono}
    font-size: 14px;
    line-height: 20px;
    white-space: nowrap;
  }
  dd small {
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Over = styled.ul`
  color: ${({ theme }) => theme.bad};
  margin-top: 8px;
`;

export const speedText = (bps: number): string =>
  bps === 0 ? 'other' : bps >= 1e9 ? `${bps / 1e9}G` : `${bps / 1e6}M`;

/** The sums of all racks of a place and of those inside it. */
export function capacityOfPlace(network: Network, placeId: string | null) {
  const racks = racksIn(network, placesWithin(network, placeId));
  const devices = racks.flatMap((rack) => network.find('devicesByRack', rack.id));
  return {
    ...sumCapacity(racks.map((rack) => rackCapacity(network, rack))),
    freePorts: freePortsBySpeed(network, devices),
  };
}

/** The key figures of a place: units, mass, power, heat, free ports; what is above a limit in words. */
export function PlaceFigures({ place }: { place: Place | null }): ReactNode {
  const network = useShown();
  const sum = useMemo(() => capacityOfPlace(network, place?.id ?? null), [network, place]);
  if (sum.racks === 0) return null;
  const ports = [...sum.freePorts].filter(([speed]) => speed >= 1e9).slice(0, 4);
  return (
    <>
      <List>
        <div>
          <dt>Units</dt>
          <dd>
            {`${sum.freeUnits} free `}
            <small>{`of ${sum.units}`}</small>
          </dd>
        </div>
        <div>
          <dt>Mass</dt>
          <dd>
            {`${grouped(sum.massKg)} kg `}
            {sum.massLimitKg !== null && <small>{`of ${grouped(sum.massLimitKg)}`}</small>}
          </dd>
        </div>
        <div>
          <dt>Power, typical to most</dt>
          <dd>{`${grouped(sum.draw.typicalW)} to ${grouped(sum.draw.maxW)} W`}</dd>
        </div>
        <div>
          <dt>Heat</dt>
          <dd>{`${grouped(sum.btuPerHour)} BTU/h`}</dd>
        </div>
        {ports.length > 0 && (
          <div>
            <dt>Free ports</dt>
            <dd>{ports.map(([speed, count]) => `${count} × ${speedText(speed)}`).join('  ')}</dd>
          </div>
        )}
      </List>
      {sum.over.length > 0 && (
        <Over aria-label="Above a limit">
          {sum.over
            .map((over) => overText(network, over))
            .map((text) => (
              <li key={text}>{text}</li>
            ))}
        </Over>
      )}
    </>
  );
}

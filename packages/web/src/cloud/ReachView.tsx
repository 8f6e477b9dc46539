import { internetReachSchedule, zoneLossSchedule } from '@visograph/core/cloud';
import type { Place } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { Views } from '../kit/Views.tsx';
import { CloudTable } from './CloudTable.tsx';

const Bar = styled.div`
  flex: none;
  padding: 8px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
`;
const parts = { internet: 'From the internet', zones: 'If a zone is lost' } as const;

/** Who reaches what is in a network, and what is left of it without a zone: both worked out. */
export function ReachView({ place }: { place: Place }): ReactNode {
  const network = useShown();
  const [part, setPart] = useState<keyof typeof parts>('internet');
  const table = useMemo(
    () =>
      part === 'internet' ? internetReachSchedule(network, place.id) : zoneLossSchedule(network, place.id),
    [network, place.id, part],
  );
  return (
    <>
      <Bar>
        <Views views={parts} shown={part} onShow={setPart} />
      </Bar>
      {part === 'internet' ? (
        <CloudTable
          {...{
            view: 'cloudReach',
            label: 'Called from the internet',
            schedule: 'cloud-reach',
            kind: 'device',
          }}
          none="The internet may call nothing of this network"
          table={table}
        />
      ) : (
        <CloudTable
          {...{ view: 'cloudZones', label: 'Lost zones', schedule: 'cloud-zones', kind: 'device' }}
          none="Nothing of this network stands in a zone alone"
          table={table}
        />
      )}
    </>
  );
}

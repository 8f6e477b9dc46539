import { faultText, judgeRun, wholeRun } from '@visograph/core/cabling';
import { portTitle, speedText } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../../data/shown.ts';
import { StateMark } from '../../kit/panel/panels.tsx';
import { Card, Facts, Goto } from '../../record/parts.tsx';

const Fault = styled.p`
  display: flex;
  gap: 6px;
  align-items: baseline;
  margin-top: 4px;
`;

/** The run a port or cable lies on: its two ends, length, speed, light left, and what is wrong with it. */
export function RunCard({ portId }: { portId: string }): ReactNode {
  const network = useShown();
  const run = wholeRun(network, portId);
  if (run.hops.length < 2) return null;
  const judged = judgeRun(network, run);
  const last = run.hops.at(-1);
  const ends = [run.from, run.to ?? (last !== undefined && 'port' in last ? last.port : null)];
  return (
    <Card title="Run">
      <Facts>
        {ends.map((end, at) => (
          <div key={at === 0 ? 'from' : 'to'} style={{ display: 'contents' }}>
            <dt>{at === 0 ? 'From' : 'To'}</dt>
            <dd>
              {end === null ? (
                'open'
              ) : (
                <Goto to={{ kind: 'port', id: end }}>{portTitle(network, end).replace(':', ' ')}</Goto>
              )}
              {at === 1 && run.ends !== 'port' && ` · ${run.ends === 'loop' ? 'a loop' : 'ends open'}`}
            </dd>
          </div>
        ))}
        <dt>Length</dt>
        <dd>{`${Math.round(run.lengthM * 100) / 100} m${run.unknownLengths > 0 ? ` and ${run.unknownLengths} unknown` : ''}`}</dd>
        {judged.speedBps !== null && (
          <>
            <dt>Runs at</dt>
            <dd>{speedText(judged.speedBps)}</dd>
          </>
        )}
        {judged.light !== null && (
          <>
            <dt>Light left</dt>
            <dd title={judged.light.lines.join('\n')}>
              {`${judged.light.marginDb.toFixed(1)} of ${judged.light.budgetDb.toFixed(1)} dB`}
            </dd>
          </>
        )}
      </Facts>
      {judged.faults.map((fault) => (
        <Fault key={faultText(network, fault)}>
          <StateMark state={fault.severity} />
          <span>{faultText(network, fault)}</span>
        </Fault>
      ))}
    </Card>
  );
}

import {
  accountDifferences,
  takeOver,
  thingsOf,
  type Difference,
  type ObservedAccount,
} from '@visograph/core/cloud';
import type { Place } from '@visograph/core/model';
import { useMemo, useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { useDo } from '../data/useDo.ts';
import { Button } from '../kit/controls.tsx';
import { Preview } from '../kit/panel/Preview.tsx';
import { Hint, StateMark } from '../kit/panel/panels.tsx';
import { Tick } from '../kit/Tick.tsx';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
`;
/** More rows than this are counted. */
const mostRows = 400;

const whys: Record<Difference['how'], string> = {
  'not documented': 'is there, and nobody wrote it down',
  'not there': 'is written down, and is not there any more',
  different: 'is otherwise than it is written down',
};
const comesTo = ({ how, sort }: Difference): string =>
  how === 'not documented'
    ? 'is added'
    : how === 'different'
      ? 'becomes as it was read'
      : sort === 'instance' || sort === 'gateway'
        ? 'is retired'
        : 'is deleted';

/** Where an account and what is documented of it differ: all of it or some is taken over, as one step. */
export function Differences({ account, observed }: { account: Place; observed: ObservedAccount }): ReactNode {
  const { view, canEdit } = useProject();
  const { network } = view;
  const act = useDo();
  const found = useMemo(
    () => accountDifferences(network, account.id, observed),
    [network, account.id, observed],
  );
  const facts = useMemo(
    () => new Map([...thingsOf(observed)].map(([id, thing]) => [id, thing.facts])),
    [observed],
  );
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [told, setTold] = useState<readonly string[]>([]);
  const chosen = found.filter(({ id }) => !off.has(id));
  const take = (): void => {
    const { attempt, left } = takeOver(network, account.id, chosen, facts);
    const names = new Map(found.map((one) => [one.id, `${one.sort} ${one.key}`]));
    setTold(left.map(({ id, why }) => `${names.get(id) ?? id}: ${why}`));
    act(attempt);
  };
  if (found.length === 0)
    return (
      <Line role="status">
        <StateMark state="ok" />
        What is documented is what is there.
      </Line>
    );
  return (
    <>
      <Line>
        <Tick
          isSelected={chosen.length === found.length}
          isIndeterminate={chosen.length > 0 && chosen.length < found.length}
          onChange={(all) => setOff(all ? new Set() : new Set(found.map(({ id }) => id)))}
        >
          {`${chosen.length} of ${found.length} ${found.length === 1 ? 'difference' : 'differences'}`}
        </Tick>
        {canEdit && (
          <Button $tone="primary" isDisabled={chosen.length === 0} onPress={take}>
            {`Take over ${chosen.length}`}
          </Button>
        )}
      </Line>
      {told.map((text) => (
        <Hint key={text} role="alert">
          {text}
        </Hint>
      ))}
      <Preview>
        <table aria-label="Differences">
          <thead>
            <tr>
              <th>What</th>
              <th>Why it is told</th>
              <th>Fact</th>
              <th>Documented</th>
              <th>In the account</th>
              <th>Taken over it</th>
            </tr>
          </thead>
          <tbody>
            {found.slice(0, mostRows).flatMap((one) => {
              const lines = one.facts.length === 0 ? [null] : one.facts;
              return lines.map((fact, at) => (
                <tr key={`${one.id} ${fact?.name ?? ''}`}>
                  {at === 0 && (
                    <>
                      <td rowSpan={lines.length}>
                        <Tick
                          isSelected={!off.has(one.id)}
                          onChange={(on) => {
                            const next = new Set(off);
                            if (on) next.delete(one.id);
                            else next.add(one.id);
                            setOff(next);
                          }}
                        >
                          {`${one.sort} ${one.key}`}
                        </Tick>
                      </td>
                      <td rowSpan={lines.length}>{whys[one.how]}</td>
                    </>
                  )}
                  <td>{fact?.name ?? ''}</td>
                  <td className="mono">{fact?.documented ?? ''}</td>
                  <td className="mono">{fact?.observed ?? ''}</td>
                  {at === 0 && <td rowSpan={lines.length}>{comesTo(one)}</td>}
                </tr>
              ));
            })}
          </tbody>
        </table>
      </Preview>
      {found.length > mostRows && <Hint>{`and ${found.length - mostRows} more`}</Hint>}
    </>
  );
}

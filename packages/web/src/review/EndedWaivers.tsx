import { endWaivers, rulesByKey, subjectText, type Review } from '@visograph/core/check';
import { isKind, type Network } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';

const Frame = styled.section`
  flex: none;
  max-height: 40%;
  overflow: auto;
  padding: 10px 12px;
  border-top: 1px solid ${({ theme }) => theme.rule};
  header {
    display: flex;
    align-items: center;
    gap: 8px;
    h3 {
      flex: 1;
      font-size: 12.5px;
    }
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    padding: 6px 0;
    font-size: 12.5px;
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

/** Waivers that hold nothing back any more: what they said, and why that is over. */
export function EndedWaivers({ ended, network }: { ended: Review['ended']; network: Network }): ReactNode {
  const { view, canEdit, commit } = useProject();
  if (ended.length === 0) return null;
  return (
    <Frame aria-label="Waivers that have ended">
      <header>
        <h3>{`Ended · ${ended.length}`}</h3>
        {canEdit && (
          <Button
            onPress={() => {
              const attempt = endWaivers(
                view.network,
                ended.flatMap(({ waiver }) => view.network.get('waiver', waiver.id) ?? []),
              );
              if (attempt.ok) commit(attempt.set);
            }}
          >
            Clear away
          </Button>
        )}
      </header>
      <ul>
        {ended.map(({ waiver, why }) => {
          const [first] = waiver.about;
          const about =
            first !== undefined && isKind(first.kind) && network.get(first.kind, first.id) !== null
              ? subjectText(network, { kind: first.kind, id: first.id })
              : 'something that is gone';
          return (
            <li key={waiver.id}>
              {`${about}: ${waiver.reason}`}
              <small>
                {`${rulesByKey.get(waiver.rule)?.title ?? waiver.rule} · ${waiver.by}, ${waiver.madeOn} · ${why}`}
              </small>
            </li>
          );
        })}
      </ul>
    </Frame>
  );
}

import type { OrderConcern } from '@visograph/core/purchase';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useWhereabouts } from '../../data/location.ts';
import { StateMark } from '../../kit/panel/panels.tsx';

const Frame = styled.section`
  flex: none;
  max-height: 132px;
  overflow: auto;
  padding: 5px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  h2 {
    display: flex;
    gap: 7px;
    align-items: center;
    font-size: 12.5px;
    font-weight: 600;
  }
  ul {
    margin: 2px 0 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    gap: 7px;
    align-items: baseline;
    padding: 1px 0;
  }
  button {
    padding: 0;
    border: 0;
    font: inherit;
    color: inherit;
    background: none;
    text-align: left;
    overflow-wrap: anywhere;
  }
  button:hover {
    color: ${({ theme }) => theme.accent};
  }
  button:focus-visible {
    outline: 2px solid ${({ theme }) => theme.accent};
  }
`;

/** Whether a list can be ordered as it is, and what stands in the way; each leads to its line or thing. */
export function Concerns({
  concerns,
  checking,
  onShow,
  nothing,
}: {
  concerns: readonly OrderConcern[];
  /** The rules have not been asked yet. */
  checking: boolean;
  onShow: (line: string) => void;
  /** The list has no lines at all. */
  nothing: boolean;
}): ReactNode {
  const { select } = useWhereabouts();
  const bad = concerns.filter(({ severity }) => severity === 'bad').length;
  if (nothing && concerns.length === 0) return null;
  return (
    <Frame aria-label="Fit to order">
      <h2>
        <StateMark state={bad > 0 ? 'bad' : concerns.length > 0 ? 'warn' : 'ok'} />
        {bad > 0
          ? `Not fit to order: ${bad} to mend`
          : concerns.length > 0
            ? 'Fit to order; look at this before'
            : checking
              ? 'Checking whether it is fit to order …'
              : 'Fit to order'}
      </h2>
      <ul>
        {concerns.map(({ severity, text, line, things }) => {
          const [thing] = things;
          return (
            <li key={text}>
              <StateMark state={severity} />
              <button
                type="button"
                onClick={() => {
                  if (line !== null) onShow(line);
                  else if (thing !== undefined) select(thing);
                }}
              >
                {text}
              </button>
            </li>
          );
        })}
      </ul>
    </Frame>
  );
}

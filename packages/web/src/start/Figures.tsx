import { keyFigures } from '@visograph/core/report';
import { useDeferredValue, useMemo, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useShown } from '../data/shown.ts';
import { useWhereabouts } from '../data/location.ts';
import { mono } from '../theme/mono.ts';

const Row = styled.div`
  flex: none;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  @media (min-width: 1200px) {
    grid-template-columns: repeat(8, minmax(0, 1fr));
  }
  gap: 1px;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  overflow: hidden;
  background: ${({ theme }) => theme.rule};
  button {
    display: flex;
    flex-direction: column;
    font: inherit;
    text-align: left;
    padding: 10px 14px 11px;
    border: 0;
    background: ${({ theme }) => theme.surface};
    color: ${({ theme }) => theme.ink};
    &:hover {
      background: ${({ theme }) => theme.accentWash};
    }
    &:focus-visible {
      outline: 2px solid ${({ theme }) => theme.accent};
      outline-offset: -2px;
    }
  }
  b {
    display: block;
    ${mono}
    font-weight: 600;
    font-size: 21px;
    line-height: 26px;
  }
  small {
    display: block;
    font-size: 12px;
    line-height: 16px;
    min-height: 16px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;
const Bar = styled.i<{ $share: number }>`
  display: block;
  width: 100%;
  height: 4px;
  margin-top: 5px;
  border-radius: 2px;
  background: linear-gradient(
    to right,
    ${({ theme }) => theme.ink} ${({ $share }) => $share * 100}%,
    ${({ theme }) => theme.rule} 0
  );
`;

/** The project in figures, each leading to its section. */
export function Figures(): ReactNode {
  const network = useDeferredValue(useShown());
  const { go } = useWhereabouts();
  const figures = useMemo(() => keyFigures(network), [network]);
  return (
    <Row role="group" aria-label="The project in figures">
      {figures.map(({ section, text, detail, share }) => {
        const [number = '', ...words] = text.split(/ (?=\D)/);
        return (
          <button
            key={words.join(' ')}
            type="button"
            onClick={() => go({ section, scopeId: null, selection: null })}
          >
            <b>{number}</b>
            <span>{words.join(' ')}</span>
            <small>{detail}</small>
            {share !== null && <Bar $share={share} />}
          </button>
        );
      })}
    </Row>
  );
}

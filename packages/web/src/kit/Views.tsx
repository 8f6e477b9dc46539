import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button } from './controls.tsx';
import { keysOf } from '@visograph/core/model';

const Line = styled.div`
  display: flex;
  gap: 4px;
  button {
    height: 26px;
    padding: 0 9px;
  }
  button[aria-pressed='true'] {
    border-color: ${({ theme }) => theme.accent};
    background: ${({ theme }) => theme.accentWash};
  }
`;

interface Props<V extends string> {
  views: Readonly<Record<V, string>>;
  shown: V;
  onShow: (view: V) => void;
}

/** What of a section is listed: one button each, the one that is shown pressed. */
export function Views<V extends string>({ views, shown, onShow }: Props<V>): ReactNode {
  return (
    <Line role="group" aria-label="What is listed">
      {keysOf<V>(views).map((id) => (
        <Button key={id} aria-pressed={shown === id} onPress={() => onShow(id)}>
          {views[id]}
        </Button>
      ))}
    </Line>
  );
}

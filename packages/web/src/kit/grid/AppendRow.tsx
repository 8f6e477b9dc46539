import { useState, type ReactNode, type RefObject } from 'react';
import { styled } from 'styled-components';
import { rowHeight, Why } from './gridParts.tsx';

const Line = styled.div`
  flex: none;
  display: flex;
  align-items: center;
  gap: 8px;
  height: ${rowHeight}px;
  padding: 0 7px;
  border-top: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.surface};
  color: ${({ theme }) => theme.inkSoft};
  input {
    flex: 1;
    min-width: 0;
    font: inherit;
    color: ${({ theme }) => theme.ink};
    height: 24px;
    padding: 0 4px;
    border: 0;
    background: none;
    outline-offset: -1px;
    &:focus {
      outline: 2px solid ${({ theme }) => theme.accent};
    }
  }
`;

interface Props {
  input: RefObject<HTMLInputElement | null>;
  hint: string;
  onAppend: (text: string) => string | null;
  /** Goes back up to the last row. */
  onUp: () => void;
}

/** The line below the last row of a grid: what is typed or pasted there becomes rows. */
export function AppendRow({ input, hint, onAppend, onUp }: Props): ReactNode {
  const [text, setText] = useState('');
  const [why, setWhy] = useState<string | null>(null);
  const take = (typed: string): void => {
    const reason = onAppend(typed);
    setWhy(reason);
    if (reason === null) setText('');
  };
  return (
    <>
      <Line>
        <span aria-hidden>+</span>
        <input
          ref={input}
          aria-label="Below the last row"
          placeholder={hint}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setWhy(null);
          }}
          onPaste={(event) => {
            event.stopPropagation();
            const pasted = event.clipboardData.getData('text/plain');
            if (!/[\n\t]/.test(pasted.trim())) return;
            event.preventDefault();
            take(pasted);
          }}
          onCopy={(event) => event.stopPropagation()}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Enter' && text.trim() !== '') take(text);
            else if (event.key === 'Escape') setText('');
            else if (event.key === 'ArrowUp') onUp();
          }}
        />
      </Line>
      {why !== null && <Why role="alert">{why}</Why>}
    </>
  );
}

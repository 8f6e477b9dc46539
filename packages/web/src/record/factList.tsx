import type { Attempt } from '@visograph/core/commands';
import { useState, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useProject } from '../data/project.tsx';
import { Button } from '../kit/controls.tsx';
import { mono } from '../theme/mono.ts';

/** Facts of a record that are many: one a line, scrolling by themselves. */
export const FactList = styled.ul`
  list-style: none;
  margin: 0 0 6px;
  padding: 0;
  max-height: 260px;
  overflow: auto;
  li {
    display: flex;
    gap: 4px 8px;
    align-items: center;
    min-height: 22px;
    ${mono}
    font-size: 12.5px;
  }
  li > span:first-child {
    flex: 1;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  small {
    font-family: 'Atkinson Hyperlegible Next', sans-serif;
    color: ${({ theme }) => theme.inkSoft};
  }
  button {
    height: 22px;
    padding: 0 6px;
  }
`;
interface FactLineProps {
  children: ReactNode;
  title?: string;
  /** What its button does, in words. */
  label: string;
  /** Null: it cannot be taken away. */
  onRemove: (() => void) | null;
}

/** One of them, with the button that takes it away. */
export function FactLine({ children, title, label, onRemove }: FactLineProps): ReactNode {
  return (
    <li title={title}>
      <span>{children}</span>
      {onRemove !== null && (
        <Button $tone="quiet" aria-label={label} onPress={onRemove}>
          ×
        </Button>
      )}
    </li>
  );
}

/** What an act of a card came to: the reason stands below it until the next. */
export function useActs(): { why: string | null; act: (attempt: Attempt, done?: () => void) => void } {
  const { commit } = useProject();
  const [why, setWhy] = useState<string | null>(null);
  return {
    why,
    act: (attempt, done) => {
      setWhy(attempt.ok ? null : attempt.why);
      if (attempt.ok && commit(attempt.set).ok) done?.();
    },
  };
}

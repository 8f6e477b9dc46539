import { roles, type Role } from '@visograph/core/model';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import { mono } from '../../theme/mono.ts';

/** The heading line of a work area: title, a figure beside it, actions at the right. */
export const WorkHead = styled.header`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 36px;
  flex: none;
  padding: 3px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.rule};
  background: ${({ theme }) => theme.ground};
  container: tools / inline-size;
  h1 {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  > p {
    ${mono}
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
    white-space: nowrap;
  }
  > div {
    margin-left: auto;
    display: flex;
    gap: 4px 8px;
  }
  /* What does not fit beside each other stands below: nothing may lie under the record. */
  > p + div {
    flex-wrap: wrap;
    justify-content: flex-end;
  }
  @container tools (max-width: 700px) {
    > p {
      display: none;
    }
    > h1:has(+ p) {
      flex-shrink: 0;
      max-width: 45%;
    }
  }
`;

export const Work = styled.section`
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  flex: 1;
`;

/** What stands where there is nothing yet: what to do next, and the way to do it. */
export function Empty({ title, children }: { title: string; children?: ReactNode }): ReactNode {
  return (
    <EmptyFrame>
      <h2>{title}</h2>
      {children}
    </EmptyFrame>
  );
}
const EmptyFrame = styled.div`
  margin: 48px auto;
  max-width: 420px;
  text-align: center;
  color: ${({ theme }) => theme.inkSoft};
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 12px;
  h2 {
    color: ${({ theme }) => theme.ink};
    font-size: 15px;
  }
`;

/** The two-letter code of a role on its colour. */
export function RoleMark({ role }: { role: Role }): ReactNode {
  const { tokens } = useTheme();
  return (
    <Mark
      style={{ background: tokens.family[roles[role].family], color: tokens.tabInk }}
      title={roles[role].label}
    >
      {role}
    </Mark>
  );
}
const Mark = styled.span`
  ${mono}
  font-weight: 600;
  font-size: 10.5px;
  line-height: 16px;
  border-radius: 2px;
  padding: 0 3px;
  display: inline-block;
`;

export const Mono = styled.span`
  ${mono}
  font-size: 12.5px;
`;

export const Hint = styled.span`
  color: ${({ theme }) => theme.inkSoft};
  font-size: 12px;
`;

const shapes = {
  ok: 'M6 1A5 5 0 1 1 5.99 1Z',
  bad: 'M1.5 1.5H10.5V10.5H1.5Z',
  warn: 'M6 0.8L11.4 10.6H0.6Z',
};

/** A state as colour and shape: disc, triangle, square. */
export function StateMark({ state }: { state: 'ok' | 'warn' | 'bad' }): ReactNode {
  const { tokens } = useTheme();
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true" style={{ flex: 'none' }}>
      <path d={shapes[state]} fill={tokens[state]} />
    </svg>
  );
}

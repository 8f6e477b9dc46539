import type { ReactNode } from 'react';
import { styled } from 'styled-components';

const Frame = styled.section`
  flex: none;
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  > header {
    display: flex;
    align-items: center;
    gap: 10px;
    min-height: 38px;
    padding: 0 8px 0 14px;
    border-bottom: 1px solid ${({ theme }) => theme.rule};
    h2 {
      font-size: 14px;
      margin-right: auto;
    }
  }
`;

/** A part of the start page: its title, and a way to all of it. */
export function Part({
  title,
  all,
  children,
}: {
  title: string;
  all?: ReactNode;
  children: ReactNode;
}): ReactNode {
  return (
    <Frame aria-label={title}>
      <header>
        <h2>{title}</h2>
        {all}
      </header>
      {children}
    </Frame>
  );
}

export const Lines = styled.ul`
  margin: 0;
  padding: 4px 14px 8px;
  list-style: none;
  > li {
    display: flex;
    gap: 8px;
    align-items: flex-start;
    padding: 6px 0;
    overflow-wrap: anywhere;
  }
  > li + li {
    border-top: 1px solid ${({ theme }) => theme.rule};
  }
  svg {
    margin-top: 4px;
  }
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.inkSoft};
  }
`;

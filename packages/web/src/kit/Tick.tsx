import { Checkbox } from 'react-aria-components';
import { styled } from 'styled-components';

/** A box to tick, with its words. */
export const Tick = styled(Checkbox)`
  display: flex;
  gap: 8px;
  align-items: center;
  &::before {
    content: '';
    flex: none;
    width: 14px;
    height: 14px;
    border: 1px solid ${({ theme }) => theme.inkSoft};
    border-radius: 2px;
    background: ${({ theme }) => theme.surface};
  }
  &[data-selected]::before {
    background: ${({ theme }) => theme.accent};
    border-color: ${({ theme }) => theme.accent};
    box-shadow: inset 0 0 0 3px ${({ theme }) => theme.surface};
  }
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.accent};
    outline-offset: 2px;
  }
`;

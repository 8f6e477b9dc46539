import { Menu } from 'react-aria-components';
import { styled } from 'styled-components';

/** What can be done with what is chosen, over a drawing so that nothing below moves. */
export const ToolLine = styled.div`
  position: absolute;
  left: 10px;
  top: 8px;
  z-index: 5;
  display: flex;
  gap: 5px;
  align-items: center;
  max-width: calc(100% - 20px);
  flex-wrap: wrap;
  padding: 4px 5px 4px 9px;
  border: 1px solid ${({ theme }) => theme.accent};
  border-radius: 3px;
  background: ${({ theme }) => theme.surface};
  font-size: 12px;
  > button {
    height: 24px;
    padding: 0 8px;
    font-size: 12.5px;
  }
`;

/** The entries of a menu that a button opens. */
export const MenuList = styled(Menu)`
  padding: 3px;
  outline: none;
  [role='menuitem'] {
    padding: 4px 10px;
    border-radius: 2px;
    cursor: default;
    outline: none;
    &[data-focused] {
      background: ${({ theme }) => theme.accentWash};
    }
    &[data-disabled] {
      opacity: 0.5;
    }
  }
`;

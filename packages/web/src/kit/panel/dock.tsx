import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { Button } from '../controls.tsx';

/** The dock below the work area: columns beside each other, the main action at the lower right. */
export const DockFrame = styled.section`
  flex: none;
  display: flex;
  min-height: 0;
  max-height: 252px;
  border-top: 2px solid ${({ theme }) => theme.accent};
  background: ${({ theme }) => theme.surface};
  > form {
    flex: 1;
    display: flex;
    min-width: 0;
    min-height: 0;
  }
`;
export const DockColumn = styled.div<{ $shaded?: boolean; $grow?: number }>`
  flex: ${({ $grow }) => $grow ?? 1} 1 0;
  min-width: 0;
  padding: 8px 12px 10px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  background: ${({ theme, $shaded }) => ($shaded === true ? theme.ground : 'transparent')};
  & + & {
    border-left: 1px solid ${({ theme }) => theme.rule};
  }
  > h2 {
    color: ${({ theme }) => theme.inkSoft};
    display: flex;
    justify-content: space-between;
    align-items: center;
    min-height: 20px;
  }
`;
export const Trouble = styled.p`
  color: ${({ theme }) => theme.bad};
`;

const Close = styled(Button)`
  height: 20px;
  padding: 0 4px;
`;

/** The heading of a dock's last column, which also closes the dock. */
export function ClosingHead({ children, onClose }: { children: ReactNode; onClose: () => void }): ReactNode {
  return (
    <h2>
      {children}
      <Close $tone="quiet" onPress={onClose} aria-label="Close dock">
        Close
      </Close>
    </h2>
  );
}

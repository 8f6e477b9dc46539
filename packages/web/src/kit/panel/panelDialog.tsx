import type { ReactNode } from 'react';
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import { styled } from 'styled-components';
import { Button } from '../controls.tsx';

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 60;
  display: grid;
  place-items: center;
  background: rgb(10 14 20 / 35%);
`;
const Panel = styled(Modal)<{ $wide: boolean }>`
  background: ${({ theme }) => theme.surface};
  border-radius: 3px;
  border-left: 6px solid ${({ theme }) => theme.accent};
  padding: 20px 24px;
  max-width: ${({ $wide }) => ($wide ? 1040 : 720)}px;
  max-height: 90vh;
  overflow: auto;
  section {
    outline: none;
  }
`;

const Top = styled.header`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
`;

/** A panel over the whole window, for what is not about the network itself. */
export function PanelDialog({
  title,
  wide = false,
  open,
  onOpenChange,
  children,
}: {
  title: string;
  /** For tables of several columns. */
  wide?: boolean;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
}): ReactNode {
  return (
    <Overlay isOpen={open} onOpenChange={onOpenChange} isDismissable>
      <Panel $wide={wide}>
        <Dialog>
          <Top>
            <Heading slot="title">{title}</Heading>
            <Button onPress={() => onOpenChange(false)}>Close</Button>
          </Top>
          {children}
        </Dialog>
      </Panel>
    </Overlay>
  );
}

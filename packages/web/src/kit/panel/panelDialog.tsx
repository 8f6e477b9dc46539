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
const Panel = styled(Modal)`
  background: ${({ theme }) => theme.surface};
  border-radius: 3px;
  border-left: 6px solid ${({ theme }) => theme.accent};
  padding: 20px 24px;
  max-width: 720px;
  max-height: 90vh;
  overflow: auto;
  section {
    outline: none;
  }
`;

/** A panel over the whole window, for what is not about the network itself. */
export function PanelDialog({
  title,
  open,
  onOpenChange,
  children,
}: {
  title: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
}): ReactNode {
  return (
    <Overlay isOpen={open} onOpenChange={onOpenChange} isDismissable>
      <Panel>
        <Dialog>
          <Heading slot="title">{title}</Heading>
          {children}
          <Button onPress={() => onOpenChange(false)}>Close</Button>
        </Dialog>
      </Panel>
    </Overlay>
  );
}

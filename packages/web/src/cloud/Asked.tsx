import { useState, type ReactNode } from 'react';
import { DialogTrigger } from 'react-aria-components';
import { styled } from 'styled-components';
import { Button, Floating } from '../kit/controls.tsx';

const Ask = styled.section`
  width: 250px;
  padding: 12px;
`;

/** A button that opens a small form beside it; the form is given what closes it. */
export function Asked({
  text,
  primary = false,
  end = false,
  isDisabled = false,
  children,
}: {
  text: string;
  primary?: boolean;
  /** It stands at the right of the screen. */
  end?: boolean;
  isDisabled?: boolean;
  children: (close: () => void) => ReactNode;
}): ReactNode {
  const [open, setOpen] = useState(false);
  return (
    <DialogTrigger isOpen={open} onOpenChange={setOpen}>
      <Button $tone={primary ? 'primary' : undefined} isDisabled={isDisabled}>
        {text}
      </Button>
      <Floating placement={end ? 'bottom end' : 'bottom start'}>
        <Ask role="dialog" aria-label={text}>
          {children(() => setOpen(false))}
        </Ask>
      </Floating>
    </DialogTrigger>
  );
}

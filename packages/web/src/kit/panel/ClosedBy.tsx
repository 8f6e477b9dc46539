import type { ReactNode } from 'react';
import { isTyping } from '../isTyping.ts';

/** What a key opened is closed by the same key, while nothing in it is being typed. */
export function ClosedBy({
  keyOf,
  onClose,
  children,
}: {
  keyOf: string;
  onClose: () => void;
  children: ReactNode;
}): ReactNode {
  return (
    <div
      style={{ display: 'contents' }}
      onKeyDown={(event) => {
        if (event.key !== keyOf || isTyping(event.target)) return;
        event.preventDefault();
        event.stopPropagation();
        onClose();
      }}
    >
      {children}
    </div>
  );
}

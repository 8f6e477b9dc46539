import { useStore } from '@xyflow/react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import type { Pulled } from './usePulling.ts';

const Note = styled.p<{ $ok: boolean }>`
  position: absolute;
  z-index: 10;
  max-width: 380px;
  width: max-content;
  padding: 1px 6px;
  border-radius: 2px;
  font-size: 12px;
  font-weight: 600;
  pointer-events: none;
  color: ${({ theme, $ok }) => ($ok ? theme.accent : theme.bad)};
  background: ${({ theme }) => theme.ground};
`;

/** Beside the end of a line that is pulled: what letting go there comes to, or why nothing. */
export function PullNote({
  pulled,
  said,
}: {
  pulled: Pulled;
  said: { text: string; ok: boolean };
}): ReactNode {
  const [x, y, zoom] = useStore((state) => state.transform);
  const width = useStore((state) => state.width);
  const left = pulled.to.x * zoom + x;
  // At the right there is no room for it: there it stands at the left of the pointer.
  const turned = left > width - 400;
  return (
    <Note
      role="status"
      $ok={said.ok}
      style={{
        top: pulled.to.y * zoom + y - 10,
        ...(turned ? { right: width - left + 14 } : { left: left + 14 }),
      }}
    >
      {said.text}
    </Note>
  );
}

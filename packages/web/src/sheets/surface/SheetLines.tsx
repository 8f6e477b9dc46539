import type { Box, Guide } from '@visograph/core/sheets';
import { ViewportPortal } from '@xyflow/react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import type { Pulled } from './acts/usePulling.ts';

const Lines = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 7;
`;

/** Where what is dragged lines up with others. */
export function GuideLines({ guides }: { guides: readonly Guide[] }): ReactNode {
  const { tokens } = useTheme();
  if (guides.length === 0) return null;
  return (
    <ViewportPortal>
      <Lines width={1} height={1} aria-hidden="true">
        {guides.map(({ axis, at, from, to }) => (
          <path
            key={axis}
            d={axis === 'x' ? `M${at} ${from - 12}V${to + 12}` : `M${from - 12} ${at}H${to + 12}`}
            stroke={tokens.accent}
            strokeWidth={1}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </Lines>
    </ViewportPortal>
  );
}

/** A link on its way from a plate to another. */
export function PulledLine({ pulled, from }: { pulled: Pulled; from: Box }): ReactNode {
  const { tokens } = useTheme();
  return (
    <ViewportPortal>
      <Lines width={1} height={1} aria-hidden="true">
        <path
          d={`M${from.x + from.width} ${from.y + from.height / 2}L${pulled.to.x} ${pulled.to.y}`}
          stroke={tokens.accent}
          strokeWidth={2}
          strokeDasharray="5 4"
        />
      </Lines>
    </ViewportPortal>
  );
}

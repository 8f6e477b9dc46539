import type { Guide } from '@visograph/core/sheets';
import { ViewportPortal } from '@xyflow/react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';
import type { Pulled } from '../draw/usePulling.ts';

export const Lines = styled.svg`
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

/** A line on its way from a plate. */
export function PulledLine({ pulled }: { pulled: Pulled }): ReactNode {
  const { tokens } = useTheme();
  const { from, to } = pulled;
  return (
    <ViewportPortal>
      <Lines width={1} height={1} aria-hidden="true">
        <path
          d={`M${from.at.x} ${from.at.y}L${to.x} ${to.y}`}
          stroke={tokens.accent}
          strokeWidth={2}
          strokeDasharray="5 4"
          vectorEffect="non-scaling-stroke"
        />
        <circle cx={to.x} cy={to.y} r={4} fill={tokens.accent} />
      </Lines>
    </ViewportPortal>
  );
}

import { ViewportPortal } from '@xyflow/react';
import type { ReactNode } from 'react';
import { useTheme } from '../../theme/theme.tsx';
import { GuideLines, Lines } from '../surface/SheetLines.tsx';
import type { StampGhost } from './useStamp.ts';

/** What is in hand, where it would stand: as dashed plates, the first with its name to be. */
export function StampGhosts({ ghost }: { ghost: StampGhost | null }): ReactNode {
  const { tokens } = useTheme();
  if (ghost === null) return null;
  return (
    <>
      <GuideLines guides={ghost.guides} />
      <ViewportPortal>
        <Lines width={1} height={1} aria-hidden="true">
          {ghost.boxes.map(({ x, y, width, height }, at) => (
            <g key={at}>
              <rect
                {...{ x, y, width, height }}
                rx={3}
                fill={tokens.surface}
                fillOpacity={0.85}
                stroke={tokens.accent}
                strokeDasharray="5 4"
                strokeWidth={1.5}
              />
              <rect x={x} y={y} width={24} height={height} fill={tokens.accent} fillOpacity={0.25} />
              {at === 0 && (
                <text x={x + 32} y={y + 17} fontSize={13} fontWeight={600} fill={tokens.accent}>
                  {ghost.name}
                </text>
              )}
            </g>
          ))}
        </Lines>
      </ViewportPortal>
    </>
  );
}

import type { Sheet } from '@visograph/core/model';
import type { Pages } from '@visograph/core/sheets';
import { useStore, ViewportPortal } from '@xyflow/react';
import type { ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';

const Layer = styled.svg`
  position: absolute;
  top: 0;
  left: 0;
  overflow: visible;
  pointer-events: none;
  z-index: 6;
`;

/** Where the edges of the paper fall on the sheet. */
export function PageFrames({ pages, size }: { pages: Pages; size: Sheet['page']['size'] }): ReactNode {
  const { tokens } = useTheme();
  const zoom = useStore((state) => state.transform[2]);
  return (
    <ViewportPortal>
      <Layer width={1} height={1} aria-hidden="true">
        {pages.frames.slice(0, 200).map(({ number, box }) => (
          <g key={number}>
            <rect
              {...box}
              fill="none"
              stroke={tokens.accent}
              strokeWidth={1}
              strokeDasharray="6 4"
              vectorEffect="non-scaling-stroke"
            />
            <text
              x={box.x + 6 / zoom}
              y={box.y + 14 / zoom}
              fontSize={11 / zoom}
              fill={tokens.accent}
              fontFamily="Atkinson Hyperlegible Mono"
            >
              {pages.frames.length === 1 ? size : `${size} · ${number}`}
            </text>
          </g>
        ))}
      </Layer>
    </ViewportPortal>
  );
}

import type { Box, Scene } from '@visograph/core/sheets';
import { useReactFlow, useStore } from '@xyflow/react';
import { memo, useMemo, useRef, type PointerEvent as ReactPointerEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../../theme/theme.tsx';

const size = { width: 168, height: 112 };
const Frame = styled.svg`
  display: block;
  width: ${size.width}px;
  height: ${size.height}px;
  background: ${({ theme }) => theme.surface};
  border: 1px solid ${({ theme }) => theme.rule};
  border-radius: 3px;
  touch-action: none;
`;

const pathOf = (boxes: readonly Box[]): string =>
  boxes.map(({ x, y, width, height }) => `M${x} ${y}h${width}v${height}h${-width}Z`).join('');

const Overview = memo(function Overview({ scene }: { scene: Scene }): ReactNode {
  const { tokens } = useTheme();
  const [containers, plates] = useMemo(
    () => [
      pathOf(scene.containers.map((container) => container.box)),
      pathOf(scene.plates.map((plate) => plate.box)),
    ],
    [scene],
  );
  return (
    <>
      <path d={containers} fill={tokens.container} stroke={tokens.rule} vectorEffect="non-scaling-stroke" />
      <path d={plates} fill={tokens.inkSoft} />
    </>
  );
});

/** The whole sheet small, with the part in view, while not all of it is; press or drag in it to go there. */
export function MiniMap({ scene }: { scene: Scene }): ReactNode {
  const { tokens } = useTheme();
  const flow = useReactFlow();
  const frame = useRef<SVGSVGElement>(null);
  const [x, y, zoom] = useStore((state) => state.transform);
  const width = useStore((state) => state.width);
  const height = useStore((state) => state.height);
  const { box } = scene;
  const [left, top] = [-x / zoom, -y / zoom];
  const slack = 60;
  const allSeen =
    box.x + slack >= left &&
    box.y + slack >= top &&
    box.x + box.width - slack <= left + width / zoom &&
    box.y + box.height - slack <= top + height / zoom;
  const goTo = (event: ReactPointerEvent): void => {
    const matrix = frame.current?.getScreenCTM();
    if (event.buttons === 0 || matrix == null) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    void flow.setCenter(at.x, at.y, { zoom });
  };
  if (allSeen) return null;
  return (
    <Frame
      ref={frame}
      viewBox={`${box.x} ${box.y} ${Math.max(1, box.width)} ${Math.max(1, box.height)}`}
      aria-label="Overview"
      role="img"
      onPointerDown={goTo}
      onPointerMove={goTo}
    >
      <Overview scene={scene} />
      <rect
        x={left}
        y={top}
        width={width / zoom}
        height={height / zoom}
        fill={tokens.accent}
        fillOpacity={0.08}
        stroke={tokens.accent}
        strokeWidth={1.5}
        vectorEffect="non-scaling-stroke"
      />
    </Frame>
  );
}

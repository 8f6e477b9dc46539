import { faceWidth, railWidth, unitHeight, type ElevationFace, type ElevationScene } from '@visograph/core';
import { FaceFrame, faceGap, FacePlateShape, headHeight } from '@visograph/drawing';
import { useEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import { styled } from 'styled-components';
import { useTheme } from '../theme/theme.tsx';
import type { Ghost } from '../data/workspace.tsx';

const Canvas = styled.svg`
  display: block;
  width: 100%;
  font-feature-settings: 'tnum';
  [role='button'] {
    cursor: default;
    outline: none;
  }
  [role='button']:focus-visible > .ring {
    stroke: ${({ theme }) => theme.accent};
    stroke-width: 2;
  }
  .free:hover > rect,
  .free:focus-visible > rect {
    fill: ${({ theme }) => theme.accentWash};
    stroke: ${({ theme }) => theme.accent};
    stroke-width: 1;
  }
  .port:hover {
    stroke: ${({ theme }) => theme.accent};
    stroke-width: 1.6;
  }
`;

const enter = (act: () => void) => (event: KeyboardEvent) => {
  if (event.key !== 'Enter' && event.key !== ' ') return;
  event.preventDefault();
  event.stopPropagation();
  act();
};

interface Props {
  scene: ElevationScene;
  selectedDeviceId: string | null;
  selectedPortId: string | null;
  ghost: Ghost | null;
  onDevice: (id: string) => void;
  onPort: (id: string) => void;
  /** Given where the person may add devices: a free unit was chosen. */
  onFree?: (unit: number) => void;
}

/** A rack's front and rear, each device, port and free unit of which can be chosen by mouse and by keyboard. */
export function RackElevation({
  scene,
  selectedDeviceId,
  selectedPortId,
  ghost,
  onDevice,
  onPort,
  onFree,
}: Props): ReactNode {
  const { tokens } = useTheme();
  const ghostBox = useRef<SVGGElement>(null);
  useEffect(() => {
    if (ghost !== null) void ghostBox.current?.scrollIntoView({ block: 'nearest' });
  }, [ghost]);
  const width = 2 * scene.width + faceGap;
  const height = headHeight + scene.height + 2;
  const face = (shown: ElevationFace): ReactNode => (
    <FaceFrame scene={scene} face={shown} tokens={tokens}>
      {onFree !== undefined &&
        shown.face === 'front' &&
        shown.units
          .filter((unit) => unit.free)
          .map(({ unit, y }) => (
            <g
              key={unit}
              className="free"
              role="button"
              tabIndex={0}
              aria-label={`Unit ${unit}, free: add a device`}
              onClick={() => onFree(unit)}
              onKeyDown={enter(() => onFree(unit))}
            >
              <rect
                x={railWidth + 1}
                y={y + 1}
                width={faceWidth - 2}
                height={unitHeight - 2}
                rx={2}
                fill="transparent"
              />
            </g>
          ))}
      {shown.plates.map((plate) => (
        <g
          key={plate.deviceId}
          role="button"
          tabIndex={0}
          aria-label={plate.spoken}
          aria-pressed={plate.deviceId === selectedDeviceId}
          onClick={() => onDevice(plate.deviceId)}
          onKeyDown={enter(() => onDevice(plate.deviceId))}
        >
          <FacePlateShape
            plate={plate}
            tokens={tokens}
            selection={{ deviceId: selectedDeviceId, portId: selectedPortId }}
          />
          <rect
            className="ring"
            x={plate.box.x}
            y={plate.box.y}
            width={plate.box.width}
            height={plate.box.height}
            rx={3}
            fill="none"
          />
          {plate.ports.map((port) => (
            <rect
              key={port.id}
              className="port"
              x={port.box.x}
              y={port.box.y}
              width={port.box.width}
              height={port.box.height}
              fill="transparent"
              onClick={(event) => {
                event.stopPropagation();
                onPort(port.id);
              }}
            >
              <title>{`${plate.name} ${port.name} · ${port.used ? 'connected' : 'free'}`}</title>
            </rect>
          ))}
        </g>
      ))}
      {ghost !== null && shown.face === 'front' && ghostAt(shown, ghost)}
    </FaceFrame>
  );
  const ghostAt = (shown: ElevationFace, wanted: Ghost): ReactNode => {
    const rows = shown.units.filter(({ unit }) => unit >= wanted.unit && unit < wanted.unit + wanted.units);
    const top = Math.min(...rows.map((row) => row.y));
    return (
      <g ref={ghostBox} pointerEvents="none">
        <rect
          x={railWidth + 1}
          y={top + 1}
          width={faceWidth - 2}
          height={rows.length * unitHeight - 2}
          rx={2}
          fill={tokens.accentWash}
          stroke={tokens.accent}
          strokeDasharray="4 3"
        />
        <text
          x={railWidth + 27}
          y={top + (rows.length * unitHeight) / 2 + 4}
          fontSize={11}
          fontWeight={600}
          fill={tokens.accent}
        >
          {wanted.name}
        </text>
      </g>
    );
  };
  return (
    <Canvas
      viewBox={`-1 0 ${width + 2} ${height}`}
      style={{ maxWidth: width + 2 }}
      aria-label={`${scene.title}: front and rear`}
      role="group"
    >
      {scene.faces.map((shown, at) => (
        <g key={shown.face} transform={`translate(${at * (scene.width + faceGap)} 0)`}>
          <text
            x={scene.width / 2}
            y={14}
            textAnchor="middle"
            fontSize={12}
            fontWeight={600}
            fill={tokens.inkSoft}
          >
            {shown.face === 'front' ? 'Front' : 'Rear'}
          </text>
          <g transform={`translate(0 ${headHeight})`}>{face(shown)}</g>
        </g>
      ))}
    </Canvas>
  );
}

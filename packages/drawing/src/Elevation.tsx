import {
  faceWidth,
  railWidth,
  roles,
  unitHeight,
  type ElevationFace,
  type ElevationPlate,
  type ElevationScene,
} from '@visograph/core';
import type { ReactElement, ReactNode } from 'react';
import { fitText } from './metrics/measure.ts';
import { fonts, type Tokens } from './tokens.ts';

const tab = 20;

export interface FaceSelection {
  deviceId?: string | null;
  portId?: string | null;
}

/** A device on the elevation, in rack coordinates: code, name and its ports where the model has them. */
export function FacePlateShape({
  plate,
  tokens,
  selection,
}: {
  plate: ElevationPlate;
  tokens: Tokens;
  selection?: FaceSelection;
}): ReactElement {
  const { x, y, width, height } = plate.box;
  const selected = selection?.deviceId === plate.deviceId;
  const firstPort = Math.min(x + width, ...plate.ports.map((port) => port.box.x));
  const room = firstPort - x - tab - 10;
  return (
    <g>
      <rect
        x={x + 0.75}
        y={y + 0.75}
        width={width - 1.5}
        height={height - 1.5}
        rx={2}
        fill={plate.back ? tokens.band : tokens.surface}
        stroke={selected ? tokens.accent : tokens.ink}
        strokeWidth={selected ? 2 : 1}
        strokeDasharray={plate.planned ? '5 3' : undefined}
      />
      <path
        d={`M${x + 3} ${y + 1.2}H${x + tab}V${y + height - 1.2}H${x + 3}A1.8 1.8 0 0 1 ${x + 1.2} ${y + height - 3}V${y + 3}A1.8 1.8 0 0 1 ${x + 3} ${y + 1.2}Z`}
        fill={tokens.family[roles[plate.role].family]}
      />
      <text
        x={x + tab / 2 + 0.5}
        y={y + height / 2 + 3.6}
        textAnchor="middle"
        fontFamily={fonts.mono}
        fontWeight={600}
        fontSize={10}
        fill={tokens.tabInk}
      >
        {plate.role}
      </text>
      <text
        x={x + tab + 6}
        y={y + height / 2 + 3.8}
        fontFamily={fonts.text}
        fontWeight={600}
        fontSize={11}
        fill={tokens.ink}
      >
        {fitText(plate.name, 'textStrong', 11, room)}
      </text>
      {plate.ports.map((port) => (
        <rect
          key={port.id}
          x={port.box.x}
          y={port.box.y}
          width={port.box.width}
          height={port.box.height}
          rx={0.6}
          fill={port.id === selection?.portId ? tokens.accent : port.used ? tokens.ink : tokens.surface}
          stroke={port.id === selection?.portId ? tokens.accent : tokens.inkSoft}
          strokeWidth={0.7}
        />
      ))}
    </g>
  );
}

/** The frame of a rack face: rails with unit numbers, free units as hairlines. */
export function FaceFrame({
  scene,
  face,
  tokens,
  children,
}: {
  scene: ElevationScene;
  face: ElevationFace;
  tokens: Tokens;
  children?: ReactNode;
}): ReactElement {
  return (
    <g>
      <rect
        width={scene.width}
        height={scene.height}
        rx={3}
        fill={tokens.band}
        stroke={tokens.ink}
        strokeWidth={1.25}
      />
      <rect x={railWidth} width={faceWidth} height={scene.height} fill={tokens.ground} />
      {face.units.map(({ unit, y }) => (
        <g key={unit}>
          <line
            x1={railWidth}
            x2={railWidth + faceWidth}
            y1={y}
            y2={y}
            stroke={tokens.rule}
            strokeWidth={y === 0 ? 0 : 0.6}
          />
          {[railWidth / 2, railWidth * 1.5 + faceWidth].map((x) => (
            <text
              key={x}
              x={x}
              y={y + unitHeight / 2 + 3.2}
              textAnchor="middle"
              fontFamily={fonts.mono}
              fontSize={9}
              fill={tokens.inkSoft}
            >
              {unit}
            </text>
          ))}
        </g>
      ))}
      {children}
    </g>
  );
}

export const faceGap = 36;
export const headHeight = 24;
const sideRow = 18;

/** Front and rear beside each other, as an export holds them; devices at the side are named below. */
export function Elevation({
  scene,
  tokens,
  faces = ['front', 'rear'],
}: {
  scene: ElevationScene;
  tokens: Tokens;
  faces?: readonly ('front' | 'rear')[];
}): ReactElement {
  return (
    <g>
      {scene.faces
        .filter((face) => faces.includes(face.face))
        .map((face, at) => (
          <g key={face.face} transform={`translate(${at * (scene.width + faceGap)} 0)`}>
            <text
              x={scene.width / 2}
              y={14}
              textAnchor="middle"
              fontFamily={fonts.text}
              fontWeight={600}
              fontSize={12}
              fill={tokens.inkSoft}
            >
              {`${scene.title} · ${face.face}`}
            </text>
            <g transform={`translate(0 ${headHeight})`}>
              <FaceFrame scene={scene} face={face} tokens={tokens}>
                {face.plates.map((plate) => (
                  <g key={plate.deviceId}>
                    <title>{plate.spoken}</title>
                    <FacePlateShape plate={plate} tokens={tokens} />
                  </g>
                ))}
              </FaceFrame>
            </g>
          </g>
        ))}
      {scene.side.map((device, at) => (
        <text
          key={device.deviceId}
          x={0}
          y={headHeight + scene.height + sideRow * (at + 1)}
          fontFamily={fonts.text}
          fontSize={11}
          fill={tokens.inkSoft}
        >
          {`At the side: ${device.name}`}
        </text>
      ))}
    </g>
  );
}

export const elevationSize = (scene: ElevationScene, faces = 2): { width: number; height: number } => ({
  width: faces * scene.width + (faces - 1) * faceGap,
  height: headHeight + scene.height + scene.side.length * sideRow + 6,
});

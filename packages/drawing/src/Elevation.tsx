import { sideWidth, type ElevationScene, type WithCables } from '@visograph/core/racks';
import type { ReactElement } from 'react';
import { RackCables } from './Cables.tsx';
import { FacePlateShape } from './FacePlate.tsx';
import { measureText } from './metrics/measure.ts';
import { FaceFrame, RackGauges } from './RackFrame.tsx';
import { shadeColour } from './shade.ts';
import { fonts, type Tokens } from './tokens.ts';

export const faceGap = 36;
/** Above the faces: the gauges, then the name of each face. */
export const gaugeHeight = 40;
export const headHeight = 24;
const keyRow = 20;

function Key({ scene, tokens }: { scene: ElevationScene; tokens: Tokens }): ReactElement {
  let x = sideWidth;
  return (
    <g transform={`translate(0 ${gaugeHeight + headHeight + scene.height + 8})`}>
      {scene.key.map(({ label, shade }) => {
        const at = x;
        x += 24 + measureText(label, 'text', 11) + 14;
        return (
          <g key={label} transform={`translate(${at} 0)`}>
            <rect width={16} height={11} rx={2} fill={shadeColour(tokens, shade)} />
            <text x={21} y={9.5} fontFamily={fonts.text} fontSize={11} fill={tokens.inkSoft}>
              {label}
            </text>
          </g>
        );
      })}
    </g>
  );
}

const none: ReadonlySet<string> = new Set();

/** Front and rear beside each other, as an export holds them, with a key when colours say something else than roles. */
export function Elevation({
  scene,
  tokens,
  faces = ['front', 'rear'],
}: {
  scene: ElevationScene & WithCables;
  tokens: Tokens;
  faces?: readonly ('front' | 'rear')[];
}): ReactElement {
  return (
    <g>
      <RackGauges scene={scene} width={elevationSize(scene, faces.length).width} tokens={tokens} />
      {scene.faces
        .filter((face) => faces.includes(face.face))
        .map((face, at) => (
          <g key={face.face} transform={`translate(${at * (scene.width + faceGap)} ${gaugeHeight})`}>
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
                {scene.cables !== undefined && (
                  <RackCables cables={scene.cables[face.face]} tokens={tokens} lit={none} />
                )}
              </FaceFrame>
            </g>
          </g>
        ))}
      {scene.key.length > 0 && <Key scene={scene} tokens={tokens} />}
    </g>
  );
}

export const elevationSize = (scene: ElevationScene, faces = 2): { width: number; height: number } => ({
  width: faces * scene.width + (faces - 1) * faceGap,
  height: gaugeHeight + headHeight + scene.height + (scene.key.length > 0 ? keyRow : 0) + 6,
});

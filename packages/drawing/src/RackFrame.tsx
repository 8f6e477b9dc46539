import {
  railWidth,
  sideWidth,
  unitHeight,
  type ElevationFace,
  type ElevationPlate,
  type ElevationScene,
} from '@visograph/core/racks';
import { memo, type ReactElement, type ReactNode } from 'react';
import type { FaceDetail } from './FacePlate.tsx';
import { shadeColour } from './shade.ts';
import { fonts, type Tokens } from './tokens.ts';

/** The frame of a rack face: rails with unit numbers, free units as hairlines. */
export const FaceFrame = memo(function FaceFrame({
  scene,
  face,
  tokens,
  detail = 'full',
  children,
}: {
  scene: ElevationScene;
  face: ElevationFace;
  tokens: Tokens;
  detail?: FaceDetail;
  children?: ReactNode;
}): ReactElement {
  const { inner } = scene;
  const lines = face.units.map(({ y }) => (y === 0 ? '' : `M${inner.x} ${y}h${inner.width}`)).join('');
  const rails = [inner.x - railWidth / 2, inner.x + inner.width + railWidth / 2];
  return (
    <g>
      <rect
        x={sideWidth}
        width={scene.width - 2 * sideWidth}
        height={scene.height}
        rx={3}
        fill={tokens.band}
        stroke={tokens.ink}
        strokeWidth={1.25}
      />
      <rect x={inner.x} width={inner.width} height={scene.height} fill={tokens.ground} />
      <path d={lines} stroke={tokens.rule} strokeWidth={0.6} fill="none" />
      {detail !== 'colours' &&
        face.units.map(({ unit, y }) =>
          rails.map((x) => (
            <text
              key={`${unit}/${x}`}
              x={x}
              y={y + unitHeight / 2 + 3.2}
              textAnchor="middle"
              fontFamily={fonts.mono}
              fontSize={9}
              fill={tokens.inkSoft}
            >
              {unit}
            </text>
          )),
        )}
      {children}
    </g>
  );
});

/**
 * A face from afar: what stands there as one shape per colour, whatever their number, so that whole rows of racks
 * move without a stutter.
 */
export const FarFace = memo(function FarFace({
  scene,
  face,
  tokens,
  chosen,
}: {
  scene: ElevationScene;
  face: ElevationFace;
  tokens: Tokens;
  chosen: ReadonlySet<string>;
}): ReactElement {
  const { inner } = scene;
  const box = ({ x, y, width, height }: ElevationPlate['box'], inset = 1): string =>
    `M${x + inset} ${y + inset}h${width - 2 * inset}v${height - 2 * inset}h-${width - 2 * inset}z`;
  const plates = face.plates.filter((plate) => plate.form !== 'blank');
  const tabs = new Map<string, string>();
  for (const plate of plates) {
    const colour = shadeColour(tokens, plate.shade);
    const width = plate.form === 'side' ? plate.box.width : Math.min(plate.box.width * 0.3, 70);
    tabs.set(colour, `${tabs.get(colour) ?? ''}${box({ ...plate.box, width }, 0.6)}`);
  }
  const outlines = plates.map((plate) => box(plate.box)).join('');
  const picked = plates
    .filter((plate) => chosen.has(plate.deviceId))
    .map((plate) => box(plate.box, 0))
    .join('');
  return (
    <g>
      <rect
        x={sideWidth}
        width={scene.width - 2 * sideWidth}
        height={scene.height}
        fill={tokens.band}
        stroke={tokens.ink}
        strokeWidth={2.5}
      />
      <rect x={inner.x} width={inner.width} height={scene.height} fill={tokens.ground} />
      {outlines !== '' && (
        <path d={outlines} fill={tokens.surface} stroke={tokens.inkSoft} strokeWidth={1.6} />
      )}
      {[...tabs].map(([colour, d]) => (
        <path key={colour} d={d} fill={colour} />
      ))}
      {picked !== '' && <path d={picked} fill="none" stroke={tokens.accent} strokeWidth={6} />}
    </g>
  );
});

/** What the rack holds against what it may hold, as bars with their figures. */
export const RackGauges = memo(function RackGauges({
  scene,
  width,
  tokens,
}: {
  scene: ElevationScene;
  width: number;
  tokens: Tokens;
}): ReactElement {
  const inside = width - 2 * sideWidth;
  const columns = Math.max(2, Math.min(scene.gauges.length, Math.floor(inside / 125)));
  const shown = scene.gauges.slice(0, columns);
  const each = inside / columns;
  return (
    <g transform={`translate(${sideWidth} 0)`}>
      {shown.map((gauge, at) => {
        const bar = each - 14;
        const colour = gauge.state === 'ok' ? tokens.family.passive : tokens[gauge.state];
        return (
          <g key={gauge.label} transform={`translate(${at * each} 0)`}>
            <text y={11} fontFamily={fonts.text} fontSize={11} fill={tokens.inkSoft}>
              {gauge.label}
            </text>
            <rect y={15} width={bar} height={5} rx={1} fill={tokens.hatch} />
            {gauge.share !== null && (
              <rect
                y={15}
                width={Math.max(1, bar * Math.min(1, gauge.share))}
                height={5}
                rx={1}
                fill={colour}
              />
            )}
            <text
              y={32}
              fontFamily={fonts.mono}
              fontSize={10.5}
              fontWeight={gauge.state === 'ok' ? 400 : 600}
              fill={gauge.state === 'ok' ? tokens.ink : tokens[gauge.state]}
            >
              {gauge.state === 'bad' ? `${gauge.text} · over` : gauge.text}
            </text>
          </g>
        );
      })}
    </g>
  );
});

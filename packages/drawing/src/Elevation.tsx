import {
  railWidth,
  sideWidth,
  unitHeight,
  type ElevationFace,
  type ElevationPlate,
  type ElevationPort,
  type ElevationScene,
} from '@visograph/core';
import { memo, type ReactElement, type ReactNode } from 'react';
import { fitText, measureText } from './metrics/measure.ts';
import { shadeColour } from './shade.ts';
import { fonts, type Tokens } from './tokens.ts';

const tab = 20;

/** How much of a face is drawn: all; without ports; or colours alone. Chosen by the zoom. */
export type FaceDetail = 'full' | 'names' | 'colours';

export interface FaceSelection {
  deviceIds?: ReadonlySet<string>;
  portId?: string | null;
}

const portPath = (ports: readonly ElevationPort[]): string =>
  ports
    .map(({ box: { x, y, width, height } }) => {
      const [left, top, w, h] = [x, y, width, height].map((value) => Math.round(value * 100) / 100);
      return `M${left} ${top}h${w}v${h}h-${w}z`;
    })
    .join('');

/** Used and free ports as two strokes, whatever their number: a face of 48 ports costs two elements. */
function Ports({
  ports,
  tokens,
  portId,
}: {
  ports: readonly ElevationPort[];
  tokens: Tokens;
  portId: string | null;
}): ReactElement | null {
  if (ports.length === 0) return null;
  const used = ports.filter((port) => port.used);
  const free = ports.filter((port) => !port.used);
  const chosen = ports.find((port) => port.id === portId);
  return (
    <>
      {free.length > 0 && (
        <path d={portPath(free)} fill={tokens.surface} stroke={tokens.inkSoft} strokeWidth={0.7} />
      )}
      {used.length > 0 && <path d={portPath(used)} fill={tokens.ink} stroke={tokens.ink} strokeWidth={0.7} />}
      {chosen !== undefined && (
        <path d={portPath([chosen])} fill={tokens.accent} stroke={tokens.accent} strokeWidth={1.2} />
      )}
    </>
  );
}

function SideShape({
  plate,
  tokens,
  selected,
  portId,
  detail,
}: {
  plate: ElevationPlate;
  tokens: Tokens;
  selected: boolean;
  portId: string | null;
  detail: FaceDetail;
}): ReactElement {
  const { x, y, width, height } = plate.box;
  const colour = shadeColour(tokens, plate.shade);
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx={2}
        fill={tokens.surface}
        stroke={selected ? tokens.accent : tokens.ink}
        strokeWidth={selected ? 2 : 0.8}
        strokeDasharray={plate.status === 'planned' ? '5 3' : undefined}
      />
      <path d={`M${x + 0.8} ${y + 0.8}h${width - 1.6}v15h-${width - 1.6}z`} fill={colour} />
      {detail !== 'colours' && (
        <text
          x={x + width / 2}
          y={y + 11.5}
          textAnchor="middle"
          fontFamily={fonts.mono}
          fontWeight={600}
          fontSize={9}
          fill={tokens.tabInk}
        >
          {plate.role}
        </text>
      )}
      {detail === 'full' && <Ports ports={plate.ports} tokens={tokens} portId={portId} />}
    </g>
  );
}

/** A device on the elevation, in rack coordinates: code, name and its ports where the model has them. */
export const FacePlateShape = memo(function FacePlateShape({
  plate,
  tokens,
  selected = false,
  portId = null,
  detail = 'full',
}: {
  plate: ElevationPlate;
  tokens: Tokens;
  selected?: boolean;
  portId?: string | null;
  detail?: FaceDetail;
}): ReactElement {
  const { x, y, width, height } = plate.box;
  if (plate.form === 'side')
    return <SideShape plate={plate} tokens={tokens} selected={selected} portId={portId} detail={detail} />;
  const outline = (
    <rect
      x={x + 0.75}
      y={y + 0.75}
      width={width - 1.5}
      height={height - 1.5}
      rx={2}
      fill={plate.form === 'blank' ? tokens.hatch : plate.back ? tokens.band : tokens.surface}
      stroke={selected ? tokens.accent : plate.form === 'blank' ? tokens.rule : tokens.ink}
      strokeWidth={selected ? 2 : 1}
      strokeDasharray={plate.status === 'planned' ? '5 3' : undefined}
    />
  );
  if (plate.form === 'blank') {
    const lines = Math.floor(width / 9);
    const hatch = Array.from(
      { length: lines },
      (_, at) => `M${x + 3 + at * 9} ${y + height - 2.5}l5 -${height - 5}`,
    );
    return (
      <g>
        {outline}
        {detail !== 'colours' && (
          <path d={hatch.join('')} stroke={tokens.rule} strokeWidth={0.8} fill="none" />
        )}
      </g>
    );
  }
  const narrow = height < 12;
  const tabWidth = width < 200 ? 16 : tab;
  const colour = shadeColour(tokens, plate.shade);
  const tabShape = (
    <path
      d={`M${x + 3} ${y + 1.2}H${x + tabWidth}V${y + height - 1.2}H${x + 3}A1.8 1.8 0 0 1 ${x + 1.2} ${y + height - 3}V${y + 3}A1.8 1.8 0 0 1 ${x + 3} ${y + 1.2}Z`}
      fill={colour}
    />
  );
  if (detail === 'colours')
    return (
      <g>
        {outline}
        {tabShape}
      </g>
    );
  const size = narrow ? 7 : 11;
  const first = Math.min(
    x + width,
    ...plate.ports.map((port) => port.box.x),
    ...plate.slots.map((slot) => slot.box.x),
  );
  const edge = detail === 'full' ? first : x + width;
  const room = edge - x - tabWidth - 10;
  const name = fitText(plate.name, 'textStrong', size, room);
  const left = room - measureText(name, 'textStrong', size) - 8;
  const fact = plate.fact === null ? '' : fitText(plate.fact, 'text', size - 1, left);
  const below = plate.fact !== null && height >= 2 * unitHeight;
  const middle = y + height / 2 + size / 3 + (below ? -6 : 0);
  return (
    <g>
      {outline}
      {tabShape}
      <text
        x={x + tabWidth / 2 + 0.5}
        y={y + height / 2 + (narrow ? 2.4 : 3.6)}
        textAnchor="middle"
        fontFamily={fonts.mono}
        fontWeight={600}
        fontSize={narrow ? 6.5 : tabWidth < tab ? 9 : 10}
        fill={tokens.tabInk}
      >
        {plate.role}
      </text>
      <text
        x={x + tabWidth + 6}
        y={middle}
        fontFamily={fonts.text}
        fontWeight={600}
        fontSize={size}
        fill={plate.status === 'retired' ? tokens.inkSoft : tokens.ink}
        textDecoration={plate.status === 'retired' ? 'line-through' : undefined}
      >
        {name}
      </text>
      {plate.fact !== null && (below || left > 24) && (
        <text
          x={below ? x + tabWidth + 6 : x + tabWidth + 14 + measureText(name, 'textStrong', size)}
          y={below ? middle + 13 : middle}
          fontFamily={fonts.text}
          fontSize={size - 1}
          fill={tokens.inkSoft}
        >
          {below ? fitText(plate.fact, 'text', size - 1, room) : fact}
        </text>
      )}
      {detail === 'full' &&
        plate.slots.map((slot) => (
          <rect
            key={slot.name}
            x={slot.box.x}
            y={slot.box.y}
            width={slot.box.width}
            height={slot.box.height}
            rx={1}
            fill={slot.filled ? 'none' : tokens.hatch}
            stroke={tokens.inkSoft}
            strokeWidth={0.6}
            strokeDasharray={slot.filled ? undefined : '2 1.5'}
          />
        ))}
      {detail === 'full' && <Ports ports={plate.ports} tokens={tokens} portId={portId} />}
    </g>
  );
});

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

export const faceGap = 36;
/** Above the faces: the gauges, then the name of each face. */
export const gaugeHeight = 40;
export const headHeight = 24;
const keyRow = 20;

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

/** Front and rear beside each other, as an export holds them, with a key when colours say something else than roles. */
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

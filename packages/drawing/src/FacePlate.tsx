import { unitHeight, type ElevationPlate, type ElevationPort } from '@visograph/core/racks';
import { memo, type ReactElement } from 'react';
import { fitText, measureText } from './metrics/measure.ts';
import { shadeColour } from './shade.ts';
import { fonts, type Tokens } from './tokens.ts';

const tab = 20;

/** How much of a face is drawn: all; without ports; or colours alone. Chosen by the zoom. */
export type FaceDetail = 'full' | 'names' | 'colours';

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

import { isThin, lineSize, nameSize, tabWidth, thinGap, type Plate } from '@visograph/core/sheets';
import type { ReactElement } from 'react';
import { fitText, measureText } from './metrics/measure.ts';
import { ChipGrounds } from './Chips.tsx';
import { shadeColour } from './shade.ts';
import { fonts, type Tokens } from './tokens.ts';

/** How much of a plate can be read at the zoom: all of it, only its name as large as it fits, or only its colour. */
export type Detail = 'full' | 'name' | 'tab';

interface PlateProps {
  plate: Plate;
  tokens: Tokens;
  selected?: boolean;
  detail?: Detail;
}

const largestName = 24;
/** The name on a bar. */
const barSize = 12;

/** The size at which a name fills the plate beside its tab. */
const nameFit = (name: string, room: number, height: number): number =>
  Math.max(nameSize, Math.min(largestName, height - 10, room / measureText(name, 'textStrong', 1)));

/** On the tab of a plate: the symbol of its model on a light ground, else its code. */
function TabMark({
  plate: { symbol, code, box },
  detail,
  tokens,
  ground,
  letters,
  drop,
  fill,
}: {
  plate: Plate;
  detail: Detail;
  tokens: Tokens;
  /** The side of the ground, and the size of the letters and how far their line lies below the middle. */
  ground: number;
  letters: number;
  drop: number;
  fill: string;
}): ReactElement {
  const middle = box.height / 2;
  if (symbol !== null && detail !== 'tab') {
    const left = (tabWidth - ground) / 2;
    return (
      <>
        <rect x={left} y={middle - ground / 2} width={ground} height={ground} rx={2} fill={tokens.tabInk} />
        <image
          href={symbol}
          x={left + 1}
          y={middle - ground / 2 + 1}
          width={ground - 2}
          height={ground - 2}
        />
      </>
    );
  }
  return (
    <text
      x={tabWidth / 2}
      y={middle + drop}
      textAnchor="middle"
      fontFamily={fonts.mono}
      fontWeight={600}
      fontSize={letters}
      fill={fill}
    >
      {code}
    </text>
  );
}

/** A device as a plate, drawn from its own top left corner; offset edges and a count where several are folded. */
export function PlateShape({ plate, tokens, selected = false, detail = 'full' }: PlateProps): ReactElement {
  if (isThin(plate)) return <ThinPlate plate={plate} tokens={tokens} selected={selected} detail={detail} />;
  if (plate.form === 'subnet')
    return <SubnetBar plate={plate} tokens={tokens} selected={selected} detail={detail} />;
  const { width, height } = plate.box;
  const count = plate.form === 'fold' || plate.form === 'pair' ? plate.deviceIds.length : 1;
  const place = plate.form === 'place';
  const colour = place ? tokens.ink : shadeColour(tokens, plate.shade);
  const stroke = selected ? tokens.accent : tokens.ink;
  const room = width - tabWidth - 14 - (count > 1 ? 32 : 0);
  const lines = detail === 'full' ? plate.lines : [];
  const size = detail === 'full' ? nameSize : nameFit(plate.name, room, height);
  const block = size + lines.length * 15;
  const top = (height - block) / 2 + size * 0.82;
  return (
    <g opacity={plate.faded ? 0.35 : undefined}>
      {count > 1 && (
        <rect
          x={4}
          y={4}
          width={width}
          height={height}
          rx={3}
          fill={tokens.surface}
          stroke={tokens.ink}
          strokeWidth={1}
        />
      )}
      <rect
        width={width}
        height={height}
        rx={3}
        fill={tokens.surface}
        stroke={stroke}
        strokeWidth={selected ? 2 : 1.25}
        strokeDasharray={plate.planned ? '5 3' : undefined}
      />
      <path
        d={`M3 0.6H${tabWidth}V${height - 0.6}H3A2.4 2.4 0 0 1 0.6 ${height - 3}V3A2.4 2.4 0 0 1 3 0.6Z`}
        fill={colour}
      />
      {place && (
        <path
          d={`M${tabWidth + 2.5} 3.5H${width - 3.5}V${height - 3.5}H${tabWidth + 2.5}`}
          fill="none"
          stroke={tokens.rule}
        />
      )}
      <TabMark
        plate={plate}
        detail={detail}
        tokens={tokens}
        ground={20}
        letters={plate.code.length > 2 ? 9.5 : 11.5}
        drop={4}
        fill={place ? tokens.surface : tokens.tabInk}
      />
      <text
        x={tabWidth + 8}
        y={top}
        fontFamily={fonts.text}
        fontWeight={600}
        fontSize={size}
        fill={tokens.ink}
        textDecoration={plate.retired ? 'line-through' : undefined}
      >
        {detail === 'tab' ? '' : fitText(plate.name, 'textStrong', size, room)}
      </text>
      {lines.map((line, at) => (
        <g key={at}>
          <ChipGrounds
            chips={plate.chips?.[at] ?? []}
            x={tabWidth + 8}
            y={top + 15 * (at + 1)}
            size={lineSize}
            tokens={tokens}
          />
          <text
            x={tabWidth + 8}
            y={top + 15 * (at + 1)}
            fontFamily={fonts.mono}
            fontSize={lineSize}
            fill={tokens.inkSoft}
          >
            {fitText(line, 'mono', lineSize, width - tabWidth - 14)}
          </text>
        </g>
      ))}
      {count > 1 && <CountMark text={`×${count}`} right={width - 6} tokens={tokens} />}
    </g>
  );
}

/** A panel, which leads on and does nothing: a bar of one line, lighter than a device. */
function ThinPlate({ plate, tokens, selected = false, detail = 'full' }: PlateProps): ReactElement {
  const { width, height } = plate.box;
  const lines = detail === 'full' ? plate.lines : [];
  const room = width - tabWidth - 14;
  const size = detail === 'full' ? nameSize : nameFit(plate.name, room, height);
  const y = height / 2 + size * 0.35;
  let x = tabWidth + 8 + measureText(plate.name, 'textStrong', size);
  return (
    <g opacity={plate.faded ? 0.35 : undefined}>
      <rect
        width={width}
        height={height}
        rx={2}
        fill={tokens.surface}
        stroke={selected ? tokens.accent : tokens.inkSoft}
        strokeWidth={selected ? 2 : 0.75}
        strokeDasharray={plate.planned ? '5 3' : undefined}
      />
      <rect x={0.4} y={0.4} width={tabWidth} height={height - 0.8} fill={shadeColour(tokens, plate.shade)} />
      <TabMark
        plate={plate}
        detail={detail}
        tokens={tokens}
        ground={18}
        letters={10}
        drop={3.6}
        fill={tokens.tabInk}
      />
      {detail !== 'tab' && (
        <text
          x={tabWidth + 8}
          y={y}
          fontFamily={fonts.text}
          fontWeight={600}
          fontSize={size}
          fill={tokens.ink}
          textDecoration={plate.retired ? 'line-through' : undefined}
        >
          {fitText(plate.name, 'textStrong', size, room)}
        </text>
      )}
      {lines.map((line, at) => {
        const left = (x += thinGap);
        x += measureText(line, 'mono', lineSize);
        return (
          <text key={at} x={left} y={y} fontFamily={fonts.mono} fontSize={lineSize} fill={tokens.inkSoft}>
            {fitText(line, 'mono', lineSize, Math.max(0, width - 6 - left))}
          </text>
        );
      })}
    </g>
  );
}

/** A subnet that several share: a bar in the colour of its VRF, with the prefix over it. */
function SubnetBar({ plate, tokens, selected = false, detail = 'full' }: PlateProps): ReactElement {
  const { width, height } = plate.box;
  const colour = selected ? tokens.accent : shadeColour(tokens, plate.shade);
  const lines = detail === 'full' ? plate.lines : [];
  const size =
    detail === 'full'
      ? barSize
      : Math.max(
          barSize,
          Math.min(largestName, height - 14, (width - 12) / measureText(plate.name, 'monoStrong', 1)),
        );
  const top = (height - size - lines.length * 15) / 2 + size * 0.82;
  // What routers hang on is heavier than what stands for a subnet within its outline.
  const edge = plate.picks === undefined ? 4 : 2;
  return (
    <g opacity={plate.faded ? 0.35 : undefined}>
      <rect width={width} height={height} rx={3} fill={tokens.surface} stroke={tokens.rule} />
      <rect width={width} height={edge} fill={colour} />
      <rect y={height - edge} width={width} height={edge} fill={colour} />
      {detail !== 'tab' && (
        <text
          x={width / 2}
          y={top}
          textAnchor="middle"
          fontFamily={fonts.mono}
          fontWeight={600}
          fontSize={size}
          fill={tokens.ink}
        >
          {fitText(plate.name, 'monoStrong', size, width - 12)}
        </text>
      )}
      {lines.map((line, at) => {
        const left = (width - measureText(line, 'mono', lineSize)) / 2;
        const y = top + 15 * (at + 1);
        return (
          <g key={at}>
            <ChipGrounds chips={plate.chips?.[at] ?? []} x={left} y={y} size={lineSize} tokens={tokens} />
            <text x={left} y={y} fontFamily={fonts.mono} fontSize={lineSize} fill={tokens.inkSoft}>
              {line}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function CountMark({ text, right, tokens }: { text: string; right: number; tokens: Tokens }): ReactElement {
  const width = measureText(text, 'monoStrong', 11) + 10;
  return (
    <g>
      <rect x={right - width} y={5} width={width} height={16} rx={8} fill={tokens.ink} />
      <text
        x={right - width / 2}
        y={17}
        textAnchor="middle"
        fontFamily={fonts.mono}
        fontWeight={600}
        fontSize={11}
        fill={tokens.surface}
      >
        {text}
      </text>
    </g>
  );
}

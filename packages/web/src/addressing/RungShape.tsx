import type { Rung } from '@visograph/core/addressing';
import type { PointerEvent, ReactNode } from 'react';
import { useTheme } from 'styled-components';

export const rowHeight = 44;
/** Widths on the screen from which a block is written on with its prefix, or its VLAN number. */
export const roomForPrefix = 96;
const roomForNumber = 16;

interface RungProps {
  rung: Rung;
  x: number;
  y: number;
  width: number;
  /** Where the picture begins. */
  from: number;
  selected: boolean;
  onPress: () => void;
  onOpen: (() => void) | null;
  /** Begins to carry it along the space, down to split, up to join. */
  onHold: ((event: PointerEvent) => void) | null;
}

/** One prefix: its text, its name, how full it is, the colour and number of its VLAN. */
export function RungShape({
  rung,
  x,
  y,
  width,
  from,
  selected,
  onPress,
  onOpen,
  onHold,
}: RungProps): ReactNode {
  const tokens = useTheme();
  const { row } = rung;
  if (row === null) return null;
  const pool = row.role === 'pool';
  const use = Math.round(rung.use * 100);
  /** Of a block that begins before the picture the text begins in it. */
  const inset = Math.max(0, Math.min(width - 8, from - x));
  const chars = Math.floor((width - inset - 12) / 6.4);
  const name = `${row.name ?? row.role} · ${use} %`;
  const colour = rung.colour === null ? tokens.inkSoft : (tokens.set[rung.colour] ?? tokens.inkSoft);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${row.prefix}, ${row.role}${row.name === null ? '' : `, ${row.name}`}, ${use} % in use`}
      aria-pressed={selected}
      transform={`translate(${x} ${y})`}
      onClick={onPress}
      onPointerDown={onHold ?? undefined}
      onDoubleClick={onOpen ?? undefined}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && selected && onOpen !== null) onOpen();
        else if (event.key === 'Enter' || event.key === ' ') onPress();
        if (event.key === ' ') event.preventDefault();
      }}
    >
      <rect
        width={Math.max(2, width)}
        height={rowHeight - 8}
        rx={Math.min(3, width / 4)}
        fill={pool ? tokens.container : tokens.surface}
        stroke={selected ? tokens.accent : tokens.ink}
        strokeWidth={selected ? 2 : width < 6 ? 0.6 : 1.2}
        strokeDasharray={row.status === 'planned' ? '4 3' : undefined}
      />
      {width >= 8 && !pool && (
        <rect x={1} y={rowHeight - 14} width={Math.max(0, width - 2)} height={5} fill={colour} />
      )}
      {width >= 8 && (
        <>
          <rect x={1} y={rowHeight - 17} width={Math.max(0, width - 2)} height={2.5} fill={tokens.rule} />
          <rect
            x={1}
            y={rowHeight - 17}
            width={Math.max(0, (width - 2) * rung.use)}
            height={2.5}
            fill={tokens.inkSoft}
          />
        </>
      )}
      {width - inset >= roomForPrefix ? (
        <>
          <text x={6 + inset} y={12} fontSize={11.5} fontWeight={600} fill={tokens.ink} className="mono">
            {row.prefix}
          </text>
          <text x={6 + inset} y={24} fontSize={10.5} fill={tokens.inkSoft}>
            {name.length <= chars ? name : `${name.slice(0, Math.max(0, chars - 1))}…`}
          </text>
        </>
      ) : (
        width >= roomForNumber &&
        rung.vid !== null && (
          <text
            x={width / 2}
            y={16}
            textAnchor="middle"
            fontSize={10.5}
            fontWeight={600}
            fill={tokens.ink}
            className="mono"
          >
            {rung.vid}
          </text>
        )
      )}
    </g>
  );
}

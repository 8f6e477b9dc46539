import type { Chip } from '@visograph/core/sheets';
import type { ReactElement } from 'react';
import { measureText } from './metrics/measure.ts';
import type { Tokens } from './tokens.ts';

interface Props {
  chips: readonly Chip[];
  /** Where the text begins, and its base line. */
  x: number;
  y: number;
  size: number;
  tokens: Tokens;
}

/** The grounds of coloured pieces of a text in mono: washed with a bar below where tagged, framed where untagged. */
export function ChipGrounds({ chips, x, y, size, tokens }: Props): ReactElement {
  const letter = measureText('0', 'mono', size);
  return (
    <>
      {chips.map(({ from, to, colour, framed }) => {
        const ink = colour === null ? tokens.inkSoft : (tokens.set[colour] ?? tokens.inkSoft);
        const box = {
          x: x + from * letter - 1.5,
          y: y - size * 0.86,
          width: (to - from) * letter + 3,
          height: size * 1.16,
        };
        if (framed) return <rect key={from} {...box} rx={1.5} fill="none" stroke={ink} strokeWidth={1.1} />;
        return (
          <g key={from}>
            <rect {...box} rx={1.5} fill={ink} opacity={0.22} />
            <rect x={box.x} y={box.y + box.height - 1.8} width={box.width} height={1.8} fill={ink} />
          </g>
        );
      })}
    </>
  );
}

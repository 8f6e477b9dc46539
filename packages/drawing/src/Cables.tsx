import type { ElevationCable } from '@visograph/core/racks';
import { memo, type ReactElement } from 'react';
import { fades } from './contrast.ts';
import type { Tokens } from './tokens.ts';

/** More cables than this on a face are drawn thin and pale, so that names and ports stay readable. */
const many = 40;

/** Both edges together of what a jacket is drawn on that the ground would swallow. */
const casing = 1.2;

/** Cables on a rack's face in the colour of their jackets, edged where the ground is like them; those chosen are heavy, the others pale beside them. */
export const RackCables = memo(function RackCables({
  cables,
  tokens,
  lit,
}: {
  cables: readonly ElevationCable[];
  tokens: Tokens;
  lit: ReadonlySet<string>;
}): ReactElement {
  const dense = cables.length > many;
  const anyLit = cables.some((cable) => lit.has(cable.cableId));
  return (
    <g fill="none" strokeLinejoin="round" strokeLinecap="round">
      {cables.map((cable) => {
        const chosen = lit.has(cable.cableId);
        const colour = chosen ? tokens.accent : (cable.jacket ?? tokens.inkSoft);
        const width = chosen ? 2.6 : dense ? 0.9 : 1.6;
        return (
          <g key={cable.cableId} opacity={chosen ? 1 : anyLit ? 0.25 : dense ? 0.6 : 0.9}>
            {fades(colour, tokens.surface) && (
              <path d={cable.d} stroke={tokens.inkSoft} strokeWidth={width + casing} />
            )}
            <path d={cable.d} stroke={colour} strokeWidth={width} />
          </g>
        );
      })}
    </g>
  );
});

import { tiesOf, type SceneLink } from '@visograph/core/sheets';
import type { ReactElement } from 'react';
import type { Tokens } from './tokens.ts';

/** The bars across the links of each aggregate. */
export function TieShapes({ links, tokens }: { links: readonly SceneLink[]; tokens: Tokens }): ReactElement {
  return (
    <g>
      {tiesOf(links).map(({ key, from, to, faded }) => (
        <path
          key={key}
          d={`M${from.x} ${from.y}L${to.x} ${to.y}`}
          stroke={tokens.ink}
          strokeWidth={2.5}
          strokeLinecap="round"
          opacity={faded ? 0.4 : undefined}
        />
      ))}
    </g>
  );
}

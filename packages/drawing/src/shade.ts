import type { Shade } from '@visograph/core/sheets';
import type { Tokens } from './tokens.ts';

/** States as fills under white letters: darker than the same states as text. */
const stateFill = { ok: '#1F7A4D', warn: '#9A5B00', bad: '#B3261E', unknown: '#68717D' };

/** The colour a shade has in a theme; white letters are readable on every one of them. */
export function shadeColour(tokens: Tokens, shade: Shade): string {
  if (shade.scale === 'role') return tokens.family[shade.family];
  if (shade.scale === 'state') return stateFill[shade.state];
  if (shade.scale === 'ramp') return tokens.ramp[shade.step] ?? tokens.unknown;
  return tokens.set[shade.index] ?? tokens.unknown;
}

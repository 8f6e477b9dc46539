import type { Vrf } from '../../model/kinds/logical/vrf.ts';
import { formatVids } from '../../model/values/vids.ts';
import type { Network } from '../../model/network/network.ts';
import { vlanNumbered } from '../../switching/bridges.ts';
import type { Chip } from './sheetGraph.ts';

/** A text with the pieces of it that are coloured. */
export interface ChippedText {
  text: string;
  chips: Chip[];
}

/** What goes over one end of a link: untagged, and with tags. */
export interface Carried {
  untagged: number | null;
  tagged: readonly number[] | 'all';
}

/** More pieces than this are folded into "+n" until they are unfolded. */
const mostPieces = 4;

/** Numbers that count on without a gap as one range each, where there are more than fit one by one. */
function pieces(vids: readonly number[], folded: boolean): number[][] {
  if (vids.length <= mostPieces || !folded) return vids.map((vid) => [vid]);
  const ranges: number[][] = [];
  for (const vid of vids) {
    const last = ranges.at(-1);
    if (last !== undefined && last.at(-1) === vid - 1) last.push(vid);
    else ranges.push([vid]);
  }
  return ranges;
}

/**
 * The VLANs at an end of a link as coloured numbers, the untagged one framed and first: `999 10 20 30 +4`. Colours are
 * those of the VLANs of a group; a range has the colour of its first.
 */
export function vlanChips(
  network: Network,
  numberingId: string | null,
  { untagged, tagged }: Carried,
  folded: boolean,
): ChippedText {
  let text = '';
  const chips: Chip[] = [];
  const add = (piece: string, vid: number | null, framed: boolean): void => {
    if (text !== '') text += ' ';
    const from = text.length;
    text += piece;
    const colour = vid === null ? null : (vlanNumbered(network, numberingId, vid)?.colour ?? null);
    chips.push({ from, to: text.length, colour, framed });
  };
  if (untagged !== null) add(String(untagged), untagged, true);
  if (tagged === 'all') add('all', null, false);
  else {
    const all = pieces(
      [...tagged].sort((a, b) => a - b),
      folded,
    );
    const shown = folded && all.length > mostPieces ? all.slice(0, mostPieces - 1) : all;
    for (const range of shown) add(formatVids(range), range[0] ?? null, false);
    if (shown.length < all.length)
      text += `${text === '' ? '' : ' '}+${all.slice(shown.length).flat().length}`;
  }
  return { text, chips };
}

/** The name of a VRF in its colour, then a text. */
export function vrfChip(vrf: Vrf | null, rest: string): ChippedText {
  const name = vrf?.name ?? 'global';
  return {
    text: `${name} ${rest}`,
    chips: [{ from: 0, to: name.length, colour: vrf?.colour ?? null, framed: false }],
  };
}

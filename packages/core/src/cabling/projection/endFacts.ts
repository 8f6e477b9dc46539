import { addressesOf } from '../../addressing/management.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { formatVids } from '../../model/values/vids.ts';
import type { Network } from '../../model/network/network.ts';
import { setPort } from '../../switching/bridges.ts';

/** More parts of a list of VLANs than this are counted. */
const mostParts = 4;

/** `20`, `U999 T10,20,30-34`: what VLANs a port takes part in, untagged and tagged, long lists cut with their number. */
export function tagsText(port: Port): string {
  const parts: string[] = [];
  if (port.mode === 'access' && port.untaggedVid !== null) parts.push(String(port.untaggedVid));
  else if (port.untaggedVid !== null) parts.push(`U${port.untaggedVid}`);
  if (port.voiceVid !== null) parts.push(`T${port.voiceVid}`);
  if (port.taggedVids !== null) {
    const ranges = formatVids(port.taggedVids).split(',');
    const more = ranges.length - mostParts;
    parts.push(`T${more > 0 ? `${ranges.slice(0, mostParts).join(',')} +${more}` : ranges.join(',')}`);
  }
  return parts.join(' ');
}

/** VLANs of what a cable is plugged into, or of the subinterfaces that run over it. */
export function endTags(network: Network, plugged: Port): string {
  const port = setPort(network, plugged);
  const own = tagsText(port);
  if (own !== '') return own;
  const vids = network.find('portsByParent', port.id).flatMap((one) => (one.vid === null ? [] : [one.vid]));
  if (vids.length === 0) return '';
  return tagsText({ ...port, taggedVids: [...new Set(vids)].sort((a, b) => a - b) });
}

/** Addresses of what a cable is plugged into, and of the subinterfaces over it: two of them, then their number. */
export function endAddresses(network: Network, plugged: Port): string {
  if (network.count('address') === 0) return '';
  const port = setPort(network, plugged);
  const over = network.find('portsByParent', port.id).sort((a, b) => (a.vid ?? 0) - (b.vid ?? 0));
  const texts = [port, ...over].flatMap((one) => addressesOf(network, one.id).map((row) => row.address));
  return texts.length > 2 ? `${texts[0] ?? ''} +${texts.length - 1}` : texts.join(' ');
}

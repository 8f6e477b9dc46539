import { z } from 'zod';

/** Numbers a VLAN can have: 0 marks priority only and 4095 is reserved (IEEE 802.1Q-2022 table 9-2). */
export const firstVid = 1;
export const lastVid = 4094;

export const vidSchema = z
  .int('is not a whole number')
  .min(firstVid, 'is below 1: 0 marks frames that carry a priority only (IEEE 802.1Q)')
  .max(lastVid, 'is above 4094: 4095 is reserved (IEEE 802.1Q)');

export type Vids = readonly number[] | 'all';

/** A set of VLAN numbers: in order, each once; or all there are. */
export const vidsSchema = z.union([
  z.literal('all'),
  z
    .array(vidSchema)
    .max(lastVid)
    .superRefine((vids, context) => {
      const at = vids.findIndex((vid, index) => index > 0 && vid <= (vids[index - 1] ?? 0));
      if (at > 0)
        context.addIssue({
          code: 'custom',
          message: `is not in order, each number once, at ${vids[at] ?? ''}`,
        });
    }),
]);

/** `10,20,30-34`: ranges of three and more are folded. */
export function formatVids(vids: Vids): string {
  if (vids === 'all') return 'all';
  const parts: string[] = [];
  for (let from = 0; from < vids.length;) {
    let to = from;
    while (vids[to + 1] === (vids[to] ?? 0) + 1) to++;
    const [first, last] = [vids[from] ?? 0, vids[to] ?? 0];
    if (to - from >= 2) parts.push(`${first}-${last}`);
    else for (let at = from; at <= to; at++) parts.push(String(vids[at]));
    from = to + 1;
  }
  return parts.join(',');
}

export type VidsRead = { ok: true; vids: Vids } | { ok: false; reason: string };

/** Reads `10, 20, 30-34`, `all` or nothing. */
export function readVids(text: string): VidsRead {
  const trimmed = text.trim().toLowerCase();
  if (trimmed === 'all') return { ok: true, vids: 'all' };
  const found = new Set<number>();
  for (const part of trimmed.split(/[\s,;]+/).filter((one) => one !== '')) {
    const match = /^(\d{1,5})(?:[-–](\d{1,5}))?$/.exec(part);
    if (match === null)
      return { ok: false, reason: `“${part}” is not a VLAN number or a range such as 30-34` };
    const [from, to] = [Number(match[1]), Number(match[2] ?? match[1])];
    for (const vid of [from, to])
      if (vid < firstVid || vid > lastVid)
        return { ok: false, reason: `${vid} is not a VLAN number: they go from ${firstVid} to ${lastVid}` };
    if (to < from) return { ok: false, reason: `the range ${part} runs backwards` };
    for (let vid = from; vid <= to; vid++) found.add(vid);
  }
  return { ok: true, vids: [...found].sort((a, b) => a - b) };
}

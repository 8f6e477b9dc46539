import { noted, readVids, type Vids } from '@visograph/core/model';
import { z } from 'zod';

/** A VLAN number as it is typed: nothing, or one. */
export function readVid(text: string): { ok: true; vid: number | null } | { ok: false; reason: string } {
  const read = readVids(text);
  if (!read.ok) return read;
  if (read.vids === 'all' || read.vids.length > 1) return { ok: false, reason: 'give one number' };
  return { ok: true, vid: read.vids[0] ?? null };
}

/** A field of a form that holds a text as it was typed, and says why it cannot be read. */
const textOf = (label: string, read: (text: string) => { ok: true } | { ok: false; reason: string }) =>
  noted(
    z.string().superRefine((text, context) => {
      const done = read(text);
      if (!done.ok) context.addIssue({ code: 'custom', message: `${label}: ${done.reason}.` });
    }),
    { label },
  );
export const vidText = (label: string) => textOf(label, readVid);
export const vidsText = (label: string) => textOf(label, readVids);

/** What such texts hold, once the form has judged them. */
export const vidIn = (text: string): number | null => {
  const read = readVid(text);
  return read.ok ? read.vid : null;
};
export const vidsIn = (text: string): Exclude<Vids, readonly number[]> | number[] => {
  const read = readVids(text);
  return !read.ok ? [] : read.vids === 'all' ? 'all' : [...read.vids];
};

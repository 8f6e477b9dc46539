import { nineteenInchMm } from '../model/kinds/sites/rack.ts';

/** Names of fields, kinds and sections that were called otherwise, and what they are called now. */
const keys: Readonly<Record<string, string>> = {
  vlanGroups: 'vlanNumberings',
  vlanGroup: 'vlanNumbering',
  vlanGroupId: 'vlanNumberingId',
  groupId: 'numberingId',
  fullDepth: 'fillsBothFaces',
  passThrough: 'leadsTo',
  passThroughId: 'leadsToId',
  passThroughStrand: 'leadsToStrand',
  widthIn: 'widthMm',
};

const bracketed = /\[\d+-\d+\]|\{slot\}/;

/**
 * A port pattern that was written with brackets and braces as it is written now: `te{slot}/[1-8]` is `te slot/1-8`,
 * `eth1-2`, which was one name, is `eth1--2`.
 */
export function patternNow(old: string): string {
  const parts = old.split(/(\[\d+-\d+\]|\{slot\})/).filter((part) => part !== '');
  let now = '';
  for (const part of parts) {
    const isRange = /^\[\d/.test(part);
    const next = isRange ? part.slice(1, -1) : part === '{slot}' ? 'slot' : part;
    // A hyphen between figures was one of the name; figures beside a range were not of the range.
    const literal = isRange ? next : next.replace(/(\d)-(?=\d)/g, '$1--').replace(/^-(?=\d|$)/, '--');
    const apart =
      (part === '{slot}' && /\w$/.test(now)) ||
      (/(?:^|\W)slot$/.test(now) && /^\w/.test(next)) ||
      (/\d$/.test(now) && /^\d/.test(next));
    if (isRange && /\d-$/.test(now)) now += '-';
    now += `${apart ? ' ' : ''}${literal}`;
  }
  return now;
}

const inches: Readonly<Record<number, number>> = {
  19: nineteenInchMm,
  // What was said of racks by ETSI EN 300 119.
  21: 535,
  23: 584.2,
};

function valueNow(key: string, value: unknown): unknown {
  if (key === 'widthIn') return inches[Number(value)] ?? value;
  if (key === 'role' && value === 'passThrough') return 'panel';
  if ((key === 'pattern' || key === 'rearPattern') && typeof value === 'string') return patternNow(value);
  if (key === 'templates' && typeof value === 'object' && value !== null)
    return Object.fromEntries(
      Object.entries(value).map(([role, text]) => [
        role,
        typeof text === 'string' ? text.replaceAll('{place.code}', '{site code}') : text,
      ]),
    );
  // Own fields are called as their owner likes.
  return key === 'extra' ? value : renamed(value);
}

function renamed(value: unknown): unknown {
  if (Array.isArray(value)) {
    const list = value.map(renamed);
    return list.some((one, at) => one !== value[at]) ? list : value;
  }
  if (typeof value !== 'object' || value === null) return value;
  let changed = false;
  const now = Object.entries(value).map(([key, held]): [string, unknown] => {
    const next: [string, unknown] = [keys[key] ?? key, valueNow(key, held)];
    changed ||= next[0] !== key || next[1] !== held;
    return next;
  });
  return changed ? Object.fromEntries(now) : value;
}

/** Whether anything in a file is called as it was before. */
function hasOldNames(value: unknown): boolean {
  if (Array.isArray(value)) return value.some(hasOldNames);
  if (typeof value !== 'object' || value === null) return false;
  return Object.entries(value).some(([key, held]) => {
    if (key === 'extra') return false;
    if (key in keys || (key === 'role' && held === 'passThrough')) return true;
    if (key === 'pattern' || key === 'rearPattern') return typeof held === 'string' && bracketed.test(held);
    if (key === 'templates') return JSON.stringify(held).includes('{place.code}');
    return hasOldNames(held);
  });
}

/**
 * A file that was written before names changed (November 2026) with the names of today. A file that has no old name in
 * it comes back as it is.
 */
export const namesNow = (file: unknown): unknown => (hasOldNames(file) ? renamed(file) : file);

/** What a row held in a field of JSON before names changed. */
export const heldNow = (field: string, value: unknown): unknown => valueNow(field, value);

/** Columns of a row on a sheet that named what it is about, before there was one subject. */
const subjects = ['device', 'place', 'cable', 'circuit', 'prefix'];

/** What stood in one column for each kind of thing, as one subject; other fields as they are. */
export function subjectNow(fields: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const rest = Object.fromEntries(
    Object.entries(fields).filter(([field]) => !subjects.includes(field.replace(/Id$/, ''))),
  );
  const of = subjects.find((kind) => typeof fields[`${kind}Id`] === 'string');
  return of === undefined ? rest : { ...rest, subjectKind: of, subjectId: fields[`${of}Id`] };
}

/** A change of the journal that was written before names changed. */
export function changeNow(change: unknown): unknown {
  const now = renamed(change) as Record<string, unknown>;
  const kind = keys[String(now['kind'])] ?? now['kind'];
  const sides = ['before', 'after'].flatMap((side) => {
    const fields = now[side];
    if ((kind !== 'sheetItem' && kind !== 'sheetLink') || typeof fields !== 'object' || fields === null)
      return [];
    return [[side, subjectNow(fields as Record<string, unknown>)]];
  });
  return kind === now['kind'] && sides.length === 0 ? now : { ...now, kind, ...Object.fromEntries(sides) };
}

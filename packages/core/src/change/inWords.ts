import { notesOf, held, kinds, anyKind, targetOf, type Kind, type Row } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';
import { portTitle } from '../model/network/ports.ts';
import type { Change } from './change.ts';

/** One line of what a change does, for people to read before it is made. */
export interface ChangeLine {
  /** "port kq-acc-1:gi1/4" */
  what: string;
  /** The field and its values; null where the row comes or goes. */
  field: string | null;
  from: string;
  to: string;
}

const titleIn = (network: Network, kind: Kind, row: Row): string =>
  `${kinds[kind].one} ${kind === 'port' ? portTitle(network, row.id) || held(row)['name'] : anyKind(kind).nameOf(row)}`;

/** A value as it is read: the name of a row in place of its id, a list by its parts; a dash for nothing. */
function valueText(network: Network, kind: Kind, field: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return '–';
  const to = targetOf(kind, field);
  if (to !== null && typeof value === 'string') {
    const row: Row | null = network.get(to, value);
    return row === null ? 'a new one' : to === 'port' ? portTitle(network, value) : anyKind(to).nameOf(row);
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value))
    return value.length === 0
      ? '–'
      : value.map((part: unknown) => (typeof part === 'object' ? rangeText(part) : String(part))).join(', ');
  return typeof value === 'object' ? rangeText(value) : String(value);
}

/** What an object in a field holds, value by value. */
const rangeText = (part: unknown): string =>
  typeof part === 'object' && part !== null
    ? Object.values(part)
        .filter((value) => value !== null && value !== '' && typeof value !== 'object')
        .join(' ')
    : '–';

/** What changes come to in a network in which they are not made yet. */
export function changesInWords(network: Network, changes: readonly Change[]): ChangeLine[] {
  return changes.flatMap((change): ChangeLine[] => {
    const { kind, id } = change;
    if (change.op === 'create')
      return [{ what: titleIn(network, kind, change.after), field: null, from: '–', to: 'made' }];
    const row: Row | null = network.get(kind, id);
    const what = row === null ? kinds[kind].one : titleIn(network, kind, row);
    if (change.op === 'delete') return [{ what, field: null, from: 'there', to: 'deleted' }];
    const after: [string, unknown][] = Object.entries(change.after);
    return after.map(([field, value]) => ({
      what,
      field: notesOf(kind, field)?.label ?? field,
      from: valueText(network, kind, field, row === null ? null : held(row)[field]),
      to: valueText(network, kind, field, value),
    }));
  });
}

import { updateHeld, type ChangeSet } from '../change/change.ts';
import { notesOf, targetOf, type Kind, type Rows, type Row, anyKind, type Held } from '../model/kinds.ts';
import type { Network } from '../model/network/network.ts';

/** Data inside a field, in words: "area 0, cost 10, passive no". */
function plainText(value: unknown): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.map(plainText).join(', ');
  if (typeof value !== 'object' || value === null) return String(value);
  return Object.entries(value)
    .filter(([, part]) => part !== null && !(Array.isArray(part) && part.length === 0))
    .map(([name, part]) => `${name} ${plainText(part)}`)
    .join(', ');
}

const shown = (network: Network, kind: Kind, field: string, value: unknown): string => {
  if (value === null || value === undefined || value === '') return 'nothing';
  const target = targetOf(kind, field);
  if (target !== null && typeof value === 'string') {
    const row: Row | null = network.get(target, value);
    return row === null ? 'nothing' : anyKind(target).nameOf(row);
  }
  if (typeof value === 'object') return plainText(value);
  const unit = notesOf(kind, field)?.unit;
  return unit === undefined ? String(value) : `${String(value)} ${unit}`;
};

/** Changes fields of a row: "Set serial of kq-acc-1 to NV31-0027714". */
export const editRow = <K extends Kind>(
  network: Network,
  kind: K,
  row: Rows[K],
  fields: Partial<Rows[K]>,
): ChangeSet => editHeld(network, kind, row, fields);

/** The same for fields known by their names alone. */
export function editHeld(network: Network, kind: Kind, row: Row, fields: Held): ChangeSet {
  const change = updateHeld(kind, row, fields);
  if (change === null || change.op !== 'update') return { changes: [], sentence: '' };
  const name = anyKind(kind).nameOf(row);
  const parts = Object.entries(change.after).map(([field, value]) => {
    const label = notesOf(kind, field)?.label.toLowerCase() ?? field;
    return field === 'name' || field === 'label'
      ? `renamed it to ${String(value)}`
      : `set ${label} to ${shown(network, kind, field, value)}`;
  });
  const only = Object.entries(change.after)[0];
  const sentence =
    parts.length === 1 && only !== undefined
      ? only[0] === 'name' || only[0] === 'label'
        ? `Renamed ${name} to ${String(only[1])}`
        : `Set ${notesOf(kind, only[0])?.label.toLowerCase() ?? only[0]} of ${name} to ${shown(network, kind, only[0], only[1])}`
      : `Changed ${name}: ${parts.join(', ')}`;
  return { changes: [change], sentence };
}

import type { Network } from '../../model/network/network.ts';

/** What a column of a cable list can hold. */
export const cableFields = [
  'label',
  'type',
  'lengthM',
  'aEnd',
  'aDevice',
  'aPort',
  'bEnd',
  'bDevice',
  'bPort',
  'status',
  'notes',
] as const;
export type CableField = (typeof cableFields)[number];
export type CableColumns = Partial<Record<CableField, number>>;

export const cableFieldLabels: Record<CableField, string> = {
  label: 'Label',
  type: 'Type',
  lengthM: 'Length (m)',
  aEnd: 'A end',
  aDevice: 'A device',
  aPort: 'A port',
  bEnd: 'B end',
  bDevice: 'B device',
  bPort: 'B port',
  status: 'Status',
  notes: 'Notes',
};

/** Headings that are understood, compared without regard to case, spaces and signs. */
const headings: Record<CableField, readonly string[]> = {
  label: ['label', 'cable', 'cableid', 'cablelabel', 'cableno', 'cablenumber', 'id'],
  type: ['type', 'cabletype', 'medium'],
  lengthM: ['length', 'lengthm', 'metres', 'm'],
  aEnd: ['a', 'aend', 'enda', 'from', 'source', 'near', 'nearend'],
  aDevice: ['adevice', 'devicea', 'fromdevice', 'sourcedevice', 'apanel', 'frompanel'],
  aPort: ['aport', 'porta', 'fromport', 'sourceport', 'aposition', 'fromposition'],
  bEnd: ['b', 'bend', 'endb', 'to', 'destination', 'far', 'farend'],
  bDevice: ['bdevice', 'deviceb', 'todevice', 'destinationdevice', 'bpanel', 'topanel'],
  bPort: ['bport', 'portb', 'toport', 'destinationport', 'bposition', 'toposition'],
  status: ['status', 'state'],
  notes: ['notes', 'note', 'remarks', 'comment'],
};

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Columns by their headings. */
export function columnsByName(first: readonly string[]): CableColumns {
  const found: CableColumns = {};
  first.forEach((cell, column) => {
    const name = plain(cell);
    const field = cableFields.find((one) => headings[one].includes(name));
    if (field !== undefined && found[field] === undefined) found[field] = column;
  });
  return found;
}

const sampled = 60;
const enoughShare = 0.6;
/** Ends are told one by one where they cannot be found: a few that can be show what the column holds. */
const enoughEnds = 0.25;

/**
 * Columns by what stands in them, for those that no heading names: known cable types, ends that are found, names of
 * devices with the column after them, labels, numbers. `findEnd` says whether a text names a port.
 */
export function columnsByContent(
  network: Network,
  rows: readonly (readonly string[])[],
  known: CableColumns,
  findEnd: (text: string) => boolean,
): CableColumns {
  const found: CableColumns = { ...known };
  const taken = new Set(Object.values(found));
  const width = Math.max(0, ...rows.slice(0, sampled).map((row) => row.length));
  const share = (column: number, test: (text: string) => boolean): number => {
    const cells = rows
      .slice(0, sampled)
      .map((row) => row[column]?.trim() ?? '')
      .filter((cell) => cell !== '');
    return cells.length === 0 ? 0 : cells.filter(test).length / cells.length;
  };
  const isDevice = (text: string): boolean => network.findOne('deviceByName', text.toLowerCase()) !== null;
  const isType = (text: string): boolean =>
    network.findOne('modelByTitle', text.toLowerCase())?.form === 'cable';
  const take = (field: CableField, column: number): void => {
    found[field] = column;
    taken.add(column);
  };
  const hasEnd = (side: 'a' | 'b'): boolean =>
    found[`${side}End`] !== undefined || found[`${side}Device`] !== undefined;
  for (let column = 0; column < width; column++) {
    if (taken.has(column)) continue;
    const side = !hasEnd('a') ? 'a' : !hasEnd('b') ? 'b' : null;
    if (found.type === undefined && share(column, isType) >= enoughShare) take('type', column);
    else if (side !== null && share(column, findEnd) >= enoughEnds) take(`${side}End`, column);
    else if (side !== null && share(column, isDevice) >= enoughShare) {
      take(`${side}Device`, column);
      if (!taken.has(column + 1)) take(`${side}Port`, column + 1);
    } else if (
      found.label === undefined &&
      share(column, (text) => /^[A-Za-z][\w.-]*\d+$/.test(text)) >= enoughShare &&
      new Set(rows.slice(0, sampled).map((row) => row[column])).size > Math.min(rows.length, sampled) * 0.9
    )
      take('label', column);
    else if (
      found.lengthM === undefined &&
      share(column, (text) => /^\d+([.,]\d+)?( ?m)?$/.test(text)) >= enoughShare
    )
      take('lengthM', column);
  }
  return found;
}

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
  aEnd: ['a', 'aend', 'enda', 'from', 'source', 'near', 'nearend', 'local'],
  aDevice: [
    'adevice',
    'devicea',
    'fromdevice',
    'sourcedevice',
    'apanel',
    'frompanel',
    'localdevice',
    'neardevice',
    'hosta',
  ],
  aPort: [
    'aport',
    'porta',
    'fromport',
    'sourceport',
    'aposition',
    'fromposition',
    'localport',
    'localinterface',
    'nearport',
    'interfacea',
    'frominterface',
  ],
  bEnd: ['b', 'bend', 'endb', 'to', 'destination', 'far', 'farend', 'remote', 'neighbour', 'neighbor'],
  bDevice: [
    'bdevice',
    'deviceb',
    'todevice',
    'destinationdevice',
    'bpanel',
    'topanel',
    'remotedevice',
    'fardevice',
    'hostb',
    'targetdevice',
    'neighbourdevice',
  ],
  bPort: [
    'bport',
    'portb',
    'toport',
    'destinationport',
    'bposition',
    'toposition',
    'remoteport',
    'remoteinterface',
    'farport',
    'interfaceb',
    'tointerface',
    'targetport',
    'neighbourport',
    'neighbourinterface',
  ],
  status: ['status', 'state'],
  notes: ['notes', 'note', 'remarks', 'comment'],
};

/** Headings that say neither end: the first such column is of the A end, the second of the B end. */
const eitherEnd: Record<'Device' | 'Port', readonly string[]> = {
  Device: ['device', 'host', 'hostname', 'node', 'system', 'switch', 'name'],
  Port: ['port', 'interface', 'if', 'portname', 'interfacename'],
};

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Columns by their headings. */
export function columnsByName(first: readonly string[]): CableColumns {
  const found: CableColumns = {};
  first.forEach((cell, column) => {
    const name = plain(cell);
    const field = cableFields.find((one) => headings[one].includes(name));
    if (field !== undefined && found[field] === undefined) found[field] = column;
    else
      for (const part of ['Device', 'Port'] as const) {
        if (!eitherEnd[part].includes(name)) continue;
        const end = (['a', 'b'] as const).find((side) => found[`${side}${part}`] === undefined);
        if (end !== undefined) found[`${end}${part}`] = column;
      }
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

/** A port's name: a few letters if any, then numbers that slashes, points, colons or hyphens part. */
const portShaped = /^[a-z][a-z-]{0,19}[ -]?\d+([/.:-]\d+)*$|^\d+([/.:-]\d+)*$/i;
const nameShaped = /^(?=.*[a-z])[\w.-]+$/i;
const bothShaped = /^[^:\s]+\s*:\s*\S.*$/;

/** The orders in which devices and ports of two ends stand beside each other, the usual one first. */
const orders = [
  ['aDevice', 'aPort', 'bDevice', 'bPort'],
  ['aPort', 'aDevice', 'bPort', 'bDevice'],
  ['aDevice', 'bDevice', 'aPort', 'bPort'],
  ['aDevice', 'aPort', 'bPort', 'bDevice'],
  ['aPort', 'aDevice', 'bDevice', 'bPort'],
  ['aPort', 'bPort', 'aDevice', 'bDevice'],
] as const;

/**
 * Columns of a table of links by the shape of what stands in them, where neither headings nor devices that are there
 * told it: two that hold device and port with a colon between, or four that read like names of devices and of ports.
 */
export function columnsByShape(rows: readonly (readonly string[])[], known: CableColumns): CableColumns {
  const ends = ['aEnd', 'bEnd', 'aDevice', 'bDevice'] as const;
  if (ends.filter((field) => known[field] !== undefined).length >= 2) return known;
  const found: CableColumns = { ...known };
  for (const field of [...ends, 'aPort', 'bPort'] as const) delete found[field];
  const taken = new Set(Object.values(found));
  const sample = rows.slice(0, sampled);
  const width = Math.max(0, ...sample.map((row) => row.length));
  const share = (column: number, test: (cell: string) => boolean): number => {
    const cells = sample.map((row) => row[column]?.trim() ?? '');
    return cells.length === 0 ? 0 : cells.filter((cell) => cell !== '' && test(cell)).length / cells.length;
  };
  const columns = Array.from({ length: width }, (_, column) => column).filter((column) => !taken.has(column));
  const both = columns.filter(
    (column) => share(column, (cell) => bothShaped.test(cell) && !portShaped.test(cell)) >= enoughShare,
  );
  if (both[0] !== undefined && both[1] !== undefined) return { ...found, aEnd: both[0], bEnd: both[1] };
  const alike = columns.filter(
    (column) => share(column, (cell) => portShaped.test(cell) || nameShaped.test(cell)) >= enoughShare,
  );
  const fit = (column: number, field: string): number => {
    const [own, other] = field.endsWith('Device') ? [nameShaped, portShaped] : [portShaped, nameShaped];
    return share(column, (cell) => own.test(cell)) + share(column, (cell) => !other.test(cell)) / 2;
  };
  let best: { score: number; fields: CableColumns } | null = null;
  for (let from = 0; from + 4 <= alike.length; from++)
    for (const order of orders) {
      const four = order.map((field, at) => [field, alike[from + at] ?? -1] as const);
      const score = four.reduce((sum, [field, column]) => sum + fit(column, field), 0);
      if (best === null || score > best.score) best = { score, fields: Object.fromEntries(four) };
    }
  return best === null ? known : { ...found, ...best.fields };
}

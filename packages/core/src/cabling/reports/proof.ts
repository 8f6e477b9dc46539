import type { Cable } from '../../model/kinds/lines/cable.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { placeChain, placeOfDevice, placePath } from '../../model/network/places.ts';
import { endsOf, isFree } from '../../model/network/ports.ts';
import { fannedFrom, portStrands, strandsPerLeg } from '../../model/network/strands.ts';
import { compareNames } from '../../model/values/order.ts';
import { table } from '../../report/parts.ts';
import type { Column, Table, TableRow } from '../../report/table.ts';
import { labelPrefix, missingLabels } from '../labelSeries.ts';
import { cablesInScope } from './cables.ts';

const columns: Column[] = [
  { key: 'state', label: 'What is wrong' },
  { key: 'label', label: 'Label' },
  { key: 'sequence', label: 'Sequence' },
  { key: 'type', label: 'Type' },
  { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
  { key: 'strands', label: 'Strands', numeric: true },
  { key: 'patched', label: 'Patched', numeric: true },
  { key: 'free', label: 'Free', numeric: true },
  { key: 'aRoom', label: 'A room' },
  { key: 'aPanel', label: 'A panel or device' },
  { key: 'aPort', label: 'A port' },
  { key: 'bRoom', label: 'B room' },
  { key: 'bPanel', label: 'B panel or device' },
  { key: 'bPort', label: 'B port' },
];

/**
 * Strands of a cable that somebody goes on from at one side: those behind ports of a cassette that are filled; all of a
 * plug whose port passes through to one that is filled, or is no panel's at all.
 */
function patchedAt(network: Network, cable: Cable, side: 'a' | 'b', strands: number): number {
  const ends = endsOf(network, cable, side);
  const perLeg = strandsPerLeg({ strands }, ends.length) ?? 0;
  return ends.reduce((sum, id) => {
    const port = network.get('port', id);
    if (port === null) return sum;
    const fanned = fannedFrom(network, port);
    if (fanned.length > 0) {
      const filled = fanned.filter((one) => !isFree(network, one.id));
      return (
        sum +
        Math.min(
          perLeg,
          filled.reduce((all, one) => all + portStrands(one), 0),
        )
      );
    }
    const passes = port.leadsToId !== null;
    return passes && isFree(network, port.leadsToId ?? '') ? sum : sum + perLeg;
  }, 0);
}

/** Where an end is: its room, its panel or device, its port. A breakout is told by its first plug. */
function endOf(
  network: Network,
  portId: string | null,
): { room: string; panel: string; port: string } | null {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  if (port === null || device === null) return null;
  const placeId = placeOfDevice(network, device);
  const chain = placeChain(network, placeId);
  const room = chain.findLast(({ kind }) => kind === 'room') ?? chain.at(-1);
  return { room: room === undefined ? '' : placePath(network, room.id), panel: device.name, port: port.name };
}

function proved(network: Network, cable: Cable): TableRow {
  const type = network.get('model', cable.typeId);
  const a = endOf(network, cable.aPortId);
  const b = endOf(network, cable.bPortId);
  const strands = type?.strands ?? null;
  const patched =
    strands === null
      ? null
      : Math.max(patchedAt(network, cable, 'a', strands), patchedAt(network, cable, 'b', strands));
  const wrong = [
    ...(a === null && b === null
      ? ['both ends open']
      : a === null
        ? ['A end open']
        : b === null
          ? ['B end open']
          : []),
    ...(a !== null && a.room === '' ? ['A end in no room'] : []),
    ...(b !== null && b.room === '' ? ['B end in no room'] : []),
    ...(type === null ? ['type not known'] : []),
    ...(cable.lengthM === null ? ['length not known'] : []),
    ...(labelPrefix(cable.label) === null ? ['number of no sequence'] : []),
  ];
  return {
    state: wrong.length === 0 ? null : wrong.join('; '),
    label: cable.label,
    sequence: labelPrefix(cable.label),
    type: type === null ? null : modelTitle(type),
    lengthM: cable.lengthM,
    strands,
    patched,
    free: strands === null || patched === null ? null : strands - patched,
    ...{ aRoom: a?.room || null, aPanel: a?.panel ?? null, aPort: a?.port ?? null },
    ...{ bRoom: b?.room || null, bPanel: b?.panel ?? null, bPort: b?.port ?? null },
  };
}

/**
 * The proof of a cabling (ISO/IEC 14763-2): every cable has exactly two ends, each in a room and at a panel or device,
 * its type and length are known, no number of its sequence is missing; with the strands that are patched and free. What
 * is wrong comes first; a number that is missing stands at the cable after the gap.
 */
export function cableProof(network: Network, scopeId: string | null): Table {
  const cables = cablesInScope(network, scopeId).filter(({ status }) => status !== 'retired');
  const rows = cables.map((cable) => ({ id: cable.id, cells: proved(network, cable) }));
  const labels = cables.map(({ label }) => label);
  const missing = missingLabels(labels)
    .filter((label) => network.findOne('cableByLabel', label.toLowerCase()) === null)
    .flatMap((label) => {
      const prefix = labelPrefix(label);
      const next = labels
        .filter((one) => labelPrefix(one)?.toLowerCase() === prefix?.toLowerCase())
        .find((one) => compareNames(one, label) > 0);
      const after = network.findOne('cableByLabel', next?.toLowerCase() ?? '');
      const cells: TableRow = { state: 'no cable has this number', label, sequence: prefix };
      return after === null ? [] : [{ id: after.id, cells }];
    });
  const wrongFirst = [...missing, ...rows].sort(
    (one, other) =>
      Number(one.cells['state'] === null) - Number(other.cells['state'] === null) ||
      compareNames(String(one.cells['label']), String(other.cells['label'])),
  );
  return table(columns, wrongFirst);
}

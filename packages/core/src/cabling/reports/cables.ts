import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Cable } from '../../model/kinds/lines/cable.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { devicesInScope, placeOfDevice, placePath, whereIs } from '../../model/network/places.ts';
import { cableAt, portsOf } from '../../model/network/ports.ts';
import { tableOf, type Column, type Table, type TableRow } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'label', label: 'Label' },
  { key: 'type', label: 'Type' },
  { key: 'lengthM', label: 'Length', numeric: true, unit: 'm' },
  { key: 'aDevice', label: 'A device' },
  { key: 'aPort', label: 'A port' },
  { key: 'aPlace', label: 'A place' },
  { key: 'bDevice', label: 'B device' },
  { key: 'bPort', label: 'B port' },
  { key: 'bPlace', label: 'B place' },
];

/** Where devices stand, by their ids: of many cables most end at the same ones. */
type Known = Map<string, string>;

function standsAt(network: Network, device: Device, known: Known): string {
  const found = known.get(device.id);
  if (found !== undefined) return found;
  const place = network.get('place', placeOfDevice(network, device))?.name ?? '';
  const text = device.rackId === null ? place : `${whereIs(network, device)} · ${place}`;
  known.set(device.id, text);
  return text;
}

function end(
  network: Network,
  portId: string | null,
  known: Known,
): { device: string | null; port: string | null; place: string | null } {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  if (port === null || device === null) return { device: null, port: null, place: null };
  return { device: device.name, port: port.name, place: standsAt(network, device, known) };
}

/** Cables with at least one end in the scope, by label. */
export function cablesInScope(network: Network, scopeId: string | null): Cable[] {
  if (scopeId === null) return [...network.all('cable')].sort((a, b) => compareNames(a.label, b.label));
  const found = new Map<string, Cable>();
  for (const device of devicesInScope(network, scopeId)) {
    for (const port of portsOf(network, device.id)) {
      const cable = cableAt(network, port.id);
      if (cable !== null) found.set(cable.id, cable);
    }
  }
  return [...found.values()].sort((a, b) => compareNames(a.label, b.label));
}

function cableRow(network: Network, cable: Cable, known: Known): TableRow {
  const type = network.get('model', cable.typeId);
  const a = end(network, cable.aPortId, known);
  const b = end(network, cable.bPortId, known);
  return {
    label: cable.label,
    type: type === null ? null : modelTitle(type),
    lengthM: cable.lengthM,
    aDevice: a.device,
    aPort: a.port,
    aPlace: a.place,
    bDevice: b.device,
    bPort: b.port,
    bPlace: b.place,
  };
}

/** The cable schedule: every cable of the scope with both its ends. */
export function cableSchedule(network: Network, scopeId: string | null): Table {
  const known: Known = new Map();
  return tableOf(columns, cablesInScope(network, scopeId), (cable) => cableRow(network, cable, known));
}

/** Full path of the scope, for headings and file names. */
export const scopeTitle = (network: Network, scopeId: string | null): string =>
  scopeId === null ? 'All sites' : placePath(network, scopeId).replaceAll('/', ' › ');

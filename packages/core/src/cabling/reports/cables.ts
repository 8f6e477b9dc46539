import type { Cable } from '../../model/kinds/lines/cable.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { devicesInScope, placeOfDevice, placePath, whereIs } from '../../model/network/places.ts';
import { cableAt, portsOf } from '../../model/network/ports.ts';
import type { Column, Table, TableRow } from '../../report/table.ts';

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

function end(
  network: Network,
  portId: string | null,
): { device: string | null; port: string | null; place: string | null } {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  if (port === null || device === null) return { device: null, port: null, place: null };
  const place = network.get('place', placeOfDevice(network, device))?.name ?? '';
  return {
    device: device.name,
    port: port.name,
    place: device.rackId === null ? place : `${whereIs(network, device)} · ${place}`,
  };
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

export function cableRow(network: Network, cable: Cable): TableRow {
  const type = network.get('model', cable.typeId);
  const a = end(network, cable.aPortId);
  const b = end(network, cable.bPortId);
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
  const cables = cablesInScope(network, scopeId);
  return {
    columns,
    rows: cables.map((cable) => cableRow(network, cable)),
    ids: cables.map((cable) => cable.id),
  };
}

/** Full path of the scope, for headings and file names. */
export const scopeTitle = (network: Network, scopeId: string | null): string =>
  scopeId === null ? 'All sites' : placePath(network, scopeId).replaceAll('/', ' › ');

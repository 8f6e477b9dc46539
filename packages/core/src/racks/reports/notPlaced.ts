import { roles } from '../../model/values/roles.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesNotPlaced, placeOfDevice, placesWithin } from '../../model/network/places.ts';
import { cableAt, otherEnds, portsOf } from '../../model/network/ports.ts';
import { compareNames } from '../../model/values/order.ts';
import type { Column, Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'name', label: 'Name' },
  { key: 'role', label: 'Role' },
  { key: 'model', label: 'Model' },
  { key: 'units', label: 'Height', numeric: true, unit: 'U' },
  { key: 'status', label: 'Status' },
  { key: 'joinedTo', label: 'Joined to' },
];

/** Devices that cables lead to, each once. */
function joinedTo(network: Network, device: Device): Device[] {
  const found = new Map<string, Device>();
  for (const port of portsOf(network, device.id)) {
    const cable = cableAt(network, port.id);
    for (const id of cable === null ? [] : otherEnds(network, cable, port.id)) {
      const far = network.get('device', network.get('port', id)?.deviceId ?? null);
      if (far !== null && far.id !== device.id) found.set(far.id, far);
    }
  }
  return [...found.values()].sort((a, b) => compareNames(a.name, b.name));
}

/** What nobody has placed yet: all of it for the whole project, for a place what a cable joins to something there. */
export function notPlacedSchedule(network: Network, scopeId: string | null): Table {
  const within = scopeId === null ? null : placesWithin(network, scopeId);
  const listed = devicesNotPlaced(network)
    .map((device) => ({ device, far: joinedTo(network, device) }))
    .filter(({ far }) => within === null || far.some((one) => within.has(placeOfDevice(network, one) ?? '')));
  return {
    columns,
    rows: listed.map(({ device, far }) => {
      const model = network.get('model', device.modelId);
      return {
        name: device.name,
        role: roles[device.role].label,
        model: model === null ? null : modelTitle(model),
        units: device.units,
        status: device.status,
        joinedTo: far.map((one) => one.name).join(', '),
      };
    }),
    ids: listed.map(({ device }) => device.id),
  };
}

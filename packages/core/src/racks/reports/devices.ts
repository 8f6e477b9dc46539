import { roles } from '../../model/values/roles.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesInScope, isPlaced, notPlaced, placeOfDevice } from '../../model/network/places.ts';
import { isFree, portsOf } from '../../model/network/ports.ts';
import { tableOf, type Column, type Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'name', label: 'Name' },
  { key: 'role', label: 'Role' },
  { key: 'model', label: 'Model' },
  { key: 'status', label: 'Status' },
  { key: 'place', label: 'Place' },
  { key: 'rack', label: 'Rack' },
  { key: 'unit', label: 'Unit', numeric: true },
  { key: 'serial', label: 'Serial' },
  { key: 'installedOn', label: 'Installed on' },
  { key: 'portsUsed', label: 'Ports used', numeric: true },
  { key: 'ports', label: 'Ports', numeric: true },
];

/** The device schedule: every device of the scope, where it is, and how many of its ports hold a cable. */
export function deviceSchedule(network: Network, scopeId: string | null): Table {
  return tableOf(columns, devicesInScope(network, scopeId), (device) => {
    const ports = portsOf(network, device.id);
    const model = network.get('model', device.modelId);
    return {
      name: device.name,
      role: roles[device.role].label,
      model: model === null ? null : modelTitle(model),
      status: device.status,
      place: isPlaced(device)
        ? (network.get('place', placeOfDevice(network, device))?.name ?? null)
        : notPlaced,
      rack: network.get('rack', device.rackId)?.name ?? null,
      unit: device.unit,
      serial: device.serial,
      installedOn: device.installedOn,
      portsUsed: ports.filter((port) => !isFree(network, port.id)).length,
      ports: ports.length,
    };
  });
}

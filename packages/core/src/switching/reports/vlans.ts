import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Vlan, VlanGroup } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { placesWithin, placeOfDevice } from '../../model/network/places.ts';
import { bridgeKey, groupOfPort } from '../bridges.ts';
import { layer2Of, type Layer2 } from '../layer2.ts';
import { isUsed, reachOf } from '../reach.ts';
import { table, type ForDevice } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'group', label: 'Group' },
  { key: 'vid', label: 'Number', numeric: true },
  { key: 'name', label: 'Name' },
  { key: 'purpose', label: 'Purpose' },
  { key: 'vrf', label: 'VRF' },
  { key: 'prefixes', label: 'Prefixes' },
  { key: 'switches', label: 'Switches', numeric: true },
  { key: 'ports', label: 'Ports', numeric: true },
  { key: 'users', label: 'Users', numeric: true },
  { key: 'parts', label: 'Parts', numeric: true },
];

/** The VLAN groups whose numbering holds in a scope, or in a part of it, by name. */
export function vlanGroupsInScope(network: Network, scopeId: string | null): VlanGroup[] {
  if (scopeId === null) return [...network.all('vlanGroup')].sort(byName);
  const within = placesWithin(network, scopeId);
  const groups = new Set<string>();
  for (const place of network.all('place'))
    if (place.vlanGroupId !== null && within.has(place.id)) groups.add(place.vlanGroupId);
  // A place inside the one that names the group has its numbering too.
  for (
    let place = network.get('place', scopeId);
    place !== null;
    place = network.get('place', place.parentId)
  )
    if (place.vlanGroupId !== null) groups.add(place.vlanGroupId);
  return [...groups].flatMap((id) => network.get('vlanGroup', id) ?? []).sort(byName);
}

/** VLANs of the groups that hold in a scope, by group and number. */
export function vlansInScope(network: Network, scopeId: string | null): Vlan[] {
  return vlanGroupsInScope(network, scopeId)
    .flatMap((group) => network.find('vlansByGroup', group.id))
    .sort(
      (a, b) =>
        compareNames(
          network.get('vlanGroup', a.groupId)?.name ?? '',
          network.get('vlanGroup', b.groupId)?.name ?? '',
        ) || a.vid - b.vid,
    );
}

/** Whether a device forwards a VLAN, or has an interface in it. */
function isOn(network: Network, layer2: Layer2, device: Device, vlan: Vlan): boolean {
  const bridge = layer2.bridging.bridges.get(bridgeKey(network, device));
  if (bridge !== undefined && bridge.groupId === vlan.groupId && layer2.vidsOf(bridge).has(vlan.vid))
    return true;
  return network
    .find('logicalPortsByDevice', device.id)
    .some((port) => port.vid === vlan.vid && groupOfPort(network, port) === vlan.groupId);
}

/** Every VLAN with what carries it, who uses it, and into how many parts that are used it falls; or those of a device. */
export function vlanSchedule(network: Network, scopeId: string | null, { device }: ForDevice = {}): Table {
  const layer2 = layer2Of(network);
  const within = scopeId === null ? null : placesWithin(network, scopeId);
  const rows = vlansInScope(network, scopeId)
    .filter((vlan) => device === undefined || isOn(network, layer2, device, vlan))
    .map((vlan) => {
      const reach = reachOf(layer2, vlan);
      const here = reach.islands.filter(
        (part) =>
          within === null ||
          part.bridges.some(({ bridge }) =>
            bridge.devices.some((device) => within.has(placeOfDevice(network, device) ?? '')),
          ),
      );
      const switches = new Set(
        here.flatMap((part) =>
          part.bridges.filter(({ bridge }) => bridge.form === 'switch').map(({ bridge }) => bridge.key),
        ),
      );
      const prefixes = network
        .find('prefixesByVlan', vlan.id)
        .filter((prefix) => within === null || prefix.placeId === null || within.has(prefix.placeId))
        .map((prefix) => prefix.prefix)
        .sort(compareNames);
      return {
        id: vlan.id,
        cells: {
          group: network.get('vlanGroup', vlan.groupId)?.name ?? null,
          vid: vlan.vid,
          name: vlan.name,
          purpose: vlan.purpose,
          vrf: network.get('vrf', vlan.vrfId)?.name ?? null,
          prefixes: prefixes.join(', ') || null,
          switches: switches.size,
          ports: here.reduce((sum, part) => sum + part.ports.length, 0),
          users: here.reduce((sum, part) => sum + part.listeners.length, 0),
          parts: here.filter(isUsed).length,
        },
      };
    });
  return table(columns, rows);
}

import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Vlan, VlanNumbering } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { placesWithin, placeOfDevice } from '../../model/network/places.ts';
import { bridgeKey, numberingOfPort } from '../bridges.ts';
import { layer2Of, type Layer2 } from '../layer2.ts';
import { isUsed, reachOf } from '../reach.ts';
import { table, type ForDevice } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'numbering', label: 'Numbering' },
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

/** The VLAN numberings that hold in a scope, or in a part of it, by name. */
export function vlanNumberingsInScope(network: Network, scopeId: string | null): VlanNumbering[] {
  if (scopeId === null) return [...network.all('vlanNumbering')].sort(byName);
  const within = placesWithin(network, scopeId);
  const numberings = new Set<string>();
  for (const place of network.all('place'))
    if (place.vlanNumberingId !== null && within.has(place.id)) numberings.add(place.vlanNumberingId);
  // A place inside the one that names the numbering has its numbering too.
  for (
    let place = network.get('place', scopeId);
    place !== null;
    place = network.get('place', place.parentId)
  )
    if (place.vlanNumberingId !== null) numberings.add(place.vlanNumberingId);
  return [...numberings].flatMap((id) => network.get('vlanNumbering', id) ?? []).sort(byName);
}

/** VLANs of the numberings that hold in a scope, by numbering and number. */
export function vlansInScope(network: Network, scopeId: string | null): Vlan[] {
  return vlanNumberingsInScope(network, scopeId)
    .flatMap((numbering) => network.find('vlansByNumbering', numbering.id))
    .sort(
      (a, b) =>
        compareNames(
          network.get('vlanNumbering', a.numberingId)?.name ?? '',
          network.get('vlanNumbering', b.numberingId)?.name ?? '',
        ) || a.vid - b.vid,
    );
}

/** Whether a device forwards a VLAN, or has an interface in it. */
function isOn(network: Network, layer2: Layer2, device: Device, vlan: Vlan): boolean {
  const bridge = layer2.bridging.bridges.get(bridgeKey(network, device));
  if (bridge !== undefined && bridge.numberingId === vlan.numberingId && layer2.vidsOf(bridge).has(vlan.vid))
    return true;
  return network
    .find('logicalPortsByDevice', device.id)
    .some((port) => port.vid === vlan.vid && numberingOfPort(network, port) === vlan.numberingId);
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
          numbering: network.get('vlanNumbering', vlan.numberingId)?.name ?? null,
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

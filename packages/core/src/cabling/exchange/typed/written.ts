import type { Device } from '../../../model/kinds/equipment/device.ts';
import type { Network } from '../../../model/network/network.ts';
import { placeOfDevice, placePath } from '../../../model/network/places.ts';
import { cableAt, otherEnd, portsOf } from '../../../model/network/ports.ts';
import { byName, compareNames } from '../../../model/values/order.ts';
import { typedName } from './grammar.ts';
import { sortText } from './sorts.ts';

/** Names on a line: a longer list is easier to read as several. */
const mostOnLine = 8;

/** Groups by a text, in the order of the texts, names in their order. */
function grouped(devices: readonly Device[], of: (device: Device) => string | null): [string, string[]][] {
  const groups = new Map<string, string[]>();
  for (const device of devices) {
    const key = of(device);
    if (key !== null) groups.set(key, [...(groups.get(key) ?? []), typedName(device.name)]);
  }
  return [...groups].sort(([a], [b]) => compareNames(a, b));
}

const chunks = (names: readonly string[]): string[][] =>
  Array.from({ length: Math.ceil(names.length / mostOnLine) }, (_, at) =>
    names.slice(at * mostOnLine, (at + 1) * mostOnLine),
  );

/**
 * Devices and the cables between them as a typed topology: what they are, where they stand, which port leads to which.
 * Read over the same network it changes nothing; read into an empty project it makes the same. Of a breakout only its
 * first plugs are told; racks, labels and circuits are not.
 */
export function writeTyped(network: Network, deviceIds: Iterable<string>): string {
  const devices = [...new Set(deviceIds)].flatMap((id) => network.get('device', id) ?? []).sort(byName);
  const chosen = new Set(devices.map((device) => device.id));
  const what = grouped(devices, (device) => {
    const model = network.get('model', device.modelId);
    return model === null ? null : sortText(network, model);
  }).flatMap(([sort, names]) => chunks(names).map((some) => `${some.join(' ')}: ${sort}`));
  const bare = devices.filter((device) => network.get('model', device.modelId) === null);
  const where = grouped(
    devices,
    (device) => placePath(network, placeOfDevice(network, device)) || null,
  ).flatMap(([path, names]) =>
    chunks(names).map((some) => `in "${path.replaceAll('"', '')}": ${some.join(' ')}`),
  );
  const links: string[] = [];
  const told = new Set<string>();
  for (const device of devices)
    for (const port of portsOf(network, device.id)) {
      const cable = cableAt(network, port.id);
      if (cable === null || told.has(cable.id)) continue;
      const far = network.get('port', otherEnd(network, cable, port.id));
      const other = network.get('device', far?.deviceId ?? null);
      if (far === null || other === null || !chosen.has(other.id)) continue;
      told.add(cable.id);
      links.push(
        `${typedName(device.name)} ${typedName(port.name)} -- ${typedName(other.name)} ${typedName(far.name)}`,
      );
    }
  return [...what, ...bare.map((device) => typedName(device.name)), ...where, ...links].join('\n');
}

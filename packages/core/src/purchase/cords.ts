import { cableTypes } from '../cabling/match.ts';
import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Network } from '../model/network/network.ts';
import { plugsInto } from '../model/network/plugs.ts';
import { isFree } from '../model/network/ports.ts';
import { byName } from '../model/values/order.ts';
import type { Connector } from '../model/values/connectors.ts';

/** How long a power cord is that nobody drew: from the rear of a device to the strip at the side of its rack. */
export const cordLengthM = 2;

/** A cord that an inlet needs; without a type where none that fits is in the catalogue. */
export interface Cord {
  inlet: Connector;
  type: CatalogueModel | null;
}

/** The outlets that the strips of a rack have. */
function outletsIn(network: Network, rackId: string | null): Set<Connector> {
  const found = new Set<Connector>();
  if (rackId === null) return found;
  for (const device of network.find('devicesByRack', rackId))
    for (const { role, connector } of network.find('portsByDevice', device.id))
      if (role === 'powerOut' && connector !== null) found.add(connector);
  return found;
}

/** Power cord types whose one end goes into the inlet, and whose other end into one of the outlets where they are known. */
function cordFor(
  types: readonly CatalogueModel[],
  inlet: Connector,
  outlets: ReadonlySet<Connector>,
): CatalogueModel | null {
  const fits = (at: Connector, far: Connector): boolean =>
    plugsInto(at, inlet) && (outlets.size === 0 || [...outlets].some((outlet) => plugsInto(far, outlet)));
  const fitting = types.filter(({ ends }) => {
    const [one, other] = ends ?? [];
    return one !== undefined && other !== undefined && (fits(one, other) || fits(other, one));
  });
  // Where nobody knows what it is plugged into, only one that there is no other beside is known.
  return outlets.size > 0 || fitting.length === 1 ? (fitting[0] ?? null) : null;
}

/** The cords of devices that are planned: one for each inlet in which no cable is drawn. */
export function cordsOf(network: Network): (device: Device) => Cord[] {
  const types = cableTypes(network)
    .filter(({ medium }) => medium === 'power')
    .sort(byName);
  const outlets = new Map<string | null, Set<Connector>>();
  return (device) => {
    const cords: Cord[] = [];
    for (const { id, role, connector } of network.find('portsByDevice', device.id)) {
      if (role !== 'powerIn' || connector === null || !isFree(network, id)) continue;
      const known = outlets.get(device.rackId) ?? outletsIn(network, device.rackId);
      outlets.set(device.rackId, known);
      cords.push({ inlet: connector, type: cordFor(types, connector, known) });
    }
    return cords;
  };
}

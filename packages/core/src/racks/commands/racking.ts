import { create, update, type ChangeSet } from '../../change/change.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { whereIs } from '../../model/network/places.ts';
import { unitsTouched } from '../occupancy.ts';
import { candidateOf, refusals } from '../placing.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { FitPlan } from '../fit.ts';

export interface Spot {
  rackId: string | null;
  unit: number | null;
  face?: Device['face'];
  side?: Device['side'];
  placeId?: string | null;
}

const named = (devices: readonly Device[]): string =>
  devices.length === 1 ? (devices[0]?.name ?? '') : `${devices.length} devices`;

/** Mass and power of a rack after devices from elsewhere came in; space is judged when the changes are tried. */
function overLimit(network: Network, rack: Rack, incoming: readonly Device[]): string | null {
  let massKg = 0;
  let maxW = 0;
  for (const device of incoming) {
    const candidate = candidateOf(network, device);
    massKg += candidate.massKg ?? 0;
    maxW += candidate.maxW;
  }
  const together = { ...blankDevice, name: named(incoming), massKg, maxW, units: 0 };
  return (
    refusals(network, rack, together, null).find(({ why }) => why === 'mass' || why === 'feed')?.text ?? null
  );
}

/** Puts a device at another unit, rack, face or side; whether it can stand there is for applyChanges to say. */
export function moveDevice(network: Network, device: Device, to: Spot): ChangeSet {
  const after: Partial<Device> = {
    rackId: to.rackId,
    unit: to.unit,
    face: to.face ?? device.face,
    side: to.side ?? device.side,
    placeId:
      to.rackId === null
        ? (to.placeId ?? network.get('rack', device.rackId)?.placeId ?? device.placeId)
        : null,
    feed: to.rackId === device.rackId ? device.feed : null,
  };
  const change = update('device', device, after);
  return {
    changes: change === null ? [] : [change],
    sentence: `Moved ${device.name} from ${whereIs(network, device)} to ${whereIs(network, { ...device, ...after })}`,
  };
}

/** Puts one device somewhere else; refused with the reason when it does not fit, weighs or draws too much. */
export function tryMove(network: Network, device: Device, to: Spot): Attempt {
  const rack = network.get('rack', to.rackId);
  if (rack !== null) {
    const candidate = {
      ...candidateOf(network, device),
      face: to.face ?? device.face,
      side: to.side ?? device.side,
    };
    const found = refusals(network, rack, candidate, to.unit, new Set([device.id]));
    if (found.length > 0) return refuse(found.map((one) => one.text).join('; '));
  }
  const { changes, sentence } = moveDevice(network, device, to);
  return judged(network, changes, sentence);
}

/** Moves devices together by as many units, in their rack or into another, keeping their distances. */
export function moveBlock(
  network: Network,
  devices: readonly Device[],
  by: { units: number; rackId?: string },
): Attempt {
  const racked = devices.filter((device) => device.unit !== null);
  const rack = network.get('rack', by.rackId ?? racked[0]?.rackId ?? null);
  if (rack === null || racked.length === 0) return refuse('None of these stands in a rack.');
  const incoming = racked.filter((device) => device.rackId !== rack.id);
  const over = incoming.length === 0 ? null : overLimit(network, rack, incoming);
  if (over !== null) return refuse(over);
  for (const device of racked) {
    const unit = (device.unit ?? 0) + by.units;
    if (unit < 1 || unit + device.units > rack.units + 1)
      return refuse(`${device.name} would leave ${rack.name}, which has U1–U${rack.units}`);
  }
  const changes = racked.map((device) =>
    update('device', device, {
      unit: (device.unit ?? 0) + by.units,
      rackId: rack.id,
      ...(device.rackId === rack.id ? {} : { feed: null }),
    }),
  );
  const way = `${Math.abs(by.units)} U ${by.units > 0 === (rack.numbering === 'up') ? 'up' : 'down'}`;
  const where = incoming.length > 0 ? `to ${rack.name}` : way;
  return judged(network, changes, `Moved ${named(racked)} ${where}`);
}

/** Shifts everything that stands between two units of a rack. */
export function shiftBlock(network: Network, rack: Rack, from: number, to: number, units: number): Attempt {
  const inside = network
    .find('devicesByRack', rack.id)
    .filter((device) => device.unit !== null && device.unit >= from && device.unit + device.units - 1 <= to);
  if (inside.length === 0) return refuse(`Nothing stands between U${from} and U${to} of ${rack.name}.`);
  return moveBlock(network, inside, { units });
}

/** Exchanges the places of two devices. */
export function swapDevices(network: Network, a: Device, b: Device): Attempt {
  const spot = (device: Device): Partial<Device> => ({
    rackId: device.rackId,
    unit: device.unit,
    face: device.face,
    side: device.side,
    placeId: device.placeId,
  });
  if (a.unit === null || b.unit === null) return refuse('Both must stand at a unit of a rack.');
  return judged(
    network,
    [
      update('device', a, {
        ...spot(b),
        ...(a.units !== b.units ? {} : { side: a.side === 'full' ? 'full' : b.side }),
      }),
      update('device', b, {
        ...spot(a),
        ...(a.units !== b.units ? {} : { side: b.side === 'full' ? 'full' : a.side }),
      }),
    ],
    `Swapped ${a.name} and ${b.name}`,
  );
}

/** A blank panel in every free unit at the front of a rack, or in the given ones. */
export function fillBlanks(network: Network, rack: Rack, only: readonly number[] | null = null): Attempt {
  const taken = new Set(
    network
      .find('devicesByRack', rack.id)
      .filter((device) => device.face === 'front' || device.fillsBothFaces)
      .flatMap(unitsTouched),
  );
  const model = [...network.all('model')].find(
    (one) => one.part === 'blank' && one.units === 1 && !one.retired,
  );
  if (model === undefined) return refuse('The catalogue has no blank panel of 1 U. Add one first.');
  const free = (only ?? Array.from({ length: rack.units }, (_, at) => at + 1)).filter(
    (unit) => !taken.has(unit),
  );
  if (free.length === 0) return refuse(`${rack.name} has no free unit at the front.`);
  const changes = free.map((unit) =>
    create('device', {
      ...blankDevice,
      id: newId(),
      name: freeName(network, `${rack.name}-blank-${unit}`),
      role: model.role ?? 'XX',
      modelId: model.id,
      rackId: rack.id,
      unit,
      units: model.units,
      fillsBothFaces: model.fillsBothFaces,
    }),
  );
  return judged(network, changes, `Filled ${free.length} units of ${rack.name} with ${modelTitle(model)}`);
}

/** The name itself, or with a number behind it when it is taken. */
export function freeName(network: Network, wanted: string): string {
  let name = wanted;
  for (let number = 2; network.findOne('deviceByName', name.toLowerCase()) !== null; number++)
    name = `${wanted}-${number}`;
  return name;
}

/** Takes devices out of their racks; they stay in the room. */
export function takeOut(network: Network, devices: readonly Device[]): Attempt {
  const racked = devices.filter((device) => device.rackId !== null);
  if (racked.length === 0) return refuse('None of these stands in a rack.');
  const changes = racked.map((device) =>
    update('device', device, {
      rackId: null,
      unit: null,
      feed: null,
      placeId: network.get('rack', device.rackId)?.placeId ?? null,
    }),
  );
  return judged(
    network,
    changes,
    `Took ${named(racked)} out of ${racked.length === 1 ? 'its rack' : 'their racks'}`,
  );
}

/** Makes an accepted fit: every proposed device at its place, on its feed. */
export function acceptFit(network: Network, plan: FitPlan): Attempt {
  const racks = new Set<string>();
  const changes = plan.placements.map((placement) => {
    const device = network.get('device', placement.deviceId);
    racks.add(network.get('rack', placement.rackId)?.name ?? '');
    return device === null
      ? null
      : update('device', device, {
          rackId: placement.rackId,
          unit: placement.unit,
          side: placement.side,
          feed: placement.feed,
          placeId: null,
        });
  });
  if (changes.length === 0) return refuse('Nothing was proposed.');
  return judged(network, changes, `Fitted ${changes.length} devices into ${[...racks].sort().join(', ')}`);
}

import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import type { Problem } from '../../model/fields/problem.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';

/** The part of a rack a device fills: everything that decides whether two can stand there together. */
export type Body = Pick<Device, 'unit' | 'units' | 'face' | 'fillsBothFaces' | 'side'>;

/** From the lower edge of its lowest-numbered unit up to, not including, `to`; null when it stands at the side. */
export const unitsFilled = (device: Pick<Device, 'unit' | 'units'>): { from: number; to: number } | null =>
  device.unit === null ? null : { from: device.unit, to: device.unit + device.units };

/** Whether two devices of one rack would need the same space: units, depth and width all overlap. */
export function collide(a: Body, b: Body): boolean {
  const left = unitsFilled(a);
  const right = unitsFilled(b);
  if (left === null || right === null || left.from >= right.to || right.from >= left.to) return false;
  if (!(a.fillsBothFaces || b.fillsBothFaces || a.face === b.face)) return false;
  return a.side === 'full' || b.side === 'full' || a.side === b.side;
}

const number = (unit: number): string => (Number.isInteger(unit) ? String(unit) : `${Math.floor(unit)}½`);

/** "U12", "U12–U13" or "the side": how people say where a device stands. */
export function spanText(device: Pick<Device, 'unit' | 'units'>): string {
  if (device.unit === null) return 'the side';
  const last = device.unit + Math.max(device.units, 1) - 1;
  return last <= device.unit ? `U${number(device.unit)}` : `U${number(device.unit)}–U${number(last)}`;
}

/** What stands in the way of a body in a rack, in words: "rtr-2 fills U3 from the rear". */
export function obstacle(body: Body, other: Device): string {
  const deep = other.face !== body.face;
  const why = !deep
    ? ''
    : other.fillsBothFaces && !body.fillsBothFaces
      ? `, reaching through from the ${other.face}`
      : ` at the ${other.face}, and the two together are too deep`;
  return `${other.name} fills ${spanText(other)}${other.side === 'full' ? '' : ` at the ${other.side}`}${why}`;
}

/** A device must lie inside its rack and collide with no other. */
export function deviceFitsRack(network: Network, device: Device): Problem[] {
  const rack = network.get('rack', device.rackId);
  if (rack === null || device.unit === null) return [];
  const problem = (message: string): Problem => ({
    code: 'impossible',
    kind: 'device',
    id: device.id,
    about: `device ${device.name}`,
    field: 'unit',
    message,
  });
  if (device.unit + device.units > rack.units + 1) {
    return [
      problem(
        `${device.name} would fill ${spanText(device)}, but ${rack.name} has ${rack.units} units: choose U${Math.max(1, Math.floor(rack.units - device.units + 1))} or lower.`,
      ),
    ];
  }
  for (const other of network.find('devicesByRack', rack.id)) {
    if (other.id === device.id || !collide(device, other)) continue;
    return [
      problem(
        `${device.name} cannot stand at ${spanText(device)} of ${rack.name}: ${obstacle(device, other)}. Choose a free unit.`,
      ),
    ];
  }
  return [];
}

/** A rack cannot become smaller than what stands in it. */
export function rackHoldsContents(network: Network, rack: Rack): Problem[] {
  const above = network
    .find('devicesByRack', rack.id)
    .filter((device) => (unitsFilled(device)?.to ?? 0) > rack.units + 1)
    .sort((a, b) => (b.unit ?? 0) - (a.unit ?? 0));
  const [highest] = above;
  if (highest === undefined) return [];
  const others = above.length === 1 ? '' : ` and ${above.length - 1} more above U${rack.units}`;
  return [
    {
      code: 'impossible',
      kind: 'rack',
      id: rack.id,
      about: `rack ${rack.name}`,
      field: 'units',
      message: `${rack.name} cannot have ${rack.units} units: ${highest.name} stands at ${spanText(highest)}${others}. Move ${above.length === 1 ? 'it' : 'them'} first.`,
    },
  ];
}

import type { Device } from '../../model/kinds/device.ts';
import type { Network } from '../../model/network.ts';
import type { Problem } from '../../model/problem.ts';
import type { Rack } from '../../model/kinds/rack.ts';

/** First and last unit a racked device fills. */
export const unitsFilled = (device: Pick<Device, 'unit' | 'units'>): { from: number; to: number } | null =>
  device.unit === null ? null : { from: device.unit, to: device.unit + device.units - 1 };

type Body = Pick<Device, 'unit' | 'units' | 'face' | 'fullDepth'>;

/** Whether two devices of one rack would need the same space: units overlap, and a face or the depth does. */
export function collide(a: Body, b: Body): boolean {
  const left = unitsFilled(a);
  const right = unitsFilled(b);
  if (left === null || right === null || left.from > right.to || right.from > left.to) return false;
  return a.fullDepth || b.fullDepth || a.face === b.face;
}

const span = (device: Body): string => {
  const filled = unitsFilled(device);
  if (filled === null) return 'the side';
  return filled.from === filled.to ? `U${filled.from}` : `U${filled.from}–U${filled.to}`;
};

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
  const top = device.unit + device.units - 1;
  if (top > rack.units) {
    return [
      problem(
        `${device.name} would fill ${span(device)}, but ${rack.name} has ${rack.units} units: choose U${Math.max(1, rack.units - device.units + 1)} or lower.`,
      ),
    ];
  }
  for (const other of network.find('devicesByRack', rack.id)) {
    if (other.id === device.id || !collide(device, other)) continue;
    const depth = other.face === device.face ? '' : ` from the ${other.face}`;
    return [
      problem(
        `${device.name} cannot stand at ${span(device)} of ${rack.name}: ${other.name} fills ${span(other)}${depth}. Choose a free unit.`,
      ),
    ];
  }
  return [];
}

/** A rack cannot become smaller than what stands in it. */
export function rackHoldsContents(network: Network, rack: Rack): Problem[] {
  for (const device of network.find('devicesByRack', rack.id)) {
    const filled = unitsFilled(device);
    if (filled === null || filled.to <= rack.units) continue;
    return [
      {
        code: 'impossible',
        kind: 'rack',
        id: rack.id,
        about: `rack ${rack.name}`,
        field: 'units',
        message: `${rack.name} cannot have ${rack.units} units: ${device.name} stands at ${span(device)}. Move it first.`,
      },
    ];
  }
  return [];
}

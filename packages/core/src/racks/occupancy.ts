import { collide, unitsFilled, type Body } from '../change/constraints/rackSpace.ts';
import type { Device } from '../model/kinds/device.ts';
import type { Rack } from '../model/kinds/rack.ts';
import type { Network } from '../model/network.ts';

export interface RackUse {
  units: number;
  used: number;
  free: number;
}

/** The whole units a device touches, half-filled ones included. */
export function unitsTouched(device: Pick<Device, 'unit' | 'units'>): number[] {
  const filled = unitsFilled(device);
  if (filled === null || filled.to === filled.from) return [];
  const units: number[] = [];
  for (let unit = Math.floor(filled.from); unit < filled.to; unit++) units.push(unit);
  return units;
}

/** Units of a rack with something in them, at the front or the rear, and units with nothing. */
export function rackUse(network: Network, rack: Rack): RackUse {
  const taken = new Set<number>();
  for (const device of network.find('devicesByRack', rack.id))
    for (const unit of unitsTouched(device)) taken.add(unit);
  return { units: rack.units, used: taken.size, free: rack.units - taken.size };
}

/** Devices of a rack in reading order: by unit from the top of the cabinet, those at the side last. */
export function rackContents(network: Network, rack: Rack): Device[] {
  const down = rack.numbering === 'down' ? 1 : -1;
  return network
    .find('devicesByRack', rack.id)
    .sort((a, b) => ((a.unit ?? down * 1000) - (b.unit ?? down * 1000)) * down || (a.name < b.name ? -1 : 1));
}

export type Standing = Omit<Body, 'unit'>;

/** Unit positions of the rack at which such a device would stand, highest first; `except` may be in the way. */
export function freePositions(
  network: Network,
  rack: Rack,
  body: Standing,
  except: string | null = null,
): number[] {
  if (body.units === 0) return [];
  const others = network.find('devicesByRack', rack.id).filter((other) => other.id !== except);
  return openPositions(rack, others, body);
}

/** As freePositions, among bodies that need not be in the network yet. Half-unit gear also fits at half units. */
export function openPositions(rack: Pick<Rack, 'units'>, others: readonly Body[], body: Standing): number[] {
  const positions: number[] = [];
  const step = Number.isInteger(body.units) ? 1 : 0.5;
  for (
    let unit = Math.floor(rack.units - body.units + 1 + (step === 0.5 ? 0.5 : 0));
    unit >= 1;
    unit -= step
  ) {
    if (unit + body.units > rack.units + 1) continue;
    if (!others.some((other) => collide({ ...body, unit }, other))) positions.push(unit);
  }
  return positions;
}

import { unitsFilled, type Body } from '../change/constraints/rackSpace.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';

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

/** The quarters of a half unit: front and rear, left and right, one bit each. */
const quarters = (body: Pick<Body, 'face' | 'fillsBothFaces' | 'side'>): number => {
  const depth = body.fillsBothFaces ? 0b1111 : body.face === 'front' ? 0b0011 : 0b1100;
  const width = body.side === 'full' ? 0b1111 : body.side === 'left' ? 0b0101 : 0b1010;
  return depth & width;
};

/** What is taken of a rack: for each half unit from the first, the quarters that are filled. */
export function takenHalves(units: number, bodies: readonly Body[]): Uint8Array {
  const taken = new Uint8Array(units * 2);
  for (const body of bodies) {
    if (body.unit === null) continue;
    const bits = quarters(body);
    const last = Math.min(taken.length, (body.unit + body.units - 1) * 2);
    for (let half = (body.unit - 1) * 2; half < last; half++) taken[half] = (taken[half] ?? 0) | bits;
  }
  return taken;
}

/** As freePositions, among bodies that need not be in the network yet. Half-unit gear also fits at half units. */
export function openPositions(rack: Pick<Rack, 'units'>, others: readonly Body[], body: Standing): number[] {
  return openIn(takenHalves(rack.units, others), body);
}

/** The positions left where this is taken, highest first. */
export function openIn(taken: Uint8Array, body: Standing): number[] {
  const positions: number[] = [];
  const bits = quarters(body);
  const height = body.units * 2;
  const step = Number.isInteger(body.units) ? 2 : 1;
  for (let start = taken.length - height; start >= 0; start--) {
    if (start % step !== 0) continue;
    let free = true;
    for (let half = start; half < start + height && free; half++) free = ((taken[half] ?? 0) & bits) === 0;
    if (free) positions.push(start / 2 + 1);
  }
  return positions;
}

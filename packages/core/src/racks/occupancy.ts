import { collide, unitsFilled } from '../change/constraints/rackSpace.ts';
import type { Device } from '../model/kinds/device.ts';
import type { Rack } from '../model/kinds/rack.ts';
import type { Network } from '../model/network.ts';

export interface RackUse {
  units: number;
  used: number;
  free: number;
}

/** Units of a rack with something in them, at the front or the rear, and units with nothing. */
export function rackUse(network: Network, rack: Rack): RackUse {
  const taken = new Set<number>();
  for (const device of network.find('devicesByRack', rack.id)) {
    const filled = unitsFilled(device);
    if (filled === null) continue;
    for (let unit = filled.from; unit <= filled.to; unit++) taken.add(unit);
  }
  return { units: rack.units, used: taken.size, free: rack.units - taken.size };
}

/** Devices of a rack in reading order: by unit from the top of the cabinet, those at the side last. */
export function rackContents(network: Network, rack: Rack): Device[] {
  const down = rack.numbering === 'down' ? 1 : -1;
  return network
    .find('devicesByRack', rack.id)
    .sort((a, b) => ((a.unit ?? down * 1000) - (b.unit ?? down * 1000)) * down || (a.name < b.name ? -1 : 1));
}

type Body = Pick<Device, 'units' | 'face' | 'fullDepth'>;

/** Unit positions of the rack at which such a device would stand, highest first; `except` may be in the way. */
export function freePositions(
  network: Network,
  rack: Rack,
  body: Body,
  except: string | null = null,
): number[] {
  if (body.units === 0) return [];
  const others = network.find('devicesByRack', rack.id).filter((other) => other.id !== except);
  const positions: number[] = [];
  for (let unit = rack.units - body.units + 1; unit >= 1; unit--) {
    if (!others.some((other) => collide({ ...body, unit }, other))) positions.push(unit);
  }
  return positions;
}

import type { Device } from '../model/kinds/equipment/device.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { addWatts, deviceMassKg, deviceWatts, noWatts, type Watts } from '../catalogue/figures.ts';
import { takenHalves } from './occupancy.ts';
import { rackMemo } from './rackMemo.ts';

/** What a rack holds, in the figures that decide whether more fits. */
export interface RackSummary {
  massKg: number;
  /** Devices whose model states no mass. */
  massUnknown: number;
  draw: Watts;
  /** Maximum draw of what does not itself pass power on: what the feeds have to carry. */
  loadW: number;
  taken: Uint8Array;
}

export const passesPowerOn = (device: Pick<Device, 'role'>): boolean =>
  device.role === 'PD' || device.role === 'UP';

function summarise(network: Network, rack: Rack): RackSummary {
  const devices = network.find('devicesByRack', rack.id);
  let massKg = 0;
  let massUnknown = 0;
  let draw = noWatts;
  let loadW = 0;
  for (const device of devices) {
    const watts = deviceWatts(network, device);
    const mass = deviceMassKg(network, device);
    if (mass === null) massUnknown++;
    else massKg += mass;
    draw = addWatts(draw, watts);
    if (!passesPowerOn(device)) loadW += watts.maxW;
  }
  const taken = takenHalves(rack.units, devices);
  return { massKg, massUnknown, draw, loadW, taken };
}

/** The summary of a rack; worked out once, and again only after something in the rack or a model has changed. */
export const rackSummary = rackMemo((network, rack) => ({ value: summarise(network, rack), linked: false }));

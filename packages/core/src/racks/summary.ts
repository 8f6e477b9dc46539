import type { Device } from '../model/kinds/device.ts';
import type { Rack } from '../model/kinds/rack.ts';
import type { Network, Touched } from '../model/network.ts';
import { addWatts, deviceMassKg, deviceWatts, noWatts, type Watts } from './figures.ts';
import { takenHalves } from './occupancy.ts';

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

/** Summaries known for a network. They are carried over to the networks made from it, but for the racks touched. */
const known = new WeakMap<Network, Map<string, RackSummary>>();
const mostSteps = 50;

const isKind = <K extends Touched['kind']>(touched: Touched, kind: K): boolean => touched.kind === kind;

/** The racks whose summary a touched row may have changed; null: all of them. */
function racksTouched(network: Network, touched: readonly Touched[]): Set<string> | null {
  const racks = new Set<string>();
  const add = (id: string | null | undefined): void => void (id != null && racks.add(id));
  for (const one of touched) {
    if (isKind(one, 'model')) return null;
    for (const row of [one.before, one.after] as (Record<string, string | null> | null)[]) {
      if (row === null) continue;
      if (isKind(one, 'device')) add(row['rackId']);
      else if (isKind(one, 'rack')) add(row['id']);
      else if (isKind(one, 'module')) add(network.get('device', row['deviceId'] ?? null)?.rackId);
    }
  }
  return racks;
}

function summariesOf(network: Network): Map<string, RackSummary> {
  const own = known.get(network);
  if (own !== undefined) return own;
  const stale = new Set<string>();
  let kept = new Map<string, RackSummary>();
  let at: Network | undefined = network;
  for (let step = 0; step < mostSteps && at?.origin != null; step++) {
    const racks = racksTouched(at, at.origin.touched);
    if (racks === null) break;
    for (const id of racks) stale.add(id);
    at = at.origin.base.deref();
    const earlier = at === undefined ? undefined : known.get(at);
    if (earlier === undefined) continue;
    kept = new Map(earlier);
    for (const id of stale) kept.delete(id);
    break;
  }
  known.set(network, kept);
  return kept;
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
  return { massKg, massUnknown, draw, loadW, taken: takenHalves(rack.units, devices) };
}

/** The summary of a rack; worked out once, and again only after something in the rack or a model has changed. */
export function rackSummary(network: Network, rack: Rack): RackSummary {
  const summaries = summariesOf(network);
  const found = summaries.get(rack.id);
  if (found !== undefined) return found;
  const made = summarise(network, rack);
  summaries.set(rack.id, made);
  return made;
}

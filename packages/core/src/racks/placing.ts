import { grouped } from '../model/values/numbers.ts';
import { collide, obstacle, spanText, type Body } from '../change/constraints/rackSpace.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { deviceMassKg, deviceWatts } from '../catalogue/figures.ts';
import { usableW } from './power.ts';
import { passesPowerOn, rackSummary } from './summary.ts';

/** Something to be put into a rack: a device that is there, or one of a model still to be made. */
export interface Candidate extends Omit<Body, 'unit'> {
  name: string;
  massKg: number | null;
  maxW: number;
}

export const candidateOf = (network: Network, device: Device): Candidate => ({
  name: device.name,
  units: device.units,
  face: device.face,
  fillsBothFaces: device.fillsBothFaces,
  side: device.side,
  massKg: deviceMassKg(network, device),
  maxW: passesPowerOn(device) ? 0 : deviceWatts(network, device).maxW,
});

export interface Refusal {
  why: 'space' | 'height' | 'mass' | 'feed' | 'posts';
  text: string;
}

/** Mass and load of what stands in a rack, those given left out. */
export function rackLoad(
  network: Network,
  rack: Rack,
  except: ReadonlySet<string>,
): { massKg: number; maxW: number } {
  let { massKg, loadW: maxW } = rackSummary(network, rack);
  for (const id of except) {
    const device = network.get('device', id);
    if (device?.rackId !== rack.id) continue;
    massKg -= deviceMassKg(network, device) ?? 0;
    if (!passesPowerOn(device)) maxW -= deviceWatts(network, device).maxW;
  }
  return { massKg, maxW };
}

/** Watts a rack may draw in all; null where no feed is stated. */
export const rackUsableW = (rack: Rack): number | null =>
  rack.feeds.length === 0 ? null : rack.feeds.reduce((sum, feed) => sum + usableW(feed), 0);

const kilos = (value: number): string => `${Math.round(value * 10) / 10} kg`;

/**
 * Why a candidate cannot be put at a unit of a rack; empty when it can. Space is judged against what stands
 * there (but for those in `except`), then the height, the mass limit and the power of the rack's feeds.
 */
export function refusals(
  network: Network,
  rack: Rack,
  candidate: Candidate,
  unit: number | null,
  except: ReadonlySet<string> = new Set(),
): Refusal[] {
  const found: Refusal[] = [];
  const { name } = candidate;
  if (unit !== null && (unit < 1 || unit + candidate.units > rack.units + 1))
    found.push({
      why: 'height',
      text: `${name} needs ${spanText({ unit, units: candidate.units })}, and ${rack.name} has U1–U${rack.units}`,
    });
  const body = { ...candidate, unit };
  for (const other of network.find('devicesByRack', rack.id)) {
    if (except.has(other.id) || !collide(body, other)) continue;
    found.push({ why: 'space', text: obstacle(body, other) });
  }
  const load = rackLoad(network, rack, except);
  if (
    rack.massLimitKg !== null &&
    candidate.massKg !== null &&
    load.massKg + candidate.massKg > rack.massLimitKg
  )
    found.push({
      why: 'mass',
      text: `${name} weighs ${kilos(candidate.massKg)}: ${rack.name} would hold ${kilos(load.massKg + candidate.massKg)} of at most ${kilos(rack.massLimitKg)}`,
    });
  const usable = rackUsableW(rack);
  if (usable !== null && candidate.maxW > 0 && load.maxW + candidate.maxW > usable)
    found.push({
      why: 'feed',
      text: `${name} draws up to ${grouped(candidate.maxW)} W: ${rack.name} would draw ${grouped(load.maxW + candidate.maxW)} W of ${grouped(usable)} W its feeds can carry`,
    });
  return found;
}

import { grouped } from '../model/values/numbers.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { placeChain, placesWithin } from '../model/network/places.ts';
import { openIn, type Standing } from './occupancy.ts';
import { rackUsableW } from './placing.ts';
import { rackSummary } from './summary.ts';

/** What is to be put somewhere: "4 units, 28 kg, 900 W, near the data room". */
export interface Need {
  units: number;
  massKg: number | null;
  maxW: number | null;
  /** Racks of this place come first, then those of the places around it. */
  nearPlaceId: string | null;
}

export interface Fitting {
  rack: Rack;
  fits: boolean;
  /** The highest position that is free, counted from unit 1; null when none is. */
  unit: number | null;
  freePositions: number;
  /** Kilograms and watts left after it is in; null where the rack states no limit. */
  massLeftKg: number | null;
  powerLeftW: number | null;
  /** Steps in the tree of places from where it was wanted. */
  distance: number;
  /** The figure that decides, in words: "92 kg left after it" or "longest free run is 2 U". */
  limit: string;
}

/** The longest run of free units over the full depth. */
function longestRun(rack: Rack, positions: ReadonlySet<number>): number {
  let longest = 0;
  let run = 0;
  for (let unit = 1; unit <= rack.units; unit++) {
    run = positions.has(unit) ? run + 1 : 0;
    longest = Math.max(longest, run);
  }
  return longest;
}

function distances(network: Network, placeId: string | null): (rackPlaceId: string) => number {
  if (placeId === null) return () => 0;
  const rings = [...placeChain(network, placeId)].reverse().map((place) => placesWithin(network, place.id));
  const known = new Map<string, number>();
  return (id) => {
    const cached = known.get(id);
    if (cached !== undefined) return cached;
    const ring = rings.findIndex((within) => within.has(id));
    const distance = ring < 0 ? rings.length : ring;
    known.set(id, distance);
    return distance;
  };
}

function fitting(network: Network, rack: Rack, need: Need, distance: number): Fitting {
  const standing: Standing = { units: need.units, face: 'front', fillsBothFaces: true, side: 'full' };
  const summary = rackSummary(network, rack);
  const free = need.units === 0 ? [] : openIn(summary.taken, standing);
  const massLeftKg =
    rack.massLimitKg === null ? null : rack.massLimitKg - summary.massKg - (need.massKg ?? 0);
  const usable = rackUsableW(rack);
  const powerLeftW = usable === null ? null : usable - summary.loadW - (need.maxW ?? 0);
  const limits: string[] = [];
  if (need.units > 0 && free.length === 0) {
    const single = new Set(openIn(summary.taken, { ...standing, units: 1 }));
    limits.push(`longest free run is ${longestRun(rack, single)} U`);
  }
  if (massLeftKg !== null && massLeftKg < 0)
    limits.push(`${grouped(Math.ceil(-massLeftKg))} kg over its mass limit`);
  if (powerLeftW !== null && powerLeftW < 0)
    limits.push(`${grouped(Math.ceil(-powerLeftW))} W over what its feeds carry`);
  const fits = limits.length === 0;
  const spare: [number, string][] = [[free.length / rack.units, `${free.length} free positions`]];
  if (massLeftKg !== null && rack.massLimitKg !== null)
    spare.push([massLeftKg / rack.massLimitKg, `${grouped(Math.floor(massLeftKg))} kg left after it`]);
  if (powerLeftW !== null && usable !== null)
    spare.push([powerLeftW / usable, `${grouped(Math.floor(powerLeftW))} W left after it`]);
  const [scarcest] = spare.sort((a, b) => a[0] - b[0]);
  return {
    rack,
    fits,
    unit: free[0] ?? null,
    freePositions: free.length,
    massLeftKg,
    powerLeftW,
    distance,
    limit: fits ? (scarcest?.[1] ?? '') : limits.join(', '),
  };
}

/**
 * Racks ranked for something to be put in: those where it fits, nearest first and then by the share left of
 * their scarcest figure; then those where it does not, each with the figure that forbids it.
 */
export function whereFits(network: Network, racks: readonly Rack[], need: Need): Fitting[] {
  const distanceOf = distances(network, need.nearPlaceId);
  const scarcity = (one: Fitting): number =>
    Math.min(
      one.freePositions / one.rack.units,
      one.massLeftKg === null ? 1 : one.massLeftKg / (one.rack.massLimitKg ?? 1),
      one.powerLeftW === null ? 1 : one.powerLeftW / (rackUsableW(one.rack) ?? 1),
    );
  return racks
    .map((rack) => fitting(network, rack, need, distanceOf(rack.placeId)))
    .map((one) => ({ one, scarcity: scarcity(one) }))
    .sort(
      (a, b) =>
        Number(b.one.fits) - Number(a.one.fits) ||
        a.one.distance - b.one.distance ||
        b.scarcity - a.scarcity ||
        (a.one.rack.name < b.one.rack.name ? -1 : 1),
    )
    .map(({ one }) => one);
}

/** Reads "4 units, 28 kg, 900 W": any of the three, in any order. Null when nothing of it can be read. */
export function readNeed(text: string): Omit<Need, 'nearPlaceId'> | null {
  const figure = (unit: string): number | null => {
    const match = new RegExp(`(\\d+(?:[.,]\\d+)?)\\s*(?:${unit})\\b`, 'i').exec(text);
    return match?.[1] === undefined ? null : Number(match[1].replace(',', '.'));
  };
  const units = figure('units?|u');
  const massKg = figure('kg');
  const kilowatts = figure('kw');
  const maxW = kilowatts === null ? figure('w|watts?') : kilowatts * 1000;
  if (units === null && massKg === null && maxW === null) return null;
  return { units: units ?? 1, massKg, maxW };
}

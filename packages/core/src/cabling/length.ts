import type { Device } from '../model/kinds/equipment/device.ts';
import type { Place } from '../model/kinds/sites/place.ts';
import type { CablingRules } from '../model/kinds/sites/project.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Rack } from '../model/kinds/sites/rack.ts';
import type { Network } from '../model/network/network.ts';
import { placeChain, placeOfDevice } from '../model/network/places.ts';
import { unitHeightMm } from '../catalogue/faceplate.ts';
import { cablingRules } from './rules.ts';

export interface LengthLine {
  text: string;
  metres: number;
}
export interface LengthEstimate {
  metres: number;
  /** What the sum is made of, in the order of the way. */
  lines: LengthLine[];
  /** The sum in words: "0.2 m along the rack + 2 × 0.5 m slack". */
  arithmetic: string;
}

const unitM = unitHeightMm / 1000;
/** Height of the lowest unit above the floor, and depth of a rack of unknown depth. */
const plinthM = 0.1;
const usualDepthM = 0.8;
/** Height of a device that stands in no rack: a desk. */
const deskM = 0.8;

const one = (value: number): string => String(Math.round(value * 10) / 10);

function finished(lines: LengthLine[], rules: CablingRules): LengthEstimate {
  const all = [...lines, { text: 'slack at both ends', metres: 2 * rules.slackM }].filter(
    (line) => line.metres > 0,
  );
  return {
    metres: all.reduce((sum, line) => sum + line.metres, 0),
    lines: all,
    arithmetic: all.map((line) => `${one(line.metres)} ${line.text}`).join(' + '),
  };
}

/** Height of a device's middle above the floor. */
function heightOf(rack: Rack, device: Device): number {
  const middle = (device.unit ?? Math.ceil(rack.units / 2)) - 1 + device.units / 2;
  const units = rack.numbering === 'up' ? middle : rack.units - middle;
  return plinthM + units * unitM;
}

const trayOf = (network: Network, placeId: string | null): number | null =>
  placeChain(network, placeId).reduce<number | null>((height, place) => place.trayHeightM ?? height, null);

/** From a device up to the tray of its place: beside the gear to the vertical manager, then up. */
function toTray(network: Network, device: Device, rules: CablingRules, up: 'up' | 'down'): LengthLine[] {
  const rack = network.get('rack', device.rackId);
  const tray = trayOf(network, placeOfDevice(network, device));
  if (rack === null)
    return [
      {
        text: `${up} ${up === 'up' ? 'from' : 'to'} ${device.name}`,
        metres: Math.max(0, (tray ?? 2.6) - deskM),
      },
    ];
  const top = tray ?? plinthM + rack.units * unitM + rules.trayRiseM;
  return [
    { text: `to the side of ${rack.name}`, metres: device.unit === null ? 0 : rules.sideM },
    { text: `${up} ${up === 'up' ? 'to' : 'from'} the tray`, metres: Math.abs(top - heightOf(rack, device)) },
  ];
}

/** The shortest way over pathways between two places or those around them, in metres; null when there is none. */
function overPathways(
  network: Network,
  from: Place[],
  to: Place[],
): { metres: number; names: string[] } | null {
  if (network.count('pathway') === 0) return null;
  const goals = new Set(to.map((place) => place.id));
  const best = new Map<string, { metres: number; names: string[] }>(
    from.map((place) => [place.id, { metres: 0, names: [] }]),
  );
  const open = new Set(best.keys());
  while (open.size > 0) {
    let at = '';
    let least = Infinity;
    for (const id of open) {
      const metres = best.get(id)?.metres ?? Infinity;
      if (metres < least) [at, least] = [id, metres];
    }
    open.delete(at);
    const here = best.get(at);
    if (here === undefined) return null;
    if (goals.has(at) && here.names.length > 0) return here;
    for (const pathway of network.find('pathwaysByPlace', at)) {
      const next = pathway.aPlaceId === at ? pathway.bPlaceId : pathway.aPlaceId;
      const metres = here.metres + pathway.lengthM;
      if (metres >= (best.get(next)?.metres ?? Infinity)) continue;
      best.set(next, { metres, names: [...here.names, pathway.name] });
      open.add(next);
    }
  }
  return null;
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const earthM = 6371008.8;

/** Great-circle distance by the haversine formula, on the mean radius of the Earth (IUGG). */
export function distanceM(
  a: { latitude: number; longitude: number },
  b: { latitude: number; longitude: number },
): number {
  const dLat = radians(b.latitude - a.latitude);
  const dLon = radians(b.longitude - a.longitude);
  const h =
    Math.sin(dLat / 2) ** 2 +
    Math.cos(radians(a.latitude)) * Math.cos(radians(b.latitude)) * Math.sin(dLon / 2) ** 2;
  return 2 * earthM * Math.asin(Math.sqrt(h));
}

/** Straight distance of two places: by their metres within the site, otherwise by coordinates. */
function straight(from: Place[], to: Place[]): number | null {
  const located = (chain: Place[]): Place | undefined =>
    chain.findLast((place) => place.eastM !== null && place.northM !== null);
  const [a, b] = [located(from), located(to)];
  if (from[0]?.id === to[0]?.id && a !== undefined && b !== undefined && a.id !== b.id)
    return Math.hypot(
      (a.eastM ?? 0) - (b.eastM ?? 0),
      (a.northM ?? 0) - (b.northM ?? 0),
      (a.levelM ?? 0) - (b.levelM ?? 0),
    );
  const placed = (chain: Place[]): { latitude: number; longitude: number } | null => {
    const place = chain.findLast((one) => one.latitude !== null && one.longitude !== null);
    return place?.latitude == null || place.longitude === null
      ? null
      : { latitude: place.latitude, longitude: place.longitude };
  };
  const [left, right] = [placed(from), placed(to)];
  if (from[0]?.id === to[0]?.id || left === null || right === null) return null;
  return distanceM(left, right);
}

/** The way between two places in lines; null where neither pathways nor positions tell it. */
function between(
  network: Network,
  from: string | null,
  to: string | null,
  rules: CablingRules,
): LengthLine[] | null {
  const [a, b] = [placeChain(network, from), placeChain(network, to)];
  const way = overPathways(network, a.slice().reverse(), b.slice().reverse());
  if (way !== null) return [{ text: `over ${way.names.join(', ')}`, metres: way.metres }];
  const metres = straight(a, b);
  if (metres === null) return null;
  return [{ text: `${one(metres)} m straight × ${rules.detour}`, metres: metres * rules.detour }];
}

/**
 * The length a cable needs between two devices, line by line: in one rack over its vertical manager; between racks
 * of one place up to the tray, along it and down; between places over the pathways where they are drawn, otherwise
 * the straight distance times the project's factor. Null where the model does not know the way.
 */
export function estimateLength(network: Network, a: Device, b: Device): LengthEstimate | null {
  const rules = cablingRules(network);
  const left = network.get('rack', a.rackId);
  const right = network.get('rack', b.rackId);
  if (left !== null && left.id === right?.id) {
    const apart = Math.abs(heightOf(left, a) - heightOf(left, b));
    const atSide = a.unit === null || b.unit === null;
    const through = a.face !== b.face && !a.fillsBothFaces && !b.fillsBothFaces;
    return finished(
      [
        { text: 'to the side and back', metres: (atSide ? 1 : 2) * rules.sideM },
        { text: 'along the rack', metres: apart },
        {
          text: 'through to the other face',
          metres: through ? (left.depthMm ?? usualDepthM * 1000) / 1000 : 0,
        },
      ],
      rules,
    );
  }
  const ends = [toTray(network, a, rules, 'up'), toTray(network, b, rules, 'down')] as const;
  const [from, to] = [placeOfDevice(network, a), placeOfDevice(network, b)];
  if (from === null || to === null) return null;
  let middle: LengthLine[] | null = null;
  if (from === to && left !== null && right !== null) {
    const steps = Math.max(1, Math.abs(left.position - right.position));
    middle = [{ text: `along the tray, ${steps} × ${rules.rackPitchM} m`, metres: steps * rules.rackPitchM }];
  } else if (from !== to) middle = between(network, from, to, rules);
  if (middle === null) return null;
  return finished([...ends[0], ...middle, ...ends[1].slice().reverse()], rules);
}

/** Straight distance of two racks in metres, centre to centre; null where the model does not know it. */
export function rackDistanceM(network: Network, a: Rack, b: Rack): number | null {
  if (a.placeId === b.placeId) return Math.abs(a.position - b.position) * cablingRules(network).rackPitchM;
  return straight(placeChain(network, a.placeId), placeChain(network, b.placeId));
}

/** The metres between two ports' devices, as far as the model knows the way. */
export function neededM(network: Network, a: Port, b: Port): number | null {
  const left = network.get('device', a.deviceId);
  const right = network.get('device', b.deviceId);
  return left === null || right === null ? null : (estimateLength(network, left, right)?.metres ?? null);
}

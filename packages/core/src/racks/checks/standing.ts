import { update } from '../../change/change.ts';
import { defineRule, type Rule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { judged } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import type { Network } from '../../model/network/network.ts';
import { isPlaced, placeOfDevice, placePath } from '../../model/network/places.ts';
import { hasCase } from '../../model/values/roles.ts';
import { compareNames } from '../../model/values/order.ts';
import { formatVids } from '../../model/values/vids.ts';
import { fillBlanks } from '../commands/racking.ts';
import { nextDeviceName } from '../deviceNames.ts';
import { takenHalves } from '../occupancy.ts';

/** A drawing may come before its places; once some gear has one, the rest is missing it. */
const notPlaced = defineRule({
  key: 'device-not-placed',
  title: 'Gear that stands nowhere',
  why: 'Nobody finds what has no place: it is in no elevation, its cables have no length, its power is counted nowhere.',
  reads: { device: ['placeId', 'rackId', 'role', 'status'] },
  find: (network) => {
    // What is only imagined, or somebody else's, stands nowhere; drawn before any place is given, nothing does.
    const open = network
      .find('devicesNotPlaced', 'not placed yet')
      .filter(({ role, status }) => hasCase(role) && status === 'active');
    const placed = network.count('device') - network.countOf('devicesNotPlaced', 'not placed yet');
    if (placed === 0) return [];
    return open.map(({ id }) => ({
      severity: 'warn' as const,
      subjects: [{ kind: 'device' as const, id }],
      facts: {},
    }));
  },
  says: (_facts, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} is active and stands nowhere. Put it into a rack or a place.`,
});

const isBlank = (network: Network, device: Device): boolean =>
  network.get('model', device.modelId)?.part === 'blank';

/** Whole units of a rack whose front is open, from the lowest. */
function openFronts(network: Network, rack: Rack): number[] {
  const taken = takenHalves(rack.units, network.find('devicesByRack', rack.id));
  const front = 0b0011;
  return Array.from({ length: rack.units }, (_, at) => at + 1).filter(
    (unit) => ((taken[(unit - 1) * 2] ?? 0) & (taken[unit * 2 - 1] ?? 0) & front) !== front,
  );
}

/** Says nothing before the first blank is mounted: then blanking is how this house does it. */
const blanksMissing = defineRule({
  key: 'rack-blanks-missing',
  title: 'Open units without a blank',
  why: 'Through an open unit warm air comes back to the cold side: what stands beside it runs hotter.',
  standard: 'ASHRAE TC 9.9; EN 50600-2-3',
  reads: {
    device: ['rackId', 'unit', 'units', 'face', 'fillsBothFaces', 'side', 'modelId', 'status'],
    rack: ['units', 'posts'],
    model: ['part'],
  },
  find: (network) => {
    const blanked = new Set(
      [...network.all('device')].filter((device) => isBlank(network, device)).map(({ rackId }) => rackId),
    );
    if (blanked.size === 0) return [];
    return [...network.all('rack')].flatMap((rack) => {
      // An open frame has no cold side; an empty rack has no warm one.
      if (rack.posts !== 4 || network.countOf('devicesByRack', rack.id) === 0) return [];
      const open = openFronts(network, rack);
      if (open.length === 0) return [];
      return [
        {
          severity: 'warn' as const,
          subjects: [{ kind: 'rack' as const, id: rack.id }],
          facts: { open },
        },
      ];
    });
  },
  says: ({ open }, network, [rack]) =>
    `${open.length} ${open.length === 1 ? 'unit' : 'units'} of ${nameOf(network, 'rack', rack?.id ?? null)} ${open.length === 1 ? 'is' : 'are'} open at the front: ${formatVids(open)}. Close them with blanks.`,
  mends: ({ open }, network, [subject]) => {
    const rack = network.get('rack', subject?.id ?? null);
    if (rack === null) return [];
    return [
      {
        wish: `Close ${open.length === 1 ? 'it with a blank' : `them with ${open.length} blanks`}`,
        way: 'Close the open units with blanks',
        attempt: fillBlanks(network, rack, open),
      },
    ];
  },
});

type Way = 'front' | 'rear';

/** Which side of the rack a device draws its air from; null: it does not say, or draws it from elsewhere. */
function intake(network: Network, device: Device): Way | null {
  const airflow = network.get('model', device.modelId)?.airflow ?? null;
  if (airflow !== 'front to rear' && airflow !== 'rear to front') return null;
  return (airflow === 'front to rear') === (device.face === 'front') ? 'front' : 'rear';
}

/** The racks that stand in one row: of one place, facing one way. */
const rowOf = (rack: Rack): string => `${rack.placeId} ${rack.facing ?? ''}`;

const againstTheRow = defineRule({
  key: 'airflow-against-row',
  title: 'Air blown into the cold side',
  why: 'A device that draws its air where the others of its row blow theirs out takes in warm air, and warms theirs.',
  standard: 'ASHRAE TC 9.9; EN 50600-2-3',
  reads: { device: ['rackId', 'face', 'modelId', 'status'], model: ['airflow'], rack: ['placeId', 'facing'] },
  find: (network) => {
    const rows = new Map<string, { front: Device[]; rear: Device[]; placeId: string }>();
    for (const rack of network.all('rack'))
      for (const device of network.find('devicesByRack', rack.id)) {
        const side = intake(network, device);
        if (side === null) continue;
        const row = rows.get(rowOf(rack)) ?? { front: [], rear: [], placeId: rack.placeId };
        row[side].push(device);
        rows.set(rowOf(rack), row);
      }
    return [...rows.values()].flatMap(({ front, rear, placeId }) => {
      // Where as many blow one way as the other, nobody knows which is the cold side.
      if (front.length === rear.length) return [];
      const few = front.length < rear.length ? front : rear;
      return few.map(({ id }) => ({
        severity: 'warn' as const,
        subjects: [{ kind: 'device' as const, id }],
        facts: { placeId, from: few === front ? ('front' as const) : ('rear' as const) },
      }));
    });
  },
  says: ({ placeId, from }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} draws its air from the ${from}; most of its row in ${placePath(network, placeId)} draw theirs from the ${from === 'front' ? 'rear' : 'front'}. Mount it the other way round, or order it with the other fans.`,
});

/** How many names of a site must begin alike before that is its pattern, and how many of a hundred. */
const fewest = 8;
const share = 0.8;

/** What most names of a site begin with; null: they do not agree. */
function beginning(names: readonly string[]): string | null {
  const counts = new Map<string, number>();
  for (const name of names) {
    const at = name.indexOf('-');
    const start = at <= 0 ? '' : name.slice(0, at + 1).toLowerCase();
    counts.set(start, (counts.get(start) ?? 0) + 1);
  }
  const [best] = [...counts].sort(([a, of], [b, than]) => than - of || compareNames(a, b));
  if (best === undefined || best[0] === '' || best[1] < fewest || best[1] < names.length * share) return null;
  return best[0];
}

/** The site that a device stands at. */
function siteOf(network: Network, device: Device): string | null {
  let place = network.get('place', network.get('rack', device.rackId)?.placeId ?? device.placeId);
  for (let outer = place; outer !== null; outer = network.get('place', outer.parentId)) place = outer;
  return place?.id ?? null;
}

const nameOtherwise = defineRule({
  key: 'name-otherwise',
  title: 'Names against the pattern of their site',
  why: 'A name that begins like those of another site sends people, and alarms, to the wrong place.',
  reads: { device: ['name', 'placeId', 'rackId', 'status'], rack: ['placeId'], place: ['parentId'] },
  find: (network) => {
    const sites = new Map<string, Device[]>();
    for (const device of network.all('device')) {
      if (!isPlaced(device)) continue;
      const site = siteOf(network, device);
      if (site === null) continue;
      const here = sites.get(site) ?? [];
      here.push(device);
      sites.set(site, here);
    }
    return [...sites].flatMap(([siteId, devices]) => {
      const start = beginning(devices.map(({ name }) => name));
      if (start === null) return [];
      return devices
        .filter(({ name }) => !name.toLowerCase().startsWith(start))
        .map(({ id }) => ({
          severity: 'warn' as const,
          subjects: [{ kind: 'device' as const, id }],
          facts: { siteId, start },
        }));
    });
  },
  says: ({ siteId, start }, network, [device]) =>
    `${nameOf(network, 'device', device?.id ?? null)} stands at ${nameOf(network, 'place', siteId)}, where most names begin with “${start}”. Rename it, or place it where it belongs.`,
  mends: ({ start }, network, [subject]) => {
    const device = network.get('device', subject?.id ?? null);
    if (device === null) return [];
    const name = nextDeviceName(network, placeOfDevice(network, device), device.role, device.modelId);
    if (!name.toLowerCase().startsWith(start)) return [];
    return [
      {
        wish: `Rename it to ${name}`,
        way: 'Rename them by the pattern of the site',
        attempt: judged(network, [update('device', device, { name })], `Renamed ${device.name} to ${name}`),
      },
    ];
  },
});

export const standingRules: readonly Rule[] = [notPlaced, blanksMissing, againstTheRow, nameOtherwise];

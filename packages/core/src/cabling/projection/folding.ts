import type { Device } from '../../model/kinds/equipment/device.ts';
import { ownFold, type Sheet } from '../../model/kinds/drawings/sheet.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import type { Role } from '../../model/values/roles.ts';

/** What joins two devices. */
interface Joint {
  a: { device: Device | null };
  b: { device: Device | null };
}

const foldedRoles: readonly Role[] = ['PH', 'CM', 'PR', 'PC', 'AP', 'IO'];

function neighboursOf(wires: readonly Joint[]): Map<string, Device[]> {
  const neighbours = new Map<string, Device[]>();
  const note = (from: Device | null, to: Device | null): void => {
    if (from !== null && to !== null) neighbours.set(from.id, [...(neighbours.get(from.id) ?? []), to]);
  };
  for (const wire of wires) {
    note(wire.a.device, wire.b.device);
    note(wire.b.device, wire.a.device);
  }
  return neighbours;
}

/**
 * Folds end devices of one role, in one place, that hang on the same neighbour by one cable each: the fold of each
 * device that has one, by device. A fold's id names neighbour, role and place, so that it is the same tomorrow.
 */
export function foldsOf(
  devices: readonly Device[],
  wires: readonly Joint[],
  placeOf: (device: Device) => string | null,
): Map<string, string> {
  const neighbours = neighboursOf(wires);
  const keys = new Map<string, string[]>();
  for (const device of devices) {
    const [neighbour, second] = neighbours.get(device.id) ?? [];
    if (!foldedRoles.includes(device.role) || neighbour === undefined || second !== undefined) continue;
    const key = `${neighbour.id}/${device.role}/${placeOf(device) ?? ''}`;
    keys.set(key, [...(keys.get(key) ?? []), device.id]);
  }
  const folds = new Map<string, string>();
  for (const [key, ids] of keys) if (ids.length > 1) for (const id of ids) folds.set(id, `fold:${key}`);
  return folds;
}

/**
 * Folds of which at most one device was put somewhere by hand: two that a person placed apart stay apart. One place
 * is that of the folded plate.
 */
export function apartByHand(
  folds: ReadonlyMap<string, string>,
  byHand: (deviceId: string) => boolean,
): Map<string, string> {
  const placed = new Map<string, number>();
  for (const [id, fold] of folds) if (byHand(id)) placed.set(fold, (placed.get(fold) ?? 0) + 1);
  return new Map([...folds].filter(([, fold]) => (placed.get(fold) ?? 0) < 2));
}

/**
 * The plate of each device that a person gathered with others, by device: `fold:own/` and its first member by name,
 * so that it is the same for as long as that one is in it. One that is left alone is drawn as itself.
 */
export function gatheredIn(sheet: Pick<Sheet, 'reading'>, devices: readonly Device[]): Map<string, string> {
  const here = new Map(devices.map((device) => [device.id, device]));
  const folds = new Map<string, string>();
  for (const ids of sheet.reading.gathered ?? []) {
    const members = ids.flatMap((id) => here.get(id) ?? []).sort(byName);
    const [first, second] = members;
    if (first !== undefined && second !== undefined)
      for (const { id } of members) folds.set(id, `${ownFold}${first.id}`);
  }
  return folds;
}

const numbered = /^(.*?)(\d+)$/;
const pairedRoles: readonly Role[] = ['RT', 'SW', 'FW', 'LB', 'ST', 'SV'];
/** Larger groups are rings or rows rather than stacks. */
const mostStacked = 8;

/**
 * Redundant pairs and stacks: devices of one model in one place that are cabled to each other and whose names differ
 * in their last number only. The pair of each device that is in one, by device.
 */
export function pairsOf(
  devices: readonly Device[],
  wires: readonly Joint[],
  placeOf: (device: Device) => string | null,
): Map<string, string> {
  const stem = (device: Device): string =>
    `${numbered.exec(device.name)?.[1] ?? device.name}|${device.role}|${device.modelId ?? ''}|${placeOf(device) ?? ''}`;
  const joined = new Map<string, Set<string>>();
  for (const { a, b } of wires) {
    if (a.device === null || b.device === null || a.device.id === b.device.id) continue;
    if (!pairedRoles.includes(a.device.role) || !numbered.test(a.device.name)) continue;
    if (stem(a.device) !== stem(b.device)) continue;
    const group = new Set([
      ...(joined.get(a.device.id) ?? [a.device.id]),
      ...(joined.get(b.device.id) ?? [b.device.id]),
    ]);
    for (const id of group) joined.set(id, group);
  }
  const here = new Set(devices.map((device) => device.id));
  const pairs = new Map<string, string>();
  for (const group of new Set(joined.values())) {
    const members = [...group].filter((id) => here.has(id)).sort();
    if (members.length < 2 || members.length > mostStacked) continue;
    for (const id of members) pairs.set(id, `pair:${members[0] ?? ''}`);
  }
  return pairs;
}

/** "kq-fw-1 / 2" of kq-fw-1 and kq-fw-2. */
export function pairName(names: readonly string[]): string {
  const sorted = [...names].sort(compareNames);
  return [sorted[0] ?? '', ...sorted.slice(1).map((name) => numbered.exec(name)?.[2] ?? name)].join(' / ');
}

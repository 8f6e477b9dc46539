import { cableTypes, mismatch, waysToJoin, type Way } from './match.ts';
import { neededM } from './length.ts';
import { poeDevice, poeSource } from './poe.ts';
import { isCage } from '../model/network/plugs.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { isFree, portsOf } from '../model/network/ports.ts';
import { roles, type RoleFamily } from '../model/values/roles.ts';

/** What a line between two devices carries: power as soon as one of them gives it and the other takes it. */
export type LineSort = 'data' | 'power';

const givesPower = (device: Device): boolean => device.role === 'PD' || device.role === 'UP';
const isPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';

export const lineSort = (a: Device, b: Device): LineSort =>
  givesPower(a) || givesPower(b) ? 'power' : 'data';

/** From which device power flows to which: out of a UPS first, then out of a strip, else out of the first. */
export function powerFlow(a: Device, b: Device): { from: Device; to: Device } {
  const rank = (device: Device): number => (device.role === 'UP' ? 2 : device.role === 'PD' ? 1 : 0);
  return rank(b) > rank(a) ? { from: b, to: a } : { from: a, to: b };
}

/** The ports of a device that a line of this sort could begin at, free or not; management ports stand last. */
export function lineEnds(network: Network, device: Device, sort: LineSort, other: Device): Port[] {
  const ports = portsOf(network, device.id);
  if (sort === 'power') {
    const role = powerFlow(device, other).from.id === device.id ? 'powerOut' : 'powerIn';
    return ports.filter((port) => port.role === role);
  }
  const backs = device.role === 'PP' && other.role === 'PP';
  const rank = (port: Port): number =>
    (port.role === 'management' ? 2 : 0) +
    (port.role === 'panel' && (port.face === 'rear') !== backs ? 1 : 0);
  return ports
    .filter((port) => !isPower(port) && port.role !== 'console')
    .map((port) => ({ port, rank: rank(port) }))
    .sort((x, y) => x.rank - y.rank)
    .map(({ port }) => port);
}

/** Free ports that are alike to a cable: the first of them stands for all. */
function firstOfEach(network: Network, ports: readonly Port[]): Port[] {
  const first = new Map<string, Port>();
  for (const port of ports) {
    if (port.reserved !== null || !isFree(network, port.id)) continue;
    const poe = poeSource(network, port) ?? '';
    const key = [port.connector, port.role, port.speedBps, port.face, port.transceiverId, poe].join('|');
    if (!first.has(key)) first.set(key, port);
  }
  return [...first.values()];
}

export interface PortPair {
  a: Port;
  b: Port;
}

/** Whether a port can do a speed that was asked for; one of unknown speed may. */
export const reaches = (port: Port, speedBps: number | null | undefined): boolean =>
  speedBps == null || port.speedBps === null || port.speedBps >= speedBps;

/** How little a pair does beyond the speed that was asked for. */
const nearness = ({ a, b }: PortPair, speedBps: number | null | undefined): number =>
  speedBps == null ? 0 : -Math.max(0, Math.min(a.speedBps ?? speedBps, b.speedBps ?? speedBps) - speedBps);

/** Families of role at which lines end: an uplink is not for them. */
const ends: readonly RoleFamily[] = ['endpoints', 'compute'];

/** What an engineer would plug together first: the higher the sooner, compared from the first figure on. */
function merits(network: Network, { a, b }: PortPair, [one, other]: readonly [Device, Device]): number[] {
  const management = [a, b].filter((port) => port.role === 'management').length;
  const able = Math.min(a.speedBps ?? Infinity, b.speedBps ?? Infinity);
  const powered = (port: Port, far: Device): number =>
    poeDevice(network, far) !== null && poeSource(network, port) !== null ? 1 : 0;
  const carries = (device: Device): boolean => !ends.includes(roles[device.role].family);
  const up = (port: Port, far: Device): number => ((port.role === 'uplink') === carries(far) ? 1 : 0);
  const panelFace = (port: Port, far: Device): number =>
    port.role === 'panel' && (port.face === 'rear') !== (far.role === 'PP') ? -1 : 0;
  return [
    -management,
    panelFace(a, other) + panelFace(b, one),
    Number.isFinite(able) ? able : 0,
    Number(isCage(a.connector) === isCage(b.connector)),
    powered(a, other) + powered(b, one),
    up(a, other) + up(b, one),
    -a.ordinal,
    -b.ordinal,
  ];
}

function compareMerits(x: readonly number[], y: readonly number[]): number {
  for (const [at, value] of x.entries()) {
    const other = y[at] ?? 0;
    if (value !== other) return other - value;
  }
  return 0;
}

/** Whether a way is one cable with one plug at each end: what a pulled line means. */
const plain = (way: Way): boolean => way.type.legsA === 1 && way.type.legsB === 1;

/** The ways to join two ports by a cable with one plug at each end, best first. */
export const waysBetween = (network: Network, a: Port, b: Port): Way[] =>
  a.connector === null || b.connector === null
    ? []
    : waysToJoin(network, a, b, neededM(network, a, b)).fits.filter(plain);

/** The best way with one plug at each end; null where a plug is not known, so that none can be chosen. */
export function plainWay(network: Network, { a, b }: PortPair, typeId: string | null = null): Way | null {
  if (a.connector === null || b.connector === null) return null;
  const { fits } = waysToJoin(network, a, b, neededM(network, a, b));
  return fits.find((way) => (typeId === null ? plain(way) : way.type.id === typeId)) ?? null;
}

export interface Fitting extends PortPair {
  /** The cable and its optics; null where the plug of an end is not known. */
  way: Way | null;
}

/**
 * The pair of ports that a line between two devices is best plugged into, among those that are free and not reserved:
 * no management port while there is another, then the fastest that both can do, plugs that need no converter, PoE for
 * what takes it, uplinks between what forwards and other ports for what does not, then port order. Null where no two
 * free ports can be joined.
 *
 * @param at ports that the line is to begin and end at; null leaves the choice
 */
export function portsToJoin(
  network: Network,
  a: Device,
  b: Device,
  at: { a?: Port | null; b?: Port | null; typeId?: string | null; speedBps?: number | null } = {},
): Fitting | null {
  const sort = lineSort(a, b);
  const types = cableTypes(network);
  const sides = [at.a, at.b].map((port, index) => {
    const [own, other] = index === 0 ? [a, b] : [b, a];
    return port == null ? firstOfEach(network, lineEnds(network, own, sort, other)) : [port];
  });
  const pairs = (sides[0] ?? [])
    .flatMap((one) => (sides[1] ?? []).map((other): PortPair => ({ a: one, b: other })))
    .filter(
      (pair) =>
        reaches(pair.a, at.speedBps) &&
        reaches(pair.b, at.speedBps) &&
        mismatch(types, pair.a, pair.b) === null,
    )
    .map((pair) => ({ pair, merits: [nearness(pair, at.speedBps), ...merits(network, pair, [a, b])] }))
    .sort((x, y) => compareMerits(x.merits, y.merits));
  for (const { pair } of pairs) {
    const open = pair.a.connector === null || pair.b.connector === null;
    const way = plainWay(network, pair, at.typeId ?? null);
    if (open || way !== null) return { ...pair, way };
  }
  return null;
}

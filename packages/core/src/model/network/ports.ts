import type { Cable } from '../kinds/lines/cable.ts';
import type { Circuit } from '../kinds/lines/circuit.ts';
import type { Leg } from '../kinds/lines/leg.ts';
import type { Port } from '../kinds/lines/port.ts';
import type { Network } from './network.ts';

/** The ports of a device that have a connector, in the order of its face. */
export const portsOf = (network: Network, deviceId: string): Port[] =>
  network.find('portsByDevice', deviceId).sort((a, b) => a.ordinal - b.ordinal);

/** All ports of a device: those with a connector first, then what is configured on it. */
export const everyPortOf = (network: Network, deviceId: string): Port[] =>
  network
    .find('everyPortByDevice', deviceId)
    .sort((a, b) => Number(a.form !== 'physical') - Number(b.form !== 'physical') || a.ordinal - b.ordinal);

/** Bit/s that a port runs at by itself: that of what sits in its cage, its own otherwise. Null where neither is known. */
export const portSpeed = (network: Network, port: Port): number | null =>
  network.get('model', port.transceiverId)?.optics?.speedBps ?? port.speedBps;

/** The cable plugged into a port, by its own end or by a further leg. */
export function cableAt(network: Network, portId: string): Cable | null {
  const cable = network.findOne('cablesByPort', portId);
  if (cable !== null) return cable;
  const leg = network.count('leg') === 0 ? null : network.findOne('legByPort', portId);
  return leg === null ? null : network.get('cable', leg.cableId);
}

export const circuitAt = (network: Network, portId: string): Circuit | null =>
  network.count('circuit') === 0 ? null : network.findOne('circuitByPort', portId);

/** What fills a port: the label of a cable or the number of a circuit; null when nothing does. */
export const filledBy = (network: Network, portId: string): string | null =>
  cableAt(network, portId)?.label ?? circuitAt(network, portId)?.number ?? null;

/** Nothing is plugged in; it may still be reserved. */
export const isFree = (network: Network, portId: string): boolean => filledBy(network, portId) === null;

/** The ends of a cable on one side, in the order of their legs; null where a leg hangs loose. */
export function endsOf(network: Network, cable: Cable, side: 'a' | 'b'): (string | null)[] {
  const ends = [side === 'a' ? cable.aPortId : cable.bPortId];
  const type = network.get('model', cable.typeId);
  const expected = (side === 'a' ? type?.legsA : type?.legsB) ?? 1;
  while (ends.length < expected) ends.push(null);
  if (network.count('leg') > 0)
    for (const leg of network.find('legsByCable', cable.id)) {
      if (leg.side !== side) continue;
      while (ends.length < leg.number) ends.push(null);
      ends[leg.number - 1] = leg.portId;
    }
  return ends;
}

/** Where a port stands on its cable: the side, and which leg of it, counted from 0. */
export function placeOnCable(
  network: Network,
  cable: Cable,
  portId: string,
): { side: 'a' | 'b'; leg: number } {
  if (cable.aPortId === portId) return { side: 'a', leg: 0 };
  if (cable.bPortId === portId) return { side: 'b', leg: 0 };
  const leg: Leg | undefined = network.find('legsByCable', cable.id).find((one) => one.portId === portId);
  return leg === undefined ? { side: 'a', leg: 0 } : { side: leg.side, leg: leg.number - 1 };
}

/** The ports at the other end of a cable: one, none, or for a breakout several. */
export function otherEnds(network: Network, cable: Cable, portId: string): string[] {
  const at = placeOnCable(network, cable, portId);
  const own = endsOf(network, cable, at.side);
  const far = endsOf(network, cable, at.side === 'a' ? 'b' : 'a');
  const reached = own.length === far.length ? [far[at.leg]] : far;
  return reached.filter((id) => id !== null && id !== undefined);
}

/** The port at the other end of a cable, the first of several, or null when that end is open. */
export const otherEnd = (network: Network, cable: Cable, portId: string): string | null =>
  otherEnds(network, cable, portId)[0] ?? null;

/** "kq-acc-1:gi1/4": how files and the command line name a port. */
export function portTitle(network: Network, portId: string | null): string {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  return port === null || device === null ? '' : `${device.name}:${port.name}`;
}

/** Finds "device:port" without regard to case. */
export function findPort(network: Network, deviceName: string, portName: string): Port | null {
  const device = network.findOne('deviceByName', deviceName.toLowerCase());
  return device === null ? null : network.findOne('portByName', `${device.id}:${portName.toLowerCase()}`);
}

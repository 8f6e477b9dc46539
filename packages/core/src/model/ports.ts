import type { Cable } from './kinds/cable.ts';
import type { Port } from './kinds/port.ts';
import type { Network } from './network.ts';

/** The ports of a device in the order of its face. */
export const portsOf = (network: Network, deviceId: string): Port[] =>
  network.find('portsByDevice', deviceId).sort((a, b) => a.ordinal - b.ordinal);

export const cableAt = (network: Network, portId: string): Cable | null =>
  network.findOne('cablesByPort', portId);

/** The port at the other end of a cable, or null when that end is open. */
export const otherEnd = (cable: Cable, portId: string): string | null =>
  cable.aPortId === portId ? cable.bPortId : cable.aPortId;

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

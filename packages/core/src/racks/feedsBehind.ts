import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { cableAt, otherEnd } from '../model/network/ports.ts';
import type { Network } from '../model/network/network.ts';
import { feedKey } from './power.ts';

/** Where the power of an inlet comes from in the end: a feed of a rack, or the strip or UPS before which nothing is recorded. */
export type Supply = { rackId: string; feed: string } | { deviceId: string };
export interface Inlet {
  port: Port;
  /** By key; empty: nothing is recorded behind it. */
  supplies: ReadonlyMap<string, Supply>;
}

const none: ReadonlyMap<string, Supply> = new Map();

function suppliesOf(
  network: Network,
  device: Device,
  inlet: Port,
  passed: ReadonlySet<string>,
): ReadonlyMap<string, Supply> {
  const cable = cableAt(network, inlet.id);
  if (cable === null) {
    const { rackId, feed } = device;
    return feed === null || rackId === null ? none : new Map([[feedKey(rackId, feed), { rackId, feed }]]);
  }
  const outlet = network.get('port', otherEnd(network, cable, inlet.id));
  const before = network.get('device', outlet?.deviceId ?? null);
  // A chain that comes back to itself has no source.
  if (outlet?.role !== 'powerOut' || before === null || passed.has(before.id)) return none;
  const further = inletsOf(network, before, new Set([...passed, before.id])).flatMap(({ supplies }) => [
    ...supplies,
  ]);
  return new Map(further.length > 0 ? further : [[before.id, { deviceId: before.id }]]);
}

/** The inlets of a device, each with all that feeds it over strips and UPS, however far away. */
export function inletsOf(
  network: Network,
  device: Device,
  passed: ReadonlySet<string> = new Set([device.id]),
): Inlet[] {
  return network
    .find('powerPortsByDevice', device.id)
    .filter((port) => port.role === 'powerIn')
    .map((port) => ({ port, supplies: suppliesOf(network, device, port, passed) }));
}

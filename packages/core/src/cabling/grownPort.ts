import type { Device } from '../model/kinds/equipment/device.ts';
import { blankPort, type Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { portsOf } from '../model/network/ports.ts';
import type { Connector } from '../model/values/connectors.ts';
import type { Role } from '../model/values/roles.ts';
import { newId } from '../model/values/ids.ts';
import type { LineSort } from './portsToJoin.ts';

/** A panel has a front and a back to every port: it is not grown one by one. */
export const growing = (role: Role | null): boolean => role !== 'PP' && role !== 'CA';

/** Whether a device gets another port when a line wants one: its model says no maker, so nobody counted its ports. */
export function growsPorts(network: Network, device: Device): boolean {
  const model = network.get('model', device.modelId);
  return (model === null || model.maker === null) && growing(device.role);
}

const gigabit = 1e9;
/** The other half of a power connection (IEC 60320-1: an outlet C13 takes the plug of an inlet C14). */
const powerMate: Partial<Record<Connector, Connector>> = { C13: 'C14', C14: 'C13', C19: 'C20', C20: 'C19' };
/** What a port of a speed usually has: copper up to 5 Gbit/s (IEEE 802.3bz), the cages of their names above. */
const plugs: readonly (readonly [upToBps: number, plug: Connector])[] = [
  [5e9, 'RJ45'],
  [10e9, 'SFP+'],
  [25e9, 'SFP28'],
  [40e9, 'QSFP+'],
  [100e9, 'QSFP28'],
];
const plugFor = (speedBps: number): Connector | null =>
  plugs.find(([upToBps]) => speedBps <= upToBps)?.[1] ?? null;

const numbered = /^(.*?)(\d+)$/;

/** The name after the last of these, `eth3` after `eth2`; `eth0` where there is none to count on. */
function nextName(ports: readonly Port[], alike: readonly Port[], first: string): string {
  const taken = new Set(ports.map((port) => port.name.toLowerCase()));
  const last = alike.at(-1)?.name ?? null;
  const [, stem = first, digits] = last === null ? [] : (numbered.exec(last) ?? [last, last]);
  let number = digits === undefined ? (last === null ? 0 : 2) : Number(digits) + 1;
  while (taken.has(`${stem}${number}`.toLowerCase())) number++;
  return `${stem}${number}`;
}

/**
 * One more port of a device without a maker: like the one at the other end, else like its own last one, else copper
 * of 1 Gbit/s. It is named on from its ports of that sort.
 */
export function grownPort(
  network: Network,
  device: Device,
  sort: LineSort,
  {
    far,
    name = null,
    role,
    speedBps: wished = null,
  }: { far: Port | null; name?: string | null; role: Port['role']; speedBps?: number | null },
): Port {
  const ports = portsOf(network, device.id);
  const own = ports.filter((port) =>
    sort === 'power' ? port.role === role : port.role === 'network' || port.role === 'uplink',
  );
  const beyond = far?.connector ?? null;
  const mate = sort === 'power' && beyond !== null ? (powerMate[beyond] ?? beyond) : beyond;
  const forSpeed = wished === null ? null : plugFor(wished);
  const usual = sort === 'power' ? (role === 'powerIn' ? 'C14' : 'C13') : 'RJ45';
  const connector = mate ?? forSpeed ?? own.at(-1)?.connector ?? usual;
  const alike = own.filter((port) => port.connector === connector);
  const like = alike.at(-1) ?? own.at(-1);
  const speedBps = sort === 'power' ? null : (wished ?? far?.speedBps ?? like?.speedBps ?? gigabit);
  return {
    ...blankPort,
    id: newId(),
    deviceId: device.id,
    name: name ?? nextName(ports, alike.length > 0 ? alike : own, sort === 'power' ? role : 'eth'),
    connector,
    speedBps,
    role,
    face: like?.face ?? 'front',
    ordinal: Math.max(-1, ...ports.map((port) => port.ordinal)) + 1,
  };
}

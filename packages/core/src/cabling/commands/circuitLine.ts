import { applyChanges } from '../../change/apply.ts';
import { create, type Change } from '../../change/change.ts';
import { diffOf } from '../../change/diff.ts';
import { firstOfTheirRole } from '../../catalogue/generic.ts';
import { refuse } from '../../commands/attempt.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankCircuit, type Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesIn, placePath, placesWithin } from '../../model/network/places.ts';
import { filledBy, isFree, portsOf } from '../../model/network/ports.ts';
import { newId } from '../../model/values/ids.ts';
import { byName } from '../../model/values/order.ts';
import type { Role } from '../../model/values/roles.ts';
import { addDevice } from '../../racks/commands/devices.ts';
import { nextDeviceName } from '../../racks/deviceNames.ts';
import { growsPorts, grownPort } from '../grownPort.ts';
import type { JoinAttempt } from './join.ts';

/** Where a circuit ends: at a device, at whatever ends circuits in a place, or in the network of a provider. */
export type CircuitEnd = { deviceId: string } | { placeId: string } | { provider: string };

/** A circuit as somebody pulled it: whatever is not said is chosen. */
export interface CircuitWish {
  a: CircuitEnd;
  b: CircuitEnd;
  aPortId?: string | null;
  bPortId?: string | null;
  number?: string;
  provider?: string | null;
  kind?: Circuit['kind'];
  bandwidthBps?: number | null;
}

/** What circuits of a site end at, first to last. */
const edge: readonly Role[] = ['RT', 'FW', 'SW', 'WB', 'MC', 'LB', 'GW'];

const carries = ({ role, form }: Port): boolean =>
  form === 'physical' && (role === 'network' || role === 'uplink' || role === 'panel');
const isOpen = (network: Network, port: Port): boolean =>
  carries(port) && port.reserved === null && isFree(network, port.id);

/** The device of a place that a circuit ends at: one that has circuits already, then routers, firewalls, switches. */
function edgeDevice(network: Network, placeId: string): Device | null {
  const circuits = (device: Device): number =>
    portsOf(network, device.id).filter((port) => network.countOf('circuitByPort', port.id) > 0).length;
  const able = devicesIn(network, placesWithin(network, placeId))
    .filter(
      (device) =>
        edge.includes(device.role) &&
        device.status !== 'retired' &&
        (growsPorts(network, device) || portsOf(network, device.id).some((port) => isOpen(network, port))),
    )
    .sort(byName)
    .map((device) => ({ device, has: circuits(device), rank: edge.indexOf(device.role) }))
    .sort((a, b) => b.has - a.has || a.rank - b.rank);
  return able[0]?.device ?? null;
}

interface Ended {
  network: Network;
  made: Change[];
  port: Port | null;
  /** As it is said: "kq-edge-1 wan1", or the provider. */
  text: string;
}

/** A port for one end of a circuit; where a place has nothing to end it at, a router without a maker is put there. */
function endOf(network: Network, end: CircuitEnd, portId: string | null): Ended | string {
  if ('provider' in end) return { network, made: [], port: null, text: end.provider };
  const made: Change[] = [];
  let staged = network;
  const make = (changes: readonly Change[]): string | null => {
    const applied = applyChanges(staged, changes);
    if (!applied.ok) return applied.problems[0]?.message ?? 'The end of a circuit cannot be made.';
    staged = applied.network;
    made.push(...changes);
    return null;
  };
  const named = network.get('port', portId);
  let device = 'deviceId' in end ? network.get('device', end.deviceId) : null;
  if (named !== null) device = network.get('device', named.deviceId);
  if ('placeId' in end && device === null) {
    device = edgeDevice(network, end.placeId);
    const model = device === null ? firstOfTheirRole(network, 'RT') : null;
    if (model !== null) {
      const name = nextDeviceName(network, end.placeId, 'RT', model.id);
      const at = { rackId: null, placeId: end.placeId, unit: null };
      const set = addDevice(network, { name, modelId: model.id, ...at });
      const why = make(set?.changes ?? []);
      if (why !== null) return why;
      device = staged.get('device', set?.deviceId ?? null);
    }
    if (device === null)
      return `${placePath(network, end.placeId)} has nothing that a circuit could end at. Put a router there first.`;
  }
  if (device === null) return 'What this circuit was to end at is no longer there.';
  if (named !== null && !isFree(network, named.id))
    return `${device.name} ${named.name} holds ${filledBy(network, named.id) ?? 'something'} already. Choose a free port.`;
  let port = named ?? portsOf(staged, device.id).find((one) => isOpen(staged, one)) ?? null;
  if (port === null && growsPorts(staged, device)) {
    port = grownPort(staged, device, 'data', { far: null, role: 'network' });
    const why = make([create('port', port)]);
    if (why !== null) return why;
  }
  if (port === null)
    return `${device.name} has no free port for a circuit. Free one, or pull it from another device.`;
  return { network: staged, made, port, text: `${device.name} ${port.name}` };
}

/** "circuit 1", "circuit 2": what a circuit is called until its provider has given it a number. */
export function nextCircuitNumber(network: Network): string {
  let at = 1;
  while (network.findOne('circuitByNumber', `circuit ${at}`) !== null) at++;
  return `circuit ${at}`;
}

/**
 * A circuit between two places or devices, or from one into the network of a provider: its ends are plugged into the
 * next free ports of what ends circuits there. A place with nothing to end it at gets a router without a maker.
 */
export function circuitLine(network: Network, wish: CircuitWish): JoinAttempt {
  const turned = 'provider' in wish.a;
  const [near, far] = turned ? [wish.b, wish.a] : [wish.a, wish.b];
  const [nearPort, farPort] = turned ? [wish.bPortId, wish.aPortId] : [wish.aPortId, wish.bPortId];
  if ('provider' in near) return refuse('A circuit needs a port at one end at least.');
  if ('placeId' in near && 'placeId' in far && near.placeId === far.placeId)
    return refuse(`${network.get('place', near.placeId)?.name ?? 'A place'} cannot be joined to itself.`);
  const a = endOf(network, near, nearPort ?? null);
  if (typeof a === 'string') return refuse(a);
  const b = endOf(a.network, far, farPort ?? null);
  if (typeof b === 'string') return refuse(b);
  if (a.port === null) return refuse('A circuit needs a port at one end at least.');
  if (a.port.deviceId === b.port?.deviceId) return refuse(`${a.text} and ${b.text} are ports of one device.`);
  const circuit: Circuit = {
    ...blankCircuit,
    id: newId(),
    number: (wish.number ?? nextCircuitNumber(network)).trim(),
    provider: 'provider' in far ? far.provider : (wish.provider ?? null),
    kind: wish.kind ?? ('provider' in far ? 'internet' : 'private WAN'),
    bandwidthBps: wish.bandwidthBps ?? null,
    aPortId: a.port.id,
    bPortId: b.port?.id ?? null,
  };
  const touched = [...a.made, ...b.made, create('circuit', circuit)];
  const applied = applyChanges(b.network, [create('circuit', circuit)]);
  if (!applied.ok) return refuse(applied.problems[0]?.message ?? 'This circuit cannot be made.');
  const changes = diffOf(network, applied.network, touched);
  return {
    ok: true,
    changes,
    made: changes,
    sentence: `Connected ${a.text} to ${b.text} with ${circuit.number}`,
    lines: [{ aPortId: a.port.id, bPortId: b.port?.id ?? null, lineId: circuit.id }],
    network: applied.network,
  };
}

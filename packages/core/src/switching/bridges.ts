import { derived, keptOnPaper } from '../model/network/derived.ts';
import { inForce } from '../lens/inForce.ts';
import { traceRun } from '../cabling/trace.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Vlan } from '../model/kinds/logical/vlan.ts';
import type { Network } from '../model/network/network.ts';
import { byName } from '../model/values/order.ts';
import { placeChain, placeOfDevice } from '../model/network/places.ts';
import { portsOf } from '../model/network/ports.ts';

/**
 * What forwards frames as one: a switch, a stack or pair, or something that passes all frames on as they come, such
 * as a media converter or a radio bridge.
 */
export interface Bridge {
  key: string;
  name: string;
  devices: Device[];
  form: 'switch' | 'transparent';
  numberingId: string | null;
}

/** A way in or out of a bridge: a port, or all members of an aggregate, also over several devices of a stack. */
export interface BridgePort {
  key: string;
  /** Bridge and port as people say them; no two are alike. */
  title: string;
  bridge: Bridge;
  /** Where it is set: the aggregate, or the port itself. */
  port: Port;
  /** What is plugged: the members, or the port itself. */
  members: Port[];
}

/** What a device forwards as is called: its stack, or itself. */
export const bridgeName = ({ stack, name }: Pick<Device, 'stack' | 'name'>): string => stack ?? name;

/** A way in or out of a bridge as people say it, by the port that it is set on: no two are alike. */
export function bridgePortText(network: Network, portId: string): string {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  if (port === null || device === null) return '';
  return `${port.form === 'aggregate' ? bridgeName(device) : device.name} ${port.name}`;
}

/** Gear that passes on every frame, tagged or not, without looking at it; a phone does for the desk behind it. */
const passing = new Set(['MC', 'WB', 'PH']);

/** The VLAN numbering that holds for a device: that of the nearest place that names one. */
export function numberingOfDevice(network: Network, device: Device): string | null {
  const chain = placeChain(network, placeOfDevice(network, device));
  return chain.reduce<string | null>((nearest, place) => place.vlanNumberingId ?? nearest, null);
}

/** The VLAN numbering that holds on a port. */
export function numberingOfPort(network: Network, port: Port): string | null {
  const device = network.get('device', port.deviceId);
  return port.vlanNumberingId ?? (device === null ? null : numberingOfDevice(network, device));
}

export const vlanNumbered = (network: Network, numberingId: string | null, vid: number): Vlan | null =>
  numberingId === null ? null : network.findOne('vlanByNumber', `${numberingId}/${vid}`);

/** "20 Operations", or the number alone where no such VLAN is defined. */
export const vlanText = (network: Network, numberingId: string | null, vid: number): string => {
  const vlan = vlanNumbered(network, numberingId, vid);
  return vlan === null ? `VLAN ${vid}` : `VLAN ${vid} ${vlan.name}`;
};

/** The port that carries the settings: the aggregate of a member, the port itself otherwise. */
export const setPort = (network: Network, port: Port): Port => network.get('port', port.aggregateId) ?? port;

const switches = (port: Port): boolean => port.mode === 'access' || port.mode === 'trunk';

/** The key of what a device forwards as: its stack's, or its own. */
export function bridgeKey(network: Network, device: Device): string {
  if (device.stack === null) return device.id;
  const place = placeChain(network, placeOfDevice(network, device))[0]?.id ?? '';
  return `${place}/${device.stack.toLowerCase()}`;
}

/** Everything that forwards frames, and its ports. */
export interface Bridging {
  bridges: Map<string, Bridge>;
  ports: BridgePort[];
  /** By the id of a port that is plugged: the way in it belongs to. */
  byMember: Map<string, BridgePort>;
  /** The run from a plugged port to its far end, through panels: the id of that port. */
  farOf: (portId: string) => string | null;
}

const built = derived(build, keptOnPaper);

/** Bridges of what is in force. */
export const bridgingOf = (whole: Network): Bridging => built(inForce(whole));

function build(network: Network): Bridging {
  const bridges = new Map<string, Bridge>();
  const byKey = new Map<string, BridgePort>();
  const byMember = new Map<string, BridgePort>();
  const withPorts = new Set(
    network
      .find('vlanPorts', 'all')
      .filter(switches)
      .map((port) => port.deviceId),
  );
  const forwarding = [...network.all('device')].filter(
    ({ id, role }) => passing.has(role) || withPorts.has(id),
  );
  for (const device of forwarding.sort(byName)) {
    const ports = network.find('everyPortByDevice', device.id);
    const transparent = passing.has(device.role) && !ports.some(switches);
    const key = bridgeKey(network, device);
    const bridge = bridges.get(key) ?? {
      key,
      name: bridgeName(device),
      devices: [],
      form: transparent ? 'transparent' : 'switch',
      numberingId: numberingOfDevice(network, device),
    };
    bridge.devices.push(device);
    bridges.set(key, bridge);
    for (const member of portsOf(network, device.id)) {
      const port = setPort(network, member);
      if (member.role === 'powerIn' || member.role === 'powerOut' || member.role === 'console') continue;
      if (!(transparent ? member.role !== 'management' : switches(port))) continue;
      const way = port.form === 'aggregate' ? `${key}/${port.name.toLowerCase()}` : port.id;
      const bridgePort = byKey.get(way) ?? {
        key: way,
        title: `${port.form === 'aggregate' ? bridge.name : device.name} ${port.name}`,
        bridge,
        port,
        members: [],
      };
      bridgePort.members.push(member);
      byKey.set(way, bridgePort);
      byMember.set(member.id, bridgePort);
    }
  }
  const far = new Map<string, string | null>();
  const farOf = (portId: string): string | null => {
    const known = far.get(portId);
    if (known !== undefined) return known;
    const run = traceRun(network, portId);
    const to = run.ends === 'port' && run.to !== portId ? run.to : null;
    far.set(portId, to);
    // A run that begins at a panel is half of one: seen from its end it leads on.
    if (to !== null && network.get('port', portId)?.leadsToId == null) far.set(to, portId);
    return to;
  };
  return { bridges, ports: [...byKey.values()], byMember, farOf };
}

import { inForce } from '../lens/inForce.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Vlan } from '../model/kinds/logical/vlan.ts';
import type { Network } from '../model/network/network.ts';
import { bridgeName, type Bridge, type BridgePort } from './bridges.ts';
import type { BridgeLink, Domain, Layer2 } from './layer2.ts';

/** Why a VLAN does not go over a link between two bridges of its numbering. */
export interface Stop {
  link: BridgeLink;
  /** The end that does carry it, and the end that does not. */
  from: BridgePort;
  at: BridgePort;
  why: 'pruned' | 'access' | 'native';
  /** Where both ends take untagged frames: the number that they have at the far end; null: they go tagged there. */
  other: number | null;
}

/** How far one VLAN of a numbering reaches. */
export interface VlanReach {
  vlan: Vlan;
  /** Parts that hear each other, the one with most ports first. More than one: islands. */
  islands: Domain[];
  stops: Stop[];
  /** Ports and VLAN interfaces that use it. */
  users: Port[];
  /** Trunks and access ports that carry it. */
  ports: number;
}

/** A way in or out of a bridge by ids: the port that is plugged, or the aggregate of several. */
export type Seat = { portId: string; deviceId: string | null };

/** Of a stack the port is named with the stack; then there is no one device. */
export const seatOf = ({ bridge, port, members }: BridgePort): Seat => ({
  portId: members.length > 1 ? port.id : (members[0] ?? port).id,
  deviceId: bridge.devices.length > 1 ? null : (bridge.devices[0]?.id ?? null),
});

function seatText(network: Network, { portId, deviceId }: Seat): string {
  const port = network.get('port', portId);
  const device = network.get('device', deviceId ?? port?.deviceId ?? null);
  if (device === null) return port?.name ?? '';
  return `${deviceId === null ? bridgeName(device) : device.name} ${port?.name ?? ''}`;
}

/** Where a VLAN stops, in words: "kq-acc-1 te1/1 carries VLAN 40, kq-core-1 te1/3 does not". */
export function stopSaid(
  network: Network,
  vid: number,
  { why, other, from, at }: Pick<Stop, 'why' | 'other'> & { from: Seat; at: Seat },
): string {
  const [here, there] = [seatText(network, from), seatText(network, at)];
  if (why === 'access') return `${there} is an access port, ${here} sends VLAN ${vid} tagged`;
  if (why === 'pruned') return `${here} carries VLAN ${vid}, ${there} does not`;
  return other === null
    ? `VLAN ${vid} goes untagged at ${here} and tagged at ${there}`
    : `untagged frames are VLAN ${vid} at ${here} and VLAN ${other} at ${there}`;
}

/** Where and why a VLAN that one end of a link carries is not taken at the other. */
function stopsOf(layer2: Layer2, bridges: ReadonlySet<string>, vlan: Vlan): Stop[] {
  const stops: Stop[] = [];
  for (const link of layer2.links) {
    if (link.a.bridge.form === 'transparent' || link.b.bridge.form === 'transparent') continue;
    for (const [from, at] of [
      [link.a, link.b],
      [link.b, link.a],
    ] as const) {
      if (!bridges.has(from.bridge.key) || !bridges.has(at.bridge.key)) continue;
      const here = layer2.carries(from, vlan.vid);
      const there = layer2.carries(at, vlan.vid);
      if (here === null || here === there) continue;
      const stop = (why: Stop['why'], other: number | null = null): void =>
        void stops.push({ link, from, at, why, other });
      if (here === 'tagged' && there === null) stop(at.port.mode === 'access' ? 'access' : 'pruned');
      else if (here === 'untagged') {
        const other = layer2.untaggedAt(at);
        if (there === 'tagged') stop('native');
        else if (other !== null && from === link.a) stop('native', other);
      }
    }
  }
  return stops;
}

/** Switches where a numbering holds. */
const bridgesOf = (layer2: Layer2, numberingId: string): Bridge[] =>
  [...layer2.bridging.bridges.values()].filter(
    (one) => one.numberingId === numberingId && one.form === 'switch',
  );

/**
 * How far a VLAN reaches over the switches where its numbering holds: its islands, where it stops and why, and who uses
 * it. A switch that only passes it from trunk to trunk belongs to its island; one without any port in it does not.
 */
export function reachOf(layer2: Layer2, vlan: Vlan): VlanReach {
  const bridges = bridgesOf(layer2, vlan.numberingId).filter((bridge) => layer2.vidsOf(bridge).has(vlan.vid));
  const islands = new Map<number, Domain>();
  for (const bridge of bridges) {
    const id = layer2.domainId(bridge, vlan.vid);
    if (!islands.has(id)) islands.set(id, layer2.domain(bridge, vlan.vid));
  }
  const parts = [...islands.values()].sort((a, b) => b.ports.length - a.ports.length);
  const keys = new Set(bridgesOf(layer2, vlan.numberingId).map((bridge) => bridge.key));
  return {
    vlan,
    islands: parts,
    stops: stopsOf(layer2, keys, vlan),
    users: parts.flatMap((part) => part.listeners),
    ports: parts.reduce((sum, part) => sum + part.ports.length, 0),
  };
}

/** An island that somebody uses, or that has an access port: one that only trunks carry is of no consequence. */
export const isUsed = (part: Domain): boolean =>
  part.listeners.length > 0 || part.ports.some(({ at }) => at.port.mode === 'access');

/** A routed device that takes a VRF from one VLAN to another. */
export interface HandOff {
  deviceId: string;
  vrfId: string | null;
  ports: Port[];
}

/** Where routed devices take a VRF over from one VLAN to another: subinterfaces and VLAN interfaces of one VRF. */
export function handOffs(whole: Network): HandOff[] {
  const network = inForce(whole);
  const byDevice = new Map<string, HandOff>();
  for (const port of network.all('port')) {
    if (port.form !== 'subinterface' && port.form !== 'vlan') continue;
    const key = `${port.deviceId} ${port.vrfId ?? ''}`;
    const known = byDevice.get(key);
    if (known === undefined) byDevice.set(key, { deviceId: port.deviceId, vrfId: port.vrfId, ports: [port] });
    else known.ports.push(port);
  }
  return [...byDevice.values()].filter(({ ports }) => new Set(ports.map((port) => port.vid)).size > 1);
}

/** A VLAN that goes on as layer 2 from one numbering into another: what should be routed is bridged. */
export interface Leak {
  domain: { id: number; bridges: { bridge: Bridge; vid: number }[] };
  numberings: string[];
}

/** Domains that reach into more than one VLAN numbering. Numberings that only share a transparent bridge are not joined by it. */
export function leaks(layer2: Layer2): Leak[] {
  const found: Leak[] = [];
  for (const id of layer2.domainIds()) {
    const numberings = layer2.numberingsOfDomain(id);
    if (numberings.size > 1)
      found.push({ domain: { id, bridges: layer2.bridgesOfDomain(id) }, numberings: [...numberings] });
  }
  return found;
}

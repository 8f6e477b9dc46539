import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, circuitAt } from '../../model/network/ports.ts';
import { numberingOfDevice, setPort, type BridgePort } from '../bridges.ts';
import type { Layer2 } from '../layer2.ts';
import type { Carried } from '../../sheets/graph/chips.ts';
import { drawnMedium, type Medium } from '../../sheets/graph/medium.ts';
import type { Line } from '../../sheets/graph/sheetGraph.ts';

/** One end of what joins two devices at layer 2. */
export interface SwitchedEnd {
  device: Device;
  /** Where VLANs are set: an aggregate, or the port itself. */
  port: Port;
  /** Of a switch: the way into it; null for what does not forward. */
  at: BridgePort | null;
  carried: Carried;
  numberingId: string | null;
}

/** A cable, a run through panels, or all members of an aggregate. */
export interface SwitchedLink {
  key: string;
  a: SwitchedEnd;
  b: SwitchedEnd;
  lines: Line[];
  medium: Medium;
  jacket: string | null;
  members: number;
  speedBps: number | null;
}

function carriedAt(layer2: Layer2, at: BridgePort): Carried {
  if (at.bridge.form === 'transparent') return { untagged: null, tagged: [] };
  const { port } = at;
  const untagged = layer2.untaggedAt(at);
  if (port.taggedVids === 'all') return { untagged, tagged: 'all' };
  return {
    untagged,
    tagged: [...(port.taggedVids ?? []), ...(port.voiceVid === null ? [] : [port.voiceVid])],
  };
}

/** What a device that does not forward sends: the tags of its subinterfaces. */
const carriedOver = (network: Network, port: Port): Carried => ({
  untagged: null,
  tagged: [
    ...new Set(network.find('portsByParent', port.id).flatMap((one) => (one.vid === null ? [] : [one.vid]))),
  ],
});

/** The first cable or circuit of a run, and how it is drawn. */
function lineAt(network: Network, port: Port): { line: Line; medium: Medium; jacket: string | null } | null {
  const circuit = circuitAt(network, port.id);
  if (circuit !== null)
    return {
      line: { kind: 'circuit', id: circuit.id, label: circuit.number },
      medium: circuit.kind === 'radio hop' ? 'radio' : 'circuit',
      jacket: null,
    };
  const cable = cableAt(network, port.id);
  if (cable === null) return null;
  const type = network.get('model', cable.typeId);
  return {
    line: { kind: 'cable', id: cable.id, label: cable.label },
    medium: drawnMedium(type),
    jacket: type?.jacket ?? null,
  };
}

/** Everything that is plugged into switches, and what joins those; members of an aggregate together. */
export function switchedLinks(network: Network, layer2: Layer2): SwitchedLink[] {
  const { bridging } = layer2;
  const endOf = (port: Port): SwitchedEnd | null => {
    const device = network.get('device', port.deviceId);
    const at = bridging.byMember.get(port.id) ?? null;
    const set = setPort(network, port);
    if (device === null) return null;
    const carried = at === null ? carriedOver(network, set) : carriedAt(layer2, at);
    return {
      device,
      port: set,
      at,
      carried,
      numberingId: at?.bridge.numberingId ?? numberingOfDevice(network, device),
    };
  };
  const found = new Map<string, SwitchedLink>();
  const seen = new Set<string>();
  for (const { members } of bridging.ports)
    for (const member of members) {
      const far = network.get('port', bridging.farOf(member.id));
      if (far === null || seen.has(member.id)) continue;
      seen.add(member.id).add(far.id);
      const [a, b] = [endOf(member), endOf(far)];
      const line = lineAt(network, member);
      if (a === null || b === null || line === null) continue;
      const keys = [a, b].map((end) => end.at?.key ?? end.port.id);
      const key = [...keys].sort().join(' ');
      const known = found.get(key);
      const speeds = [member.speedBps, far.speedBps].flatMap((speed) => speed ?? []);
      const speedBps = speeds.length === 0 ? null : Math.min(...speeds);
      if (known === undefined) {
        found.set(key, {
          key,
          a,
          b,
          lines: [line.line],
          medium: line.medium,
          jacket: line.jacket,
          members: 1,
          speedBps,
        });
        continue;
      }
      known.members++;
      known.lines.push(line.line);
      known.speedBps = known.speedBps === null || speedBps === null ? null : known.speedBps + speedBps;
    }
  return [...found.values()];
}

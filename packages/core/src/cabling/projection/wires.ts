import { followRun } from '../trace.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { cableAt, circuitAt, endsOf, portsOf, portTitle } from '../../model/network/ports.ts';
import { endAddresses, endTags } from './endFacts.ts';
import { drawnMedium, type Medium } from '../../sheets/graph/medium.ts';
import type { Line } from '../../sheets/graph/sheetGraph.ts';

export interface WireEnd {
  device: Device | null;
  /** Where there is no device: the provider into whose network a circuit leads. */
  provider: string | null;
  port: string;
  ordinal: number;
  speedBps: number | null;
  /** VLANs and addresses at this end; empty where the sheet shows none. */
  tags: string;
  /** The aggregate its port is a member of. */
  aggregateId: string | null;
  address: string;
}

/** One thing that joins two devices: a cable, a leg of one, a circuit, or a run through panels. */
export interface Wire {
  key: string;
  line: Line;
  /** Everything it passes, itself included. */
  lines: Line[];
  a: WireEnd;
  b: WireEnd;
  medium: Medium;
  jacket: string | null;
  management: boolean;
  lengthM: number | null;
  type: string | null;
  speedBps: number | null;
}

const endAt = (network: Network, port: Port): WireEnd => ({
  tags: endTags(network, port),
  aggregateId: port.aggregateId,
  address: endAddresses(network, port),
  device: network.get('device', port.deviceId),
  provider: null,
  port: port.name,
  ordinal: port.ordinal,
  speedBps: port.speedBps,
});
const feedsPower = (port: Port): boolean => port.role === 'powerIn' || port.role === 'powerOut';
const slower = (a: WireEnd, b: WireEnd): number | null =>
  a.speedBps === null || b.speedBps === null ? null : Math.min(a.speedBps, b.speedBps);

/** What a circuit joins; with one end given it leads into the network of its provider. */
function circuitWire(network: Network, id: string): Wire | null {
  const circuit = network.get('circuit', id);
  if (circuit === null) return null;
  const [a, b] = [network.get('port', circuit.aPortId), network.get('port', circuit.bPortId)];
  const near = a ?? b;
  if (near === null || (b === null && a === null)) return null;
  if ((a === null || b === null) && circuit.provider === null) return null;
  const line: Line = {
    kind: 'circuit',
    id: circuit.id,
    label: circuit.number,
    ...(circuit.provider === null ? {} : { provider: circuit.provider }),
  };
  const cloud: WireEnd = {
    device: null,
    provider: circuit.provider ?? circuit.number,
    port: '',
    ordinal: 0,
    tags: '',
    aggregateId: null,
    address: '',
    speedBps: circuit.bandwidthBps,
  };
  const [from, to] =
    a !== null && b !== null ? [endAt(network, a), endAt(network, b)] : [endAt(network, near), cloud];
  return {
    key: circuit.id,
    line,
    lines: [line],
    a: from,
    b: to,
    medium: circuit.kind === 'radio hop' ? 'radio' : 'circuit',
    jacket: null,
    management: false,
    lengthM: circuit.lengthM,
    type: circuit.kind,
    speedBps: circuit.bandwidthBps ?? slower(from, to),
  };
}

function cableWires(network: Network, port: Port, wires: Map<string, Wire>): void {
  const cable = cableAt(network, port.id);
  if (cable === null || wires.has(`${cable.id}/0`)) return;
  const type = network.get('model', cable.typeId);
  const line: Line = { kind: 'cable', id: cable.id, label: cable.label };
  const [as, bs] = [endsOf(network, cable, 'a'), endsOf(network, cable, 'b')];
  for (let leg = 0; leg < Math.max(as.length, bs.length); leg++) {
    const a = network.get('port', as[as.length === 1 ? 0 : leg] ?? null);
    const b = network.get('port', bs[bs.length === 1 ? 0 : leg] ?? null);
    if (a === null || b === null) continue;
    const [from, to] = [endAt(network, a), endAt(network, b)];
    wires.set(`${cable.id}/${leg}`, {
      key: `${cable.id}/${leg}`,
      line,
      lines: [line],
      a: from,
      b: to,
      medium: feedsPower(a) ? 'power' : drawnMedium(type),
      jacket: type?.jacket ?? null,
      management: a.role === 'management' || b.role === 'management',
      lengthM: cable.lengthM,
      type: type?.name ?? null,
      speedBps: slower(from, to),
    });
  }
}

/** The run from an active port to the active port at its other end, as one wire; told from the end whose name is first. */
function runWire(network: Network, start: Port): Wire | null {
  const found = followRun(network, start.id);
  const end = network.get('port', found.to);
  if (end === null) return null;
  const inOrder = compareNames(portTitle(network, start.id), portTitle(network, end.id)) <= 0;
  const back = inOrder ? null : followRun(network, end.id);
  const turned = back !== null && back.to === start.id;
  const [run, port, far] = turned ? [back, end, start] : [found, start, end];
  const lines = run.hops.flatMap((hop): Line[] => {
    if ('cable' in hop)
      return [{ kind: 'cable', id: hop.cable, label: network.get('cable', hop.cable)?.label ?? '' }];
    if (!('circuit' in hop)) return [];
    const circuit = network.get('circuit', hop.circuit);
    return [
      {
        kind: 'circuit',
        id: hop.circuit,
        label: circuit?.number ?? '',
        ...(circuit?.provider == null ? {} : { provider: circuit.provider }),
      },
    ];
  });
  const [first] = lines;
  if (first === undefined) return null;
  const [a, b] = [endAt(network, port), endAt(network, far)];
  const types = lines.map((line) =>
    line.kind === 'cable' ? network.get('model', network.get('cable', line.id)?.typeId ?? null) : null,
  );
  const circuit = lines.find((line) => line.kind === 'circuit');
  const known = lines.every(
    (line) => line.kind === 'circuit' || network.get('cable', line.id)?.lengthM !== null,
  );
  return {
    key: [port.id, far.id].sort().join('/'),
    line: circuit ?? {
      ...first,
      label: lines.length === 1 ? first.label : `${first.label} +${lines.length - 1}`,
    },
    lines,
    a,
    b,
    medium: circuit !== undefined ? 'circuit' : feedsPower(port) ? 'power' : drawnMedium(types[0] ?? null),
    jacket: types[0]?.jacket ?? null,
    management: port.role === 'management' || far.role === 'management',
    lengthM: known ? run.lengthM : null,
    type: types[0]?.name ?? null,
    speedBps: slower(a, b),
  };
}

/** Everything that joins these devices to others, in order of label. */
export function wiresOf(
  network: Network,
  devices: readonly Device[],
  { power, throughPanels }: { power: boolean; throughPanels: boolean },
): Wire[] {
  const wires = new Map<string, Wire>();
  for (const device of devices) {
    if (throughPanels && device.role === 'PP') continue;
    for (const port of portsOf(network, device.id)) {
      if (!power && feedsPower(port)) continue;
      if (throughPanels && cableAt(network, port.id) !== null) {
        const wire = runWire(network, port);
        if (wire !== null) wires.set(wire.key, wire);
        continue;
      }
      cableWires(network, port, wires);
      const circuit = circuitAt(network, port.id);
      const wire = circuit === null ? null : circuitWire(network, circuit.id);
      if (wire !== null) wires.set(wire.key, wire);
    }
  }
  return [...wires.values()]
    .filter((wire) => power || wire.medium !== 'power')
    .sort((x, y) => compareNames(x.line.label, y.line.label));
}

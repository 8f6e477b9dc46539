import type { Device } from '../model/kinds/device.ts';
import type { Sheet } from '../model/kinds/sheet.ts';
import type { Network } from '../model/network.ts';
import { byName, compareNames } from '../model/order.ts';
import { devicesInScope, placeChain, placeOfDevice, whereIs } from '../model/places.ts';
import { cableAt, circuitAt, endsOf, portsOf } from '../model/ports.ts';
import { roles, type Role } from '../model/roles.ts';
import { drawnMedium, type Medium } from './medium.ts';

/** A plate to be: a device, or several alike folded into one. */
export interface GraphNode {
  id: string;
  devices: Device[];
  role: Role;
  name: string;
  lines: string[];
  placeId: string | null;
  /** Beyond the scope of the sheet: shown because something inside is cabled to it. */
  outside: boolean;
}

export interface GraphLink {
  id: string;
  /** Cables, or a circuit, that it stands for. */
  cables: Line[];
  a: string;
  b: string;
  aPort: string;
  bPort: string;
  aOrdinal: number;
  medium: Medium;
  jacket: string | null;
  text: string;
  /** Management links say nothing about who stands above whom. */
  management: boolean;
}

export interface CablingGraph {
  nodes: GraphNode[];
  links: GraphLink[];
  titles: Map<string, string>;
}

/** More parallel cables of one medium than this between two plates are drawn as one bundle. */
const mostParallel = 4;
const foldedRoles: readonly Role[] = ['PH', 'CM', 'PR', 'PC', 'AP', 'IO'];

/** What a link draws: a cable or a circuit, by its id and what it is called. */
export interface Line {
  kind: 'cable' | 'circuit';
  id: string;
  label: string;
}

interface Wire {
  cable: Line;
  a: Device;
  b: Device;
  aPort: string;
  bPort: string;
  aOrdinal: number;
  medium: Medium;
  jacket: string | null;
  management: boolean;
}

/** Cables, their legs, and circuits with both ends plugged, at least one of them in the scope. */
function wiresOf(network: Network, inScope: readonly Device[], power: boolean): Wire[] {
  const wires = new Map<string, Wire>();
  const add = (
    key: string,
    cable: Line,
    ends: [string | null, string | null],
    look: Pick<Wire, 'medium' | 'jacket'>,
  ): void => {
    const [left, right] = [network.get('port', ends[0]), network.get('port', ends[1])];
    const a = network.get('device', left?.deviceId ?? null);
    const b = network.get('device', right?.deviceId ?? null);
    if (wires.has(key) || left === null || right === null || a === null || b === null) return;
    if (!power && (look.medium === 'power' || left.role === 'powerIn' || left.role === 'powerOut')) return;
    wires.set(key, {
      cable,
      a,
      b,
      aPort: left.name,
      bPort: right.name,
      aOrdinal: left.ordinal,
      ...look,
      management: left.role === 'management' || right.role === 'management',
    });
  };
  for (const device of inScope) {
    for (const port of portsOf(network, device.id)) {
      const cable = cableAt(network, port.id);
      if (cable !== null) {
        const type = network.get('model', cable.typeId);
        const look = { medium: drawnMedium(type), jacket: type?.jacket ?? null };
        const [as, bs] = [endsOf(network, cable, 'a'), endsOf(network, cable, 'b')];
        const line: Line = { kind: 'cable', id: cable.id, label: cable.label };
        for (let leg = 0; leg < Math.max(as.length, bs.length); leg++)
          add(
            `${cable.id}/${leg}`,
            line,
            [as[as.length === 1 ? 0 : leg] ?? null, bs[bs.length === 1 ? 0 : leg] ?? null],
            look,
          );
      }
      const circuit = circuitAt(network, port.id);
      if (circuit === null) continue;
      const medium = circuit.kind === 'radio hop' ? 'radio' : 'circuit';
      const label = [circuit.provider, circuit.number].filter(Boolean).join(' · ');
      add(circuit.id, { kind: 'circuit', id: circuit.id, label }, [circuit.aPortId, circuit.bPortId], {
        medium,
        jacket: null,
      });
    }
  }
  return [...wires.values()].sort((x, y) => compareNames(x.cable.label, y.cable.label));
}

function linesOf(network: Network, sheet: Sheet, device: Device): string[] {
  const lines: string[] = [];
  const model = network.get('model', device.modelId);
  const where = whereIs(network, device);
  if (sheet.show.includes('models') && model !== null) lines.push(model.name);
  if (sheet.show.includes('places') && device.rackId !== null) lines.push(where);
  return lines;
}

/** Folds end devices of one role, in one place, that hang on the same neighbour by one cable each. */
function foldKeys(
  devices: readonly Device[],
  wires: readonly Wire[],
  placeOf: (device: Device) => string | null,
): Map<string, string> {
  const neighbours = new Map<string, Device[]>();
  for (const wire of wires) {
    neighbours.set(wire.a.id, [...(neighbours.get(wire.a.id) ?? []), wire.b]);
    neighbours.set(wire.b.id, [...(neighbours.get(wire.b.id) ?? []), wire.a]);
  }
  const keys = new Map<string, string[]>();
  for (const device of devices) {
    const [neighbour, second] = neighbours.get(device.id) ?? [];
    if (!foldedRoles.includes(device.role) || neighbour === undefined || second !== undefined) continue;
    const key = `${neighbour.id}/${device.role}/${placeOf(device) ?? ''}`;
    keys.set(key, [...(keys.get(key) ?? []), device.id]);
  }
  const folded = new Map<string, string>();
  for (const [key, ids] of keys) if (ids.length > 1) for (const id of ids) folded.set(id, `fold:${key}`);
  return folded;
}

const plural: Partial<Record<Role, string>> = { SW: 'switches', PC: 'workstations' };

/** "1/1–12" for a bundle's ports at one end, or their number when they do not count on. */
function portRange(names: readonly string[]): string {
  const sorted = [...names].sort(compareNames);
  const first = sorted[0] ?? '';
  const last = sorted.at(-1) ?? '';
  if (sorted.length === 1) return first;
  const start = /^(.*?)(\d+)$/.exec(first);
  const end = /^(.*?)(\d+)$/.exec(last);
  const counts = start?.[1] === end?.[1] && Number(end?.[2]) - Number(start?.[2]) === sorted.length - 1;
  return counts ? `${first}–${end?.[2] ?? ''}` : `${sorted.length} ports`;
}

function bundle(wires: readonly Wire[], nodeOf: (device: Device) => string): GraphLink[] {
  const groups = new Map<string, Wire[]>();
  for (const wire of wires) {
    const a = nodeOf(wire.a);
    const b = nodeOf(wire.b);
    const key = `${a < b ? `${a}|${b}` : `${b}|${a}`}|${wire.medium}`;
    groups.set(key, [...(groups.get(key) ?? []), wire]);
  }
  const links: GraphLink[] = [];
  // The legs of one breakout are links of their own.
  const legs = new Map<Wire, string>();
  const seen = new Map<string, number>();
  for (const wire of wires) {
    const before = seen.get(wire.cable.id) ?? 0;
    if (before > 0) legs.set(wire, `/${before + 1}`);
    seen.set(wire.cable.id, before + 1);
  }
  const linkOf = (members: Wire[]): void => {
    const [first] = members;
    if (first === undefined) return;
    const a = nodeOf(first.a);
    const ends = members.map((wire) =>
      nodeOf(wire.a) === a ? [wire.aPort, wire.bPort] : [wire.bPort, wire.aPort],
    );
    links.push({
      id: members.length === 1 ? `${first.cable.id}${legs.get(first) ?? ''}` : `bundle:${first.cable.id}`,
      cables: members.map((wire) => wire.cable),
      a,
      b: nodeOf(first.b),
      aPort: portRange(ends.map((end) => end[0] ?? '')),
      bPort: portRange(ends.map((end) => end[1] ?? '')),
      aOrdinal: first.aOrdinal,
      medium: first.medium,
      jacket: first.jacket,
      management: members.every((wire) => wire.management),
      text:
        members.length === 1 || members.every((wire) => wire.cable.id === first.cable.id)
          ? first.cable.label
          : `${members.length} cables`,
    });
  };
  for (const members of groups.values()) {
    const folded = members.some((wire) => nodeOf(wire.a) !== wire.a.id || nodeOf(wire.b) !== wire.b.id);
    if (members.length > mostParallel || folded) linkOf(members);
    else for (const wire of members) linkOf([wire]);
  }
  return links.filter((link) => link.a !== link.b);
}

/** What a cabling sheet shows, before anything has a position. */
export function cablingGraph(network: Network, sheet: Sheet): CablingGraph {
  const power = sheet.show.includes('power');
  const drawn = (device: Device): boolean =>
    network.countOf('portsByDevice', device.id) > 0 &&
    (power || (device.role !== 'PD' && device.role !== 'UP'));
  const inScope = devicesInScope(network, sheet.scopeId).filter(drawn);
  const within = new Set(inScope.map((device) => device.id));
  const wires = wiresOf(network, inScope, power);
  const devices = new Map(inScope.map((device) => [device.id, device]));
  for (const wire of wires)
    for (const device of [wire.a, wire.b]) if (drawn(device)) devices.set(device.id, device);
  const shown = wires.filter((wire) => devices.has(wire.a.id) && devices.has(wire.b.id));

  const placeOf = (device: Device): string | null => placeOfDevice(network, device);
  const folded = foldKeys([...devices.values()], shown, placeOf);
  const nodes = new Map<string, GraphNode>();
  for (const device of [...devices.values()].sort(byName)) {
    const id = folded.get(device.id) ?? device.id;
    const node = nodes.get(id);
    if (node !== undefined) {
      node.devices.push(device);
      continue;
    }
    const fold = id !== device.id;
    const name = fold ? (plural[device.role] ?? `${roles[device.role].label}s`) : device.name;
    nodes.set(id, {
      id,
      devices: [device],
      role: device.role,
      name,
      lines: fold ? [] : linesOf(network, sheet, device),
      placeId: placeOf(device),
      outside: !within.has(device.id),
    });
  }
  for (const node of nodes.values()) {
    if (node.devices.length > 1)
      node.lines = [`${node.devices[0]?.name ?? ''} … ${node.devices.at(-1)?.name ?? ''}`];
  }
  const links = bundle(shown, (device) => folded.get(device.id) ?? device.id);
  const outer = placeChain(network, sheet.scopeId).length;
  const titles = new Map<string, string>();
  for (const node of nodes.values()) {
    if (node.placeId === null || titles.has(node.placeId)) continue;
    const chain = placeChain(network, node.placeId);
    const inside = sheet.scopeId === null || chain.some((place) => place.id === sheet.scopeId);
    const from = inside ? Math.min(outer, chain.length - 1) : Math.max(0, chain.length - 1);
    titles.set(
      node.placeId,
      chain
        .slice(from)
        .map((place) => place.name)
        .join(' › '),
    );
  }
  return { nodes: [...nodes.values()], links, titles };
}

import type { Device } from '../model/kinds/equipment/device.ts';
import type { Vlan } from '../model/kinds/logical/vlan.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import type { Bridge, BridgePort } from './bridges.ts';
import type { Layer2 } from './layer2.ts';

type Mark = 'U' | 'T' | '-';

/** One row of the matrix: a switch, or a link between two. */
export interface MatrixRow {
  id: string;
  label: string;
  detail: string;
  /** Numberings that hold at it. */
  numberingIds: readonly (string | null)[];
  /** The ports that a mark in this row sets: trunks of a switch with their far ends, or the ends of the link. */
  ends: BridgePort[];
  /** How each VLAN stands here, in the order of the columns. */
  cells: MatrixCell[];
}
export interface MatrixCell {
  vid: number;
  /** At both ends of a link, or on the ports of a switch; two marks where ends differ. */
  mark: Mark | null;
  ends: [a: Mark, b: Mark] | null;
  /** Of a switch: ports that send it untagged, and tagged. */
  count: number;
}

const marks: Readonly<Record<'untagged' | 'tagged' | 'none', Mark>> = {
  untagged: 'U',
  tagged: 'T',
  none: '-',
};
const markAt = (layer2: Layer2, at: BridgePort, vid: number): Mark =>
  marks[layer2.carries(at, vid) ?? 'none'];

/** `kq-acc-3 te1/50`, or `kq-core lag11` where several members make it. */
export const wayText = ({ bridge, port, members }: BridgePort): string => {
  const [only] = members;
  const device = bridge.devices.find((one) => one.id === only?.deviceId) ?? bridge.devices[0];
  return only === undefined || members.length > 1
    ? `${bridge.devices.length > 1 ? bridge.name : (device?.name ?? '')} ${port.name}`
    : `${device?.name ?? ''} ${only.name}`;
};

const here = (bridge: Bridge, devices: ReadonlySet<string>): boolean =>
  bridge.form === 'switch' && bridge.devices.some((device) => devices.has(device.id));

/** VLANs over the links between switches of some devices, with the mark at both ends. */
export function linkMatrix(layer2: Layer2, devices: readonly Device[], vlans: readonly Vlan[]): MatrixRow[] {
  const ids = new Set(devices.map((device) => device.id));
  return layer2.links
    .filter(({ a, b }) => a.bridge.form === 'switch' && b.bridge.form === 'switch')
    .filter(({ a, b }) => here(a.bridge, ids) || here(b.bridge, ids))
    .map((link): MatrixRow => {
      const [a, b] =
        compareNames(wayText(link.a), wayText(link.b)) <= 0 ? [link.a, link.b] : [link.b, link.a];
      return {
        id: link.key,
        label: wayText(a),
        detail: wayText(b),
        numberingIds: [a.bridge.numberingId, b.bridge.numberingId],
        ends: [a, b],
        cells: vlans.map(({ vid }) => {
          const ends: [Mark, Mark] = [markAt(layer2, a, vid), markAt(layer2, b, vid)];
          return { vid, mark: ends[0] === ends[1] ? ends[0] : null, ends, count: 1 };
        }),
      };
    })
    .sort((x, y) => compareNames(`${x.label} ${x.detail}`, `${y.label} ${y.detail}`));
}

/** VLANs over the switches among some devices: untagged where any port sends it so, with the number of ports. */
export function switchMatrix(
  layer2: Layer2,
  devices: readonly Device[],
  vlans: readonly Vlan[],
): MatrixRow[] {
  const ids = new Set(devices.map((device) => device.id));
  const trunks = new Map<string, BridgePort[]>();
  for (const { a, b } of layer2.links) {
    if (a.bridge.form !== 'switch' || b.bridge.form !== 'switch') continue;
    for (const [own, far] of [
      [a, b],
      [b, a],
    ] as const)
      trunks.set(own.bridge.key, [...(trunks.get(own.bridge.key) ?? []), own, far]);
  }
  const ports = new Map<string, BridgePort[]>();
  for (const port of layer2.bridging.ports)
    ports.set(port.bridge.key, [...(ports.get(port.bridge.key) ?? []), port]);
  return [...layer2.bridging.bridges.values()]
    .filter((bridge) => here(bridge, ids))
    .map((bridge): MatrixRow => {
      const own = ports.get(bridge.key) ?? [];
      return {
        id: bridge.key,
        label: bridge.name,
        detail: `${own.length} ${own.length === 1 ? 'port' : 'ports'}`,
        numberingIds: [bridge.numberingId],
        ends: [...new Set(trunks.get(bridge.key) ?? [])],
        cells: vlans.map(({ vid, numberingId }) => {
          const marks =
            bridge.numberingId === numberingId ? own.map((port) => markAt(layer2, port, vid)) : [];
          const untagged = marks.filter((mark) => mark === 'U').length;
          const tagged = marks.filter((mark) => mark === 'T').length;
          return {
            vid,
            mark: untagged > 0 ? 'U' : tagged > 0 ? 'T' : '-',
            ends: null,
            count: untagged + tagged,
          };
        }),
      };
    })
    .sort((x, y) => compareNames(x.label, y.label));
}

/** The VLANs of a numbering that a matrix has as columns; the rows of a link in another numbering have none of them. */
export const matrixVlans = (network: Network, numberingId: string): Vlan[] =>
  network.find('vlansByNumbering', numberingId).sort((a, b) => a.vid - b.vid);

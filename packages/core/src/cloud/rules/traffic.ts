import { highestPort, type PortRange } from '../../model/kinds/cloud/ports.ts';
import { protocols, type Protocol } from '../../model/kinds/cloud/ports.ts';

/** A run of addresses of one family, both ends included. */
export interface Span {
  from: bigint;
  to: bigint;
}
/**
 * Peers by space: addresses of either family as runs in order that do not touch, and, where a rule names the members of
 * a rule set that may change, that set as a space of its own.
 */
export type Peers = ReadonlyMap<string, readonly Span[]>;

/** Ports with the peers that they are open to; segments in order, without overlap, none of them empty. */
interface Segment extends PortRange {
  peers: Peers;
}
/** One atom of protocols: those that rules name, and all others. */
export type Atom = Exclude<Protocol, 'any'> | 'other';
export const atoms: readonly Atom[] = [
  ...protocols.filter((one): one is Exclude<Protocol, 'any'> => one !== 'any'),
  'other',
];
/** Which packets: protocol, destination port and peer. A value; what has no ports stands at all of them. */
export type Traffic = ReadonlyMap<Atom, readonly Segment[]>;

export const noTraffic: Traffic = new Map();

type Join = (a: readonly Span[], b: readonly Span[]) => readonly Span[];

/** Runs in either, in order; those that touch are one. */
export const spansUnited: Join = (a, b) => {
  const found: Span[] = [];
  for (const { from, to } of [...a, ...b].sort((x, y) => (x.from < y.from ? -1 : x.from > y.from ? 1 : 0))) {
    const last = found.at(-1);
    if (last !== undefined && from <= last.to + 1n) last.to = last.to > to ? last.to : to;
    else found.push({ from, to });
  }
  return found;
};

/** What is in both. */
export const spansShared: Join = (a, b) => {
  const found: Span[] = [];
  for (let [i, j] = [0, 0]; i < a.length && j < b.length;) {
    const [x, y] = [a[i], b[j]];
    if (x === undefined || y === undefined) break;
    const from = x.from > y.from ? x.from : y.from;
    const to = x.to < y.to ? x.to : y.to;
    if (from <= to) found.push({ from, to });
    if (x.to < y.to) i++;
    else j++;
  }
  return found;
};

/** What is in the first and not in the second. */
export const spansWithout: Join = (a, b) => {
  const found: Span[] = [];
  for (const { from, to } of a) {
    let at = from;
    for (const cut of b) {
      if (cut.to < at || cut.from > to) continue;
      if (cut.from > at) found.push({ from: at, to: cut.from - 1n });
      at = cut.to + 1n;
      if (at > to) break;
    }
    if (at <= to) found.push({ from: at, to });
  }
  return found;
};

function peersJoined(a: Peers, b: Peers, join: Join): Peers {
  const found = new Map<string, readonly Span[]>();
  for (const space of new Set([...a.keys(), ...b.keys()])) {
    const spans = join(a.get(space) ?? [], b.get(space) ?? []);
    if (spans.length > 0) found.set(space, spans);
  }
  return found;
}

const nobody: Peers = new Map();

function segmentsJoined(a: readonly Segment[], b: readonly Segment[], join: Join): Segment[] {
  const edges = new Set<number>();
  for (const { from, to } of [...a, ...b]) edges.add(from).add(to + 1);
  const starts = [...edges].sort((x, y) => x - y);
  const found: Segment[] = [];
  let [i, j] = [0, 0];
  starts.forEach((from, at) => {
    const to = (starts[at + 1] ?? highestPort + 1) - 1;
    while ((a[i]?.to ?? Infinity) < from) i++;
    while ((b[j]?.to ?? Infinity) < from) j++;
    const of = (one: Segment | undefined): Peers =>
      one !== undefined && one.from <= from ? one.peers : nobody;
    const peers = peersJoined(of(a[i]), of(b[j]), join);
    if (peers.size > 0) found.push({ from, to, peers });
  });
  return found;
}

function joined(a: Traffic, b: Traffic, join: Join): Traffic {
  const found = new Map<Atom, readonly Segment[]>();
  for (const atom of atoms) {
    const segments = segmentsJoined(a.get(atom) ?? [], b.get(atom) ?? [], join);
    if (segments.length > 0) found.set(atom, segments);
  }
  return found;
}

export const united = (a: Traffic, b: Traffic): Traffic => joined(a, b, spansUnited);
export const shared = (a: Traffic, b: Traffic): Traffic => joined(a, b, spansShared);
export const without = (a: Traffic, b: Traffic): Traffic => joined(a, b, spansWithout);
export const isNone = (traffic: Traffic): boolean => traffic.size === 0;

function segmentsMeet(a: Traffic, b: Traffic, peersToo: (a: Peers, b: Peers) => boolean): boolean {
  for (const [atom, segments] of a)
    for (const { from, to, peers } of b.get(atom) ?? [])
      for (const one of segments)
        if (from <= one.to && one.from <= to && peersToo(one.peers, peers)) return true;
  return false;
}
function peersMeet(a: Peers, b: Peers): boolean {
  for (const [space, spans] of a) if (spansShared(spans, b.get(space) ?? []).length > 0) return true;
  return false;
}
/** Whether some packet is in both. */
export const meet = (a: Traffic, b: Traffic): boolean => segmentsMeet(a, b, peersMeet);
/** Whether both have packets of a protocol to one port, whoever their peers are. */
export const portsMeet = (a: Traffic, b: Traffic): boolean => segmentsMeet(a, b, () => true);

/** Packets of a protocol to some ports, from or to some peers. */
export function trafficOf(protocol: Protocol, ranges: readonly PortRange[], peers: Peers): Traffic {
  if (peers.size === 0) return noTraffic;
  const segments = ranges.map(({ from, to }) => ({ from, to, peers }));
  return new Map((protocol === 'any' ? atoms : [protocol]).map((atom) => [atom, segments]));
}

/** The peers that some packets go with; those of a whole range of ports only where it holds for each of them. */
export function peersAt(traffic: Traffic, atom: Atom, { from, to }: PortRange): Peers {
  let found: Peers | null = null;
  let next = from;
  for (const segment of traffic.get(atom) ?? []) {
    if (segment.to < from || segment.from > to) continue;
    if (segment.from > next) return nobody;
    found = found === null ? segment.peers : peersJoined(found, segment.peers, spansShared);
    next = segment.to + 1;
  }
  return next > to ? (found ?? nobody) : nobody;
}

export const holdsPeer = (peers: Peers, space: string, value: bigint): boolean =>
  (peers.get(space) ?? []).some(({ from, to }) => from <= value && value <= to);

import { derived, keptOnPaper } from '../model/network/derived.ts';
import { inForce } from '../lens/inForce.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { byName, compareNames } from '../model/values/order.ts';
import { portSpeed } from '../model/network/ports.ts';
import { lastVid } from '../model/values/vids.ts';
import { bridgingOf, setPort, type Bridge, type BridgePort, type Bridging } from './bridges.ts';
import type { Reads } from '../model/network/reads.ts';
import { VidSet } from './vidSet.ts';

/** Two bridge ports joined by one run or by all members of an aggregate. */
export interface BridgeLink {
  key: string;
  a: BridgePort;
  b: BridgePort;
  /** Tags on the wire that both ends take; 0 for untagged frames. */
  tags: VidSet;
  /** What both ends agree on, of all members together; null where no speed is known. */
  speedBps: number | null;
  /** A member port of `a`, so that what carries it can be found. */
  memberId: string;
}

/** How a bridge port maps what is on the wire to VLANs inside: 0 on the wire are untagged frames. */
interface Carriage {
  tags: VidSet;
  /** The VLAN of untagged frames; null: they are dropped. In a transparent bridge all frames keep their tag. */
  untagged: number | null;
}

const slots = lastVid + 1;

function carriageOf({ bridge, port }: BridgePort): Carriage {
  if (bridge.form === 'transparent') return { tags: VidSet.all(true), untagged: 0 };
  const tags = port.taggedVids === 'all' ? VidSet.all(false) : VidSet.of(port.taggedVids ?? []);
  if (port.voiceVid !== null) tags.add(port.voiceVid);
  const untagged = port.untaggedVid ?? (port.mode === 'access' ? 1 : null);
  if (untagged !== null) {
    tags.add(0);
    tags.delete(untagged);
  }
  return { tags, untagged };
}

const inner = (carriage: Carriage, tag: number): number => (tag === 0 ? (carriage.untagged ?? 0) : tag);

/** A port of a device that does not bridge: what it sends and takes, by tag. */
interface Listener {
  port: Port;
  tag: number;
  at: BridgePort;
}

/** Where a frame of one VLAN of one bridge can go. */
export interface Domain {
  id: number;
  /** Bridges, each with the VLAN number it has there. */
  bridges: { bridge: Bridge; vid: number }[];
  ports: { at: BridgePort; vid: number; tagged: boolean }[];
  /** Ports and subinterfaces of devices that do not bridge, and VLAN interfaces of those that do. */
  listeners: Port[];
}

/** Of each domain, by its id, where its bridges and numbers stand in one list of `bridge * slots + number`. */
interface Members {
  spans: ReadonlyMap<number, readonly [from: number, to: number]>;
  nodes: Int32Array;
}

/**
 * The layer-2 reach of every VLAN of every bridge (IEEE 802.1Q): two bridges share a VLAN where a link carries it with
 * the same tag at both ends, or untagged at both, whatever number untagged frames get there. Time grows with links
 * times VLANs carried.
 */
export class Layer2 {
  readonly links: BridgeLink[] = [];
  private readonly index = new Map<string, number>();
  private readonly order: Bridge[];
  private readonly parent: Int32Array;
  private readonly carriage = new Map<string, Carriage>();
  private readonly present: VidSet[];
  private readonly listeners: Listener[] = [];
  private membersByRoot: Members | null = null;
  private readonly segments = new Map<string, string>();

  constructor(
    private readonly network: Network,
    readonly bridging: Bridging = bridgingOf(network),
  ) {
    this.order = [...bridging.bridges.values()];
    this.order.forEach((bridge, at) => this.index.set(bridge.key, at));
    this.parent = new Int32Array(this.order.length * slots);
    for (let at = 0; at < this.parent.length; at++) this.parent[at] = at;
    this.present = this.order.map(() => VidSet.of([]));
    for (const port of bridging.ports) {
      const carriage = carriageOf(port);
      this.carriage.set(port.key, carriage);
      const seen = this.present[this.at(port.bridge)];
      if (seen === undefined) continue;
      seen.addAll(carriage.tags);
      if (port.bridge.form === 'switch') {
        seen.delete(0);
        if (carriage.untagged !== null) seen.add(carriage.untagged);
      }
    }
    this.join();
    this.listen();
  }

  private at(bridge: Bridge): number {
    return this.index.get(bridge.key) ?? 0;
  }

  private node(bridge: Bridge, vid: number): number {
    return this.at(bridge) * slots + vid;
  }

  private find(node: number): number {
    const { parent } = this;
    let root = node;
    while (parent[root] !== root) root = parent[root] ?? root;
    while (parent[node] !== root) {
      const next = parent[node] ?? root;
      parent[node] = root;
      node = next;
    }
    return root;
  }

  private join(): void {
    const links = new Map<string, BridgeLink>();
    for (const a of this.bridging.ports)
      for (const member of a.members) {
        const far = this.bridging.farOf(member.id);
        const b = far === null ? undefined : this.bridging.byMember.get(far);
        if (b === undefined || (b.bridge === a.bridge && b.key === a.key)) continue;
        if (compareNames(a.title, b.title) > 0) continue;
        const key = [a.key, b.key].sort().join(' ');
        const speedBps = this.agreedSpeed(member, this.network.get('port', far));
        const known = links.get(key);
        if (known !== undefined) {
          known.speedBps = (known.speedBps ?? 0) + (speedBps ?? 0) || null;
          continue;
        }
        const tags = this.tagsOf(a).and(this.tagsOf(b));
        links.set(key, { key, a, b, tags, speedBps, memberId: member.id });
      }
    for (const link of links.values()) {
      this.links.push(link);
      const [a, b] = [this.carriage.get(link.a.key), this.carriage.get(link.b.key)];
      if (a === undefined || b === undefined) continue;
      const [from, to] = [this.node(link.a.bridge, 0), this.node(link.b.bridge, 0)];
      link.tags.each((tag) => {
        const x = this.find(from + inner(a, tag));
        const y = this.find(to + inner(b, tag));
        if (x !== y) this.parent[Math.max(x, y)] = Math.min(x, y);
      });
    }
  }

  /** What two ports run at together: the slower of them. */
  private agreedSpeed(a: Port, b: Port | null): number | null {
    const speeds = [portSpeed(this.network, a), b === null ? null : portSpeed(this.network, b)];
    const known = speeds.filter((speed) => speed !== null);
    return known.length === 0 ? null : Math.min(...known);
  }

  /**
   * The number by which a link carries a domain at its ends; null where it does not: both must take the same tag for
   * VLANs of that domain.
   */
  carriedBy(link: BridgeLink, id: number, numbersAtA: readonly number[]): { a: number; b: number } | null {
    const [a, b] = [this.carriage.get(link.a.key), this.carriage.get(link.b.key)];
    if (a === undefined || b === undefined) return null;
    for (const number of numbersAtA) {
      const tag = a.untagged === number ? 0 : number;
      if (!link.tags.has(tag)) continue;
      const there = inner(b, tag);
      if (this.domainId(link.b.bridge, there) === id) return { a: number, b: there };
    }
    return null;
  }

  private tagsOf(port: BridgePort): VidSet {
    return this.carriage.get(port.key)?.tags ?? VidSet.of([]);
  }

  /** Ports of devices that do not bridge, plugged into those that do, and what runs over them. */
  private listen(): void {
    for (const at of this.bridging.ports)
      for (const member of at.members) {
        const far = this.network.get('port', this.bridging.farOf(member.id));
        const passes = far === null ? undefined : this.bridging.byMember.get(far.id);
        // What passes all frames on has an address of its own too.
        if (far === null || passes?.bridge.form === 'switch' || at.bridge.form === 'transparent') continue;
        const port = setPort(this.network, far);
        const over = this.network.find('portsByParent', port.id).filter((one) => one.vid !== null);
        const tags = this.tagsOf(at);
        // A phone sends its own frames with the tag of the voice VLAN.
        const role = this.network.get('device', port.deviceId)?.role;
        const voice = role === 'PH' ? at.port.voiceVid : null;
        if (voice !== null) this.listeners.push({ port, tag: voice, at });
        else if (tags.has(0)) this.listeners.push({ port, tag: 0, at });
        // An access point hands each tagged VLAN to a wireless network.
        if (role === 'AP') tags.each((tag) => tag > 0 && this.listeners.push({ port, tag, at }));
        for (const one of over)
          if (one.vid !== null && tags.has(one.vid)) this.listeners.push({ port: one, tag: one.vid, at });
      }
    for (const { port, tag, at } of this.listeners) {
      const carriage = this.carriage.get(at.key);
      if (carriage !== undefined && !this.segments.has(port.id))
        this.segments.set(
          port.id,
          `d${this.find(this.node(at.bridge, inner(carriage, tag)))}${port.innerVid === null ? '' : `.${port.innerVid}`}`,
        );
    }
  }

  /** The number by which a bridge port knows what comes untagged; null where that is dropped. */
  untaggedAt(port: BridgePort): number | null {
    return this.carriage.get(port.key)?.untagged ?? null;
  }

  /** Whether a bridge port takes part in a VLAN, and whether with a tag. */
  carries(port: BridgePort, vid: number): 'tagged' | 'untagged' | null {
    const carriage = this.carriage.get(port.key);
    if (carriage === undefined) return null;
    if (carriage.untagged === vid) return 'untagged';
    return vid !== 0 && carriage.tags.has(vid) ? 'tagged' : null;
  }

  /** Whether two VLANs of two bridges are one. */
  sameDomain(a: Bridge, vidA: number, b: Bridge, vidB: number): boolean {
    return this.find(this.node(a, vidA)) === this.find(this.node(b, vidB));
  }

  domainId(bridge: Bridge, vid: number): number {
    return this.find(this.node(bridge, vid));
  }

  /** The VLANs that any port of a bridge carries. */
  vidsOf(bridge: Bridge): VidSet {
    return this.present[this.at(bridge)] ?? VidSet.of([]);
  }

  /**
   * Which broadcast domain a routed port is in: the same text for all that hear each other. Null where nothing is
   * plugged in. A loopback is in none. Of a subinterface with two tags the inner one counts as well (IEEE 802.1ad).
   */
  segmentOf(port: Port): string | null {
    if (port.form === 'loopback' || port.form === 'tunnel') return null;
    if (port.form === 'vlan') {
      const device = this.network.get('device', port.deviceId);
      const bridge = this.order.find(
        (one) => device !== null && one.devices.some((other) => other.id === device.id),
      );
      return bridge === undefined || port.vid === null ? null : `d${this.domainId(bridge, port.vid)}`;
    }
    const heard = this.segments.get(port.id);
    if (heard !== undefined) return heard;
    const base = port.form === 'subinterface' ? this.network.get('port', port.parentId) : port;
    if (base === null) return null;
    const members = base.form === 'aggregate' ? this.network.find('portsByAggregate', base.id) : [base];
    for (const member of members) {
      const far = this.network.get('port', this.bridging.farOf(member.id));
      if (far === null || this.bridging.byMember.has(far.id)) continue;
      const ends = [setPort(this.network, member).id, setPort(this.network, far).id].sort();
      return `l${ends.join('/')}/${port.form === 'subinterface' ? `${port.vid}.${port.innerVid ?? ''}` : ''}`;
    }
    return null;
  }

  /** Bridges and numbers by domain: counted first, then filled in, so that millions cost no object each. */
  private members(): Members {
    if (this.membersByRoot !== null) return this.membersByRoot;
    const counts = new Int32Array(this.parent.length);
    const roots: number[] = [];
    let total = 0;
    this.present.forEach((vids, bridge) =>
      vids.each((vid) => {
        const root = this.find(bridge * slots + vid);
        if (counts[root] === 0) roots.push(root);
        counts[root] = (counts[root] ?? 0) + 1;
        total++;
      }),
    );
    const spans = new Map<number, readonly [from: number, to: number]>();
    // From here on, where the next one of each domain goes.
    const next = counts;
    let from = 0;
    for (const root of roots) {
      const to = from + (counts[root] ?? 0);
      spans.set(root, [from, to]);
      next[root] = from;
      from = to;
    }
    const nodes = new Int32Array(total);
    this.present.forEach((vids, bridge) =>
      vids.each((vid) => {
        const node = bridge * slots + vid;
        const root = this.find(node);
        const at = next[root] ?? 0;
        nodes[at] = node;
        next[root] = at + 1;
      }),
    );
    this.membersByRoot = { spans, nodes };
    return this.membersByRoot;
  }

  /** Bridges in a domain, each with the VLAN number it has there. */
  bridgesOfDomain(id: number): { bridge: Bridge; vid: number }[] {
    const { spans, nodes } = this.members();
    const [from, to] = spans.get(id) ?? [0, 0];
    const found: { bridge: Bridge; vid: number }[] = [];
    for (let at = from; at < to; at++) {
      const node = nodes[at] ?? 0;
      const bridge = this.order[Math.floor(node / slots)];
      if (bridge !== undefined) found.push({ bridge, vid: node % slots });
    }
    return found;
  }

  /** The VLAN numberings that switches of a domain are of. */
  numberingsOfDomain(id: number): Set<string> {
    const { spans, nodes } = this.members();
    const [from, to] = spans.get(id) ?? [0, 0];
    const found = new Set<string>();
    let last: string | null = null;
    for (let at = from; at < to; at++) {
      const bridge = this.order[Math.floor((nodes[at] ?? 0) / slots)];
      if (bridge === undefined || bridge.form !== 'switch' || bridge.numberingId === last) continue;
      last = bridge.numberingId;
      if (last !== null) found.add(last);
    }
    return found;
  }

  private groups: Map<string, Bridge[]> | null = null;

  /** A bridge and all that hang together with it by links, whatever VLANs they carry; in order of name. */
  pluggedBridges(start: Bridge): readonly Bridge[] {
    this.groups ??= pluggedTogether(this.order, this.links);
    return this.groups.get(start.key) ?? [start];
  }

  /** Everything that hears a frame of a VLAN sent at a bridge. */
  domain(bridge: Bridge, vid: number): Domain {
    const id = this.domainId(bridge, vid);
    const bridges = this.bridgesOfDomain(id);
    const numbers = new Map<string, number[]>();
    for (const one of bridges) numbers.set(one.bridge.key, [...(numbers.get(one.bridge.key) ?? []), one.vid]);
    const ports = this.bridging.ports.flatMap((at) =>
      (numbers.get(at.bridge.key) ?? []).flatMap((number) => {
        const how = this.carries(at, number);
        return how === null ? [] : [{ at, vid: number, tagged: how === 'tagged' }];
      }),
    );
    const listeners = this.listeners
      .filter(({ at, tag }) => {
        const carriage = this.carriage.get(at.key);
        return carriage !== undefined && this.domainId(at.bridge, inner(carriage, tag)) === id;
      })
      .map(({ port }) => port);
    for (const one of bridges)
      for (const device of one.bridge.devices)
        for (const port of this.network.find('logicalPortsByDevice', device.id))
          if (port.form === 'vlan' && port.vid === one.vid) listeners.push(port);
    return { id, bridges, ports, listeners };
  }

  /** Ids of all domains that somebody is in. */
  domainIds(): Iterable<number> {
    return this.members().spans.keys();
  }

  /** All domains that somebody is in, each with the bridges and numbers in it. */
  *domains(): Generator<{ id: number; bridges: { bridge: Bridge; vid: number }[] }> {
    for (const id of this.domainIds()) yield { id, bridges: this.bridgesOfDomain(id) };
  }
}

/** Bridges by key, each with all that it is joined to. */
function pluggedTogether(order: readonly Bridge[], links: readonly BridgeLink[]): Map<string, Bridge[]> {
  const groups = new Map(order.map((bridge) => [bridge.key, [bridge]]));
  for (const { a, b } of links) {
    const [left, right] = [groups.get(a.bridge.key), groups.get(b.bridge.key)];
    if (left === undefined || right === undefined || left === right) continue;
    const [more, less] = left.length < right.length ? [right, left] : [left, right];
    more.push(...less);
    for (const bridge of less) groups.set(bridge.key, more);
  }
  for (const group of new Set(groups.values())) group.sort(byName);
  return groups;
}

/** What layer 2 is worked out from. */
export const layer2Reads: Reads = {
  device: [
    'name',
    'role',
    'modelId',
    'placeId',
    'rackId',
    'stack',
    'bridgePriority',
    'bridgeAddress',
    'spanningTree',
  ],
  port: [
    'deviceId',
    'name',
    'connector',
    'speedBps',
    'role',
    'ordinal',
    'leadsToId',
    'leadsToStrand',
    'transceiverId',
    'form',
    'mode',
    'untaggedVid',
    'taggedVids',
    'voiceVid',
    'vlanNumberingId',
    'aggregateId',
    'parentId',
    'vid',
    'innerVid',
    'spanningTree',
  ],
  cable: ['typeId', 'aPortId', 'bPortId'],
  leg: 'all',
  circuit: ['aPortId', 'bPortId'],
  place: ['parentId', 'vlanNumberingId'],
  rack: ['placeId'],
  model: 'all',
};

const built = derived((network) => new Layer2(network), keptOnPaper);

/** The layer-2 reach of what is in force in a network, worked out once. */
export const layer2Of = (whole: Network): Layer2 => built(inForce(whole));

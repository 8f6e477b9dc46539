import { update, type Change } from '../../change/change.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { PortProfile, PortSwitching } from '../../model/kinds/logical/vlan.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { setPort, vlanText, type Bridge, type BridgePort } from '../bridges.ts';
import { layer2Of, type BridgeLink, type Layer2 } from '../layer2.ts';
import { wayText } from '../vlanMatrix.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** How a port takes part in a VLAN: untagged, tagged, or not. */
export const vlanMarks = ['U', 'T', '-'] as const;
export type VlanMark = (typeof vlanMarks)[number];

/** How a port takes part in a VLAN as it is set. A voice VLAN goes tagged. */
export function markOf(port: PortSwitching, vid: number): VlanMark {
  if (port.untaggedVid === vid) return 'U';
  if (port.voiceVid === vid) return 'T';
  return port.taggedVids === 'all' || port.taggedVids?.includes(vid) === true ? 'T' : '-';
}

/** The setting of a port once it takes part in a VLAN so; a text says why it cannot. */
export function marked(port: PortSwitching, vid: number, mark: VlanMark): PortSwitching | string {
  const now = markOf(port, vid);
  if (now === mark) return port;
  if (port.mode === 'access') {
    if (mark === 'U')
      return { ...port, untaggedVid: vid, voiceVid: port.voiceVid === vid ? null : port.voiceVid };
    if (mark === 'T')
      return `is an access port, which sends VLAN ${port.untaggedVid ?? 'none'} untagged: make it a trunk first`;
    if (port.voiceVid === vid) return { ...port, voiceVid: null };
    return 'is an access port: give it another VLAN instead of none';
  }
  if (port.mode !== 'trunk') return 'is not a switched port: make it a trunk first';
  const { taggedVids } = port;
  if (taggedVids === 'all') {
    if (mark === 'U') return { ...port, untaggedVid: vid };
    return 'carries all VLANs: give it a list of numbers first';
  }
  const others = (taggedVids ?? []).filter((one) => one !== vid);
  return {
    ...port,
    untaggedVid: mark === 'U' ? vid : now === 'U' ? null : port.untaggedVid,
    taggedVids: mark === 'T' ? [...others, vid].sort((a, b) => a - b) : others,
  };
}

/** One wish of many: how a port is to take part in a VLAN. */
export interface MarkWish {
  port: Port;
  vid: number;
  mark: VlanMark;
}

const fieldsOf = ({ mode, untaggedVid, taggedVids, voiceVid }: PortSwitching): PortSwitching => ({
  mode,
  untaggedVid,
  taggedVids,
  voiceVid,
});

/** Changes of many ports for VLANs in one step; the first that cannot be is the reason that none is made. */
export function setMarks(network: Network, wishes: readonly MarkWish[], sentence: string): Attempt {
  const settings = new Map<string, { port: Port; now: PortSwitching }>();
  for (const { port, vid, mark } of wishes) {
    const { now } = settings.get(port.id) ?? { now: fieldsOf(port) };
    const next = marked(now, vid, mark);
    if (typeof next === 'string') return refuse(`${portTitle(network, port.id).replace(':', ' ')} ${next}.`);
    settings.set(port.id, { port, now: fieldsOf(next) });
  }
  const changes: (Change | null)[] = [...settings.values()].map(({ port, now }) => update('port', port, now));
  return judged(network, changes, sentence);
}

/** One link between two switches that a VLAN is wanted on, with what its ends say now. */
export interface CarryStep {
  link: BridgeLink;
  ends: { at: BridgePort; mark: VlanMark; wish: VlanMark | null; why: string | null }[];
}
export interface Carry {
  /** The switches on the way, from the first to the last. */
  way: Bridge[];
  steps: CarryStep[];
  attempt: Attempt;
}

/** The shortest way over links between two bridges; of equally short ones that with more links in parallel. */
function wayBetween(layer2: Layer2, from: Bridge, to: Bridge): Bridge[] | null {
  const near = new Map<string, Map<string, Bridge>>();
  for (const { a, b } of layer2.links)
    for (const [here, there] of [
      [a.bridge, b.bridge],
      [b.bridge, a.bridge],
    ] as const)
      near.set(here.key, (near.get(here.key) ?? new Map<string, Bridge>()).set(there.key, there));
  const before = new Map<string, Bridge | null>([[from.key, null]]);
  let open = [from];
  while (open.length > 0 && !before.has(to.key)) {
    const next: Bridge[] = [];
    for (const bridge of open)
      for (const other of near.get(bridge.key)?.values() ?? [])
        if (!before.has(other.key)) {
          before.set(other.key, bridge);
          next.push(other);
        }
    open = next;
  }
  if (!before.has(to.key)) return null;
  const way: Bridge[] = [];
  for (let at: Bridge | null = to; at !== null; at = before.get(at.key) ?? null) way.unshift(at);
  return way;
}

/**
 * Carries a VLAN from one switch to another: every trunk between the switches on the way takes it, tagged, at both
 * ends. What carries it already is left as it is; an access port in between is the reason that it cannot be.
 */
export function carryVlan(
  network: Network,
  from: Bridge,
  to: Bridge,
  vid: number,
): { ok: false; why: string } | ({ ok: true } & Carry) {
  const layer2 = layer2Of(network);
  if (from.key === to.key) return refuse(`${from.name} is one switch: there is no way to carry it over.`);
  const way = wayBetween(layer2, from, to);
  if (way === null) return refuse(`No link leads from ${from.name} to ${to.name}.`);
  const steps: CarryStep[] = [];
  const wishes: MarkWish[] = [];
  way.slice(1).forEach((there, at) => {
    const here = way[at];
    for (const link of layer2.links) {
      const pair = [link.a.bridge.key, link.b.bridge.key];
      if (here === undefined || !pair.includes(here.key) || !pair.includes(there.key)) continue;
      const inOrder = link.a.bridge.key === here.key ? [link.a, link.b] : [link.b, link.a];
      const ends = inOrder.map((end): CarryStep['ends'][number] => {
        if (end.bridge.form === 'transparent') return { at: end, mark: 'T', wish: null, why: null };
        const mark = markOf(end.port, vid);
        if (mark !== '-') return { at: end, mark, wish: null, why: null };
        const next = marked(end.port, vid, 'T');
        if (typeof next === 'string') return { at: end, mark, wish: null, why: next };
        return { at: end, mark, wish: 'T', why: null };
      });
      steps.push({ link, ends });
      for (const { at: end, wish } of ends)
        if (wish !== null) wishes.push({ port: end.port, vid, mark: wish });
    }
  });
  const blocked = steps.flatMap(({ ends }) => ends).find(({ why }) => why !== null);
  const name = vlanText(network, from.numberingId, vid);
  const attempt =
    blocked !== undefined
      ? refuse(`${wayText(blocked.at)} ${blocked.why ?? ''}.`)
      : wishes.length === 0
        ? refuse(`Every trunk from ${from.name} to ${to.name} carries ${name} already.`)
        : setMarks(
            network,
            wishes,
            `Carried ${name} from ${from.name} to ${to.name} over ${new Set(wishes.map(({ port }) => port.id)).size} ports`,
          );
  return { ok: true, way, steps, attempt };
}

/** The bridge of a device or stack by its name. */
export function bridgeNamed(network: Network, name: string): Bridge | null {
  const wanted = name.trim().toLowerCase();
  for (const bridge of layer2Of(network).bridging.bridges.values())
    if (
      bridge.name.toLowerCase() === wanted ||
      bridge.devices.some((one) => one.name.toLowerCase() === wanted)
    )
      return bridge;
  return null;
}

/** Sets ports as a profile says; of members of an aggregate the aggregate. */
export function applyProfile(network: Network, ports: readonly Port[], profile: PortProfile): Attempt {
  const targets = new Map(ports.map((port) => setPort(network, port)).map((port) => [port.id, port]));
  const wrong = [...targets.values()].find((port) => port.role === 'powerIn' || port.role === 'powerOut');
  if (wrong !== undefined)
    return refuse(`${portTitle(network, wrong.id).replace(':', ' ')} carries power, not VLANs.`);
  const changes = [...targets.values()].map((port) => update('port', port, fieldsOf(profile)));
  const made = changes.filter((change) => change !== null);
  if (made.length === 0) return refuse(`They are set as ${profile.name} already.`);
  const [first] = targets.values();
  const what =
    targets.size === 1 ? portTitle(network, first?.id ?? null).replace(':', ' ') : `${targets.size} ports`;
  return judged(network, made, `Set ${what} as ${profile.name}`);
}

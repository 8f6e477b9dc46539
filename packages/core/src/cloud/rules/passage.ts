import { inForce } from '../../lens/inForce.ts';
import type { RuleSet } from '../../model/kinds/cloud/ruleSet.ts';
import type { Network } from '../../model/network/network.ts';
import { parseIp, type IpAddress } from '../../model/values/ip.ts';
import { compareNames } from '../../model/values/order.ts';
import { follow, isPrivate, type Arrival, type LostWhy } from '../follow.ts';
import { gatewayOf, seatsOf, type Seat } from '../inventory.ts';
import { verdictOf, type Flow, type SetVerdict } from './flow.ts';
import type { RuleDirection } from './letsPass.ts';

/** One end of a flow: an interface in the cloud, or an address outside of it. */
export type FlowEnd = { portId: string } | { address: IpAddress };

/** A place where rules look at packets. */
export interface Look {
  at: 'interface' | 'subnet';
  id: string;
  direction: RuleDirection;
  /** Whether it is the answer that is looked at. */
  answering: boolean;
  said: SetVerdict;
}

export type PassageEnd =
  | { passes: true }
  | { passes: false; because: 'rule'; look: Look }
  | { passes: false; because: 'route'; from: string; why: LostWhy; answering: boolean }
  /** It leaves the cloud towards something that is not the other end. */
  | { passes: false; because: 'elsewhere'; arrival: Arrival; answering: boolean }
  | { passes: false; because: 'no address' | 'no public address' };

export interface Passage {
  end: PassageEnd;
  looks: readonly Look[];
}

/** The rule sets of an interface, by name. */
export const setsOfPort = (network: Network, portId: string): RuleSet[] =>
  network
    .find('ruleSetUsesByPort', portId)
    .flatMap(({ setId }) => network.get('ruleSet', setId) ?? [])
    .sort((a, b) => compareNames(a.name, b.name));

interface Stand {
  seat: Seat;
  sets: RuleSet[];
  border: RuleSet | null;
}

/** An interface asks all of its sets: those in order each, the others as one, of which a denial or else a permission speaks. */
function askInterface(
  network: Network,
  { seat, sets }: Stand,
  direction: RuleDirection,
  flow: Flow,
  peer: IpAddress,
  answering: boolean,
): Look[] {
  const asked = answering ? sets.filter(({ remembers }) => !remembers) : sets;
  const look = (said: SetVerdict): Look => ({ at: 'interface', id: seat.portId, direction, answering, said });
  const ask = (set: RuleSet): SetVerdict => verdictOf(network, set, direction, flow, peer, answering);
  const looks = asked.filter(({ ordered }) => ordered).map((set) => look(ask(set)));
  const loose = asked.filter(({ ordered }) => !ordered).map(ask);
  const decides =
    loose.find(({ verdict, ruleId }) => verdict === 'deny' && ruleId !== null) ??
    loose.find(({ verdict }) => verdict === 'allow') ??
    loose[0];
  return decides === undefined ? looks : [...looks, look(decides)];
}

function askBorder(
  network: Network,
  { seat, border }: Stand,
  direction: RuleDirection,
  flow: Flow,
  peer: IpAddress,
  answering: boolean,
): Look[] {
  if (border === null || (answering && border.remembers)) return [];
  const said = verdictOf(network, border, direction, flow, peer, answering);
  return [{ at: 'subnet', id: seat.subnet.id, direction, answering, said }];
}

function standOf(network: Network, portId: string, family: 4 | 6): Stand | null {
  const seat = seatsOf(network, portId).find(({ ip }) => ip.family === family);
  if (seat === undefined) return null;
  return {
    seat,
    sets: setsOfPort(network, portId),
    border: network.get('ruleSet', seat.subnet.ruleSetId),
  };
}

/** Whether packets of a stand for an address get to where they are meant, and why not. */
function routed(
  network: Network,
  from: Stand,
  to: { ip: IpAddress; subnetId: string | null },
  answering: boolean,
): PassageEnd | null {
  const { arrival } = follow(network, from.seat.subnet, to.ip);
  if (arrival.at === 'nowhere')
    return { passes: false, because: 'route', from: from.seat.subnet.id, why: arrival.why, answering };
  const there =
    to.subnetId === null
      ? arrival.at === 'internet' || arrival.at === 'beyond'
      : arrival.at === 'subnet' && arrival.subnet.id === to.subnetId;
  return there || arrival.at === 'interface'
    ? null
    : { passes: false, because: 'elsewhere', arrival, answering };
}

/** What the side outside the cloud needs: a public address at an open gateway, or that the cloud can answer it. */
function reachable(network: Network, stand: Stand, outer: IpAddress, inward: boolean): PassageEnd | null {
  const { arrival } = follow(network, stand.seat.subnet, outer);
  if (arrival.at !== 'internet') return null;
  const gateway = gatewayOf(network, arrival.deviceId)?.gateway;
  const own =
    network.countOf('publicAddressesByPort', stand.seat.portId) > 0 ||
    (stand.seat.ip.family === 6 && !isPrivate(stand.seat.ip));
  if (inward && (gateway?.direction !== 'both' || gateway.translates || !own))
    return { passes: false, because: 'no public address' };
  if (!inward && gateway?.translates !== true && !own) return { passes: false, because: 'no public address' };
  return null;
}

interface Sides {
  from: Stand | null;
  to: Stand | null;
  fromIp: IpAddress;
  toIp: IpAddress;
}

/** The looks at a packet on its way: out of the interface, over the borders, into the interface. */
function looksAt(
  network: Network,
  { from, to, fromIp, toIp }: Sides,
  flow: Flow,
  answering: boolean,
): Look[] {
  const crosses = from === null || to === null || from.seat.subnet.id !== to.seat.subnet.id;
  return [
    ...(from === null ? [] : askInterface(network, from, 'out', flow, toIp, answering)),
    ...(from === null || !crosses ? [] : askBorder(network, from, 'out', flow, toIp, answering)),
    ...(to === null || !crosses ? [] : askBorder(network, to, 'in', flow, fromIp, answering)),
    ...(to === null ? [] : askInterface(network, to, 'in', flow, fromIp, answering)),
  ];
}

function sidesOf(network: Network, from: FlowEnd, to: FlowEnd): Sides | null {
  const families: readonly (4 | 6)[] =
    'address' in from ? [from.address.family] : 'address' in to ? [to.address.family] : [4, 6];
  for (const family of families) {
    const [a, b] = [from, to].map((end) => ('portId' in end ? standOf(network, end.portId, family) : null));
    const fromIp = 'address' in from ? from.address : a?.seat.ip;
    const toIp = 'address' in to ? to.address : b?.seat.ip;
    if (fromIp !== undefined && toIp !== undefined) return { from: a ?? null, to: b ?? null, fromIp, toIp };
  }
  return null;
}

/**
 * Whether a flow passes from one end to the other, and its answer back: routes in both directions, and every rule set
 * on the way. A set that remembers does not look at answers; one that does not looks at them as at any packet, with
 * ports from which connections are begun (RFC 6056).
 */
export function passageOf(whole: Network, from: FlowEnd, to: FlowEnd, flow: Flow): Passage {
  const network = inForce(whole);
  const sides = sidesOf(network, from, to);
  if (sides === null) return { end: { passes: false, because: 'no address' }, looks: [] };
  const back: Sides = { from: sides.to, to: sides.from, fromIp: sides.toIp, toIp: sides.fromIp };
  const looks: Look[] = [];
  for (const [way, answering] of [
    [sides, false],
    [back, true],
  ] as const) {
    const outer = way.to === null ? way.toIp : null;
    const lost =
      way.from === null
        ? null
        : routed(network, way.from, { ip: way.toIp, subnetId: way.to?.seat.subnet.id ?? null }, answering);
    if (lost !== null) return { end: lost, looks };
    if (outer !== null && way.from !== null) {
      const shut = reachable(network, way.from, outer, answering);
      if (shut !== null) return { end: shut, looks };
    }
    for (const look of looksAt(network, way, flow, answering)) {
      looks.push(look);
      if (look.said.verdict === 'deny') return { end: { passes: false, because: 'rule', look }, looks };
    }
  }
  return { end: { passes: true }, looks };
}

/** An address by its text, for a flow that begins or ends outside. */
export const outsideAt = (text: string): FlowEnd | null => {
  const address = parseIp(text);
  return address === null ? null : { address };
};

import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { compareIp, holds, parsePrefix, type IpPrefix } from '../../model/values/ip.ts';
import { say, told, type ToldLink } from '../../sheets/graph/told.ts';
import type { Line } from '../../sheets/graph/sheetGraph.ts';
import { effectiveRoutes, type RouteWay } from '../effectiveRoutes.ts';
import { prefixesOf, seatsOfDevice, type Seat } from '../inventory.ts';
import { callsBetween, callsText } from '../rules/calls.ts';
import { exposuresOf } from '../rules/exposure.ts';
import { setsOfPort } from '../rules/passage.ts';
import { internetId } from './cloudPlates.ts';

/** A link between two plates that stands for what is worked out. */
export function lineBetween(id: string, of: Line, a: string, b: string, fields: Partial<ToldLink>): ToldLink {
  return {
    ...{ id, of, cables: [of], a, b, ties: [null, null], aOrdinal: 0, jacket: null, shade: null },
    ...{ aPort: told(), bPort: told(), text: told(), management: false, medium: 'other' },
    ...fields,
  };
}

/** More destinations than this are counted. */
const mostDestinations = 2;
const destinations = (texts: readonly string[]): string =>
  texts.length > mostDestinations
    ? `${texts.slice(0, mostDestinations).join(', ')} +${texts.length - mostDestinations}`
    : texts.join(', ');

/** The plate that a route leads to. */
function targetOf(network: Network, networkId: string, way: RouteWay): string | null {
  switch (way.by) {
    case 'gateway': {
      const attachment = network
        .find('hubAttachmentsByNetwork', networkId)
        .find(({ hubId }) => hubId === way.deviceId);
      return attachment === undefined ? way.deviceId : `attachment:${attachment.id}`;
    }
    case 'peering':
      return `peering:${way.peeringId}:${networkId}`;
    case 'interface':
      return network.get('port', way.portId)?.deviceId ?? null;
    case 'local':
    case 'attachment':
    case 'nowhere':
      return null;
  }
}

/** Where the packets of each subnet are sent that leave its network: an arrow for each gateway or peering. */
export function routeArrows(
  network: Network,
  subnets: readonly CloudSubnet[],
  drawn: ReadonlySet<string>,
): ToldLink[] {
  return subnets.flatMap((subnet) => {
    const byTarget = new Map<string, string[]>();
    for (const { way, text } of effectiveRoutes(network, subnet).routes) {
      const target = targetOf(network, subnet.placeId, way);
      if (target !== null && drawn.has(target)) byTarget.set(target, [...(byTarget.get(target) ?? []), text]);
    }
    const table = network.get('routeTable', subnet.routeTableId);
    if (table === null) return [];
    const of: Line = { kind: 'routeTable', id: table.id, label: table.name };
    return [...byTarget].map(([target, texts]) =>
      lineBetween(`route:${subnet.id}>${target}`, of, `subnet:${subnet.id}`, target, {
        ...{ medium: 'route', arrow: true, text: told(say(destinations(texts), 'subnets')) },
      }),
    );
  });
}

/** Rules that name a part of a subnet tell apart who stands in it. */
function partsNamed(network: Network): IpPrefix[] {
  const texts = new Set<string>();
  for (const { prefix, listId } of network.all('trafficRule')) {
    if (prefix !== null) texts.add(prefix);
    for (const text of network.get('prefixList', listId)?.prefixes ?? []) texts.add(text);
  }
  return [...texts].flatMap((text) => parsePrefix(text) ?? []).sort(compareIp);
}

/**
 * Who is the same to every rule: those of a subnet with the same rule sets, whom no rule tells apart by an address.
 * A key for each first seat of a device; devices without a seat have none.
 */
export function classesOf(
  network: Network,
  devices: readonly Device[],
): Map<string, { key: string; seat: Seat }> {
  const parts = partsNamed(network);
  const within = new Map<string, IpPrefix[]>();
  const partsIn = (subnet: CloudSubnet): IpPrefix[] => {
    const known = within.get(subnet.id);
    if (known !== undefined) return known;
    const own = prefixesOf(network, subnet).map(({ prefix }) => prefix);
    const found = parts.filter((part) => own.some((one) => holds(one, part) && part.length > one.length));
    within.set(subnet.id, found);
    return found;
  };
  return new Map(
    devices.flatMap((device) => {
      const [seat] = seatsOfDevice(network, device.id);
      if (seat === undefined) return [];
      const bits = partsIn(seat.subnet).map((part) => (holds(part, seat.ip) ? 1 : 0));
      const sets = setsOfPort(network, seat.portId).map(({ id }) => id);
      return [[device.id, { key: `${seat.subnet.id} ${sets.join(',')} ${bits.join('')}`, seat }] as const];
    }),
  );
}

/** More arrows than this lead from subnet to subnet instead of from plate to plate. */
export const mostArrows = 160;

/**
 * Who may call whom: what passes between instances, in words, and what the internet may call.
 *
 * @param plateOf the plate of a device
 */
export function ruleArrows(
  network: Network,
  devices: readonly Device[],
  plateOf: (deviceId: string) => string,
): ToldLink[] {
  const classes = classesOf(network, devices);
  const members = new Map<string, { device: Device; seat: Seat }[]>();
  for (const device of devices) {
    const own = classes.get(device.id);
    if (own !== undefined)
      members.set(own.key, [...(members.get(own.key) ?? []), { device, seat: own.seat }]);
  }
  const found = new Map<string, { a: string; b: string; seat: Seat; far: Seat | null; texts: Set<string> }>();
  const note = (a: string, b: string, seat: Seat, far: Seat | null, text: string): void => {
    if (a === b) return;
    const key = `${a}>${b}`;
    const there = found.get(key) ?? { a, b, seat, far, texts: new Set<string>() };
    there.texts.add(text);
    found.set(key, there);
  };
  for (const from of members.values())
    for (const to of members.values()) {
      const [caller] = from;
      const called = to.find(({ device }) => device !== caller?.device);
      if (caller === undefined || called === undefined) continue;
      const calls = callsBetween(network, caller.seat, called.seat);
      if (calls.length === 0) continue;
      const text = callsText(calls);
      for (const one of from)
        for (const other of to)
          if (one.device !== other.device)
            note(plateOf(one.device.id), plateOf(other.device.id), other.seat, one.seat, text);
    }
  for (const device of devices) {
    const seat = classes.get(device.id)?.seat;
    const exposed = exposuresOf(network, device).filter(({ balancerId }) => balancerId === null);
    if (seat !== undefined && exposed.length > 0)
      note(internetId, plateOf(device.id), seat, null, callsText(exposed));
  }
  const coarse = found.size > mostArrows;
  const arrows = new Map<string, ToldLink>();
  for (const { a, b, seat, far, texts } of found.values()) {
    const [set] = setsOfPort(network, seat.portId);
    const of: Line =
      set === undefined
        ? { kind: 'port', id: seat.portId, label: network.get('port', seat.portId)?.name ?? '' }
        : { kind: 'ruleSet', id: set.id, label: set.name };
    const from = coarse && far !== null ? `subnet:${far.subnet.id}` : a;
    const to = coarse ? `subnet:${seat.subnet.id}` : b;
    if (from === to) continue;
    const text = [...texts].sort().join(', ');
    const id = `rule:${from}>${to}`;
    if (!arrows.has(id))
      arrows.set(
        id,
        lineBetween(id, of, from, to, {
          ...{ medium: 'rule', arrow: true, text: told(say(text, 'costs')) },
        }),
      );
  }
  return [...arrows.values()];
}

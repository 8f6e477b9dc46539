import { takeBlocks } from '../blocks.ts';
import { nextFreeAddress, prefixTree } from '../plan.ts';
import { create, update, type Change } from '../../change/change.ts';
import { newId } from '../../model/values/ids.ts';
import { bitsOf, formatIp, formatPrefix, parsePrefix, usable, type IpPrefix } from '../../model/values/ip.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankPort, type Port } from '../../model/kinds/lines/port.ts';
import { blankPrefix, type Prefix } from '../../model/kinds/logical/prefix.ts';
import { isInCloud } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { portTitle } from '../../model/network/ports.ts';
import { isRouter } from '../../routing/interfaces.ts';
import { bridgingOf, setPort } from '../../switching/bridges.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** A link between two routed ports, the end nearer to the root first. */
export interface RoutedLink {
  key: string;
  near: Port;
  far: Port;
  /** Links from the root to its near end; Infinity where no way leads there. */
  distance: number;
  /** Both ends have an address already. */
  numbered: boolean;
  /** Why it can be given no subnet. */
  why: string | null;
}

const hasAddress = (network: Network, port: Port): boolean => network.countOf('addressesByPort', port.id) > 0;

/** What of a port can be routed: the port itself, or each subinterface over it, by its tag. */
function routedAt(network: Network, plugged: Port): Map<string, Port> {
  const port = setPort(network, plugged);
  const found = new Map<string, Port>();
  if (port.mode === 'routed' || hasAddress(network, port)) found.set('', port);
  for (const over of network.find('portsByParent', port.id))
    if (over.form === 'subinterface') found.set(`${over.vid ?? ''}.${over.innerVid ?? ''}`, over);
  return found;
}

/** How many links every router is away from one. */
function distances(
  network: Network,
  links: readonly { a: Device; b: Device }[],
  rootId: string,
): Map<string, number> {
  const near = new Map<string, string[]>();
  const note = (from: string, to: string): void => void near.set(from, [...(near.get(from) ?? []), to]);
  for (const { a, b } of links) {
    note(a.id, b.id);
    note(b.id, a.id);
  }
  const found = new Map([[rootId, 0]]);
  let open = [rootId];
  while (open.length > 0) {
    const next: string[] = [];
    for (const id of open)
      for (const other of near.get(id) ?? [])
        if (!found.has(other)) {
          found.set(other, (found.get(id) ?? 0) + 1);
          next.push(other);
        }
    open = next;
  }
  return found;
}

/**
 * Every link between two routed ports, in order of distance from a root: those that have no subnet yet, those that
 * have, and those of which one end is not set up for it, with the reason, so that none is forgotten.
 */
export function routedLinks(network: Network, rootId: string): RoutedLink[] {
  const { farOf } = bridgingOf(network);
  const pairs = new Map<string, { a: Port; b: Port; why: string | null }>();
  const joined: { a: Device; b: Device }[] = [];
  for (const device of network.all('device')) {
    if (!isRouter(network, device) && device.role !== 'RT' && device.role !== 'FW') continue;
    for (const plugged of network.find('portsByDevice', device.id)) {
      if (plugged.role === 'management' || plugged.role === 'powerIn' || plugged.role === 'powerOut')
        continue;
      const far = network.get('port', farOf(plugged.id));
      const other = network.get('device', far?.deviceId ?? null);
      if (far === null || other === null) continue;
      const own = routedAt(network, plugged);
      const beyond = routedAt(network, far);
      const bothRoute = isRouter(network, other) || other.role === 'RT' || other.role === 'FW';
      if (bothRoute) joined.push({ a: device, b: other });
      for (const [tag, port] of own) {
        const facing = beyond.get(tag);
        // What leads into a switch is no link of two routers: its VLAN has a subnet.
        const mode = setPort(network, far).mode;
        if (facing === undefined && (!bothRoute || mode === 'trunk' || mode === 'access')) continue;
        const ends = [port.id, facing?.id ?? far.id].sort();
        const why =
          facing !== undefined
            ? null
            : `${portTitle(network, far.id).replace(':', ' ')} is not routed${tag === '' ? '' : ` for tag ${port.vid ?? ''}`}: set its mode, or add the subinterface`;
        const known = pairs.get(ends.join(' '));
        if (known === undefined || known.why !== null)
          pairs.set(ends.join(' '), { a: port, b: facing ?? far, why });
      }
    }
  }
  const away = distances(network, joined, rootId);
  const of = (port: Port): number => away.get(port.deviceId) ?? Infinity;
  return [...pairs]
    .map(([key, { a, b, why }]): RoutedLink => {
      const named = compareNames(portTitle(network, a.id), portTitle(network, b.id));
      const [near, far] = of(a) < of(b) || (of(a) === of(b) && named <= 0) ? [a, b] : [b, a];
      const numbered = hasAddress(network, near) && hasAddress(network, far);
      const half = !numbered && (hasAddress(network, near) || hasAddress(network, far));
      const reason = half ? 'one end has an address already: give the other the next one of its subnet' : why;
      return { key, near, far, distance: of(near), numbered, why: reason };
    })
    .sort(
      (x, y) =>
        x.distance - y.distance ||
        compareNames(portTitle(network, x.near.id), portTitle(network, y.near.id)) ||
        compareNames(portTitle(network, x.far.id), portTitle(network, y.far.id)),
    );
}

export interface TransitPlan {
  links: { link: RoutedLink; prefix: IpPrefix; near: string; far: string }[];
  attempt: Attempt;
}

/**
 * Gives each of these links a subnet of a pool, in their order and at one length, the near end its first address and
 * the far end the next.
 */
export function numberLinks(
  network: Network,
  pool: Prefix,
  length: number,
  links: readonly RoutedLink[],
): { ok: false; why: string } | ({ ok: true } & TransitPlan) {
  const outer = parsePrefix(pool.prefix);
  if (outer === null || pool.role !== 'pool') return refuse(`${pool.prefix} is no pool. Choose one.`);
  if (!Number.isInteger(length) || length < outer.length || length > bitsOf(outer.family) - 1)
    return refuse(
      `/${length} cannot be taken from ${pool.prefix} for links: choose a length from /${outer.length + 1} to /${bitsOf(outer.family) - 1}.`,
    );
  const open = links.filter((link) => !link.numbered && link.why === null);
  if (open.length === 0) return refuse('Every link that was chosen has its subnet, or cannot have one.');
  const taken = takeBlocks(
    prefixTree(network, pool.vrfId),
    outer,
    open.map(() => length),
  );
  if (taken === null)
    return refuse(
      `${pool.prefix} has no room for ${open.length} × /${length}. Choose a longer prefix, or another pool.`,
    );
  const changes: Change[] = [];
  const planned = open.flatMap((link, at): TransitPlan['links'] => {
    const prefix = taken.prefixes[at];
    if (prefix === undefined) return [];
    const { first } = usable(prefix);
    const host = (value: bigint): string => `${formatIp({ family: prefix.family, value })}/${length}`;
    const [near, far] = [host(first), host(first + 1n)];
    const names = [link.near, link.far].map((port) => network.get('device', port.deviceId)?.name ?? '');
    changes.push(
      create('prefix', {
        ...blankPrefix,
        id: newId(),
        prefix: formatPrefix(prefix),
        vrfId: pool.vrfId,
        role: 'transit',
        name: names.join(' and '),
      }),
    );
    for (const [port, address] of [
      [link.near, near],
      [link.far, far],
    ] as const) {
      changes.push(
        create('address', { ...blankAddress, id: newId(), address, vrfId: pool.vrfId, portId: port.id }),
      );
      const moved = port.vrfId === pool.vrfId ? null : update('port', port, { vrfId: pool.vrfId });
      if (moved !== null) changes.push(moved);
    }
    return [{ link, prefix, near, far }];
  });
  return {
    ok: true,
    links: planned,
    attempt: judged(
      network,
      changes,
      `Numbered ${planned.length} ${planned.length === 1 ? 'link' : 'links'} from ${pool.prefix}`,
    ),
  };
}

/** Routers without a loopback that has an address in a VRF, by name; those of a cloud have none. */
export const withoutLoopback = (network: Network, vrfId: string | null): Device[] =>
  [...network.all('device')]
    .filter(
      (device) => device.status !== 'retired' && !isInCloud(network, device) && isRouter(network, device),
    )
    .filter(
      (device) =>
        !network
          .find('logicalPortsByDevice', device.id)
          .some(
            (port) =>
              port.form === 'loopback' &&
              network.find('addressesByPort', port.id).some((row) => row.vrfId === vrfId),
          ),
    )
    .sort((a, b) => compareNames(a.name, b.name));

/** Gives routers loopbacks from a prefix for these, one after the other, each also as its router id where it has none. */
export function numberLoopbacks(network: Network, row: Prefix, devices: readonly Device[]): Attempt {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null || row.role !== 'loopback')
    return refuse(`${row.prefix} is not for loopbacks. Choose a prefix of that role.`);
  if (devices.length === 0) return refuse('Every router has a loopback already.');
  const changes: (Change | null)[] = [];
  let from: ReturnType<typeof nextFreeAddress> = null;
  for (const device of devices) {
    const next = nextFreeAddress(network, row, from);
    if (next === null)
      return refuse(
        `${row.prefix} is full after ${changes.length > 0 ? 'some' : 'none'} of ${devices.length} routers. Take a larger one.`,
      );
    from = next;
    const text = formatIp(next);
    const existing = network.find('logicalPortsByDevice', device.id).find((port) => port.form === 'loopback');
    const port: Port = existing ?? {
      ...blankPort,
      id: newId(),
      deviceId: device.id,
      name: 'lo0',
      form: 'loopback',
      vrfId: row.vrfId,
    };
    if (existing === undefined) changes.push(create('port', port));
    changes.push(
      create('address', {
        ...blankAddress,
        id: newId(),
        address: `${text}/${bitsOf(next.family)}`,
        vrfId: row.vrfId,
        portId: port.id,
      }),
    );
    if (device.routerId === null && next.family === 4)
      changes.push(update('device', device, { routerId: text }));
  }
  return judged(
    network,
    changes,
    `Gave ${devices.length === 1 ? (devices[0]?.name ?? '') : `${devices.length} routers`} a loopback from ${row.prefix}`,
  );
}

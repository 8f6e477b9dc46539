import { applyChanges } from '../../change/apply.ts';
import { create, update, type Change } from '../../change/change.ts';
import { diffOf } from '../../change/diff.ts';
import { refuse, type Attempt } from '../../commands/attempt.ts';
import { joinDevices, type JoinAttempt, type JoinWish } from '../../cabling/commands/join.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import { blankPrefix, type Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Network } from '../../model/network/network.ts';
import { cableAt, otherEnds, portsOf } from '../../model/network/ports.ts';
import { newId } from '../../model/values/ids.ts';
import { formatPrefix, readPrefix } from '../../model/values/ip.ts';
import { compareNames } from '../../model/values/order.ts';
import { isRouter } from '../../routing/interfaces.ts';
import { setPort } from '../../switching/bridges.ts';
import { conflict } from './allocate.ts';
import { numberLinks, numberLoopbacks, type RoutedLink } from './transit.ts';

/** How drawn routers are numbered: pools are named by their prefix, and made where they are not there yet. */
export interface NumberWish {
  vrfId: string | null;
  linksFrom: string;
  /** Length of the subnet of each link: 31 for two routers (RFC 3021), 30, 64, 126 or 127. */
  length: number;
  /** Null: no loopbacks and router ids. */
  loopbacksFrom: string | null;
}
export interface NumberedDrawing {
  links: number;
  loopbacks: number;
  attempt: Attempt;
}

/** Whether a device routes or is there to: routers and firewalls, and whatever has addresses to route between. */
export const routes = (network: Network, device: Device): boolean =>
  device.status !== 'retired' && (device.role === 'RT' || device.role === 'FW' || isRouter(network, device));

const isFreeToRoute = (network: Network, port: Port): boolean => {
  const { mode } = setPort(network, port);
  return (mode === null || mode === 'routed') && network.countOf('addressesByPort', port.id) === 0;
};

/** Cables between ports of two of these that have neither a mode nor an address yet, the port of the first by name first. */
export function openLinks(network: Network, devices: readonly Device[]): { near: Port; far: Port }[] {
  const chosen = new Set(devices.map((device) => device.id));
  const found = new Map<string, { near: Port; far: Port }>();
  for (const device of [...devices].sort((a, b) => compareNames(a.name, b.name)))
    for (const port of portsOf(network, device.id)) {
      const cable = port.role === 'management' ? null : cableAt(network, port.id);
      if (cable === null || found.has(cable.id) || !isFreeToRoute(network, port)) continue;
      const [far = null] = otherEnds(network, cable, port.id).map((id) => network.get('port', id));
      if (far === null || far.deviceId === device.id || !chosen.has(far.deviceId)) continue;
      if (far.role !== 'management' && far.aggregateId === null && isFreeToRoute(network, far))
        found.set(cable.id, { near: port, far });
    }
  return [...found.values()];
}

/** A line of two routers that is numbered as it is pulled: from which pool, and how long its subnet is. */
export interface RoutedWish {
  vrfId: string | null;
  linksFrom: string;
  length: number;
}

/** Sets links up as routed and gives each the next subnet of a pool, the near end its first address. */
function routed(
  network: Network,
  links: readonly { near: Port; far: Port }[],
  { vrfId, linksFrom, length }: RoutedWish,
): { changes: Change[]; network: Network } | string {
  const pool = prefixFor(network, linksFrom, { vrfId, role: 'pool', what: 'Links' });
  if (typeof pool === 'string') return pool;
  const modes = links.flatMap(({ near, far }) =>
    [near, far].flatMap((port) => update('port', port, { mode: 'routed' }) ?? []),
  );
  const set = applyChanges(network, [...pool.made, ...modes]);
  if (!set.ok) return set.problems[0]?.message ?? 'It cannot be numbered.';
  const open = links.map(({ near, far }, at): RoutedLink => ({
    key: String(at),
    near: set.network.get('port', near.id) ?? near,
    far: set.network.get('port', far.id) ?? far,
    distance: 0,
    numbered: false,
    why: null,
  }));
  const numbered = numberLinks(set.network, pool.row, length, open);
  if (!numbered.ok) return numbered.why;
  if (!numbered.attempt.ok) return numbered.attempt.why;
  const applied = applyChanges(set.network, numbered.attempt.set.changes);
  if (!applied.ok) return applied.problems[0]?.message ?? 'It cannot be numbered.';
  return {
    network: applied.network,
    changes: [...pool.made, ...modes, ...numbered.attempt.set.changes],
  };
}

/**
 * Joins two routers by a cable, or several, each with the next subnet of a pool: the one that the line was pulled from
 * has the first address.
 */
export function routedLine(network: Network, wish: JoinWish, how: RoutedWish): JoinAttempt {
  const joined = joinDevices(network, wish);
  if (!joined.ok) return joined;
  const links = joined.lines.flatMap(({ aPortId, bPortId }) => {
    const [near, far] = [joined.network.get('port', aPortId), joined.network.get('port', bPortId)];
    return near === null || far === null ? [] : [{ near, far }];
  });
  const made = routed(joined.network, links, how);
  if (typeof made === 'string') return refuse(made);
  const changes = diffOf(network, made.network, [...joined.changes, ...made.changes]);
  return { ...joined, changes, made: changes, network: made.network };
}

/** The pool or loopback prefix of a text, made where it is not there yet; or why it cannot be. */
function prefixFor(
  network: Network,
  text: string,
  { vrfId, role, what }: { vrfId: string | null; role: 'pool' | 'loopback'; what: string },
): { row: Prefix; made: Change[] } | string {
  const read = readPrefix(text.trim());
  if (!read.ok) return `${what}: “${text}” ${read.reason}.`;
  const prefix = formatPrefix(read.prefix);
  const known = [...network.all('prefix')].find((row) => row.prefix === prefix && row.vrfId === vrfId);
  if (known !== undefined)
    return known.role === role
      ? { row: known, made: [] }
      : `${what}: ${prefix} is a ${known.role}, not a ${role}. Name another.`;
  const row: Prefix = { ...blankPrefix, id: newId(), prefix, vrfId, role, name: what };
  const why = conflict(network, row, read.prefix);
  return why === null ? { row, made: [create('prefix', row)] } : `${what}: ${why}`;
}

/**
 * Numbers what was drawn: every cable between two of these routers that is not set up yet becomes a routed link with
 * the next subnet of a pool, the end that comes first by name its first address; every router without a loopback gets
 * one, which is its router id where it has none.
 */
export function numberDrawn(
  network: Network,
  devices: readonly Device[],
  wish: NumberWish,
): { ok: false; why: string } | ({ ok: true } & NumberedDrawing) {
  const routers = devices
    .filter((device) => routes(network, device))
    .sort((a, b) => compareNames(a.name, b.name));
  const open = openLinks(network, routers);
  if (routers.length === 0) return refuse('There is no router to be numbered here. Draw one first.');
  const touched: Change[] = [];
  let staged = network;
  const make = (changes: readonly Change[]): string | null => {
    const applied = applyChanges(staged, changes);
    if (!applied.ok) return applied.problems[0]?.message ?? 'It cannot be numbered.';
    staged = applied.network;
    touched.push(...changes);
    return null;
  };
  if (open.length > 0) {
    const made = routed(network, open, wish);
    if (typeof made === 'string') return refuse(made);
    staged = made.network;
    touched.push(...made.changes);
  }
  let loopbacks = 0;
  if (wish.loopbacksFrom !== null) {
    const without = routers.filter(
      (device) => !network.find('logicalPortsByDevice', device.id).some((port) => port.form === 'loopback'),
    );
    if (without.length > 0) {
      const own = { vrfId: wish.vrfId, role: 'loopback' as const, what: 'Loopbacks' };
      const prefix = prefixFor(staged, wish.loopbacksFrom, own);
      if (typeof prefix === 'string') return refuse(prefix);
      const why = make(prefix.made);
      if (why !== null) return refuse(why);
      const again = without.flatMap((device) => staged.get('device', device.id) ?? []);
      const given = numberLoopbacks(staged, prefix.row, again);
      if (!given.ok) return given;
      const wrong = make(given.set.changes);
      if (wrong !== null) return refuse(wrong);
      loopbacks = without.length;
    }
  }
  if (touched.length === 0) return refuse('Every link and router here has its numbers already.');
  const said = [
    open.length === 0
      ? ''
      : `${open.length} ${open.length === 1 ? 'link' : 'links'} from ${wish.linksFrom.trim()}`,
    loopbacks === 0
      ? ''
      : `${loopbacks} ${loopbacks === 1 ? 'loopback' : 'loopbacks'} from ${wish.loopbacksFrom?.trim() ?? ''}`,
  ].filter((part) => part !== '');
  return {
    ok: true,
    links: open.length,
    loopbacks,
    attempt: {
      ok: true,
      set: { changes: diffOf(network, staged, touched), sentence: `Numbered ${said.join(' and ')}` },
    },
  };
}

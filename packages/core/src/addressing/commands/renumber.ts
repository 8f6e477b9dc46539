import { addressesIn, parentOf, prefixTree } from '../plan.ts';
import { remove, update, updateHeld, type Change } from '../../change/change.ts';
import { removal } from '../../change/removal.ts';
import {
  formatIp,
  formatPrefix,
  holds,
  overlaps,
  parseInterface,
  parseIp,
  parsePrefix,
  readPrefix,
  type IpPrefix,
} from '../../model/values/ip.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import { addressKinds, movedAddresses } from '../../model/fields/addressFields.ts';
import { anyKind, held, notesOf, type Kind, type Row } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { titled } from './allocate.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** One fact that changes with a prefix: what it is of, and its old and new text. */
export interface Renumbered {
  what: string;
  from: string;
  to: string;
}

/** The text of an address with its prefix moved, the host part kept; the same text where it lies outside. */
function movedHost(text: string, from: IpPrefix, to: IpPrefix): string {
  const ip = parseIp(text);
  if (ip === null || !holds(from, ip)) return text;
  return formatIp({ family: ip.family, value: ip.value - from.value + to.value });
}

/** `10.40.8.1/22` in the moved prefix; a length of the prefix itself becomes that of the new one. */
function movedInterface(text: string, from: IpPrefix, to: IpPrefix): string {
  const read = parseInterface(text);
  if (read === null || !holds(from, read.address)) return text;
  const length = read.length <= from.length ? to.length : read.length;
  return `${movedHost(formatIp(read.address), from, to)}/${length}`;
}

function movedPrefix(text: string, from: IpPrefix, to: IpPrefix): string {
  const prefix = parsePrefix(text);
  if (prefix === null || !holds(from, prefix)) return text;
  const length = prefix.length === from.length ? to.length : prefix.length;
  return formatPrefix({ ...prefix, value: prefix.value - from.value + to.value, length });
}

const forms = { host: movedHost, interface: movedInterface, prefix: movedPrefix } as const;
const textOf = (value: unknown): string =>
  typeof value === 'string' ? value : value === undefined ? '' : JSON.stringify(value);
/** The host that an address had before this change of it. */
const hostOf = (change: Change): string[] => {
  const before = change.op === 'update' && change.kind === 'address' ? change.before.address : undefined;
  return before === undefined ? [] : [before.slice(0, before.indexOf('/'))];
};

/** Kinds that speak of addresses of a cloud and of what it is joined to, without saying a VRF. */
const ofClouds: ReadonlySet<Kind> = new Set<Kind>([
  'virtualNetwork',
  'prefixList',
  'trafficRule',
  'cloudRoute',
  'gateway',
  'dnsRecord',
  'dnsForward',
]);
/** Whether a VRF is that of a virtual network, or one that a tunnel leads into from there. */
const meetsClouds = (network: Network, vrfId: string | null): boolean =>
  vrfId !== null &&
  (network.countOf('virtualNetworkByVrf', vrfId) > 0 ||
    network.find('portsByVrf', vrfId).some(({ form }) => form === 'tunnel'));

/**
 * Whether the addresses in a row are of the VRF that a prefix is in: the row says so, or the port it is on. Router ids
 * follow the loopbacks that they are taken from, far ends of tunnels the address that moves.
 */
function concerns(
  network: Network,
  kind: Kind,
  one: Row,
  prefix: Prefix,
  moved: ReadonlySet<string>,
): boolean {
  if (kind === 'device') return prefix.role === 'loopback';
  if (ofClouds.has(kind)) return meetsClouds(network, prefix.vrfId);
  const { farAddress, vrfId, portId } = held(one);
  if (kind === 'port') return typeof farAddress === 'string' && moved.has(farAddress);
  if (vrfId !== undefined) return vrfId === prefix.vrfId;
  return network.find('addressesByPort', textOf(portId)).some((address) => address.vrfId === prefix.vrfId);
}

/** What a fact that moves is called. */
function factName(network: Network, kind: Kind, one: Row, field: string): string {
  const { deviceId, portId, prefix } = held(one);
  const device = network.get('device', textOf(deviceId))?.name ?? '';
  if (kind === 'redundancy')
    return `shared address on ${portTitle(network, textOf(portId)).replace(':', ' ')}`;
  if (kind === 'route')
    return field === 'via' ? `next hop of ${device} to ${textOf(prefix)}` : `route of ${device}`;
  if (kind === 'bgpSession') return `BGP neighbour of ${device}`;
  const name = kind === 'port' ? portTitle(network, one.id).replace(':', ' ') : anyKind(kind).nameOf(one);
  return `${(notesOf(kind, field)?.label ?? field).toLowerCase()} of ${name}`;
}

/**
 * Moves a prefix, all prefixes in it and all addresses, gateways, ranges, shared addresses, routes and sessions of its
 * VRF to another one of at least its size; host parts stay. The list says every change; the change set makes them all or
 * none.
 */
export function renumber(
  network: Network,
  row: Prefix,
  target: string,
): { ok: false; why: string } | { ok: true; list: Renumbered[]; attempt: Attempt } {
  const read = readPrefix(target.trim());
  if (!read.ok) return refuse(`“${target.trim()}” ${read.reason}.`);
  const [from, to] = [parsePrefix(row.prefix), read.prefix];
  if (from === null) return refuse(`${row.prefix} is no prefix.`);
  if (to.family !== from.family)
    return refuse(`${formatPrefix(to)} is IPv${to.family}, ${row.prefix} is IPv${from.family}.`);
  if (formatPrefix(to) === row.prefix) return refuse(`${row.prefix} is where it stands now.`);
  if (to.length > from.length)
    return refuse(
      `${formatPrefix(to)} is smaller than ${row.prefix}: hosts beyond it would have no address. Take a /${from.length} or larger.`,
    );
  if (overlaps(from, to) && to.value !== from.value)
    return refuse(`${formatPrefix(to)} overlaps ${row.prefix} itself. Choose space outside of it.`);
  const tree = prefixTree(network, row.vrfId);
  const moving = new Set([row.id, ...[...tree.inside(from)].flatMap((entry) => [...entry.ids])]);
  const occupied = [...tree.inside(to), ...tree.around(to)]
    .flatMap((entry) => entry.ids.flatMap((id) => network.get('prefix', id) ?? []))
    .filter((one) => !moving.has(one.id))
    .filter((one) => {
      const other = parsePrefix(one.prefix);
      return other !== null && (holds(to, other) || one.role !== 'pool');
    });
  const [first] = occupied;
  if (first !== undefined)
    return refuse(
      `${formatPrefix(to)} is not free: ${titled(first)}${occupied.length > 1 ? ` and ${occupied.length - 1} more are` : ' is'} there. Choose free space.`,
    );
  const list: Renumbered[] = [];
  const changes: (Change | null)[] = [];
  const note = (what: string, before: string | null, after: string | null): void => {
    if (before !== null && after !== null && before !== after) list.push({ what, from: before, to: after });
  };
  for (const id of moving) {
    const one = network.get('prefix', id);
    if (one === null) continue;
    const prefix = movedPrefix(one.prefix, from, to);
    const gateway = one.gateway === null ? null : movedHost(one.gateway, from, to);
    note(`${one.role} ${one.name ?? ''}`.trim(), one.prefix, prefix);
    note(`gateway of ${prefix}`, one.gateway, gateway);
    const ranges = one.ranges.map((range) => ({
      ...range,
      from: movedHost(range.from, from, to),
      to: movedHost(range.to, from, to),
    }));
    one.ranges.forEach((range, at) =>
      note(
        `${range.use} of ${prefix}`,
        `${range.from} – ${range.to}`,
        `${ranges[at]?.from ?? ''} – ${ranges[at]?.to ?? ''}`,
      ),
    );
    changes.push(update('prefix', one, { prefix, gateway, ranges }));
  }
  for (const one of addressesIn(network, row.vrfId, from)) {
    const address = movedInterface(one.address, from, to);
    note(
      one.portId === null ? (one.dnsName ?? 'reserved') : portTitle(network, one.portId).replace(':', ' '),
      one.address,
      address,
    );
    changes.push(update('address', one, { address }));
  }
  const given = new Set(changes.flatMap((change) => (change?.kind === 'address' ? hostOf(change) : [])));
  for (const kind of addressKinds)
    if (kind !== 'prefix' && kind !== 'address')
      for (const one of network.all(kind)) {
        if (!concerns(network, kind, one, row, given)) continue;
        const moved = movedAddresses(kind, one, (text, form) => forms[form](text, from, to));
        const change = updateHeld(kind, one, moved);
        if (change?.op !== 'update') continue;
        for (const [field, after] of Object.entries(change.after))
          note(factName(network, kind, one, field), textOf(held(one)[field]), textOf(after));
        changes.push(change);
      }
  const outer = parentOf(network, row);
  const beyond = outer === null ? null : parsePrefix(outer.prefix);
  const leaves = beyond !== null && !holds(beyond, to) ? `, out of ${outer?.prefix ?? ''}` : '';
  return {
    ok: true,
    list,
    attempt: judged(
      network,
      changes,
      `Renumbered ${row.prefix} to ${formatPrefix(to)}${leaves}: ${list.length} facts`,
    ),
  };
}

/** Takes a prefix out of use: its addresses are taken back, its row stays as retired, its space is free again. */
export function retirePrefix(network: Network, row: Prefix): Attempt {
  const prefix = parsePrefix(row.prefix);
  if (prefix === null) return refuse(`${row.prefix} is no prefix.`);
  if (row.status === 'retired') return refuse(`${titled(row)} is retired already.`);
  const tree = prefixTree(network, row.vrfId);
  if (tree.countInside(prefix) > 0)
    return refuse(`${titled(row)} holds ${tree.countInside(prefix)} prefixes. Retire those first.`);
  const given = addressesIn(network, row.vrfId, prefix);
  return judged(
    network,
    [
      ...given.map((one) => remove('address', one)),
      // It goes from the sheets and stays in the plan.
      ...removal(network, [{ kind: 'prefix', id: row.id }]).changes.filter(({ id }) => id !== row.id),
      update('prefix', row, { status: 'retired' }),
    ],
    `Retired ${titled(row)}${given.length === 0 ? '' : ` and took back ${given.length} ${given.length === 1 ? 'address' : 'addresses'}`}`,
  );
}

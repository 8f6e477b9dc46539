import { nextFreeAddress, prefixOf } from '../plan.ts';
import { create, remove, update } from '../../change/change.ts';
import { inNumbers, removal } from '../../change/removal.ts';
import { newId } from '../../model/values/ids.ts';
import { bitsOf, formatIp, parseInterface, parseIp, parsePrefix, readPrefix } from '../../model/values/ip.ts';
import { blankAddress, type Address } from '../../model/kinds/logical/address.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import { blankPort, type Port, type PortForm } from '../../model/kinds/lines/port.ts';
import {
  blankBgpSession,
  blankRedundancy,
  blankRoute,
  type BgpSession,
  type Redundancy,
  type Route,
} from '../../model/kinds/logical/routing.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';

/** Forms that a person adds to a device; those of instances come with what they run in. */
export type ConfiguredForm = Exclude<PortForm, 'physical' | 'virtual'>;
export const configuredForms: readonly ConfiguredForm[] = [
  'vlan',
  'subinterface',
  'aggregate',
  'loopback',
  'tunnel',
];

export interface InterfaceWish {
  form: ConfiguredForm;
  /** Left out: as such ports are named on the device. */
  name?: string;
  vid?: number | null;
  parent?: Port | null;
  members?: readonly Port[];
  vrfId?: string | null;
}

/** `vlan20`, `te0/1.90`, or the next free of lag1, lo0 and tun0. */
export function interfaceName(
  network: Network,
  device: Device,
  { form, vid, parent }: InterfaceWish,
): string {
  if (form === 'vlan') return `vlan${vid ?? ''}`;
  if (form === 'subinterface') return `${parent?.name ?? ''}.${vid ?? ''}`;
  const stem = { aggregate: 'lag', loopback: 'lo', tunnel: 'tun' }[form];
  const first = form === 'aggregate' ? 1 : 0;
  for (let number = first; ; number++)
    if (network.findOne('portByName', `${device.id}:${stem}${number}`) === null) return `${stem}${number}`;
}

/** Adds a port that is only configured; of an aggregate its members are taken in, and lend it their setting. */
export function addInterface(
  network: Network,
  device: Device,
  wish: InterfaceWish,
): { ok: false; why: string } | (Attempt & { ok: true; port: Port }) {
  const { form, vid = null, parent = null, members = [], vrfId = null } = wish;
  if ((form === 'vlan' || form === 'subinterface') && vid === null)
    return refuse('Give the number of its VLAN.');
  if (form === 'subinterface' && parent === null) return refuse('Say which port it runs over.');
  if (form === 'aggregate' && members.length === 0) return refuse('Choose its members.');
  const [first] = members;
  const port: Port = {
    ...blankPort,
    id: newId(),
    deviceId: device.id,
    name: wish.name?.trim() || interfaceName(network, device, wish),
    form,
    vid: form === 'vlan' || form === 'subinterface' ? vid : null,
    parentId: form === 'subinterface' || form === 'tunnel' ? (parent?.id ?? null) : null,
    vrfId,
    ...(form === 'aggregate'
      ? {
          lacp: 'active' as const,
          mode: first?.mode ?? null,
          untaggedVid: first?.untaggedVid ?? null,
          taggedVids: first?.taggedVids ?? null,
          voiceVid: first?.voiceVid ?? null,
        }
      : {}),
  };
  const taken = members.map((member) =>
    update('port', member, {
      aggregateId: port.id,
      mode: null,
      untaggedVid: null,
      taggedVids: null,
      voiceVid: null,
    }),
  );
  const attempt = judged(network, [create('port', port), ...taken], `Added ${port.name} on ${device.name}`);
  return attempt.ok ? { ...attempt, port } : attempt;
}

/** Takes out a configured port with its addresses and what runs over it; members of an aggregate stay by themselves. */
export function deleteInterface(network: Network, port: Port): Attempt {
  if (port.form === 'physical') return refuse(`${port.name} has a connector: it comes with its device.`);
  const { changes, along } = removal(network, [{ kind: 'port', id: port.id }]);
  const gone = inNumbers(along);
  return judged(
    network,
    changes,
    `Took out ${portTitle(network, port.id).replace(':', ' ')}${gone === '' ? '' : ` with ${gone}`}`,
  );
}

/** The VRF that a new address of a port is in: that of the port, or of the VLAN it leads into. */
const vrfOfPort = (network: Network, port: Port): string | null =>
  port.vrfId ?? network.find('addressesByPort', port.id)[0]?.vrfId ?? null;

/**
 * Gives a port an address by its text: `10.40.8.5/22`, `10.40.8.5` with the length of the prefix it lies in, or a prefix
 * such as `10.40.8.0/22` for the next free one in it.
 */
export function giveAddressText(
  network: Network,
  port: Port,
  text: string,
  vrfId: string | null = vrfOfPort(network, port),
): Attempt {
  const typed = text.trim();
  const ip = parseInterface(typed);
  if (ip === null) return refuse(`“${typed}” is not an address such as 10.40.8.5/22.`);
  const prefix = prefixOf(network, vrfId, ip.address);
  const whole = parsePrefix(typed);
  const { family } = ip.address;
  let address = `${formatIp(ip.address)}/${ip.length}`;
  if (whole !== null && whole.length < bitsOf(family) - 1 && prefix !== null && prefix.prefix === typed) {
    const next = nextFreeAddress(network, prefix);
    if (next === null) return refuse(`${prefix.prefix} is full. Take another prefix, or enlarge it.`);
    address = `${formatIp(next)}/${whole.length}`;
  } else if (!typed.includes('/')) {
    const around = prefix === null ? null : parsePrefix(prefix.prefix);
    const length =
      port.form === 'loopback' || around === null || prefix?.role === 'pool' ? bitsOf(family) : around.length;
    address = `${formatIp(ip.address)}/${length}`;
  }
  const host = address.slice(0, address.indexOf('/'));
  const other = network.find('addressesByHost', host).find((row) => row.vrfId === vrfId);
  if (other !== undefined)
    return refuse(
      `${host} is given already${other.portId === null ? `, kept for ${other.dnsName ?? 'somebody'}` : ` to ${portTitle(network, other.portId).replace(':', ' ')}`}. ${nextHint(network, other)}`,
    );
  const main = network.countOf('addressesByPort', port.id) === 0;
  const own = network
    .find('addressesByPort', port.id)
    .some((row) => row.address.includes(':') === (family === 6));
  return judged(
    network,
    [
      create('address', {
        ...blankAddress,
        id: newId(),
        address,
        vrfId,
        portId: port.id,
        use: main || !own ? 'interface' : 'secondary',
      }),
      ...(port.vrfId === vrfId || vrfId === null ? [] : [update('port', port, { vrfId })]),
    ],
    `Gave ${portTitle(network, port.id).replace(':', ' ')} ${address}`,
  );
}

function nextHint(network: Network, row: Address): string {
  const at = parseInterface(row.address);
  const prefix = at === null ? null : prefixOf(network, row.vrfId, at.address);
  const next = prefix === null ? null : nextFreeAddress(network, prefix);
  return next === null ? 'Choose another.' : `The next free one is ${formatIp(next)}.`;
}

/** Keeps an address of a prefix without a port, for a name or a note. */
export function reserveAddress(
  network: Network,
  text: string,
  vrfId: string | null,
  { dnsName = null, notes = null }: { dnsName?: string | null; notes?: string | null },
): Attempt {
  const ip = parseIp(text.trim());
  if (ip === null) return refuse(`“${text.trim()}” is not an address such as 10.40.8.5.`);
  const prefix = prefixOf(network, vrfId, ip);
  const around = prefix === null ? null : parsePrefix(prefix.prefix);
  if (around === null || prefix?.role === 'pool')
    return refuse(`${formatIp(ip)} is in no subnet. Add its prefix first.`);
  if (network.find('addressesByHost', formatIp(ip)).some((row) => row.vrfId === vrfId))
    return refuse(`${formatIp(ip)} is given already.`);
  const address = `${formatIp(ip)}/${around.length}`;
  return judged(
    network,
    [create('address', { ...blankAddress, id: newId(), address, vrfId, use: 'reserved', dnsName, notes })],
    `Kept ${address}${dnsName === null ? '' : ` for ${dnsName}`}`,
  );
}

/** Takes an address back from who has it. */
export const takeBackAddress = (network: Network, row: Address): Attempt =>
  judged(network, [remove('address', row)], `Took back ${row.address}`);

export interface RouteWish {
  vrfId: string | null;
  prefix: string;
  /** An address, the name of a port of the device, or `discard`. */
  via: string;
  distance?: number;
}

/** Adds a static route to a device. */
export function addRoute(
  network: Network,
  device: Device,
  { vrfId, prefix, via, distance = 1 }: RouteWish,
): Attempt {
  const typed = prefix.trim().toLowerCase() === 'default' ? '0.0.0.0/0' : prefix.trim();
  const read = readPrefix(typed);
  if (!read.ok) return refuse(`Destination “${typed}” ${read.reason}.`);
  const to = via.trim();
  const discard = to.toLowerCase() === 'discard';
  const ip = parseIp(to);
  const port = network.findOne('portByName', `${device.id}:${to.toLowerCase()}`);
  if (!discard && ip === null && port === null)
    return refuse(`Next hop “${to}” is neither an address, nor a port of ${device.name}, nor discard.`);
  return judged(
    network,
    [
      create('route', {
        ...blankRoute,
        id: newId(),
        deviceId: device.id,
        vrfId,
        prefix: typed,
        via: ip === null ? null : formatIp(ip),
        viaPortId: ip === null ? (port?.id ?? null) : null,
        discard,
        distance,
      }),
    ],
    `Added the route of ${device.name} to ${typed}`,
  );
}

/** Adds one side of a BGP session, as the device is set. */
export function addBgpSession(
  network: Network,
  device: Device,
  wish: { vrfId: string | null; neighbour: string; remoteAs: number },
): Attempt {
  const ip = parseIp(wish.neighbour.trim());
  if (ip === null) return refuse(`Neighbour “${wish.neighbour.trim()}” is not an address.`);
  return judged(
    network,
    [
      create('bgpSession', {
        ...blankBgpSession,
        id: newId(),
        deviceId: device.id,
        vrfId: wish.vrfId,
        neighbour: formatIp(ip),
        remoteAs: wish.remoteAs,
        families: [ip.family === 4 ? 'IPv4' : 'IPv6'],
      }),
    ],
    `Added the BGP session of ${device.name} with ${formatIp(ip)}`,
  );
}

/** Lets a port take part in a group that shares a virtual address (VRRP, RFC 9568). */
export function addRedundancy(
  network: Network,
  port: Port,
  wish: { group: number; virtual: string; priority?: number },
): Attempt {
  const ip = parseIp(wish.virtual.trim());
  if (ip === null) return refuse(`Virtual address “${wish.virtual.trim()}” is not an address.`);
  const inside = network.find('addressesByPort', port.id).some((row) => {
    const read = parseInterface(row.address);
    const prefix = read === null ? null : prefixOf(network, row.vrfId, ip);
    return read !== null && prefix !== null && prefix.id === prefixOf(network, row.vrfId, read.address)?.id;
  });
  if (!inside)
    return refuse(
      `${formatIp(ip)} is in no subnet of ${portTitle(network, port.id).replace(':', ' ')}. Give the port an address there first.`,
    );
  return judged(
    network,
    [
      create('redundancy', {
        ...blankRedundancy,
        id: newId(),
        portId: port.id,
        group: wish.group,
        virtual: formatIp(ip),
        priority: wish.priority ?? blankRedundancy.priority,
      }),
    ],
    `Added ${portTitle(network, port.id).replace(':', ' ')} to group ${wish.group} with ${formatIp(ip)}`,
  );
}

const deviceName = (network: Network, id: string): string => network.get('device', id)?.name ?? '';

export const deleteRoute = (network: Network, row: Route): Attempt =>
  judged(
    network,
    [remove('route', row)],
    `Deleted the route of ${deviceName(network, row.deviceId)} to ${row.prefix}`,
  );
export const deleteBgpSession = (network: Network, row: BgpSession): Attempt =>
  judged(
    network,
    [remove('bgpSession', row)],
    `Deleted the BGP session of ${deviceName(network, row.deviceId)} with ${row.neighbour}`,
  );
/** Takes a port out of a group that shares an address. */
export const leaveRedundancy = (network: Network, row: Redundancy): Attempt =>
  judged(
    network,
    [remove('redundancy', row)],
    `Took ${portTitle(network, row.portId).replace(':', ' ')} out of group ${row.group}`,
  );

/** Deletes a VRF that nothing is in any more. */
export function deleteVrf(network: Network, id: string): Attempt {
  const vrf = network.get('vrf', id);
  if (vrf === null) return refuse('It is gone already.');
  const inside = [
    [network.countOf('prefixesByVrf', id), 'prefix', 'prefixes'],
    [network.countOf('addressesByVrf', id), 'address', 'addresses'],
    [network.countOf('portsByVrf', id), 'port', 'ports'],
    [network.countOf('vlansByVrf', id), 'VLAN', 'VLANs'],
    [network.countOf('routesByVrf', id), 'route', 'routes'],
  ] as const;
  const said = inside
    .filter(([count]) => count > 0)
    .map(([count, one, many]) => `${count} ${count === 1 ? one : many}`);
  if (said.length > 0)
    return refuse(`VRF ${vrf.name} still has ${said.join(', ')}. Move or delete those first.`);
  return judged(network, removal(network, [{ kind: 'vrf', id }]).changes, `Deleted VRF ${vrf.name}`);
}

import { create, update } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { blankHubAttachment } from '../../model/kinds/cloud/gateway.ts';
import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import { blankCloudRoute, blankCloudTable } from '../../model/kinds/cloud/routeTable.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { isInCloud } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { gatewayOf, networksOfDevice, seatsOfDevice, type GatewayDevice } from '../inventory.ts';
import { attachToHub, blocksBehind, isHub } from './hubs.ts';
import { addTarget, moveInstance } from './instances.ts';
import { peerNetworks } from './join.ts';
import { redirectRoute } from './tables.ts';

/** One end of a line that is pulled on a sheet of clouds. */
export type CloudEnd = { deviceId: string } | { subnetId: string };

/** What a line between two ends comes to: something done at once, or a tunnel to the premises that is asked about. */
export type CloudPull =
  | { ok: true; says: string; attempt: Attempt }
  | { ok: true; says: string; premises: { placeId: string; deviceId: string } }
  | { ok: false; why: string };

type End =
  | { as: 'subnet'; subnet: CloudSubnet; network: Place | null }
  | { as: 'hub'; device: Device; network: null }
  | { as: 'gateway'; device: Device; gateway: GatewayDevice['gateway']; network: Place | null }
  | { as: 'instance'; device: Device; network: Place | null }
  | { as: 'premises'; device: Device; network: null };

function endOf(network: Network, end: CloudEnd): End | null {
  if ('subnetId' in end) {
    const subnet = network.get('cloudSubnet', end.subnetId);
    return subnet === null ? null : { as: 'subnet', subnet, network: network.get('place', subnet.placeId) };
  }
  const device = network.get('device', end.deviceId);
  if (device === null) return null;
  if (!isInCloud(network, device)) return { as: 'premises', device, network: null };
  const found = gatewayOf(network, device.id);
  if (found === null)
    return {
      as: 'instance',
      device,
      network: network.get('place', networksOfDevice(network, device)[0] ?? null),
    };
  if (isHub(network, device.id)) return { as: 'hub', device, network: null };
  const { gateway } = found;
  return { as: 'gateway', device, gateway, network: network.get('place', gateway.networkId) };
}

const nameOf = (end: End): string => (end.as === 'subnet' ? end.subnet.name : end.device.name);

const idOf = (end: End): string => (end.as === 'subnet' ? end.subnet.id : end.device.id);

const said = (attempt: Attempt): CloudPull =>
  attempt.ok ? { ok: true, says: attempt.set.sentence, attempt } : { ok: false, why: attempt.why };

/** The default routes of a subnet through a gateway, in the families that it carries; a subnet without a table gets one. */
function sendThrough(network: Network, subnet: CloudSubnet, { device, gateway }: GatewayDevice): Attempt {
  const prefixes = [
    ...(gateway.families.includes('IPv4') ? ['0.0.0.0/0'] : []),
    ...(gateway.families.includes('IPv6') && subnet.v6PrefixId !== null ? ['::/0'] : []),
  ];
  if (gateway.direction === 'between')
    return refuse(
      `${device.name} joins networks and is no way to the internet: what it brings is taken in by tables. Set that at the route table.`,
    );
  if (gateway.direction === 'in')
    return refuse(`Nothing begins a connection outward through ${device.name}. Choose another gateway.`);
  const table = network.get('routeTable', subnet.routeTableId);
  const says = `Sent ${subnet.name} to the internet through ${device.name}`;
  if (table === null) {
    const fresh = { ...blankCloudTable, id: newId(), placeId: subnet.placeId, name: subnet.name };
    return judged(
      network,
      [
        create('routeTable', fresh),
        update('cloudSubnet', subnet, { routeTableId: fresh.id }),
        ...prefixes.map((prefix) =>
          create('cloudRoute', {
            ...{ ...blankCloudRoute, id: newId(), tableId: fresh.id },
            ...{ prefix, gatewayId: device.id },
          }),
        ),
      ],
      `${says}, by a route table of its own`,
    );
  }
  const there = network.find('cloudRoutesByTable', table.id);
  const changes = prefixes.flatMap((prefix) => {
    const route = there.find((one) => one.prefix === prefix);
    if (route === undefined)
      return [
        create('cloudRoute', {
          ...{ ...blankCloudRoute, id: newId(), tableId: table.id },
          ...{ prefix, gatewayId: device.id },
        }),
      ];
    const redirected = redirectRoute(network, route, { gatewayId: device.id });
    return redirected.ok ? redirected.set.changes : [];
  });
  if (changes.length === 0) return refuse(`${subnet.name} goes out through ${device.name} already.`);
  const others = network.find('cloudSubnetsByRouteTable', table.id).filter(({ id }) => id !== subnet.id);
  return judged(
    network,
    changes,
    others.length === 0
      ? says
      : `${says}, and with it ${others
          .map(({ name }) => name)
          .sort()
          .join(', ')}, which share its table ${table.name}`,
  );
}

/** Two routers of regions know each other: an attachment on each, by the first table of each. */
function joinHubs(network: Network, a: Device, b: Device): Attempt {
  const attached = (hub: Device, other: Device): boolean =>
    network.find('hubAttachmentsByHub', hub.id).some(({ otherHubId }) => otherHubId === other.id);
  if (attached(a, b) && attached(b, a)) return refuse(`${a.name} and ${b.name} are joined already.`);
  const row = (hub: Device, other: Device) =>
    create('hubAttachment', {
      ...{ ...blankHubAttachment, id: newId(), hubId: hub.id, name: other.name, otherHubId: other.id },
      tableId: network.find('routeTablesByHub', hub.id)[0]?.id ?? null,
    });
  return judged(
    network,
    [...(attached(a, b) ? [] : [row(a, b)]), ...(attached(b, a) ? [] : [row(b, a)])],
    `Joined ${a.name} and ${b.name}`,
  );
}

function withHub(network: Network, hub: Device, other: End): CloudPull {
  if (other.as === 'hub') return said(joinHubs(network, hub, other.device));
  if (other.network === null)
    return {
      ok: false,
      why:
        other.as === 'premises'
          ? `${hub.name} has no tunnel to ${other.device.name}. Tie one of its networks to the premises, then attach it.`
          : `${nameOf(other)} is in no virtual network. Attach a network instead.`,
    };
  return said(attachToHub(network, other.network, hub, blocksBehind(network, hub.id, other.network.id)));
}

/** What holds within one virtual network. */
function within(network: Network, place: Place, a: End, b: End): CloudPull {
  if (a.as === 'subnet' && b.as === 'gateway') return said(sendThrough(network, a.subnet, b));
  if (a.as === 'instance' && b.as === 'subnet') {
    const [seat] = seatsOfDevice(network, a.device.id);
    return seat === undefined
      ? { ok: false, why: `${a.device.name} stands in no subnet yet. Give its interface an address first.` }
      : said(moveInstance(network, seat.portId, b.subnet));
  }
  if (a.as === 'instance' && b.as === 'instance' && (a.device.role === 'LB') !== (b.device.role === 'LB')) {
    const [balancer, target] = a.device.role === 'LB' ? [a.device, b.device] : [b.device, a.device];
    const known = network.find('targetsByBalancer', balancer.id)[0];
    const { protocol, listens, port } = known ?? { protocol: 'TCP', listens: 443, port: 443 };
    return said(addTarget(network, balancer, target, { protocol, listens, port }));
  }
  return {
    ok: false,
    why: `${nameOf(a)} and ${nameOf(b)} are both in ${place.name}: what they may ask of each other is said by rules. Add one under Rules.`,
  };
}

/**
 * What a line pulled between two things of a cloud means: a network attached to a router of the region, two networks
 * peered with routes on both sides, a subnet sent out through a gateway, an instance moved to a subnet, a target of a
 * load balancer, a gateway attached, or a tunnel to the premises.
 */
export function pulledInCloud(network: Network, from: CloudEnd, to: CloudEnd): CloudPull {
  const [a, b] = [endOf(network, from), endOf(network, to)];
  if (a === null || b === null) return { ok: false, why: 'It is no longer there.' };
  if (idOf(a) === idOf(b))
    return { ok: false, why: `${nameOf(a)} cannot be joined to itself: let go on another plate.` };
  if (a.as === 'hub') return withHub(network, a.device, b);
  if (b.as === 'hub') return withHub(network, b.device, a);
  const [outer, inner] = a.as === 'premises' ? [a, b] : b.as === 'premises' ? [b, a] : [null, null];
  if (outer !== null) {
    if (inner.network === null)
      return {
        ok: false,
        why:
          inner.as === 'premises'
            ? `${nameOf(a)} and ${nameOf(b)} are both on the premises: join them on a sheet of cabling.`
            : `${nameOf(inner)} is in no virtual network. Attach it to one first.`,
      };
    if (outer.device.role !== 'FW' && outer.device.role !== 'RT')
      return { ok: false, why: `${outer.device.name} ends no tunnel: choose a firewall or a router.` };
    return {
      ok: true,
      says: `tie ${inner.network.name} to ${outer.device.name} by a tunnel`,
      premises: { placeId: inner.network.id, deviceId: outer.device.id },
    };
  }
  const loose = [a, b].find((end) => end.as === 'gateway' && end.network === null);
  const rest = loose === a ? b : a;
  if (loose?.as === 'gateway') {
    if (rest.network === null) return { ok: false, why: `Neither is in a virtual network.` };
    return said(
      judged(
        network,
        [update('gateway', loose.gateway, { networkId: rest.network.id })],
        `Attached ${loose.device.name} to ${rest.network.name}`,
      ),
    );
  }
  if (a.network === null || b.network === null)
    return { ok: false, why: `${nameOf(a.network === null ? a : b)} is in no virtual network.` };
  if (a.network.id !== b.network.id) return said(peerNetworks(network, a.network, b.network));
  const isFirst = within(network, a.network, a, b);
  return isFirst.ok ? isFirst : pickReason(isFirst, within(network, a.network, b, a));
}

/** What holds the other way round, or why it does not hold this way. */
const pickReason = (one: CloudPull, other: CloudPull): CloudPull =>
  other.ok || (!other.ok && !one.ok && one.why.includes('said by rules')) ? other : one;

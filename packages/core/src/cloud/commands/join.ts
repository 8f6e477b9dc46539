import { create, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import { blankPort, type Port } from '../../model/kinds/lines/port.ts';
import { blankGateway } from '../../model/kinds/cloud/gateway.ts';
import { blankPeering, type Peering } from '../../model/kinds/cloud/peering.ts';
import { blankPublicAddress } from '../../model/kinds/cloud/publicAddress.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import { blankBgpSession, blankRoute } from '../../model/kinds/logical/routing.ts';
import { blankPrefix } from '../../model/kinds/logical/prefix.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import { formatIp, overlaps, parseIp, parsePrefix } from '../../model/values/ip.ts';
import { profileAround } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { blocksOf, gatewaysOf } from '../inventory.ts';
import { sortFor } from '../profiles.ts';
import { peeringRoutes, tablesOf } from './tables.ts';
import { freeBlock } from './freeBlock.ts';
import type { Made } from './places.ts';

/** A gateway of a network: of a sort of the profile, or as it is set. */
export function addGateway(
  network: Network,
  place: Place,
  wish: { name: string; sort: string | null },
): Made<{ deviceId: string }> {
  const sort = sortFor(profileAround(network, place.id), (one) => one.sort === wish.sort);
  if (wish.sort !== null && sort === null)
    return refuse(`The provider has no ${wish.sort}. Choose a sort of its profile.`);
  const device: Device = {
    ...blankDevice,
    ...{ id: newId(), name: wish.name.trim(), role: 'GW', placeId: place.id, units: 0 },
  };
  const attempt = judged(
    network,
    [
      create('device', device),
      create('gateway', {
        ...blankGateway,
        ...(sort === null
          ? {}
          : {
              ...{
                sort: sort.sort,
                direction: sort.direction,
                translates: sort.translates,
                reach: sort.reach,
              },
              families: [...sort.families],
            }),
        ...{ id: newId(), deviceId: device.id, networkId: place.id },
      }),
    ],
    `Added the gateway ${device.name} to ${place.name}`,
  );
  return attempt.ok ? { ...attempt, deviceId: device.id } : attempt;
}

/** Peers two networks, with routes to each other in every table that subnets are tied to, on both sides. */
export function peerNetworks(network: Network, a: Place, b: Place): Made<{ peering: Peering }> {
  if (a.id === b.id) return refuse(`${a.name} cannot be peered with itself. Choose another network.`);
  const known = network
    .find('peeringsByNetwork', a.id)
    .find(({ aNetworkId, bNetworkId }) => aNetworkId === b.id || bNetworkId === b.id);
  if (known !== undefined)
    return refuse(
      `${a.name} and ${b.name} are peered by ${known.name} already. Change that peering instead.`,
    );
  const peering: Peering = {
    ...blankPeering,
    ...{ id: newId(), name: `${a.name}-${b.name}`, aNetworkId: a.id, bNetworkId: b.id },
  };
  const first = judged(network, [create('peering', peering)], `Peered ${a.name} and ${b.name}`);
  if (!first.ok) return first;
  const routes = [a, b].flatMap(({ id }) => peeringRoutes(network, peering, id));
  const attempt = judged(
    network,
    [create('peering', peering), ...routes],
    `Peered ${a.name} and ${b.name}, with ${routes.length} ${routes.length === 1 ? 'route' : 'routes'}`,
  );
  return attempt.ok ? { ...attempt, peering } : attempt;
}

/** Why two networks had better not be joined: their blocks overlap. Null: they may. */
export function whyNotJoin(network: Network, a: Place, b: Place): string | null {
  const staged = peerNetworks(network, a, b);
  if (!staged.ok) return staged.why;
  const all = blocksOf(network, a.id).flatMap((one) =>
    blocksOf(network, b.id)
      .filter((other) => overlaps(one.prefix, other.prefix))
      .map((other) => `${one.row.prefix} and ${other.row.prefix}`),
  );
  return all.length === 0
    ? null
    : `${all.join(', ')} overlap: hosts of one would not be reached from the other.`;
}

/** What ties a virtual network to a router or firewall of the premises. */
export interface PremisesWish {
  /** The devices that a tunnel ends on, one each. */
  ends: readonly { device: Device; over: Port | null; outer: string }[];
  /** The VRF of the premises that the tunnels are in. */
  vrfId: string | null;
  /** Public addresses of the cloud's side, one for each tunnel. */
  publicAddresses: readonly string[];
  routing: { by: 'BGP'; cloudAs: number; ownAs: number } | { by: 'static' };
  /** What of the premises the cloud is told, by BGP or by routes. */
  premises: readonly string[];
}

/** A free /31 for the inside of a tunnel (RFC 3021) from a pool of transit networks; null where there is none. */
export function innerLink(network: Network, vrfId: string | null, taken: ReadonlySet<string>): string | null {
  const pools = [...network.all('prefix')].filter(
    (one) => one.vrfId === vrfId && one.role === 'pool' && /transit|tunnel/i.test(one.name ?? ''),
  );
  let staged = network;
  for (const pool of pools.sort((a, b) => (a.prefix < b.prefix ? -1 : 1))) {
    const draft = staged.draft(['prefix']);
    for (const prefix of taken)
      draft.put('prefix', { ...blankPrefix, id: newId(), prefix, vrfId, role: 'transit' });
    staged = draft.finish();
    const found = freeBlock(staged, pool, 31);
    if (found !== null) return found;
  }
  return null;
}

interface Ends {
  ours: string;
  theirs: string;
}
function endsIn(link: string): Ends | null {
  const prefix = parsePrefix(link);
  if (prefix === null) return null;
  return { ours: formatIp(prefix), theirs: formatIp({ ...prefix, value: prefix.value + 1n }) };
}

const tunnelName = (network: Network, device: Device): string => {
  for (let number = 0; ; number++)
    if (network.findOne('portByName', `${device.id}:tun${number}`) === null) return `tun${number}`;
};

/**
 * Ties a virtual network to the premises: a tunnel gateway with a tunnel to each device, inner addresses from the
 * transit pool, BGP on both sides with what each announces, or static routes on both; and tables that take it in.
 */
export function connectPremises(network: Network, place: Place, wish: PremisesWish): Attempt {
  if (wish.ends.length === 0) return refuse('Choose the devices of the premises that tunnels end on.');
  const profile = profileAround(network, place.id);
  const sort = sortFor(
    profile,
    ({ direction, sort: name }) => direction === 'between' && /tunnel|link/.test(name),
  );
  const known = gatewaysOf(network, place.id).find(
    ({ device, gateway }) =>
      gateway.direction === 'between' &&
      network.find('everyPortByDevice', device.id).some(({ form }) => form === 'tunnel'),
  );
  const device: Device = known?.device ?? {
    ...blankDevice,
    ...{ id: newId(), name: `${place.name}-vpn-1`, role: 'GW', placeId: place.id, units: 0 },
    asNumber: wish.routing.by === 'BGP' ? wish.routing.cloudAs : null,
  };
  const changes: (Change | null)[] =
    known === undefined
      ? [
          create('device', device),
          create('gateway', {
            ...blankGateway,
            ...{
              id: newId(),
              deviceId: device.id,
              sort: sort?.sort ?? null,
              direction: 'between',
              networkId: place.id,
            },
            families: ['IPv4'],
          }),
        ]
      : [];
  const own = blocksOf(network, place.id)
    .filter(({ prefix }) => prefix.family === 4)
    .map(({ row }) => row.prefix);
  const links = new Set<string>();
  for (const [at, end] of wish.ends.entries()) {
    const link = innerLink(network, wish.vrfId, links);
    const ends = link === null ? null : endsIn(link);
    if (link === null || ends === null)
      return refuse(
        'There is no pool of transit networks with a free /31 in that VRF. Add one to the address plan.',
      );
    if (parseIp(end.outer) === null) return refuse(`The outer address of ${end.device.name} is missing.`);
    links.add(link);
    const far = wish.publicAddresses[at] ?? null;
    const inner: Port = {
      ...blankPort,
      ...{ id: newId(), deviceId: end.device.id, name: tunnelName(network, end.device), form: 'tunnel' },
      ...{ parentId: end.over?.id ?? null, vrfId: wish.vrfId, farAddress: far },
    };
    const tunnel: Port = {
      ...blankPort,
      ...{ id: newId(), deviceId: device.id, name: `tun${at + 1}`, form: 'tunnel', vrfId: wish.vrfId },
      farAddress: end.outer,
    };
    const outer: Port = {
      ...blankPort,
      ...{ id: newId(), deviceId: device.id, name: `outer${at + 1}`, form: 'virtual' },
    };
    const address = (text: string, portId: string): Change =>
      create('address', { ...blankAddress, id: newId(), address: `${text}/31`, vrfId: wish.vrfId, portId });
    changes.push(
      create('prefix', {
        ...blankPrefix,
        ...{
          id: newId(),
          prefix: link,
          vrfId: wish.vrfId,
          role: 'transit',
          name: `${end.device.name} and ${place.name}`,
        },
      }),
      create('port', inner),
      create('port', tunnel),
      address(ends.ours, inner.id),
      address(ends.theirs, tunnel.id),
    );
    if (far !== null) {
      const region = place.parentId ?? place.id;
      changes.push(
        create('port', outer),
        create('publicAddress', {
          ...blankPublicAddress,
          id: newId(),
          address: far,
          placeId: region,
          portId: outer.id,
        }),
      );
    }
    if (wish.routing.by === 'BGP') {
      const { cloudAs, ownAs } = wish.routing;
      changes.push(
        update('device', end.device, { asNumber: end.device.asNumber ?? ownAs }),
        create('bgpSession', {
          ...blankBgpSession,
          ...{
            id: newId(),
            deviceId: end.device.id,
            vrfId: wish.vrfId,
            neighbour: ends.theirs,
            remoteAs: cloudAs,
          },
          announces: [...wish.premises],
        }),
        create('bgpSession', {
          ...blankBgpSession,
          ...{ id: newId(), deviceId: device.id, vrfId: wish.vrfId, neighbour: ends.ours, remoteAs: ownAs },
          announces: own,
        }),
      );
    } else {
      const route = (deviceId: string, prefix: string, via: string): Change =>
        create('route', { ...blankRoute, id: newId(), deviceId, vrfId: wish.vrfId, prefix, via });
      changes.push(
        ...own.map((prefix) => route(end.device.id, prefix, ends.theirs)),
        ...wish.premises.map((prefix) => route(device.id, prefix, ends.ours)),
      );
    }
  }
  // What the tunnels bring reaches the subnets only through tables that take it in; open ones stay as they are.
  for (const table of tablesOf(network, place.id))
    if (network.countOf('cloudSubnetsByRouteTable', table.id) > 0)
      changes.push(update('routeTable', table, { learns: true }));
  return judged(
    network,
    changes,
    `Tied ${place.name} to ${wish.ends.map((end) => end.device.name).join(' and ')} by ${wish.ends.length} ${wish.ends.length === 1 ? 'tunnel' : 'tunnels'}`,
  );
}

import { create, type Change } from '../../change/change.ts';
import { judged, refuse } from '../../commands/attempt.ts';
import { blankCloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import { blankGateway } from '../../model/kinds/cloud/gateway.ts';
import type { GatewaySort, ProviderProfile } from '../../model/kinds/cloud/providerProfile.ts';
import { blankCloudRoute, blankCloudTable } from '../../model/kinds/cloud/routeTable.ts';
import { blankRuleSet, blankTrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import { blankVirtualNetwork } from '../../model/kinds/cloud/virtualNetwork.ts';
import { blankAddress } from '../../model/kinds/logical/address.ts';
import { blankDevice } from '../../model/kinds/equipment/device.ts';
import { blankPort } from '../../model/kinds/lines/port.ts';
import { blankPrefix } from '../../model/kinds/logical/prefix.ts';
import { blankVrf, colourCount } from '../../model/kinds/logical/vrf.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { newId } from '../../model/values/ids.ts';
import { formatIp, parsePrefix } from '../../model/values/ip.ts';
import { profileAround } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import type { Nature } from '../nature.ts';
import { sortFor } from '../profiles.ts';
import {
  cutBlock,
  type NetworkPlan,
  type NetworkWish,
  type PlannedSubnet,
  type TierWish,
} from './cutBlock.ts';
import { newPlace, type Made } from './places.ts';

/** What is not said by the network itself and has to be decided with open eyes. */
export function meansOf(network: Network, wish: NetworkWish): string[] {
  const zones = wish.zoneIds.map((id) => network.get('place', id)?.name ?? '');
  const [first] = zones;
  const outward = wish.tiers.some(({ nature }) => nature === 'outward only');
  const said: string[] = [];
  if (outward && wish.translation === 'once' && zones.length > 1)
    said.push(
      `With ${first ?? 'the zone'} lost, ${zones.slice(1).join(' and ')} can begin nothing outward; and all that ${zones.length > 2 ? 'the others send' : `${zones[1] ?? ''} sends`} crosses zones, which is charged.`,
    );
  if (outward && wish.translation === 'in each zone' && zones.length > 1)
    said.push(
      `Each zone goes out by itself: ${zones.length} gateways are paid for, and a lost zone cuts off no other.`,
    );
  if (zones.length === 1)
    said.push(`Everything stands in ${first ?? 'one zone'}: with it the network is gone.`);
  if (wish.tiers.some(({ nature }) => nature === 'closed'))
    said.push(
      'Closed tiers have no way to the internet: what they fetch comes through another tier or the premises.',
    );
  return said;
}

/** Collects what a new network is made of. */
class Maker {
  readonly changes: Change[] = [];
  readonly place: Place;
  readonly vrfId = newId();
  private readonly names = new Set<string>();

  constructor(
    private readonly network: Network,
    private readonly wish: NetworkWish,
    readonly profile: ProviderProfile | null,
  ) {
    this.place = newPlace(wish.name, 'network', wish.regionId);
    this.changes.push(
      create('vrf', {
        ...blankVrf,
        id: this.vrfId,
        name: this.place.name,
        colour: network.count('vrf') % colourCount,
      }),
      create('place', this.place),
      create('virtualNetwork', {
        ...blankVirtualNetwork,
        id: newId(),
        placeId: this.place.id,
        vrfId: this.vrfId,
      }),
      create('prefix', {
        ...blankPrefix,
        ...{ id: newId(), prefix: wish.block, vrfId: this.vrfId, role: 'pool', placeId: this.place.id },
        name: this.place.name,
      }),
    );
  }

  /** A gateway of the sort that the profile offers, or as it is set without one. */
  gateway(stem: string, fits: (sort: GatewaySort) => boolean, otherwise: Omit<GatewaySort, 'sort'>): string {
    const sort = sortFor(this.profile, fits);
    const { direction, families, translates, reach } = sort ?? otherwise;
    const device = {
      ...blankDevice,
      ...{ id: newId(), name: this.freeName(stem), role: 'GW' as const, placeId: this.place.id, units: 0 },
    };
    this.changes.push(
      create('device', device),
      create('gateway', {
        ...blankGateway,
        ...{ id: newId(), deviceId: device.id, sort: sort?.sort ?? null, direction, translates, reach },
        families: [...families],
        networkId: this.place.id,
      }),
    );
    return device.id;
  }

  private freeName(stem: string): string {
    for (let number = 1; ; number++) {
      const name = `${this.place.name}-${stem}-${number}`;
      if (this.names.has(name) || this.network.findOne('deviceByName', name.toLowerCase()) !== null) continue;
      this.names.add(name);
      return name;
    }
  }

  table(name: string, routes: readonly { prefix: string; gatewayId: string }[], learns: boolean): string {
    const table = { ...blankCloudTable, id: newId(), placeId: this.place.id, name, learns };
    this.changes.push(
      create('routeTable', table),
      ...routes.map((route) =>
        create('cloudRoute', { ...blankCloudRoute, ...route, id: newId(), tableId: table.id }),
      ),
    );
    return table.id;
  }

  subnet({ name, zoneId, prefix, tier }: PlannedSubnet, routeTableId: string): void {
    const row = {
      ...blankPrefix,
      ...{ id: newId(), prefix, vrfId: this.vrfId, placeId: this.place.id },
      name: `${tier.name}, ${this.network.get('place', zoneId)?.name ?? this.place.name}`,
    };
    this.changes.push(
      create('prefix', row),
      create('cloudSubnet', {
        ...blankCloudSubnet,
        ...{ id: newId(), placeId: this.place.id, name, zoneId, prefixId: row.id, routeTableId },
      }),
    );
  }

  /** The interface of a translating gateway in an open subnet; its public address is given by the provider later. */
  seat(deviceId: string, subnet: PlannedSubnet, order: number): void {
    const prefix = parsePrefix(subnet.prefix);
    if (prefix === null) return;
    const value = prefix.value + BigInt((this.profile?.keptFirst ?? 1) + order);
    const port = {
      ...blankPort,
      ...{ id: newId(), deviceId, name: 'out', form: 'virtual' as const, vrfId: this.vrfId },
    };
    this.changes.push(
      create('port', port),
      create('address', {
        ...blankAddress,
        ...{ id: newId(), vrfId: this.vrfId, portId: port.id },
        address: `${formatIp({ family: 4, value })}/${prefix.length}`,
      }),
    );
  }

  /** Rule sets tier by tier: the open ones take in what everybody calls, each other what the tier before it calls. */
  rules(tiers: readonly TierWish[]): void {
    const sort = this.profile?.ruleSets.find(({ ties }) => ties === 'interfaces');
    let before: string | null = null;
    let outwardBefore = false;
    for (const tier of tiers) {
      const set = {
        ...blankRuleSet,
        ...{ id: newId(), placeId: this.place.id, name: tier.name, sort: sort?.sort ?? null },
        ...(sort === undefined
          ? {}
          : {
              ...{ remembers: sort.remembers, ordered: sort.ordered },
              ...{ otherwiseIn: sort.otherwiseIn, otherwiseOut: sort.otherwiseOut },
            }),
      };
      const open = tier.nature === 'open';
      const ruleIn = { ...blankTrafficRule, id: newId(), setId: set.id, position: 10, ports: '443' };
      this.changes.push(create('ruleSet', set));
      if (open) this.changes.push(create('trafficRule', ruleIn));
      else if (before !== null) this.changes.push(create('trafficRule', { ...ruleIn, peerSetId: before }));
      if (before !== null && !outwardBefore && sort?.otherwiseOut !== 'allow')
        this.changes.push(
          create('trafficRule', {
            ...{ ...ruleIn, id: newId(), setId: before, direction: 'out', position: 10 },
            peerSetId: set.id,
          }),
        );
      if (tier.nature === 'outward only' && sort?.otherwiseOut !== 'allow')
        this.changes.push(
          create('trafficRule', { ...ruleIn, id: newId(), direction: 'out', position: 20, setId: set.id }),
        );
      before = set.id;
      // Who may call everybody on that port may call the next tier as well.
      outwardBefore = tier.nature === 'outward only';
    }
  }
}

/** One table for what is open and one for what is closed; what goes out by itself has one for each gateway. */
function layTables(maker: Maker, wish: NetworkWish, plan: NetworkPlan): void {
  const { profile } = maker;
  const of = (nature: Nature): PlannedSubnet[] => plan.subnets.filter(({ tier }) => tier.nature === nature);
  const open = of('open');
  const outward = of('outward only');
  const closed = of('closed');
  // Whoever translates stands in an open subnet, and that needs the open gateway.
  if (open.length > 0 || outward.length > 0) {
    const door = maker.gateway('gw', ({ direction, translates }) => direction === 'both' && !translates, {
      ...{ direction: 'both', families: ['IPv4'], translates: false, reach: 'regional' },
    });
    const table = maker.table('open', [{ prefix: '0.0.0.0/0', gatewayId: door }], false);
    for (const subnet of open) maker.subnet(subnet, table);
  }
  if (outward.length > 0) {
    const zones = [...new Set(outward.map(({ zoneId }) => zoneId))];
    const served = wish.translation === 'once' ? zones.slice(0, 1) : zones;
    const sort = sortFor(profile, ({ direction, translates }) => direction === 'out' && translates);
    const byZone = sort?.reach === 'regional' ? [null] : served;
    const tables = byZone.map((zoneId, at) => {
      const nat = maker.gateway('nat', ({ translates }) => translates, {
        ...{ direction: 'out', families: ['IPv4'], translates: true, reach: 'zonal' },
      });
      const seat = open.find((one) => one.zoneId === zoneId) ?? open[0];
      if (seat !== undefined) maker.seat(nat, seat, at);
      const name = byZone.length === 1 ? 'outward' : `outward-${zones.indexOf(zoneId) + 1}`;
      return { zoneId, id: maker.table(name, [{ prefix: '0.0.0.0/0', gatewayId: nat }], true) };
    });
    for (const subnet of outward) {
      const table = tables.find(({ zoneId }) => zoneId === subnet.zoneId) ?? tables[0];
      if (table !== undefined) maker.subnet(subnet, table.id);
    }
  }
  if (closed.length > 0) {
    const table = maker.table('closed', [], true);
    for (const subnet of closed) maker.subnet(subnet, table);
  }
}

/**
 * Proposes a virtual network by need, as one set of changes: its block cut into a subnet for each tier and zone, with
 * room for the hosts beside what the provider keeps; gateways; route tables tied to every subnet; first rule sets. What
 * goes out by itself needs an open tier to stand beside: where none is wished there is a small one.
 */
export function proposeNetwork(
  network: Network,
  given: NetworkWish,
): Made<{ placeId: string; plan: NetworkPlan }> {
  const region = network.get('place', given.regionId);
  if (region?.kind !== 'region') return refuse('Choose the region that the network is in.');
  const profile = profileAround(network, region.id);
  const names = new Set(given.tiers.map(({ name }) => name.trim().toLowerCase()));
  if (names.size < given.tiers.length) return refuse('Two tiers have one name. Call each by its own.');
  const needsOpen =
    given.tiers.some(({ nature }) => nature === 'outward only') &&
    !given.tiers.some(({ nature }) => nature === 'open');
  const wish: NetworkWish = needsOpen
    ? {
        ...given,
        tiers: [{ name: names.has('open') ? 'border' : 'open', nature: 'open', hosts: 4 }, ...given.tiers],
      }
    : given;
  const plan = cutBlock(network, wish);
  if ('why' in plan) return refuse(plan.why);
  const maker = new Maker(network, wish, profile);
  layTables(maker, wish, plan);
  maker.rules(wish.tiers);
  const attempt = judged(
    network,
    maker.changes,
    `Added the virtual network ${maker.place.name} with ${plan.subnets.length} subnets in ${region.name}`,
  );
  return attempt.ok ? { ...attempt, placeId: maker.place.id, plan } : attempt;
}

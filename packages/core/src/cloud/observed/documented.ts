import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { cloudPlaceAround } from '../../model/network/cloudPlaces.ts';
import { devicesIn, placesWithin } from '../../model/network/places.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { blocksOf, gatewayOf, networksIn, prefixesOf, subnetsOf } from '../inventory.ts';
import { nothingObserved, observedRoles, type LabelledList, type ObservedAccount } from './observed.ts';

/** Ids of an account's own: a word and a number for each row, in the order in which rows are met. */
function numbering(): (word: string, rowId: string) => string {
  const known = new Map<string, string>();
  const next = new Map<string, number>();
  return (word, rowId) => {
    const key = `${word} ${rowId}`;
    const found = known.get(key);
    if (found !== undefined) return found;
    const number = (next.get(word) ?? 0) + 1;
    next.set(word, number);
    known.set(key, `${word}-${number}`);
    return `${word}-${number}`;
  };
}

const roleOf = (role: string) => observedRoles.find((one) => one === role) ?? null;

type Own = (word: string, rowId: string) => string;

/** Public addresses of the account's places, with what they stand for as far as that is told as well. */
function tellAddresses(
  network: Network,
  within: ReadonlySet<string>,
  found: ObservedAccount,
  own: Own,
  regionOf: (placeId: string | null) => string,
): void {
  const [nics, gateways] = [found.interfaces, found.gateways].map(
    (list) => new Set(list.map(({ id }) => id)),
  );
  const told = (list: ReadonlySet<string> | undefined, id: string): string | null =>
    list?.has(id) === true ? id : null;
  for (const row of [...network.all('publicAddress')].sort((a, b) => compareNames(a.address, b.address))) {
    if (!within.has(row.placeId)) continue;
    const port = network.get('port', row.portId);
    found.publicAddresses.push({
      ...{ id: own('public', row.id), address: row.address, region: regionOf(row.placeId) || null },
      ...{ stays: row.hold, interfaceId: port === null ? null : told(nics, own('nic', port.id)) },
      gatewayId: port === null ? null : told(gateways, own('gateway', port.deviceId)),
    });
  }
}

/** Targets of load balancers, where both ends are told. */
function tellTargets(network: Network, found: ObservedAccount, own: Own): void {
  const there = new Set(found.instances.map(({ id }) => id));
  for (const row of network.all('balancerTarget')) {
    const [balancerId, instanceId] = [own('instance', row.balancerId), own('instance', row.deviceId)];
    if (!there.has(balancerId) || !there.has(instanceId)) continue;
    const { protocol, listens, port } = row;
    found.targets.push({ id: own('target', row.id), balancerId, instanceId, protocol, listens, port });
  }
}

/** Zones of names that are seen in networks of the account, and public ones that are asked for; with their records. */
function tellNames(
  network: Network,
  places: readonly { id: string }[],
  publicNames: ReadonlySet<string>,
  found: ObservedAccount,
  own: Own,
): void {
  const nets = new Set(places.map(({ id }) => id));
  for (const zone of [...network.all('dnsZone')].sort(byName)) {
    const uses = network.find('zoneUsesByZone', zone.id).filter(({ networkId }) => nets.has(networkId));
    if (uses.length === 0 && (zone.isPrivate || !publicNames.has(zone.name))) continue;
    found.zones.push({
      ...{ id: own('zone', zone.id), name: zone.name, isPrivate: zone.isPrivate },
      networkIds: uses.map(({ networkId }) => own('net', networkId)),
    });
    for (const { id, name, type, value, ttlS } of network.find('recordsByZone', zone.id))
      found.records.push({ id: own('record', id), zoneId: own('zone', zone.id), name, type, value, ttlS });
  }
}

/** The labels of what is told; those of a device are its own fields. */
function tellLabels(
  network: Network,
  places: readonly { id: string }[],
  devices: readonly Device[],
  found: ObservedAccount,
  own: Own,
): void {
  const tell = (of: LabelledList, ofId: string, labels: Readonly<Record<string, string>>): void => {
    for (const [key, value] of Object.entries(labels))
      found.labels.push({ id: own('label', `${of} ${ofId} ${key}`), of, ofId, key, value });
  };
  for (const { id } of places) {
    tell('networks', own('net', id), network.findOne('virtualNetworkByPlace', id)?.labels ?? {});
    for (const row of network.find('cloudSubnetsByNetwork', id).sort(byName))
      tell('subnets', own('subnet', row.id), row.labels);
    for (const row of network.find('ruleSetsByNetwork', id).sort(byName))
      tell('ruleSets', own('set', row.id), row.labels);
  }
  const instances = new Set(found.instances.map(({ id }) => id));
  for (const device of devices)
    if (gatewayOf(network, device.id) !== null) tell('gateways', own('gateway', device.id), device.extra);
    else if (instances.has(own('instance', device.id)))
      tell('instances', own('instance', device.id), device.extra);
  for (const { id, address } of found.publicAddresses)
    tell('publicAddresses', id, network.findOne('publicAddressByText', address)?.labels ?? {});
}

/**
 * An account as it would tell itself if all that is documented were so: by names, and by no id of a row.
 *
 * @param also what it tells though nothing in it uses it, by name: lists of prefixes and public zones of names are of
 *   the whole project
 */
export function documentedAccount(
  network: Network,
  accountId: string,
  also: { lists: ReadonlySet<string>; zones: ReadonlySet<string> } = { lists: new Set(), zones: new Set() },
): ObservedAccount {
  const found = nothingObserved();
  const own = numbering();
  const within = placesWithin(network, accountId);
  const regionOf = (placeId: string | null): string =>
    cloudPlaceAround(network, placeId, 'region')?.name ?? '';
  const places = networksIn(network, accountId);
  const nets = new Set(places.map(({ id }) => id));
  const inNet = (id: string | null): string | null => (id !== null && nets.has(id) ? own('net', id) : null);
  for (const place of places)
    found.networks.push({
      ...{ id: own('net', place.id), name: place.name, region: regionOf(place.id) },
      blocks: blocksOf(network, place.id).map(({ row }) => row.prefix),
    });
  const lists = new Set<string>();
  const listed = (id: string | null): string | null => {
    if (id === null) return null;
    lists.add(id);
    return own('list', id);
  };
  for (const { id: placeId } of places) {
    const networkId = own('net', placeId);
    for (const table of network.find('routeTablesByNetwork', placeId).sort(byName))
      found.routeTables.push({ id: own('table', table.id), name: table.name, networkId });
    for (const set of network.find('ruleSetsByNetwork', placeId).sort(byName)) {
      const { name, remembers, ordered } = set;
      found.ruleSets.push({ id: own('set', set.id), name, networkId, remembers, ordered });
    }
    for (const subnet of subnetsOf(network, placeId)) {
      const prefixes = prefixesOf(network, subnet);
      found.subnets.push({
        ...{ id: own('subnet', subnet.id), name: subnet.name, networkId },
        zone: network.get('place', subnet.zoneId)?.name ?? null,
        routeTableId: subnet.routeTableId === null ? null : own('table', subnet.routeTableId),
        prefix: prefixes.find(({ prefix }) => prefix.family === 4)?.row.prefix ?? null,
        v6Prefix: prefixes.find(({ prefix }) => prefix.family === 6)?.row.prefix ?? null,
      });
    }
  }
  const devices = devicesIn(network, within)
    .filter(({ status }) => status !== 'retired')
    .sort(byName);
  for (const device of devices) {
    const region = regionOf(device.placeId);
    const gateway = gatewayOf(network, device.id)?.gateway ?? null;
    const role = roleOf(device.role);
    if (gateway !== null) {
      const { direction, translates } = gateway;
      found.gateways.push({
        ...{ id: own('gateway', device.id), name: device.name, networkId: inNet(gateway.networkId) },
        ...{ region, direction, translates },
      });
    } else if (role !== null) {
      const instance = network.findOne('instanceByDevice', device.id);
      found.instances.push({
        ...{ id: own('instance', device.id), name: device.name, role, region },
        networkId: inNet(cloudPlaceAround(network, device.placeId, 'network')?.id ?? null),
        ...{ size: instance?.size ?? null, running: instance?.running ?? true },
      });
    } else continue;
    if (gateway !== null) continue;
    for (const port of network.find('everyPortByDevice', device.id).sort(byName)) {
      if (port.form !== 'virtual') continue;
      const vrf = port.vrfId === null ? null : network.findOne('virtualNetworkByVrf', port.vrfId);
      found.interfaces.push({
        ...{ id: own('nic', port.id), instanceId: own('instance', device.id), name: port.name },
        networkId: inNet(vrf?.placeId ?? null),
        addresses: network
          .find('addressesByPort', port.id)
          .map(({ address }) => address)
          .sort(compareNames),
        ruleSetIds: network.find('ruleSetUsesByPort', port.id).map(({ setId }) => own('set', setId)),
      });
    }
  }
  const seen = new Set<string>();
  for (const { id: placeId } of places)
    for (const peering of network.find('peeringsByNetwork', placeId).sort(byName)) {
      const [aNetworkId, bNetworkId] = [inNet(peering.aNetworkId), inNet(peering.bNetworkId)];
      if (seen.has(peering.id) || aNetworkId === null || bNetworkId === null) continue;
      seen.add(peering.id);
      const { name, aAccepted, bAccepted } = peering;
      found.peerings.push({
        ...{ id: own('peering', peering.id), name, aNetworkId, bNetworkId, aAccepted, bAccepted },
      });
    }
  for (const { id: placeId } of places) {
    for (const table of network.find('routeTablesByNetwork', placeId).sort(byName))
      for (const route of network.find('cloudRoutesByTable', table.id)) {
        const [through, throughId] = route.discard
          ? (['nowhere', null] as const)
          : route.gatewayId !== null
            ? (['gateway', own('gateway', route.gatewayId)] as const)
            : route.peeringId !== null
              ? (['peering', own('peering', route.peeringId)] as const)
              : (['interface', route.portId === null ? null : own('nic', route.portId)] as const);
        found.routes.push({
          ...{ id: own('route', route.id), routeTableId: own('table', table.id), prefix: route.prefix },
          ...{ prefixListId: listed(route.listId), through, throughId },
        });
      }
    for (const set of network.find('ruleSetsByNetwork', placeId).sort(byName))
      for (const rule of network.find('rulesBySet', set.id).sort((a, b) => a.position - b.position)) {
        const { position, direction, verdict, protocol, ports, prefix } = rule;
        found.rules.push({
          ...{ id: own('rule', rule.id), ruleSetId: own('set', set.id), position, direction, verdict },
          ...{ protocol, ports, prefix, prefixListId: listed(rule.listId) },
          peerSetId: rule.peerSetId === null ? null : own('set', rule.peerSetId),
        });
      }
  }
  for (const { id, name } of network.all('prefixList')) if (also.lists.has(name)) listed(id);
  for (const id of lists) {
    const list = network.get('prefixList', id);
    if (list !== null)
      found.prefixLists.push({ id: own('list', id), name: list.name, prefixes: [...list.prefixes] });
  }
  found.prefixLists.sort(byName);
  tellAddresses(network, within, found, own, regionOf);
  tellTargets(network, found, own);
  tellNames(network, places, also.zones, found, own);
  tellLabels(network, places, devices, found, own);
  return found;
}

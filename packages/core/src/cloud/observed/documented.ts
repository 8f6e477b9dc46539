import type { Network } from '../../model/network/network.ts';
import { cloudPlaceAround } from '../../model/network/cloudPlaces.ts';
import { devicesIn, placesWithin } from '../../model/network/places.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { blocksOf, gatewayOf, networksIn, prefixesOf, subnetsOf } from '../inventory.ts';
import { nothingObserved, observedRoles, type ObservedAccount } from './observed.ts';

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

/**
 * An account as it would tell itself if all that is documented were so: by names, and by no id of a row.
 *
 * @param listNames lists of prefixes that it tells though nothing in it uses them: lists are of the whole project
 */
export function documentedAccount(
  network: Network,
  accountId: string,
  listNames: ReadonlySet<string> = new Set(),
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
  for (const { id, name } of network.all('prefixList')) if (listNames.has(name)) listed(id);
  for (const id of lists) {
    const list = network.get('prefixList', id);
    if (list !== null)
      found.prefixLists.push({ id: own('list', id), name: list.name, prefixes: [...list.prefixes] });
  }
  found.prefixLists.sort(byName);
  return found;
}

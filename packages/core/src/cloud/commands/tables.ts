import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import { blankCloudRoute, type CloudRoute, type CloudTable } from '../../model/kinds/cloud/routeTable.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import { blocksOf } from '../inventory.ts';

/** The route tables of a virtual network, by name. */
export const tablesOf = (network: Network, networkId: string): CloudTable[] =>
  network.find('routeTablesByNetwork', networkId).sort(byName);

/** The subnets that are tied to a table, by name. */
export const tiedTo = (network: Network, tableId: string): CloudSubnet[] =>
  network.find('cloudSubnetsByRouteTable', tableId).sort(byName);

/** Ties a subnet to a route table. */
export const tieTable = (network: Network, subnet: CloudSubnet, table: CloudTable | null): Attempt =>
  judged(
    network,
    [update('cloudSubnet', subnet, { routeTableId: table?.id ?? null })],
    table === null
      ? `Took ${subnet.name} off its route table`
      : `Tied ${subnet.name} to the route table ${table.name}`,
  );

/** Where a route leads: through one of these, or nowhere. */
export type RouteTarget = Partial<
  Pick<CloudRoute, 'gatewayId' | 'peeringId' | 'portId' | 'attachmentId' | 'discard'>
>;
const noTarget = { gatewayId: null, peeringId: null, portId: null, attachmentId: null, discard: false };

/** What a route leads through, in words. */
export const targetText = (network: Network, route: CloudRoute): string => {
  if (route.discard) return 'nowhere';
  if (route.gatewayId !== null) return network.get('device', route.gatewayId)?.name ?? '';
  if (route.peeringId !== null) return network.get('peering', route.peeringId)?.name ?? '';
  if (route.attachmentId !== null) return network.get('hubAttachment', route.attachmentId)?.name ?? '';
  const port = network.get('port', route.portId);
  return port === null ? '' : `${network.get('device', port.deviceId)?.name ?? ''} ${port.name}`;
};

/** A route of a table to a prefix. */
export function addRoute(network: Network, table: CloudTable, prefix: string, target: RouteTarget): Attempt {
  const there = network.find('cloudRoutesByTable', table.id).find((one) => one.prefix === prefix);
  if (there !== undefined)
    return refuse(
      `${table.name} has a route to ${prefix} already, through ${targetText(network, there)}. Change that one.`,
    );
  const row: CloudRoute = { ...blankCloudRoute, ...target, id: newId(), tableId: table.id, prefix };
  return judged(
    network,
    [create('cloudRoute', row)],
    `Added ${prefix} through ${targetText(network, row)} to ${table.name}`,
  );
}

/** Sends a route another way. */
export function redirectRoute(network: Network, route: CloudRoute, target: RouteTarget): Attempt {
  const after = { ...route, ...noTarget, ...target };
  return judged(
    network,
    [update('cloudRoute', route, { ...noTarget, ...target })],
    `Sent ${route.prefix ?? network.get('prefixList', route.listId)?.name ?? ''} through ${targetText(network, after)}`,
  );
}

export const dropRoute = (network: Network, route: CloudRoute): Attempt =>
  judged(
    network,
    [remove('cloudRoute', route)],
    `Took the route to ${route.prefix ?? network.get('prefixList', route.listId)?.name ?? ''} out of ${network.get('routeTable', route.tableId)?.name ?? ''}`,
  );

/** Routes to the blocks of a network through a peering, in every table of the other side that subnets are tied to. */
export function peeringRoutes(
  network: Network,
  { id, aNetworkId, bNetworkId }: { id: string; aNetworkId: string; bNetworkId: string },
  fromNetworkId: string,
): Change[] {
  const far = fromNetworkId === aNetworkId ? bNetworkId : aNetworkId;
  return tablesOf(network, fromNetworkId)
    .filter((table) => network.countOf('cloudSubnetsByRouteTable', table.id) > 0)
    .flatMap((table) => {
      const there = new Set(network.find('cloudRoutesByTable', table.id).map(({ prefix }) => prefix));
      return blocksOf(network, far)
        .filter(({ row }) => !there.has(row.prefix))
        .map(({ row }) =>
          create('cloudRoute', {
            ...blankCloudRoute,
            id: newId(),
            tableId: table.id,
            prefix: row.prefix,
            peeringId: id,
          }),
        );
    });
}

import { create } from '../../change/change.ts';
import { judged, refuse } from '../../commands/attempt.ts';
import { blankGateway, blankHubAttachment, type HubAttachment } from '../../model/kinds/cloud/gateway.ts';
import { blankCloudRoute, blankCloudTable } from '../../model/kinds/cloud/routeTable.ts';
import { blankDevice, type Device } from '../../model/kinds/equipment/device.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { profileAround } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { devicesIn, placesWithin } from '../../model/network/places.ts';
import { newId } from '../../model/values/ids.ts';
import { byName } from '../../model/values/order.ts';
import { blocksOf, gatewayOf } from '../inventory.ts';
import { sortFor } from '../profiles.ts';
import type { Made } from './places.ts';
import { tablesOf } from './tables.ts';

/** Whether a gateway joins networks as a router of the region: it is attached to none itself, and none begins outside. */
export const isHub = (network: Network, deviceId: string): boolean => {
  const gateway = gatewayOf(network, deviceId)?.gateway;
  return gateway?.direction === 'between' && gateway.networkId === null && gateway.clientPool === null;
};

/** The routers of a region, by name. */
export const hubsIn = (network: Network, regionId: string): Device[] =>
  devicesIn(network, placesWithin(network, regionId))
    .filter(({ id }) => isHub(network, id))
    .sort(byName);

/** A router of a region, with a table that takes in what its attachments bring. */
export function addHub(network: Network, region: Place, name: string): Made<{ deviceId: string }> {
  const device: Device = {
    ...blankDevice,
    ...{ id: newId(), name: name.trim(), role: 'GW', placeId: region.id, units: 0 },
  };
  const sort = sortFor(
    profileAround(network, region.id),
    ({ direction, sort: called }) => direction === 'between' && /router|junction|crossing/.test(called),
  );
  const attempt = judged(
    network,
    [
      create('device', device),
      create('gateway', {
        ...blankGateway,
        ...{ id: newId(), deviceId: device.id, direction: 'between', sort: sort?.sort ?? null },
        families: [...(sort?.families ?? blankGateway.families)],
      }),
      create('routeTable', {
        ...blankCloudTable,
        ...{ id: newId(), hubId: device.id, name: 'all', learns: true },
      }),
    ],
    `Added the router ${device.name} to ${region.name}`,
  );
  return attempt.ok ? { ...attempt, deviceId: device.id } : attempt;
}

/** The blocks of all that is attached to a router already, but for one network: what that one may want routes to. */
export const blocksBehind = (network: Network, hubId: string, exceptId: string): string[] =>
  network
    .find('hubAttachmentsByHub', hubId)
    .flatMap(({ networkId }) => (networkId === null || networkId === exceptId ? [] : [networkId]))
    .flatMap((id) => blocksOf(network, id).map(({ row }) => row.prefix));

/** Attaches a network to a router of the region, with a route through it in every table that subnets are tied to. */
export function attachToHub(
  network: Network,
  place: Place,
  hub: Device,
  destinations: readonly string[],
): Made<{ attachment: HubAttachment }> {
  if (network.find('hubAttachmentsByHub', hub.id).some(({ networkId }) => networkId === place.id))
    return refuse(`${place.name} is attached to ${hub.name} already. Change that attachment instead.`);
  const [table] = network.find('routeTablesByHub', hub.id);
  const attachment: HubAttachment = {
    ...blankHubAttachment,
    ...{ id: newId(), hubId: hub.id, name: place.name, networkId: place.id, tableId: table?.id ?? null },
  };
  const routes = tablesOf(network, place.id)
    .filter(({ id }) => network.countOf('cloudSubnetsByRouteTable', id) > 0)
    .flatMap(({ id }) => {
      const there = new Set(network.find('cloudRoutesByTable', id).map(({ prefix }) => prefix));
      return destinations
        .filter((prefix) => !there.has(prefix))
        .map((prefix) =>
          create('cloudRoute', { ...blankCloudRoute, id: newId(), tableId: id, prefix, gatewayId: hub.id }),
        );
    });
  const attempt = judged(
    network,
    [create('hubAttachment', attachment), ...routes],
    `Attached ${place.name} to ${hub.name}`,
  );
  return attempt.ok ? { ...attempt, attachment } : attempt;
}

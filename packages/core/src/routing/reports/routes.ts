import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { byName } from '../../model/values/order.ts';
import { devicesInScope } from '../../model/network/places.ts';
import { routersIn, vrfsOf } from '../interfaces.ts';
import { routeTable } from '../routeTable.ts';
import type { NextHop } from '../tableRoute.ts';
import { table, type ForDevice } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';

const columns: Column[] = [
  { key: 'device', label: 'Device' },
  { key: 'vrf', label: 'VRF' },
  { key: 'prefix', label: 'Prefix' },
  { key: 'nextHops', label: 'Next hops' },
  { key: 'ports', label: 'Out of' },
  { key: 'source', label: 'Source' },
  { key: 'metric', label: 'Metric', numeric: true },
  { key: 'distance', label: 'Distance', numeric: true },
  { key: 'why', label: 'Why' },
];

const joined = (texts: readonly (string | null)[]): string | null =>
  [...new Set(texts.filter((text) => text !== null && text !== ''))].join(', ') || null;

const portNames = (network: Network, hops: readonly NextHop[]): string | null =>
  joined(hops.map((hop) => network.get('port', hop.portId)?.name ?? null));

/** The route table of every router of the scope, or of one device, in each of its VRFs. */
export function routeSchedule(network: Network, scopeId: string | null, { device }: ForDevice = {}): Table {
  const routers: Device[] =
    device === undefined
      ? routersIn(
          network,
          devicesInScope(network, scopeId).filter((one) => one.status !== 'retired'),
        )
      : [device];
  const rows = routers.sort(byName).flatMap((router) =>
    vrfsOf(network, router.id).flatMap((vrfId) =>
      routeTable(network, router.id, vrfId).routes.map((route) => ({
        id: router.id,
        cells: {
          device: router.name,
          vrf: network.get('vrf', vrfId)?.name ?? null,
          prefix: route.text,
          nextHops: route.nextHops.length === 0 ? 'discarded' : joined(route.nextHops.map((hop) => hop.via)),
          ports: portNames(network, route.nextHops),
          source: route.source,
          metric: route.metric,
          distance: route.distance,
          why: route.why,
        },
      })),
    ),
  );
  return table(columns, rows);
}

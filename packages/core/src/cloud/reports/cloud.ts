import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import type { TrafficRule } from '../../model/kinds/cloud/ruleSet.ts';
import type { Network } from '../../model/network/network.ts';
import { placesWithin } from '../../model/network/places.ts';
import { hostRange, isInCloud } from '../../model/network/cloudPlaces.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { roles } from '../../model/values/roles.ts';
import { useOf } from '../../addressing/plan.ts';
import { table } from '../../report/parts.ts';
import type { Column, Table, TableRow } from '../../report/table.ts';
import { peerText } from '../commands/rules.ts';
import { trafficText } from '../services.ts';
import { tablesOf, tiedTo } from '../commands/tables.ts';
import { effectiveRoutes, type RouteWay } from '../effectiveRoutes.ts';
import {
  gatewayOf,
  networksIn,
  prefixesOf,
  seatsIn,
  seatsOfDevice,
  subnetsOf,
  zonesOf,
} from '../inventory.ts';
import { natureOf } from '../nature.ts';
import { setsOfPort } from '../rules/passage.ts';
import { publicAddressesOf, wayOut } from '../wayOut.ts';

const name = (network: Network, id: string | null): string | null => network.get('place', id)?.name ?? null;
const list = (texts: readonly string[]): string | null => texts.join(', ') || null;

const subnetColumns: Column[] = [
  { key: 'network', label: 'Virtual network' },
  { key: 'zone', label: 'Zone' },
  { key: 'name', label: 'Name' },
  { key: 'prefix', label: 'IPv4' },
  { key: 'v6', label: 'IPv6' },
  { key: 'nature', label: 'To the internet' },
  { key: 'by', label: 'Through' },
  { key: 'table', label: 'Route table' },
  { key: 'rules', label: 'Rule set' },
  { key: 'interfaces', label: 'Interfaces', numeric: true },
  { key: 'free', label: 'Free', numeric: true },
];

function subnetCells(network: Network, subnet: CloudSubnet): TableRow {
  const prefixes = prefixesOf(network, subnet);
  const v4 = prefixes.find(({ prefix }) => prefix.family === 4);
  const { nature, by } = natureOf(network, subnet);
  const free =
    v4 === undefined
      ? null
      : Number(hostRange(network, v4.row, v4.prefix).count) - useOf(network, v4.row).taken;
  return {
    network: name(network, subnet.placeId),
    zone: name(network, subnet.zoneId) ?? 'region',
    name: subnet.name,
    prefix: v4?.row.prefix ?? null,
    v6: prefixes.find(({ prefix }) => prefix.family === 6)?.row.prefix ?? null,
    nature,
    by: list([...new Set([by[4], by[6]])].flatMap((id) => network.get('device', id)?.name ?? [])),
    table: network.get('routeTable', subnet.routeTableId)?.name ?? null,
    rules: network.get('ruleSet', subnet.ruleSetId)?.name ?? null,
    interfaces: new Set(seatsIn(network, subnet).map(({ portId }) => portId)).size,
    free,
  };
}

/** The cloud subnets of a scope, with what each is to the internet. */
export const cloudSubnetSchedule = (network: Network, scopeId: string | null): Table =>
  table(
    subnetColumns,
    networksIn(network, scopeId).flatMap((place) =>
      subnetsOf(network, place.id).map((subnet) => ({ id: subnet.id, cells: subnetCells(network, subnet) })),
    ),
  );

/** What a route leads through, in words. */
export function wayText(network: Network, way: RouteWay): string {
  switch (way.by) {
    case 'local':
      return 'local';
    case 'nowhere':
      return 'dropped';
    case 'gateway':
      return network.get('device', way.deviceId)?.name ?? '';
    case 'peering':
      return `${network.get('peering', way.peeringId)?.name ?? ''} to ${name(network, way.networkId) ?? ''}`;
    case 'interface': {
      const port = network.get('port', way.portId);
      return `${network.get('device', port?.deviceId ?? null)?.name ?? ''} ${port?.name ?? ''}`;
    }
    case 'attachment':
      return network.get('hubAttachment', way.attachmentId)?.name ?? '';
  }
}

const routeColumns: Column[] = [
  { key: 'network', label: 'Virtual network' },
  { key: 'table', label: 'Route table' },
  { key: 'subnets', label: 'Tied subnets' },
  { key: 'destination', label: 'Destination' },
  { key: 'through', label: 'Through' },
  { key: 'source', label: 'Source' },
  { key: 'state', label: 'State' },
];

/** The route tables of a scope as they work: what is local, written and learned, and what leads nowhere. */
export const cloudRouteSchedule = (network: Network, scopeId: string | null): Table =>
  table(
    routeColumns,
    networksIn(network, scopeId).flatMap((place) =>
      tablesOf(network, place.id).flatMap((one) => {
        const { routes, idle } = effectiveRoutes(network, { placeId: place.id, routeTableId: one.id });
        const about = {
          network: place.name,
          table: one.name,
          subnets: list(tiedTo(network, one.id).map((subnet) => subnet.name)),
        };
        return [
          ...routes.map(({ text, way, source }) => ({
            id: one.id,
            cells: { ...about, destination: text, through: wayText(network, way), source, state: 'used' },
          })),
          ...idle.map(({ text, fault }) => ({
            id: one.id,
            cells: { ...about, destination: text, through: null, source: 'written', state: fault },
          })),
        ];
      }),
    ),
  );

const ruleColumns: Column[] = [
  { key: 'network', label: 'Virtual network' },
  { key: 'set', label: 'Rule set' },
  { key: 'direction', label: 'Direction' },
  { key: 'position', label: 'Position', numeric: true },
  { key: 'verdict', label: 'Verdict' },
  { key: 'traffic', label: 'Traffic' },
  { key: 'peer', label: 'Peer' },
  { key: 'notes', label: 'Notes' },
];

/** The rules of every rule set of a scope, in the order in which they are read. */
export function cloudRuleSchedule(network: Network, scopeId: string | null): Table {
  const within = placesWithin(network, scopeId);
  const sets = [...network.all('ruleSet')].filter(({ placeId }) =>
    placeId === null ? scopeId === null : within.has(placeId),
  );
  const key = ({ placeId, name: own }: (typeof sets)[number]): string =>
    `${name(network, placeId) ?? ''}/${own}`;
  const inOrder = (a: TrafficRule, b: TrafficRule): number =>
    compareNames(a.direction, b.direction) || a.position - b.position;
  return table(
    ruleColumns,
    sets
      .sort((a, b) => compareNames(key(a), key(b)))
      .flatMap((set) =>
        network
          .find('rulesBySet', set.id)
          .sort(inOrder)
          .map((rule) => ({
            id: rule.id,
            cells: {
              network: name(network, set.placeId),
              set: set.name,
              direction: rule.direction,
              position: rule.position,
              verdict: rule.verdict,
              traffic: trafficText(rule),
              peer: peerText(network, rule),
              notes: rule.notes,
            },
          })),
      ),
  );
}

const instanceColumns: Column[] = [
  { key: 'name', label: 'Name' },
  { key: 'role', label: 'Role' },
  { key: 'network', label: 'Virtual network' },
  { key: 'zone', label: 'Zone' },
  { key: 'subnet', label: 'Subnet' },
  { key: 'address', label: 'Address' },
  { key: 'public', label: 'Public address' },
  { key: 'seen', label: 'Seen as' },
  { key: 'rules', label: 'Rule sets' },
  { key: 'size', label: 'Size' },
  { key: 'labels', label: 'Labels' },
];

/** What runs in the clouds of a scope: where it stands, and how it goes out. */
export function cloudInstanceSchedule(network: Network, scopeId: string | null): Table {
  const within = placesWithin(network, scopeId);
  const devices = [...network.all('device')].filter(
    (device) =>
      isInCloud(network, device) &&
      gatewayOf(network, device.id) === null &&
      (scopeId === null || within.has(device.placeId ?? '')),
  );
  return table(
    instanceColumns,
    devices.sort(byName).map((device) => {
      const seats = seatsOfDevice(network, device.id);
      const ports = [...new Set(seats.map(({ portId }) => portId))];
      const seen = ports.flatMap((id) => {
        const way = wayOut(network, id);
        return 'seen' in way ? way.seen : [];
      });
      return {
        id: device.id,
        cells: {
          name: device.name,
          role: roles[device.role].label,
          network: list([...new Set(seats.map(({ subnet }) => name(network, subnet.placeId) ?? ''))]),
          zone: list(zonesOf(network, device).map((zone) => zone.name)),
          subnet: list([...new Set(seats.map(({ subnet }) => subnet.name))]),
          address: list(seats.map(({ row }) => row.address)),
          public: list(publicAddressesOf(network, device.id)),
          seen: list([...new Set(seen)]),
          rules: list([...new Set(ports.flatMap((id) => setsOfPort(network, id).map((set) => set.name)))]),
          size: network.findOne('instanceByDevice', device.id)?.size ?? null,
          labels: list(
            Object.entries(device.extra)
              .sort(([a], [b]) => compareNames(a, b))
              .map(([label, value]) => `${label}: ${value}`),
          ),
        },
      };
    }),
  );
}

const gatewayColumns: Column[] = [
  { key: 'name', label: 'Name' },
  { key: 'sort', label: 'Sort' },
  { key: 'network', label: 'Attached to' },
  { key: 'direction', label: 'Direction' },
  { key: 'families', label: 'Families' },
  { key: 'translates', label: 'Translates' },
  { key: 'stands', label: 'Stands' },
  { key: 'public', label: 'Public addresses' },
  { key: 'publishes', label: 'Publishes' },
];

/** The gateways of a scope, with how each is set. */
export function cloudGatewaySchedule(network: Network, scopeId: string | null): Table {
  const within = placesWithin(network, scopeId);
  const rows = [...network.all('gateway')]
    .flatMap(({ deviceId }) => gatewayOf(network, deviceId) ?? [])
    .filter(({ device }) => scopeId === null || within.has(device.placeId ?? ''))
    .sort((a, b) => byName(a.device, b.device));
  return table(
    gatewayColumns,
    rows.map(({ device, gateway }) => ({
      id: device.id,
      cells: {
        name: device.name,
        sort: gateway.sort,
        network: name(network, gateway.networkId),
        direction: gateway.direction,
        families: gateway.families.join(', '),
        translates: gateway.translates ? 'yes' : 'no',
        stands:
          gateway.reach === 'regional'
            ? 'in the region'
            : (list(zonesOf(network, device).map((zone) => zone.name)) ?? 'in a zone'),
        public: list(publicAddressesOf(network, device.id)),
        publishes: gateway.publishes,
      },
    })),
  );
}

import { defineRule, type Rule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { judged } from '../../commands/attempt.ts';
import { allOf } from '../../model/network/reads.ts';
import { holds, parsePrefix } from '../../model/values/ip.ts';
import { dropRoute, peeringRoutes, redirectRoute, tablesOf, tieTable, tiedTo } from '../commands/tables.ts';
import { effectiveRoutes, type RouteFault } from '../effectiveRoutes.ts';
import { attachmentsOf, throughHub } from '../hubs.ts';
import { blocksOf, gatewayOf, gatewaysOf, subnetsOf } from '../inventory.ts';
import { overlapsOf } from '../joined.ts';
import { tierName } from '../picture.ts';
import { routeReads } from '../reads.ts';
import { networkParts } from './networkParts.ts';
import { deviceName, subnetName } from './names.ts';

const subnetNoTable = defineRule({
  key: 'cloud-subnet-no-table',
  title: 'Cloud subnets without a route table',
  why: 'What is sent by no table reaches nothing beyond its network, or what the provider happens to fall back on.',
  reads: allOf(routeReads, { cloudSubnet: ['name'], routeTable: ['name'] }),
  find: networkParts((network, networkId) =>
    subnetsOf(network, networkId)
      .filter(({ routeTableId }) => routeTableId === null)
      .map(({ id }) => ({
        severity: 'bad' as const,
        subjects: [{ kind: 'cloudSubnet' as const, id }],
        facts: {},
      })),
  ),
  says: (_facts, network, [subnet]) =>
    `${subnetName(network, subnet?.id)} is tied to no route table: nobody can say where its packets go. Tie it to one.`,
  mends: (_facts, network, [subject]) => {
    const subnet = network.get('cloudSubnet', subject?.id ?? null);
    if (subnet === null) return [];
    const tier = tierName(network, subnet);
    const tables = tablesOf(network, subnet.placeId).map((table) => {
      const tied = tiedTo(network, table.id);
      // That of its tier first, then one of its zone: a table for another zone may hold a gateway that fails with that.
      const rank = tied.some((one) => tierName(network, one) === tier)
        ? 0
        : tied.some(({ zoneId }) => zoneId === subnet.zoneId)
          ? 1
          : 2;
      return { table, rank };
    });
    return tables
      .sort((a, b) => a.rank - b.rank)
      .slice(0, 4)
      .map(({ table }) => ({
        wish: `Tie ${subnet.name} to ${table.name}`,
        way: 'Tie it to the table of its tier',
        attempt: tieTable(network, subnet, table),
      }));
  },
});

const faultWords: Record<RouteFault, string> = {
  'gateway elsewhere': 'that gateway is attached to another network',
  'gateway not attached': 'that gateway is attached to no network',
  'peering of others': 'that peering joins other networks',
  'peering not accepted': 'that peering is not accepted by both sides',
  'interface elsewhere': 'that interface stands in no subnet of the network',
  family: 'that gateway does not carry its family',
  local: 'the block is local anyway',
  'empty list': 'its list holds no prefix',
};
const isFault = (text: string): text is RouteFault => text in faultWords;

const routeNowhere = defineRule({
  key: 'cloud-route-nowhere',
  title: 'Routes of clouds that lead nowhere',
  why: 'The table looks as if there were a way, and packets are lost.',
  reads: allOf(routeReads, { routeTable: ['name'], device: ['name'] }),
  find: networkParts((network, networkId) =>
    tablesOf(network, networkId).flatMap((table) =>
      effectiveRoutes(network, { placeId: networkId, routeTableId: table.id }).idle.map(
        ({ route, text, fault }) => ({
          severity: fault === 'local' ? ('warn' as const) : ('bad' as const),
          subjects: [{ kind: 'routeTable' as const, id: table.id }],
          facts: { routeId: route.id, prefix: text, fault },
        }),
      ),
    ),
  ),
  says: ({ prefix, fault }, network, [table]) =>
    `The route of ${nameOf(network, 'routeTable', table?.id ?? null)} to ${prefix === '' ? 'its list' : prefix} leads nowhere: ${isFault(fault) ? faultWords[fault] : fault}. Send it another way, or take it out.`,
  mends: ({ routeId }, network, [subject]) => {
    const route = network.get('cloudRoute', routeId);
    const table = network.get('routeTable', subject?.id ?? null);
    if (route === null || table === null || table.placeId === null) return [];
    const wanted = gatewayOf(network, route.gatewayId)?.gateway;
    const own = gatewaysOf(network, table.placeId).filter(
      ({ device, gateway }) =>
        wanted !== undefined &&
        device.id !== route.gatewayId &&
        gateway.direction === wanted.direction &&
        gateway.translates === wanted.translates,
    );
    return [
      ...own.map(({ device }) => ({
        wish: `Send it through ${device.name}`,
        attempt: redirectRoute(network, route, { gatewayId: device.id }),
      })),
      { wish: 'Take the route out', way: 'Take such routes out', attempt: dropRoute(network, route) },
    ];
  },
});

const hubCircle = defineRule({
  key: 'cloud-hub-circle',
  title: 'Routers of regions that send in a circle',
  why: 'Two routers each take the other for the way: packets go round until they are thrown away.',
  reads: routeReads,
  find: (network) =>
    [...new Set([...network.all('hubAttachment')].map(({ hubId }) => hubId))].flatMap((hubId) =>
      network.find('routeTablesByHub', hubId).flatMap((table) =>
        network.find('cloudRoutesByTable', table.id).flatMap((route) => {
          const prefix = route.prefix === null ? null : parsePrefix(route.prefix);
          const from = attachmentsOf(network, hubId).find(({ tableId }) => tableId === table.id);
          if (prefix === null || from === undefined) return [];
          const end = throughHub(network, from, prefix);
          if (end.at !== 'nowhere' || end.because !== 'circle') return [];
          const hubs = [...new Set(end.hubs)];
          return [
            {
              severity: 'bad' as const,
              subjects: [{ kind: 'routeTable' as const, id: table.id }],
              facts: { prefix: route.prefix, hubs },
            },
          ];
        }),
      ),
    ),
  says: ({ prefix, hubs }, network, [table]) =>
    `What ${nameOf(network, 'routeTable', table?.id ?? null)} sends to ${prefix ?? ''} goes in a circle through ${hubs.map((id) => deviceName(network, id)).join(' and ')}. Let one of them send it elsewhere.`,
});

const peeringOneSided = defineRule({
  key: 'cloud-peering-one-sided',
  title: 'Peerings with routes on one side only',
  why: 'Questions arrive and answers do not: the connection looks dead from either side.',
  reads: routeReads,
  find: (network) =>
    [...network.all('peering')].flatMap((peering) => {
      if (!peering.aAccepted || !peering.bAccepted) return [];
      const sides = [peering.aNetworkId, peering.bNetworkId];
      const routed = sides.filter((networkId) =>
        tablesOf(network, networkId).some((table) =>
          network.find('cloudRoutesByPeering', peering.id).some(({ tableId }) => tableId === table.id),
        ),
      );
      const [missing] = sides.filter((id) => !routed.includes(id));
      if (missing === undefined) return [];
      return [
        {
          severity: routed.length === 1 ? ('bad' as const) : ('warn' as const),
          subjects: [{ kind: 'peering' as const, id: peering.id }],
          facts: { missing, sides: routed.length },
        },
      ];
    }),
  says: ({ missing, sides }, network, [peering]) =>
    sides === 0
      ? `Nothing is sent over the peering ${nameOf(network, 'peering', peering?.id ?? null)}: neither side has a route. Add routes on both, or take it out.`
      : `${nameOf(network, 'place', missing)} has no route over the peering ${nameOf(network, 'peering', peering?.id ?? null)}, the other side has: no answer comes back. Add routes there.`,
  mends: ({ missing, sides }, network, [subject]) => {
    const peering = network.get('peering', subject?.id ?? null);
    if (peering === null) return [];
    const from = sides === 0 ? [peering.aNetworkId, peering.bNetworkId] : [missing];
    const where = from.map((id) => nameOf(network, 'place', id)).join(' and ');
    return [
      {
        wish: `Add routes in ${where}`,
        way: 'Add the routes that are missing',
        attempt: judged(
          network,
          from.flatMap((id) => peeringRoutes(network, peering, id)),
          `Added routes over ${peering.name} in ${where}`,
        ),
      },
    ];
  },
});

const overlapping = defineRule({
  key: 'cloud-joined-overlap',
  title: 'Joined networks that overlap',
  why: 'An address that is there twice is reached at one of the two places only, and nobody can say which.',
  reads: routeReads,
  find: networkParts(
    (network, networkId) =>
      overlapsOf(network, networkId)
        // Two networks find it of each other: it is told once, at the one whose block comes first.
        .filter(
          ({ block, other, joined }) =>
            joined.to === 'vrf' ||
            block.prefix < other.prefix ||
            (block.prefix === other.prefix && networkId < joined.networkId),
        )
        .map(({ block, other }) => ({
          severity: 'bad' as const,
          subjects: [block, other].map(({ id }) => ({ kind: 'prefix' as const, id })),
          facts: { prefixes: [block.prefix, other.prefix] },
        })),
    ({ kind }) => kind === 'prefix',
  ),
  says: ({ prefixes }, network, [block, other]) => {
    const [a, b] = [block, other].map((one) => network.get('prefix', one?.id ?? null));
    const at = (placeId: string | null | undefined): string =>
      network.get('place', placeId ?? null)?.name ?? '';
    return `${prefixes[0] ?? ''} of ${at(a?.placeId)} overlaps ${prefixes[1] ?? ''}${at(b?.placeId) === '' ? '' : ` of ${at(b?.placeId)}`}, which it is joined to. Choose another block for one of them before hosts stand in both.`;
  },
});

const outsideBlocks = defineRule({
  key: 'cloud-subnet-outside-blocks',
  title: 'Cloud subnets outside the blocks of their network',
  why: 'The network does not carry what is in none of its blocks.',
  reads: routeReads,
  find: networkParts((network, networkId) => {
    const blocks = blocksOf(network, networkId);
    return subnetsOf(network, networkId).flatMap((subnet) =>
      [subnet.prefixId, subnet.v6PrefixId].flatMap((id) => {
        const row = network.get('prefix', id);
        const prefix = row === null ? null : parsePrefix(row.prefix);
        if (row === null || prefix === null || blocks.some((block) => holds(block.prefix, prefix))) return [];
        return [
          {
            severity: 'bad' as const,
            subjects: [{ kind: 'cloudSubnet' as const, id: subnet.id }],
            facts: { prefix: row.prefix },
          },
        ];
      }),
    );
  }),
  says: ({ prefix }, network, [subnet]) =>
    `${prefix} of ${subnetName(network, subnet?.id)} is in no block of its network. Add the block again, or choose another prefix.`,
});

export const cloudRouteRules: readonly Rule[] = [
  subnetNoTable,
  routeNowhere,
  hubCircle,
  peeringOneSided,
  overlapping,
  outsideBlocks,
];

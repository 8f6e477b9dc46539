import { defineRule, type Rule } from '../../check/finding.ts';
import { nameOf } from '../../check/names.ts';
import { allOf } from '../../model/network/reads.ts';
import type { Network } from '../../model/network/network.ts';
import { parsePrefix } from '../../model/values/ip.ts';
import { redirectRoute, tiedTo } from '../commands/tables.ts';
import { gatewaysOf, seatsIn, subnetsOf } from '../inventory.ts';
import { natureOf } from '../nature.ts';
import { reachReads, routeReads } from '../reads.ts';
import { letPassTogether, rulesOf } from '../rules/letsPass.ts';
import { setsOfPort } from '../rules/passage.ts';
import { peersOf } from '../rules/ruleTraffic.ts';
import { wayOut } from '../wayOut.ts';
import { servedAcross, zoneOfGateway } from '../zones.ts';
import { deviceName, subnetName } from './names.ts';
import { networkParts } from './networkParts.ts';

const translationAcross = defineRule({
  key: 'cloud-translation-across-zones',
  title: 'Translation in one zone that serves others',
  why: 'With that zone the others lose their way out as well, and all they send crosses zones, which is charged.',
  reads: routeReads,
  find: networkParts((network, networkId) =>
    servedAcross(network, networkId).map(({ deviceId, zoneId, subnets }) => ({
      severity: 'warn' as const,
      subjects: [
        { kind: 'device' as const, id: deviceId },
        ...subnets.map(({ id }) => ({ kind: 'cloudSubnet' as const, id })),
      ],
      facts: { zoneId },
    })),
  ),
  says: ({ zoneId }, network, [gateway, ...subnets]) =>
    `${deviceName(network, gateway?.id)} stands in ${nameOf(network, 'place', zoneId)} and is the way out of ${subnets.map(({ id }) => subnetName(network, id)).join(', ')}, which stand in other zones. Give those a gateway of their own zone.`,
  mends: (_facts, network, [, ...subjects]) =>
    subjects.flatMap(({ id }) => {
      const subnet = network.get('cloudSubnet', id);
      const table = network.get('routeTable', subnet?.routeTableId ?? null);
      if (subnet === null || table === null) return [];
      // A table that several zones share cannot be turned to the gateway of one.
      if (tiedTo(network, table.id).some(({ zoneId }) => zoneId !== subnet.zoneId)) return [];
      const own = gatewaysOf(network, subnet.placeId).filter(
        ({ device, gateway }) => gateway.translates && zoneOfGateway(network, device.id) === subnet.zoneId,
      );
      const route = network
        .find('cloudRoutesByTable', table.id)
        .find(({ prefix, gatewayId }) => prefix === '0.0.0.0/0' && gatewayId !== null);
      return route === undefined
        ? []
        : own.map(({ device }) => ({
            wish: `Send ${subnet.name} out through ${device.name}`,
            attempt: redirectRoute(network, route, { gatewayId: device.id }),
          }));
    }),
});

const singleTunnel = defineRule({
  key: 'cloud-single-tunnel',
  title: 'A single tunnel to the premises',
  why: 'With the one tunnel, or the one device it ends on, the premises and the cloud lose each other.',
  reads: allOf(routeReads, { port: ['form', 'farAddress', 'deviceId'] }),
  find: networkParts((network, networkId) => {
    const tunnels = gatewaysOf(network, networkId).flatMap(({ device }) =>
      network
        .find('everyPortByDevice', device.id)
        .filter(({ form }) => form === 'tunnel')
        .map((port) => ({ device, port })),
    );
    const ends = new Set(tunnels.map(({ port }) => port.farAddress ?? port.id));
    const [only] = tunnels;
    const lines = gatewaysOf(network, networkId).some(({ device }) =>
      network.find('everyPortByDevice', device.id).some(({ id }) => network.countOf('circuitByPort', id) > 0),
    );
    return only === undefined || ends.size > 1 || lines
      ? []
      : [
          {
            severity: 'warn' as const,
            subjects: [{ kind: 'device' as const, id: only.device.id }],
            facts: { tunnels: tunnels.length },
          },
        ];
  }),
  says: ({ tunnels }, network, [gateway]) =>
    tunnels === 1
      ? `${deviceName(network, gateway?.id)} has one tunnel to the premises. Add a second that ends on another device.`
      : `All tunnels of ${deviceName(network, gateway?.id)} end at one address. Let one of them end on another device.`,
});

const openWithoutPublic = defineRule({
  key: 'cloud-open-without-public-address',
  title: 'Open subnets in which nothing has a public address',
  why: 'Without a public address nothing comes in and nothing that is sent out is answered: the subnet need not be open.',
  reads: reachReads,
  find: networkParts((network, networkId) =>
    subnetsOf(network, networkId).flatMap((subnet) => {
      if (natureOf(network, subnet).nature !== 'open') return [];
      const seats = seatsIn(network, subnet).filter(
        ({ portId }) =>
          network.findOne('gatewayByDevice', network.get('port', portId)?.deviceId ?? '') === null,
      );
      const any = seats.some(
        ({ portId, ip }) => ip.family === 6 || network.countOf('publicAddressesByPort', portId) > 0,
      );
      return seats.length === 0 || any
        ? []
        : [
            {
              severity: 'warn' as const,
              subjects: [{ kind: 'cloudSubnet' as const, id: subnet.id }],
              facts: { interfaces: seats.length },
            },
          ];
    }),
  ),
  says: ({ interfaces }, network, [subnet]) =>
    `${subnetName(network, subnet?.id)} is open to the internet, and none of its ${interfaces} ${interfaces === 1 ? 'interface' : 'interfaces'} has a public address. Give one an address, or tie the subnet to a table without that route.`,
});

const publicInClosed = defineRule({
  key: 'cloud-public-address-not-reached',
  title: 'Public addresses in subnets that are not open',
  why: 'The address is paid for, and nothing from the internet comes to it.',
  reads: reachReads,
  find: networkParts((network, networkId) =>
    subnetsOf(network, networkId).flatMap((subnet) => {
      const { nature } = natureOf(network, subnet);
      if (nature === 'open' || nature === 'unknown') return [];
      return seatsIn(network, subnet).flatMap(({ portId }) =>
        network.find('publicAddressesByPort', portId).map((row) => ({
          severity: 'warn' as const,
          subjects: [
            { kind: 'publicAddress' as const, id: row.id },
            { kind: 'cloudSubnet' as const, id: subnet.id },
          ],
          facts: { nature, portId },
        })),
      );
    }),
  ),
  says: ({ nature }, network, [address, subnet]) =>
    `${nameOf(network, 'publicAddress', address?.id ?? null)} stands for an interface in ${subnetName(network, subnet?.id)}, which is ${nature}. Move the interface to an open subnet, or give the address back.`,
});

const outerPeers = (network: Network, setIds: readonly string[]): boolean =>
  setIds.some((setId) =>
    rulesOf(network, setId, 'out').some(
      (rule) =>
        rule.verdict === 'allow' &&
        rule.peerSetId === null &&
        (rule.prefix === null ? rule.listId === null : parsePrefix(rule.prefix)?.length === 0) &&
        peersOf(network, rule).size > 0,
    ),
  );

const noWayOut = defineRule({
  key: 'cloud-no-way-out',
  title: 'Rules that let out where there is no way',
  why: 'Somebody meant these instances to reach the internet, and their subnet has no way there.',
  reads: reachReads,
  find: networkParts((network, networkId) =>
    subnetsOf(network, networkId).flatMap((subnet) => {
      if (subnet.routeTableId === null) return [];
      const stuck = seatsIn(network, subnet).filter(({ portId, ip }) => {
        const sets = setsOfPort(network, portId).map(({ id }) => id);
        return (
          outerPeers(network, sets) &&
          letPassTogether(network, sets, 'out').size > 0 &&
          ['none', 'no public address'].includes(wayOut(network, portId, ip.family).by)
        );
      });
      return stuck.length === 0
        ? []
        : [
            {
              severity: 'warn' as const,
              subjects: [{ kind: 'cloudSubnet' as const, id: subnet.id }],
              facts: { ports: stuck.map(({ portId }) => portId) },
            },
          ];
    }),
  ),
  says: ({ ports }, network, [subnet]) =>
    `${ports.length} ${ports.length === 1 ? 'interface' : 'interfaces'} of ${subnetName(network, subnet?.id)} may call the internet by their rules, and have no way out. Add a translating gateway and a route, or narrow the rules.`,
});

export const cloudWayRules: readonly Rule[] = [
  translationAcross,
  singleTunnel,
  openWithoutPublic,
  publicInClosed,
  noWayOut,
];

/** Clouds of any size, for drawings and figures: regular, and the same every time. */
import type { Network } from '../model/network/network.ts';
import { networkOf } from './testNetwork.ts';

export interface CloudSize {
  networks: number;
  zones: number;
  /** Subnets of each zone of a network: the first is open, the second goes out through it, the others are closed. */
  tiers: number;
  /** In each subnet but the open ones. */
  instances: number;
  /** In each rule set, beside those that let the tiers talk. */
  rules?: number;
}

/** Up to 200 networks of one region, each with a block of its own in 10.0.0.0/8. */
export function cloudOfMany({ networks, zones, tiers, instances, rules = 0 }: CloudSize): Network {
  const numbers = (count: number): number[] => Array.from({ length: count }, (_, at) => at);
  const region = 'acct/north';
  const zoneNames = numbers(zones).map((at) => `z${String.fromCharCode(97 + at)}`);
  const all = numbers(networks).map((n) => {
    const name = `net-${n}`;
    const place = `${region}/${name}`;
    const subnets = numbers(tiers).flatMap((tier) =>
      zoneNames.map((zone, at) => ({
        ...{ tier, zone, name: `tier${tier}-${zone}`, prefix: `10.${n}.${tier * zones + at}.0/24` },
      })),
    );
    const host = (prefix: string, at: number): string => prefix.replace(/0\/24$/, `${at}/24`);
    const placed = subnets.flatMap(({ tier, name: subnet, prefix }) =>
      tier === 0
        ? []
        : numbers(instances).map((at) => ({
            ...{ name: `${name}-${subnet}-${at}`, role: tier === tiers - 1 ? 'DB' : 'VM', place, units: 0 },
            ports: [{ name: 'eth0', form: 'virtual', vrf: name, addresses: [host(prefix, at + 10)] }],
            tier,
          })),
    );
    const set = (tier: number): string => `${place}/tier${tier}`;
    return {
      place,
      places: [{ path: place, kind: 'network' }],
      prefixes: [
        { prefix: `10.${n}.0.0/16`, vrf: name, role: 'pool', place },
        ...subnets.map(({ prefix }) => ({ prefix, vrf: name, place })),
      ],
      devices: [
        { name: `${name}-gw`, role: 'GW', place, units: 0 },
        {
          ...{ name: `${name}-nat`, role: 'GW', place, units: 0 },
          ports: [{ name: 'out', form: 'virtual', vrf: name, addresses: [`10.${n}.0.5/24`] }],
        },
        ...placed.map(({ tier: _tier, ...device }) => device),
      ],
      gateways: [
        { device: `${name}-gw`, network: place },
        { device: `${name}-nat`, direction: 'out', translates: true, reach: 'zonal', network: place },
      ],
      virtualNetworks: [{ place, vrf: name }],
      routeTables: ['open', 'inner', 'closed'].map((table) => ({ place, name: table })),
      cloudRoutes: [
        { table: `${place}/open`, prefix: '0.0.0.0/0', gateway: `${name}-gw` },
        { table: `${place}/inner`, prefix: '0.0.0.0/0', gateway: `${name}-nat` },
      ],
      cloudSubnets: subnets.map(({ tier, zone, name: subnet, prefix }) => ({
        ...{ place, name: subnet, zone: `${region}/${zone}`, prefix: `${name} ${prefix}` },
        routeTable: `${place}/${tier === 0 ? 'open' : tier === 1 ? 'inner' : 'closed'}`,
      })),
      ruleSets: numbers(tiers)
        .slice(1)
        .map((tier) => ({ place, name: `tier${tier}` })),
      trafficRules: numbers(tiers)
        .slice(1)
        .flatMap((tier) => [
          ...(tier === 1 ? [] : [{ set: set(tier), position: 1, ports: '5432', peerSet: set(tier - 1) }]),
          ...(tier === tiers - 1
            ? []
            : [{ set: set(tier), position: 1, direction: 'out', ports: '5432', peerSet: set(tier + 1) }]),
          ...numbers(rules).map((at) => ({
            ...{ set: set(tier), position: at + 2, ports: String(2000 + at) },
            prefix: `192.168.${at % 256}.0/24`,
          })),
        ]),
      ruleSetUses: placed.map(({ name: device, tier }) => ({ set: set(tier), port: `${device}:eth0` })),
    };
  });
  const joined = <K extends keyof (typeof all)[number]>(key: K): unknown[] =>
    all.flatMap((one) => one[key] as unknown[]);
  const sections: Record<string, unknown[]> = {
    vrfs: numbers(networks).map((n) => ({ name: `net-${n}` })),
    places: [
      { path: 'acct', kind: 'account' },
      { path: region, kind: 'region' },
      ...zoneNames.map((zone) => ({ path: `${region}/${zone}`, kind: 'zone' })),
      ...joined('places'),
    ],
    ...Object.fromEntries(
      (
        [
          'prefixes',
          'devices',
          'gateways',
          'virtualNetworks',
          'routeTables',
          'cloudRoutes',
          'cloudSubnets',
          'ruleSets',
          'trafficRules',
          'ruleSetUses',
        ] as const
      ).map((key) => [key, joined(key)]),
    ),
  };
  return networkOf(sections);
}

/** Small clouds for tests: read through the importer, as a user's file would be. */
import { applyChanges } from '../change/apply.ts';
import type { Attempt } from '../commands/attempt.ts';
import type { Place } from '../model/kinds/sites/place.ts';
import type { Network } from '../model/network/network.ts';
import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import { networkOf } from './testNetwork.ts';

interface Named {
  place?: string;
  name?: string;
}
/** The entries of a section, with what is given in place of one of the same name. */
function joined(base: readonly unknown[], more: readonly unknown[]): unknown[] {
  const same = (a: Named, b: Named): boolean =>
    a.name !== undefined && a.place !== undefined && a.name === b.name && a.place === b.place;
  return [...base.filter((one) => !more.some((other) => same(one as Named, other as Named))), ...more];
}

/** Three networks of one region with two zones, a subnet in each; what else is there is given. */
export const testCloud = (more: Record<string, unknown[]> = {}): Network => {
  const base: Record<string, unknown[]> = {
    vrfs: ['one', 'two', 'three'].map((name) => ({ name })),
    places: [
      { path: 'acct', kind: 'account' },
      { path: 'acct/north', kind: 'region' },
      ...['a', 'b'].map((zone) => ({ path: `acct/north/${zone}`, kind: 'zone' })),
      ...['one', 'two', 'three'].map((name) => ({ path: `acct/north/${name}`, kind: 'network' })),
      { path: 'acct/south', kind: 'region' },
      { path: 'acct/south/z', kind: 'zone' },
    ],
    prefixes: ['one', 'two', 'three'].flatMap((vrf, at) => [
      { prefix: `10.${at + 1}.0.0/16`, vrf, role: 'pool', place: `acct/north/${vrf}` },
      { prefix: `10.${at + 1}.0.0/24`, vrf, place: `acct/north/${vrf}` },
      { prefix: `10.${at + 1}.1.0/24`, vrf, place: `acct/north/${vrf}` },
    ]),
    virtualNetworks: ['one', 'two', 'three'].map((vrf) => ({ place: `acct/north/${vrf}`, vrf })),
    routeTables: ['one', 'two', 'three'].map((name) => ({ place: `acct/north/${name}`, name: 'main' })),
    cloudSubnets: ['one', 'two', 'three'].flatMap((vrf, at) =>
      ['a', 'b'].map((zone, of) => ({
        ...{ place: `acct/north/${vrf}`, name: zone, zone: `acct/north/${zone}` },
        ...{ prefix: `${vrf} 10.${at + 1}.${of}.0/24`, routeTable: `acct/north/${vrf}/main` },
      })),
    ),
  };
  const merged = Object.fromEntries(
    [...new Set([...Object.keys(base), ...Object.keys(more)])].map((section) => [
      section,
      joined(base[section] ?? [], more[section] ?? []),
    ]),
  );
  return networkOf(merged);
};

/** An instance with an address, at the place of its network. */
export const testInstance = (name: string, vrf: string, ...addresses: string[]) => ({
  ...{ name, role: 'VM', place: `acct/north/${vrf}`, units: 0 },
  ports: [{ name: 'eth0', form: 'virtual', vrf, addresses }],
});
/** A device that is a gateway. */
export const testGateway = (name: string, rest: object = {}) => ({
  ...{ name, role: 'GW', place: 'acct/north', units: 0 },
  ...rest,
});

export function subnetNamed(network: Network, place: string, name: string): CloudSubnet {
  const found = [...network.all('cloudSubnet')].find(
    (one) => one.name === name && network.get('place', one.placeId)?.name === place,
  );
  if (found === undefined) throw new Error(`no subnet ${place}/${name}`);
  return found;
}

/** A cloud with a row of every kind, and something that each rule of clouds looks at. */
export const cloudOfEverything = {
  vrfs: ['cloud', 'side'].map((name) => ({ name })),
  places: [
    { path: 'acct', kind: 'account' },
    { path: 'acct/north', kind: 'region' },
    ...['za', 'zb'].map((zone) => ({ path: `acct/north/${zone}`, kind: 'zone' })),
    ...['main', 'side'].map((name) => ({ path: `acct/north/${name}`, kind: 'network' })),
  ],
  prefixes: [
    { prefix: '10.200.0.0/16', vrf: 'cloud', role: 'pool', place: 'acct/north/main', name: 'Cloud' },
    { prefix: '10.200.0.0/24', vrf: 'cloud', place: 'acct/north/main' },
    { prefix: '10.200.1.0/24', vrf: 'cloud', place: 'acct/north/main' },
    { prefix: '10.200.64.0/20', vrf: 'side', role: 'pool', place: 'acct/north/side' },
    { prefix: '10.200.64.0/24', vrf: 'side', place: 'acct/north/side' },
  ],
  devices: [
    ...['gw', 'nat', 'vpn', 'hub'].map((name) => ({
      ...{ name, role: 'GW', place: name === 'hub' ? 'acct/north' : 'acct/north/main', units: 0 },
      ports: [
        { name: 'out', form: 'virtual', vrf: 'cloud', addresses: name === 'nat' ? ['10.200.0.5/24'] : [] },
        ...(name === 'vpn' ? [{ name: 'tun1', form: 'tunnel', vrf: 'ops', farAddress: '198.51.100.9' }] : []),
      ],
    })),
    ...[
      ['bal', 'LB', '10.200.0.10/24'],
      ['web', 'VM', '10.200.1.11/24'],
      ['base', 'DB', '10.200.1.12/24'],
      ['spare', 'DB', '10.200.1.13/24'],
    ].map(([name, role, address]) => ({
      ...{ name, role, place: 'acct/north/main', units: 0, extra: name === 'web' ? { owner: 'quay' } : {} },
      ports: [{ name: 'eth0', form: 'virtual', vrf: 'cloud', addresses: [address] }],
    })),
  ],
  providerProfiles: [
    {
      ...{ name: 'Provider', keptFirst: 4, words: { network: 'bay' }, limits: { networks: 1, rules: 2 } },
      gateways: [
        { sort: 'door', direction: 'both', families: ['IPv4'], translates: false, reach: 'regional' },
      ],
      ruleSets: [
        {
          ...{ sort: 'guard', ties: 'interfaces', remembers: true, ordered: false },
          ...{ otherwiseIn: 'deny', otherwiseOut: 'deny' },
        },
      ],
    },
  ],
  cloudAccounts: [{ place: 'acct', profile: 'Provider', number: '12', labels: { owner: 'quay' } }],
  virtualNetworks: [
    { place: 'acct/north/main', vrf: 'cloud', domain: 'cloud.example', nameServers: ['10.200.0.2'] },
    { place: 'acct/north/side', vrf: 'side' },
  ],
  prefixLists: [{ name: 'offices', prefixes: ['10.1.0.0/24'] }],
  ruleSets: [
    { name: 'web', place: 'acct/north/main', sort: 'guard' },
    { name: 'base', place: 'acct/north/main' },
    { name: 'border', place: 'acct/north/main', ties: 'subnets', remembers: false, ordered: true },
    { name: 'idle', place: 'acct/north/side' },
  ],
  trafficRules: [
    { set: 'acct/north/main/web', position: 1, direction: 'in', ports: '443' },
    { set: 'acct/north/main/web', position: 2, direction: 'in', ports: '22' },
    { set: 'acct/north/main/web', position: 3, direction: 'in', ports: '443', list: 'offices' },
    { set: 'acct/north/main/web', position: 4, direction: 'out', ports: '443' },
    {
      set: 'acct/north/main/base',
      position: 1,
      direction: 'in',
      ports: '5432',
      peerSet: 'acct/north/main/web',
    },
    { set: 'acct/north/main/base', position: 2, direction: 'in', protocol: 'any' },
    { set: 'acct/north/main/border', position: 1, direction: 'in', ports: '5432' },
  ],
  ruleSetUses: [
    { set: 'acct/north/main/web', port: 'bal:eth0' },
    { set: 'acct/north/main/web', port: 'web:eth0' },
    { set: 'acct/north/main/base', port: 'base:eth0' },
  ],
  routeTables: [
    { name: 'open', place: 'acct/north/main' },
    { name: 'inner', place: 'acct/north/main', learns: true },
    { name: 'hub', hub: 'hub', learns: true },
  ],
  hubAttachments: [{ hub: 'hub', name: 'main', network: 'acct/north/main', table: 'hub/hub' }],
  peerings: [{ name: 'main-side', aNetwork: 'acct/north/main', bNetwork: 'acct/north/side' }],
  cloudRoutes: [
    { table: 'acct/north/main/open', prefix: '0.0.0.0/0', gateway: 'gw' },
    { table: 'acct/north/main/inner', prefix: '0.0.0.0/0', gateway: 'nat' },
    { table: 'acct/north/main/inner', prefix: '10.200.64.0/20', peering: 'main-side' },
    { table: 'acct/north/main/inner', list: 'offices', gateway: 'hub' },
  ],
  cloudSubnets: [
    {
      ...{ place: 'acct/north/main', name: 'front', zone: 'acct/north/za', prefix: 'cloud 10.200.0.0/24' },
      routeTable: 'acct/north/main/open',
    },
    {
      ...{ place: 'acct/north/main', name: 'back', zone: 'acct/north/zb', prefix: 'cloud 10.200.1.0/24' },
      ...{ routeTable: 'acct/north/main/inner', ruleSet: 'acct/north/main/border' },
    },
    { place: 'acct/north/side', name: 'side', zone: 'acct/north/za', prefix: 'side 10.200.64.0/24' },
  ],
  gateways: [
    { device: 'gw', sort: 'door', network: 'acct/north/main' },
    { device: 'nat', direction: 'out', translates: true, reach: 'zonal', network: 'acct/north/main' },
    { device: 'vpn', direction: 'between', network: 'acct/north/main', learned: ['10.1.0.0/24'] },
    { device: 'hub', direction: 'between' },
  ],
  instances: [
    { device: 'bal', facing: 'internet' },
    { device: 'web', size: 'm', storageGb: 20 },
    { device: 'spare', standbyFor: 'base' },
  ],
  balancerTargets: [{ balancer: 'bal', device: 'web', protocol: 'TCP', listens: 443, port: 443 }],
  publicAddresses: [
    { address: '203.0.113.50', place: 'acct/north', port: 'bal:eth0' },
    { address: '203.0.113.51', place: 'acct/north', port: 'base:eth0', hold: 'lent' },
    { address: '203.0.113.52', place: 'acct/north' },
  ],
  dnsZones: [{ name: 'cloud.example' }],
  dnsZoneUses: [{ zone: 'cloud.example (private)', network: 'acct/north/main' }],
  dnsRecords: [
    { zone: 'cloud.example (private)', name: 'web', type: 'A', value: '10.200.1.11' },
    { zone: 'cloud.example (private)', name: 'old', type: 'A', value: '10.200.1.99' },
    { zone: 'cloud.example (private)', name: 'base', type: 'A', value: '203.0.113.51' },
  ],
  dnsForwards: [{ network: 'acct/north/main', domain: 'ops.example', servers: ['10.1.0.8'] }],
  demandedLabels: [{ key: 'owner', on: 'instances' }],
  cloudPriceLists: [{ name: 'Provider 2026', profile: 'Provider', currency: 'EUR', validFrom: '2026-01-01' }],
  cloudPrices: [
    { list: 'Provider 2026', of: 'instance', which: 'm', millionths: 84000 },
    { list: 'Provider 2026', of: 'outbound', millionths: 90000 },
  ],
  flowEstimates: [{ from: 'web', gbPerMonth: 100 }],
};

/** That cloud, with what is given in place of its sections. */
export const everyCloud = (more: Record<string, unknown[]> = {}): Network => {
  const vrfs = [...cloudOfEverything.vrfs, { name: 'ops' }];
  const sections: Record<string, unknown[]> = { ...cloudOfEverything, vrfs, ...more };
  return networkOf(sections);
};

/** The network after what was tried; throws the reason where it cannot be done. */
export const doneIn = (network: Network, attempt: Attempt): Network => {
  if (!attempt.ok) throw new Error(attempt.why);
  const applied = applyChanges(network, attempt.set.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  return applied.network;
};
/** Why something cannot be done. */
export const whyNot = (attempt: { ok: boolean; why?: string }): string =>
  attempt.ok ? 'it can' : (attempt.why ?? '');
export const placeNamed = (network: Network, name: string): Place => {
  const found = [...network.all('place')].find((place) => place.name === name);
  if (found === undefined) throw new Error(`no place ${name}`);
  return found;
};

/**
 * The cloud of the demo: the booking service of Marrow Sound Ferries in one region with two zones, joined to Kelder
 * Quay by a tunnel to each firewall, and a small network for what is kept twice. All of it is invented. Deliberate
 * faults: 9, the closed subnet of the second zone has no route table; beside it a public address is kept and not used.
 */
import { builtInProfiles } from '@visograph/core/cloud';
import type { ExchangeFile } from '@visograph/core/exchange';
import { setPort } from './logical.ts';

type DeviceEntry = NonNullable<ExchangeFile['devices']>[number];
type PortEntry = NonNullable<DeviceEntry['ports']>[number];

const account = 'msf-booking';
const region = `${account}/north-1`;
const booking = `${region}/booking`;
const backup = `${region}/backup`;
const zones = ['n1a', 'n1b'] as const;

const profile = builtInProfiles.find(({ name }) => name === 'Skerrane');
if (profile === undefined) throw new Error('there is no profile Skerrane');

const nic = (name: string, vrf: string, ...addresses: string[]): PortEntry => ({
  name,
  form: 'virtual',
  vrf,
  addresses,
});
const inCloud = (
  name: string,
  role: DeviceEntry['role'],
  ports: PortEntry[],
  rest: Partial<DeviceEntry> = {},
): DeviceEntry => ({
  name,
  role,
  place: booking,
  units: 0,
  ports,
  extra: { 'cost-centre': '4410' },
  ...rest,
});

/** Tunnels to the two firewalls, with their inner and outer addresses. */
const tunnels = ([1, 2] as const).map((n) => ({
  wall: `kq-fw-${n}`,
  name: `tun${n}`,
  ours: `10.43.62.${(n - 1) * 2}`,
  theirs: `10.43.62.${(n - 1) * 2 + 1}`,
  outer: `203.0.113.${9 + n}`,
  edge: n === 1 ? '198.51.100.2' : '198.51.100.6',
}));

const gateways: DeviceEntry[] = [
  inCloud('cl-gw-1', 'GW', [], { asNumber: undefined }),
  ...zones.map((_, at) => inCloud(`cl-nat-${at + 1}`, 'GW', [nic('out', 'booking', `10.64.${at}.5/24`)])),
  inCloud(
    'cl-vpn-1',
    'GW',
    tunnels.flatMap(({ name, theirs, edge }, at): PortEntry[] => [
      { name: `outer${at + 1}`, form: 'virtual', vrf: 'booking' },
      { name, form: 'tunnel', vrf: 'ops', farAddress: edge, addresses: [`${theirs}/31`] },
    ]),
    {
      asNumber: 64600,
      bgp: tunnels.map(({ ours }) => ({
        ...{ vrf: 'ops', neighbour: ours, remoteAs: 64500, announces: ['10.64.0.0/16'] },
      })),
    },
  ),
  inCloud('cl-door-1', 'GW', [nic('in', 'booking', '10.64.16.9/22')]),
];

const instances: DeviceEntry[] = [
  inCloud('cl-lb-1', 'LB', [
    nic('a', 'booking', '10.64.0.10/24', '2001:db8:4f::10/64'),
    nic('b', 'booking', '10.64.1.10/24', '2001:db8:4f:1::10/64'),
  ]),
  inCloud('cl-web-1', 'VM', [nic('eth0', 'booking', '10.64.16.11/22')]),
  inCloud('cl-web-2', 'VM', [nic('eth0', 'booking', '10.64.20.11/22')]),
  inCloud('cl-db-1', 'DB', [nic('eth0', 'booking', '10.64.32.21/24')]),
  inCloud('cl-db-2', 'DB', [nic('eth0', 'booking', '10.64.33.21/24')]),
  inCloud('cl-queue-1', 'QU', [], { place: region }),
  inCloud('cl-vault-1', 'ST', [nic('eth0', 'backup', '10.65.0.20/24')], { place: backup }),
];

const subnet = (name: string, zone: string, prefix: string, rest: object = {}) => ({
  ...{ place: booking, name, zone: `${region}/${zone}`, prefix: `booking ${prefix}` },
  ...rest,
});
const table = (name: string, place = booking) => `${place}/${name}`;
const set = (name: string, place = booking) => `${place}/${name}`;

interface RuleWish {
  protocol?: string;
  ports?: string;
  prefix?: string;
  list?: string;
  peerSet?: string;
  notes?: string;
}
const rules = (of: string, direction: 'in' | 'out', wishes: readonly RuleWish[]) =>
  wishes.map((wish, at) => ({ set: set(of), position: (at + 1) * 10, direction, ...wish }));

const cents = (euro: number): number => Math.round(euro * 1e6);
const priceList = 'Skerrane 2026-10';
const price = (of: string, euro: number, which?: string) => ({
  ...{ list: priceList, of, millionths: cents(euro) },
  ...(which === undefined ? {} : { which }),
});

const dataRules = [
  ...rules('data-border', 'in', [
    { ports: '5432', prefix: '10.64.16.0/21', notes: 'the service asks its database' },
    { ports: '5432', prefix: '10.64.32.0/23', notes: 'the standby follows' },
    { ports: '1024-65535', prefix: '10.65.0.0/20', notes: 'answers of the vault' },
    { ports: '1024-65535', prefix: '10.64.32.0/23', notes: 'answers within' },
  ]),
  ...rules('data-border', 'out', [
    { ports: '1024-65535', prefix: '10.64.16.0/21', notes: 'answers to the service' },
    { ports: '5432', prefix: '10.64.32.0/23' },
    { ports: '1024-65535', prefix: '10.64.32.0/23' },
    { ports: '2049', prefix: '10.65.0.0/20', notes: 'copies to the vault' },
  ]),
];

/** Lays the cloud beside the premises: what stands in the file, and what of the firewalls leads there. */
export function layCloud(devices: DeviceEntry[]) {
  for (const { wall, name, ours, theirs, outer } of tunnels) {
    setPort(devices, `${wall}:${name}`, {
      ...{ form: 'tunnel', over: 'x3', vrf: 'ops', farAddress: outer, addresses: [`${ours}/31`] },
    });
    const device = devices.find((one) => one.name === wall);
    if (device === undefined) throw new Error(`there is no ${wall}`);
    device.asNumber = 64500;
    device.bgp = [{ vrf: 'ops', neighbour: theirs, remoteAs: 64600, announces: ['10.40.0.0/14'] }];
  }
  devices.push(...gateways, ...instances);
  return {
    vrfs: [
      { name: 'booking', colour: 4 },
      { name: 'backup', colour: 5 },
    ],
    places: [
      { path: account, kind: 'account' as const, code: 'CL' },
      { path: region, kind: 'region' as const },
      ...zones.map((zone) => ({ path: `${region}/${zone}`, kind: 'zone' as const })),
      { path: booking, kind: 'network' as const },
      { path: backup, kind: 'network' as const },
    ],
    prefixes: [
      { prefix: '10.64.0.0/14', name: 'Cloud', vrf: 'ops', role: 'pool' as const },
      { prefix: '10.64.0.0/16', name: 'Booking', vrf: 'booking', role: 'pool' as const, place: booking },
      { prefix: '2001:db8:4f::/56', name: 'Booking', vrf: 'booking', role: 'pool' as const, place: booking },
      { prefix: '10.65.0.0/20', name: 'Backup', vrf: 'backup', role: 'pool' as const, place: backup },
      ...zones.flatMap((zone, at) => [
        { prefix: `10.64.${at}.0/24`, name: `Open, ${zone}`, vrf: 'booking', place: booking },
        {
          prefix: `2001:db8:4f${at === 0 ? '' : ':1'}::/64`,
          name: `Open, ${zone}`,
          vrf: 'booking',
          place: booking,
        },
        { prefix: `10.64.${16 + at * 4}.0/22`, name: `Service, ${zone}`, vrf: 'booking', place: booking },
        { prefix: `10.64.${32 + at}.0/24`, name: `Data, ${zone}`, vrf: 'booking', place: booking },
      ]),
      { prefix: '10.65.0.0/24', name: 'Vault, n1a', vrf: 'backup', place: backup },
      ...tunnels.map(({ wall, ours }) => ({
        ...{ prefix: `${ours}/31`, name: `${wall} and the cloud`, vrf: 'ops', role: 'transit' as const },
      })),
    ],
    providerProfiles: [profile],
    cloudAccounts: [{ place: account, profile: 'Skerrane', number: '8810-2204-77' }],
    virtualNetworks: [
      { place: booking, vrf: 'booking', domain: 'booking.msf.example', nameServers: [] },
      { place: backup, vrf: 'backup' },
    ],
    prefixLists: [{ name: 'Sites of the company', prefixes: ['10.40.0.0/14'] }],
    ruleSets: [
      { name: 'front', place: booking, sort: 'interface rules' },
      { name: 'service', place: booking, sort: 'interface rules' },
      { name: 'data', place: booking, sort: 'interface rules' },
      {
        ...{ name: 'data-border', place: booking, sort: 'border rules', ties: 'subnets' },
        ...{ remembers: false, ordered: true },
      },
      { name: 'vault', place: backup, sort: 'interface rules' },
    ],
    trafficRules: [
      ...rules('front', 'in', [
        { ports: '443', notes: 'passengers book' },
        { ports: '80', notes: 'sent on to 443' },
      ]),
      ...rules('front', 'out', [{ ports: '8080', peerSet: set('service') }]),
      ...rules('service', 'in', [
        { ports: '8080', peerSet: set('front') },
        { ports: '443', list: 'Sites of the company', notes: 'ticket desks' },
        { ports: '22', prefix: '10.40.8.0/22', notes: 'operations room' },
      ]),
      ...rules('service', 'out', [
        { ports: '5432', peerSet: set('data') },
        { ports: '443', notes: 'payments' },
        { ports: '5671', prefix: '10.64.16.9/32', notes: 'queue' },
      ]),
      ...rules('data', 'in', [
        { ports: '5432', peerSet: set('service') },
        { ports: '5432', peerSet: set('data'), notes: 'the standby follows' },
      ]),
      ...rules('data', 'out', [
        { ports: '5432', peerSet: set('data') },
        { ports: '2049', prefix: '10.65.0.0/20', notes: 'copies to the vault' },
      ]),
      ...dataRules,
      { set: set('vault', backup), position: 10, direction: 'in', ports: '2049', prefix: '10.64.32.0/23' },
    ],
    ruleSetUses: [
      ...['a', 'b'].map((port) => ({ set: set('front'), port: `cl-lb-1:${port}` })),
      ...[1, 2].flatMap((n) => [
        { set: set('service'), port: `cl-web-${n}:eth0` },
        { set: set('data'), port: `cl-db-${n}:eth0` },
      ]),
      { set: set('vault', backup), port: 'cl-vault-1:eth0' },
    ],
    peerings: [{ name: 'booking-backup', aNetwork: booking, bNetwork: backup }],
    routeTables: [
      { name: 'open', place: booking },
      ...zones.map((zone) => ({ name: `outward-${zone}`, place: booking, learns: true })),
      { name: 'closed', place: booking, learns: true },
      { name: 'vault', place: backup },
    ],
    cloudRoutes: [
      { table: table('open'), prefix: '0.0.0.0/0', gateway: 'cl-gw-1' },
      { table: table('open'), prefix: '::/0', gateway: 'cl-gw-1' },
      ...zones.map((zone, at) => ({
        ...{ table: table(`outward-${zone}`), prefix: '0.0.0.0/0', gateway: `cl-nat-${at + 1}` },
      })),
      { table: table('closed'), prefix: '10.65.0.0/20', peering: 'booking-backup' },
      { table: table('vault', backup), prefix: '10.64.32.0/23', peering: 'booking-backup' },
    ],
    cloudSubnets: [
      ...zones.flatMap((zone, at) => [
        subnet(`open-${zone}`, zone, `10.64.${at}.0/24`, {
          v6Prefix: `booking 2001:db8:4f${at === 0 ? '' : ':1'}::/64`,
          routeTable: table('open'),
        }),
        subnet(`service-${zone}`, zone, `10.64.${16 + at * 4}.0/22`, {
          routeTable: table(`outward-${zone}`),
        }),
        // Deliberate fault 9: that of the second zone has none.
        subnet(`data-${zone}`, zone, `10.64.${32 + at}.0/24`, {
          ...(at === 0 ? { routeTable: table('closed') } : {}),
          ruleSet: set('data-border'),
        }),
      ]),
      {
        ...{ place: backup, name: 'vault-n1a', zone: `${region}/n1a`, prefix: 'backup 10.65.0.0/24' },
        routeTable: table('vault', backup),
      },
    ],
    gateways: [
      {
        device: 'cl-gw-1',
        sort: 'open gateway',
        direction: 'both',
        families: ['IPv4', 'IPv6'],
        network: booking,
      },
      ...zones.map((_, at) => ({
        ...{ device: `cl-nat-${at + 1}`, sort: 'translating gateway', direction: 'out' },
        ...{ translates: true, reach: 'zonal', network: booking },
      })),
      { device: 'cl-vpn-1', sort: 'tunnel gateway', direction: 'between', network: booking },
      {
        ...{ device: 'cl-door-1', sort: 'published service', direction: 'in', network: booking },
        publishes: 'cl-queue-1',
      },
    ],
    instances: [
      { device: 'cl-lb-1', facing: 'internet', size: 'balancer' },
      { device: 'cl-web-1', size: 'm2' },
      { device: 'cl-web-2', size: 'm2' },
      { device: 'cl-db-1', size: 'd4', storageGb: 400 },
      { device: 'cl-db-2', size: 'd4', storageGb: 400, standbyFor: 'cl-db-1' },
      { device: 'cl-queue-1', size: 'queue' },
      { device: 'cl-vault-1', size: 'store', storageGb: 2000 },
    ],
    balancerTargets: [1, 2].map((n) => ({
      ...{ balancer: 'cl-lb-1', device: `cl-web-${n}`, protocol: 'TCP', listens: 443, port: 8080 },
    })),
    publicAddresses: [
      { address: '203.0.113.20', place: region, port: 'cl-lb-1:a' },
      { address: '203.0.113.21', place: region, port: 'cl-lb-1:b' },
      { address: '203.0.113.30', place: region, port: 'cl-nat-1:out' },
      { address: '203.0.113.31', place: region, port: 'cl-nat-2:out' },
      ...tunnels.map(({ outer }, at) => ({ address: outer, place: region, port: `cl-vpn-1:outer${at + 1}` })),
      { address: '203.0.113.40', place: region, notes: 'Kept since the trial in spring' },
    ],
    dnsZones: [{ name: 'booking.msf.example' }],
    dnsZoneUses: [booking, backup].map((network) => ({ zone: 'booking.msf.example (private)', network })),
    dnsRecords: (
      [
        ['web', 'A', '10.64.16.11'],
        ['web', 'A', '10.64.20.11'],
        ['db', 'A', '10.64.32.21'],
        ['db-standby', 'A', '10.64.33.21'],
        ['queue', 'A', '10.64.16.9'],
        ['data', 'CNAME', 'db.booking.msf.example.'],
      ] as const
    ).map(([name, type, value]) => ({ zone: 'booking.msf.example (private)', name, type, value })),
    dnsForwards: [{ network: booking, domain: 'msf.example', servers: ['10.40.0.53'] }],
    demandedLabels: [{ key: 'cost-centre', on: 'instances' }],
    cloudPriceLists: [{ name: priceList, profile: 'Skerrane', currency: 'EUR', validFrom: '2026-10-01' }],
    cloudPrices: [
      price('instance', 0.084, 'm2'),
      price('instance', 0.268, 'd4'),
      price('instance', 0.027, 'balancer'),
      price('instance', 0.011, 'queue'),
      price('instance', 0, 'store'),
      price('storage', 0.094),
      price('gateway', 0, 'open gateway'),
      price('gateway', 0.052, 'translating gateway'),
      price('gateway', 0.051, 'tunnel gateway'),
      price('gateway', 0.011, 'published service'),
      price('gatewayTraffic', 0.048, 'translating gateway'),
      price('publicAddress', 0.005),
      price('keptAddress', 0.005),
      price('acrossZones', 0.01),
      price('acrossRegions', 0.02),
      price('outbound', 0.086),
    ],
    flowEstimates: [
      { from: 'cl-lb-1', gbPerMonth: 620, notes: 'pages and pictures' },
      { from: 'cl-web-1', to: 'cl-db-1', gbPerMonth: 140 },
      { from: 'cl-web-2', to: 'cl-db-1', gbPerMonth: 140, notes: 'the database of the other zone' },
      { from: 'cl-db-1', to: 'cl-db-2', gbPerMonth: 90 },
      { from: 'cl-web-1', gbPerMonth: 35, notes: 'payments' },
      { from: 'cl-web-2', gbPerMonth: 35, notes: 'payments' },
    ],
  };
}

/**
 * The logical part of the demo: VLANs, VRFs, addresses and routing of Marrow Sound Ferries, laid over its devices.
 * Deliberate faults: 3, VLAN 40 is missing on one of the two uplinks of kq-acc-3; 7, one address is given twice in
 * VLAN 20 at Ashholm; 8, a prefix at Otterslip overlaps one at Brinsay; 11, kq-cam-14 has no management address.
 */
import type { ExchangeFile } from '@visograph/core/exchange';

type DeviceEntry = NonNullable<ExchangeFile['devices']>[number];
type PortEntry = NonNullable<DeviceEntry['ports']>[number];
type PrefixEntry = NonNullable<ExchangeFile['prefixes']>[number];

/** Says more about a port of a device: the fields are added to what is said already. */
export function setPort(devices: readonly DeviceEntry[], end: string, fields: Omit<PortEntry, 'name'>): void {
  const [deviceName, name = ''] = end.split(':');
  const device = devices.find((one) => one.name === deviceName);
  if (device === undefined) throw new Error(`no device ${deviceName}`);
  const ports = (device.ports ??= []);
  const known = ports.find((port) => port.name === name);
  if (known === undefined) ports.push({ name, ...fields });
  else Object.assign(known, fields);
}

const shoreTagged = [10, 20, 30, 40, 50, 60, 70];
const trunk = (tagged: number[]): Omit<PortEntry, 'name'> => ({ mode: 'trunk', untagged: 999, tagged });
const access = (untagged: number): Omit<PortEntry, 'name'> => ({ mode: 'access', untagged });
const area = (number: string, passive = false): Pick<PortEntry, 'ospf'> => ({
  ospf: { area: number, cost: null, passive, network: passive ? 'broadcast' : 'point-to-point' },
});
const opsVlans = [10, 20, 30, 40, 50];
const vrfOf = (vid: number): string =>
  opsVlans.includes(vid % 100) && vid !== 160 && vid !== 170 ? 'ops' : 'guest';

/** Third and fourth number of each VLAN's prefix at a site, with its length, below the first two numbers. */
interface SiteNumbers {
  place: string;
  ops: string;
  guest: string;
  subnets: { vid: number; at: string; length: number }[];
}
const sites: Record<string, SiteNumbers> = {
  kq: {
    place: 'Kelder Quay',
    ops: '10.40',
    guest: '172.28',
    subnets: [
      { vid: 10, at: '0', length: 24 },
      { vid: 30, at: '2', length: 24 },
      { vid: 40, at: '3', length: 24 },
      { vid: 50, at: '4', length: 24 },
      { vid: 20, at: '8', length: 22 },
      { vid: 60, at: '0', length: 21 },
      { vid: 70, at: '8', length: 24 },
    ],
  },
  ah: {
    place: 'Ashholm',
    ops: '10.40',
    guest: '172.28',
    subnets: [
      { vid: 10, at: '32', length: 24 },
      { vid: 30, at: '34', length: 24 },
      { vid: 40, at: '35', length: 25 },
      { vid: 50, at: '36', length: 24 },
      { vid: 20, at: '40', length: 24 },
      { vid: 60, at: '16', length: 22 },
      { vid: 70, at: '20', length: 24 },
    ],
  },
  br: {
    place: 'Brinsay',
    ops: '10.41',
    guest: '172.29',
    subnets: [
      { vid: 10, at: '0', length: 24 },
      { vid: 30, at: '2', length: 24 },
      { vid: 40, at: '3', length: 25 },
      { vid: 50, at: '4', length: 24 },
      { vid: 20, at: '8', length: 24 },
      { vid: 60, at: '0', length: 22 },
      { vid: 70, at: '4', length: 24 },
    ],
  },
  pt: {
    place: 'MV Petrel',
    ops: '10.42',
    guest: '172.30',
    subnets: [
      { vid: 110, at: '0', length: 24 },
      { vid: 120, at: '1', length: 24 },
      { vid: 160, at: '0', length: 22 },
      { vid: 170, at: '4', length: 24 },
    ],
  },
  sp: {
    place: 'MV Sandpiper',
    ops: '10.42',
    guest: '172.30',
    subnets: [
      { vid: 110, at: '32', length: 24 },
      { vid: 120, at: '33', length: 24 },
      { vid: 160, at: '8', length: 22 },
      { vid: 170, at: '12', length: 24 },
    ],
  },
};
type Site = keyof typeof sites;
const numbersOf = (site: Site): SiteNumbers => {
  const found = sites[site];
  if (found === undefined) throw new Error(site);
  return found;
};

/** `10.40.8.1/22`: a host in the prefix of a VLAN at a site. */
function host(site: Site, vid: number, last: number | string, withLength = true): string {
  const { ops, guest, subnets } = numbersOf(site);
  const subnet = subnets.find((one) => one.vid === vid);
  if (subnet === undefined) throw new Error(`${site} has no VLAN ${vid}`);
  return `${vrfOf(vid) === 'ops' ? ops : guest}.${subnet.at}.${last}${withLength ? `/${subnet.length}` : ''}`;
}

const vlanNames: Record<number, string> = {
  10: 'Management',
  20: 'Operations',
  30: 'Ticketing',
  40: 'Cameras',
  50: 'Voice',
  60: 'Passenger Wi-Fi',
  70: 'Crew',
};

const groups: NonNullable<ExchangeFile['vlanNumberings']> = [
  {
    name: 'shore',
    vlans: [
      ...Object.entries(vlanNames).map(([vid, name]) => ({
        vid: Number(vid),
        name,
        vrf: vrfOf(Number(vid)),
      })),
      { vid: 90, name: 'Transit-OPS', vrf: 'ops' },
      { vid: 91, name: 'Transit-GUEST', vrf: 'guest' },
      { vid: 999, name: 'Parking', unused: true },
    ],
  },
  {
    name: 'vessels',
    vlans: [
      ...[110, 120, 160, 170].map((vid) => ({ vid, name: vlanNames[vid - 100] ?? '', vrf: vrfOf(vid) })),
      { vid: 999, name: 'Parking', unused: true },
    ],
  },
];

const pool = (prefix: string, name: string, vrf = 'ops', place?: string): PrefixEntry => ({
  prefix,
  name,
  vrf,
  role: 'pool',
  ...(place === undefined ? {} : { place }),
});
const transit = (prefix: string, name: string, vrf: string): PrefixEntry => ({
  prefix,
  name,
  vrf,
  role: 'transit',
});

function prefixes(): PrefixEntry[] {
  const list: PrefixEntry[] = [
    pool('10.40.0.0/14', 'Sites'),
    pool('10.40.0.0/16', 'Mainland'),
    pool('10.41.0.0/16', 'Islands'),
    pool('10.42.0.0/16', 'Vessels'),
    pool('10.40.0.0/19', 'Kelder Quay', 'ops', 'Kelder Quay'),
    pool('10.40.32.0/19', 'Ashholm', 'ops', 'Ashholm'),
    pool('10.41.0.0/19', 'Brinsay', 'ops', 'Brinsay'),
    pool('10.42.0.0/19', 'MV Petrel', 'ops', 'MV Petrel'),
    pool('10.42.32.0/19', 'MV Sandpiper', 'ops', 'MV Sandpiper'),
    pool('10.43.0.0/18', 'Transit'),
    { prefix: '10.43.255.0/24', name: 'Loopbacks', vrf: 'ops', role: 'loopback' },
    pool('172.28.0.0/14', 'Guests', 'guest'),
    pool('172.31.252.0/22', 'Transit of guests', 'guest'),
    pool('2001:db8:40::/44', 'Sites', 'ops'),
    pool('2001:db8:40::/48', 'Kelder Quay', 'ops', 'Kelder Quay'),
    {
      prefix: '2001:db8:40:10::/64',
      vrf: 'ops',
      vlan: 'shore/10',
      place: 'Kelder Quay',
      gateway: '2001:db8:40:10::1',
    },
    {
      prefix: '2001:db8:40:20::/64',
      vrf: 'ops',
      vlan: 'shore/20',
      place: 'Kelder Quay',
      gateway: '2001:db8:40:20::1',
    },
    { prefix: '10.43.1.0/29', name: 'Core and firewalls', vrf: 'ops', role: 'transit', vlan: 'shore/90' },
    {
      prefix: '172.31.254.0/29',
      name: 'Core and firewalls',
      vrf: 'guest',
      role: 'transit',
      vlan: 'shore/91',
    },
    transit('198.51.100.0/30', 'Internet by Holm Carrier', 'ops'),
    transit('198.51.100.4/30', 'Internet by Skerrynet', 'ops'),
    transit('203.0.113.0/30', 'Internet at Ashholm', 'guest'),
    // Deliberate fault 8: inside the /25 of Brinsay's cameras.
    {
      prefix: '10.41.3.64/26',
      name: 'Cameras, Otterslip',
      vrf: 'ops',
      vlan: 'shore/40',
      place: 'Otterslip',
      gateway: '10.41.3.65',
    },
  ];
  for (const [site, { place, subnets }] of Object.entries(sites))
    for (const { vid, at, length } of subnets) {
      const { ops, guest } = numbersOf(site);
      const stem = vrfOf(vid) === 'ops' ? ops : guest;
      const group = vid > 100 ? 'vessels' : 'shore';
      const last =
        length <= 22 ? `${Number(at) + 2 ** (24 - length) - 1}.250` : `${at}.${length === 24 ? 250 : 120}`;
      const handsOut = ![10, 40, 110].includes(vid);
      const from = length <= 22 ? `${Number(at) + 1}.0` : `${at}.128`;
      list.push({
        prefix: `${stem}.${at}.0/${length}`,
        name: `${vlanNames[vid % 100] ?? ''}, ${place}`,
        vrf: vrfOf(vid),
        vlan: `${group}/${vid}`,
        place,
        gateway: host(site, vid, 1, false),
        ...(handsOut
          ? { ranges: [{ use: 'DHCP' as const, from: `${stem}.${from}`, to: `${stem}.${last}`, note: '' }] }
          : {}),
      });
    }
  for (const [at, name] of [
    [0, 'Kelder Quay and Ashholm'],
    [2, 'Kelder Quay and Brinsay'],
    [8, 'kq-fw-1 and kq-edge-1'],
    [10, 'kq-fw-2 and kq-edge-2'],
  ] as const) {
    list.push(transit(`10.43.0.${at}/31`, name, 'ops'));
    list.push(transit(`172.31.255.${at}/31`, name, 'guest'));
  }
  return list;
}

/** VRF of a subinterface or VLAN interface, its address and part in OSPF. */
const routed = (
  vrf: string,
  address: string | string[],
  ospf: Pick<PortEntry, 'ospf'> = {},
): Omit<PortEntry, 'name'> => ({
  vrf,
  addresses: Array.isArray(address) ? address : [address],
  ...ospf,
});

/** Lays the logical network over the devices, and gives what stands beside them in the file. */
export function layLogical(
  devices: DeviceEntry[],
): Pick<
  ExchangeFile,
  'vrfs' | 'vlanNumberings' | 'portProfiles' | 'prefixes' | 'reserved' | 'siteTemplates'
> {
  const set = (end: string, fields: Omit<PortEntry, 'name'>): void => setPort(devices, end, fields);
  const give = (name: string, fields: Partial<DeviceEntry>): void => {
    const device = devices.find((one) => one.name === name);
    if (device === undefined) throw new Error(`no device ${name}`);
    Object.assign(device, fields);
  };
  const aggregate = (
    device: string,
    name: string,
    members: string[],
    fields: Omit<PortEntry, 'name'>,
  ): void => set(`${device}:${name}`, { form: 'aggregate', lacp: 'active', members, ...fields });

  // Routers, with a loopback each that is also their router id.
  const routers = [
    'kq-core-1',
    'kq-core-2',
    'kq-fw-1',
    'kq-fw-2',
    'kq-edge-1',
    'kq-edge-2',
    'ah-edge-1',
    'br-edge-1',
    'pt-edge-1',
    'sp-edge-1',
  ];
  const areaOf: Record<string, string> = { 'ah-edge-1': '1', 'br-edge-1': '2' };
  routers.forEach((name, at) => {
    give(name, { routerId: `10.43.255.${at + 1}` });
    const joins = !name.startsWith('pt') && !name.startsWith('sp');
    set(`${name}:lo0`, {
      form: 'loopback',
      ...routed('ops', `10.43.255.${at + 1}/32`, joins ? area(areaOf[name] ?? '0', true) : {}),
    });
  });

  // Kelder Quay: the cores forward as one and route; each access switch hangs on both.
  for (const at of [1, 2] as const) {
    const core = `kq-core-${at}`;
    give(core, { stack: 'kq-core', bridgePriority: 4096 });
    give(`kq-fw-${at}`, { stack: 'kq-fw' });
    aggregate(core, 'lag1', ['hu1/31', 'hu1/32'], trunk([...shoreTagged, 90, 91]));
    for (const vid of Object.keys(vlanNames).map(Number))
      set(`${core}:vlan${vid}`, {
        form: 'vlan',
        vid,
        ...routed(
          vrfOf(vid),
          [
            host('kq', vid, at + 1),
            ...(vid === 10 || vid === 20 ? [`2001:db8:40:${vid}::${at + 1}/64`] : []),
          ],
          area('0', true),
        ),
        redundancy: [
          { group: vid, virtual: host('kq', vid, 1, false), priority: at === 1 ? 110 : 100 },
          ...(vid === 10 || vid === 20
            ? [{ group: vid + 100, virtual: `2001:db8:40:${vid}::1`, priority: at === 1 ? 110 : 100 }]
            : []),
        ],
      });
    set(`${core}:vlan90`, {
      form: 'vlan',
      vid: 90,
      ...routed('ops', `10.43.1.${at + 1}/29`, {
        ospf: { area: '0', cost: null, passive: false, network: 'broadcast' },
      }),
      redundancy: [{ group: 90, virtual: '10.43.1.1', priority: at === 1 ? 110 : 100 }],
    });
    set(`${core}:vlan91`, {
      form: 'vlan',
      vid: 91,
      ...routed('guest', `172.31.254.${at + 1}/29`),
      redundancy: [{ group: 91, virtual: '172.31.254.1', priority: at === 1 ? 110 : 100 }],
    });
    give(core, {
      routes: [
        { vrf: 'ops', prefix: '0.0.0.0/0', via: '10.43.1.4' },
        { vrf: 'guest', prefix: '0.0.0.0/0', via: '172.31.254.4' },
      ],
    });
    for (const n of [1, 2, 4, 5]) aggregate(core, `lag1${n}`, [`te1/${n}`], trunk(shoreTagged));
    // Servers and storage on both cores; firewalls too.
    for (const n of [7, 8, 9, 10]) aggregate(core, `lag${n + 100}`, [`te1/${n}`], access(20));
    aggregate(core, 'lag111', ['te1/11', 'te1/12'], access(20));
    aggregate(core, 'lag121', [at === 1 ? 'te1/21' : 'te1/22'], trunk([90, 91]));
    aggregate(core, 'lag122', [at === 1 ? 'te1/22' : 'te1/21'], trunk([90, 91]));
    set(`${core}:mgmt0`, { addresses: [{ address: host('kq', 10, 10 + at), vrf: 'ops' }] });

    const wall = `kq-fw-${at}`;
    aggregate(wall, 'lag1', ['x1', 'x2'], {});
    set(`${wall}:lag1.90`, {
      form: 'subinterface',
      over: 'lag1',
      vid: 90,
      ...routed('ops', `10.43.1.${at + 4}/29`, {
        ospf: { area: '0', cost: null, passive: false, network: 'broadcast' },
      }),
      redundancy: [{ group: 92, virtual: '10.43.1.4', priority: at === 1 ? 110 : 100 }],
    });
    set(`${wall}:lag1.91`, {
      form: 'subinterface',
      over: 'lag1',
      vid: 91,
      ...routed('guest', `172.31.254.${at + 4}/29`),
      redundancy: [{ group: 93, virtual: '172.31.254.4', priority: at === 1 ? 110 : 100 }],
    });
    const hop = at === 1 ? 8 : 10;
    for (const [vid, vrf, stem] of [
      [90, 'ops', '10.43.0'],
      [91, 'guest', '172.31.255'],
    ] as const) {
      const ospf = vrf === 'ops' ? area('0') : {};
      set(`${wall}:x3.${vid}`, {
        form: 'subinterface',
        over: 'x3',
        vid,
        ...routed(vrf, `${stem}.${hop}/31`, ospf),
      });
      set(`kq-edge-${at}:te0/1.${vid}`, {
        form: 'subinterface',
        over: 'te0/1',
        vid,
        ...routed(vrf, `${stem}.${hop + 1}/31`, ospf),
      });
    }
    give(wall, {
      routes: [
        { vrf: 'ops', prefix: '0.0.0.0/0', via: `10.43.0.${hop + 1}` },
        { vrf: 'guest', prefix: '0.0.0.0/0', via: `172.31.255.${hop + 1}` },
        { vrf: 'guest', prefix: '172.28.0.0/19', via: '172.31.254.1' },
      ],
    });
    set(`${wall}:mgmt0`, { addresses: [{ address: host('kq', 10, 14 + at), vrf: 'ops' }] });

    // The edges: a provider each to the internet, and one site each over the private WAN.
    const edge = `kq-edge-${at}`;
    set(`${edge}:ge0/1`, { mode: 'routed', ...routed('ops', `198.51.100.${at === 1 ? 2 : 6}/30`) });
    const far = at === 1 ? 'ah' : 'br';
    const own = at === 1 ? '1' : '2';
    for (const [vid, vrf, stem] of [
      [90, 'ops', '10.43.0'],
      [91, 'guest', '172.31.255'],
    ] as const) {
      const ospf = vrf === 'ops' ? area(own) : {};
      set(`${edge}:ge0/2.${vid}`, {
        form: 'subinterface',
        over: 'ge0/2',
        vid,
        ...routed(vrf, `${stem}.${at === 1 ? 0 : 2}/31`, ospf),
      });
      set(`${far}-edge-1:ge0/2.${vid}`, {
        form: 'subinterface',
        over: 'ge0/2',
        vid,
        ...routed(vrf, `${stem}.${at === 1 ? 1 : 3}/31`, ospf),
      });
    }
    give(edge, {
      asNumber: 64500,
      routes: [
        // The site behind this edge, told to the others as one route.
        { vrf: 'ops', prefix: at === 1 ? '10.40.32.0/19' : '10.41.0.0/19', discard: true },
        { vrf: 'ops', prefix: '0.0.0.0/0', via: `198.51.100.${at === 1 ? 1 : 5}` },
        { vrf: 'guest', prefix: '0.0.0.0/0', via: `172.31.255.${hop}` },
        {
          vrf: 'guest',
          prefix: at === 1 ? '172.28.16.0/21' : '172.29.0.0/21',
          via: `172.31.255.${at === 1 ? 1 : 3}`,
        },
      ],
      bgp: [{ vrf: 'ops', neighbour: `198.51.100.${at === 1 ? 1 : 5}`, remoteAs: at === 1 ? 64496 : 64497 }],
    });
    set(`${edge}:mgmt0`, { addresses: [{ address: host('kq', 10, 12 + at), vrf: 'ops' }] });
    give(`${far}-edge-1`, {
      routes: [
        { vrf: 'ops', prefix: '0.0.0.0/0', via: `10.43.0.${at === 1 ? 0 : 2}` },
        { vrf: 'guest', prefix: '0.0.0.0/0', via: at === 1 ? '203.0.113.1' : '172.31.255.2' },
      ],
    });
  }
  set('ah-edge-1:ge0/3', { mode: 'routed', ...routed('guest', '203.0.113.2/30') });
  // Deliberate fault 3: VLAN 40 is missing at the core end of the second uplink of kq-acc-3.
  set('kq-acc-3:te1/49', trunk(shoreTagged));
  set('kq-acc-3:te1/50', trunk(shoreTagged));
  set('kq-core-1:te1/3', trunk(shoreTagged));
  set('kq-core-2:te1/3', trunk(shoreTagged.filter((vid) => vid !== 40)));
  for (const n of [1, 2, 4, 5])
    aggregate(
      `kq-acc-${n}`,
      'lag1',
      n === 5 ? ['te1/25', 'te1/26'] : ['te1/49', 'te1/50'],
      trunk(shoreTagged),
    );
  for (let n = 1; n <= 5; n++)
    set(`kq-acc-${n}:vlan10`, { form: 'vlan', vid: 10, ...routed('ops', host('kq', 10, 20 + n)) });

  // What hangs on the access switches.
  for (const n of [1, 2, 3, 4]) {
    const up = n <= 2 ? 'kq-acc-1' : 'kq-acc-2';
    set(`${up}:gi1/${n <= 2 ? 40 + n : 40 + n}`, access(10));
    set(`kq-srv-${n}:bmc`, { addresses: [{ address: host('kq', 10, 50 + n), vrf: 'ops' }] });
    aggregate(`kq-srv-${n}`, 'bond0', ['eno1', 'eno2'], {
      addresses: [{ address: host('kq', 20, 10 + n), vrf: 'ops', dnsName: `kq-srv-${n}.ops.marrow.example` }],
    });
  }
  set('kq-acc-2:gi1/45', access(10));
  set('kq-st-1:bmc', { addresses: [{ address: host('kq', 10, 55), vrf: 'ops' }] });
  aggregate('kq-st-1', 'bond0', ['san1', 'san2', 'san3', 'san4'], {
    addresses: [{ address: host('kq', 20, 20), vrf: 'ops', dnsName: 'kq-st-1.ops.marrow.example' }],
  });
  for (const n of [46, 47, 48]) for (const up of ['kq-acc-1', 'kq-acc-2']) set(`${up}:gi1/${n}`, access(10));
  const accessPoint = (up: string, name: string, at: number): void => {
    set(up, { mode: 'trunk', untagged: 10, tagged: [60, 70] });
    set(`${name}:eth0`, { addresses: [{ address: host('kq', 10, at), vrf: 'ops' }] });
  };
  const camera = (up: string, n: number): void => {
    set(up, access(40));
    if (n !== 14) set(`kq-cam-${n}:eth0`, { addresses: [{ address: host('kq', 40, 10 + n), vrf: 'ops' }] });
  };
  for (let n = 1; n <= 3; n++) {
    camera(`kq-acc-3:gi1/${n}`, n);
    camera(`kq-acc-4:gi1/${n}`, n + 3);
  }
  accessPoint('kq-acc-3:gi1/4', 'kq-ap-1', 101);
  accessPoint('kq-acc-4:gi1/4', 'kq-ap-2', 102);
  for (let n = 7; n <= 14; n++) camera(`kq-acc-5:gi1/${n - 4}`, n);
  for (let n = 13; n <= 16; n++) accessPoint(`kq-acc-5:gi1/${n}`, `kq-ap-${n - 10}`, 90 + n);
  for (const n of [1, 2]) {
    set(`kq-acc-5:gi1/${n}`, { ...access(20), voice: 50 });
    set(`kq-ph-${n}:lan`, { addresses: [{ address: host('kq', 50, 10 + n), vrf: 'ops' }] });
  }

  // The other sites: one router, to which the switch hands all its VLANs tagged.
  for (const site of ['ah', 'br', 'pt', 'sp']) {
    const { subnets } = numbersOf(site);
    const vids = subnets.map((one) => one.vid).sort((a, b) => a - b);
    const management = Math.min(...vids);
    set(`${site}-acc-1:gi1/24`, trunk(vids));
    for (const vid of vids)
      set(`${site}-edge-1:ge0/1.${vid}`, {
        form: 'subinterface',
        over: 'ge0/1',
        vid,
        ...routed(
          vrfOf(vid),
          [host(site, vid, 1), ...(site === 'br' && vid === 40 ? ['10.41.3.65/26'] : [])],
          vrfOf(vid) === 'ops' && areaOf[`${site}-edge-1`] !== undefined
            ? area(areaOf[`${site}-edge-1`] ?? '0', true)
            : {},
        ),
      });
    set(`${site}-acc-1:vlan${management}`, {
      form: 'vlan',
      vid: management,
      ...routed('ops', host(site, management, 21)),
    });
  }
  // Deliberate fault 7: the switch and the gate controller have one address.
  set('ah-acc-1:vlan20', { form: 'vlan', vid: 20, ...routed('ops', host('ah', 20, 20)) });
  set('br-acc-1:te1/25', { mode: 'trunk', untagged: 999, tagged: [20] });
  set('br-acc-1:gi1/12', { mode: 'trunk', untagged: 10, tagged: [20, 40] });
  set('os-acc-1:gi1/1', { mode: 'trunk', untagged: 10, tagged: [20, 40] });
  set('os-acc-1:gi1/2', access(40));
  set('os-acc-1:vlan10', { form: 'vlan', vid: 10, ...routed('ops', host('br', 10, 22)) });
  set('br-wb-1:eth0', { addresses: [{ address: host('br', 10, 31), vrf: 'ops' }] });
  set('os-wb-1:eth0', { addresses: [{ address: host('br', 10, 32), vrf: 'ops' }] });
  set('os-cam-1:eth0', { addresses: [{ address: '10.41.3.70/26', vrf: 'ops' }] });

  return {
    vrfs: [
      { name: 'ops', routeDistinguisher: '64500:40', colour: 6 },
      { name: 'guest', routeDistinguisher: '64500:172', colour: 9 },
    ],
    vlanNumberings: groups,
    portProfiles: [
      { name: 'Camera port', mode: 'access', untagged: 40 },
      { name: 'Desk port', mode: 'access', untagged: 20, voice: 50 },
      { name: 'Access point port', mode: 'trunk', untagged: 10, tagged: [60, 70] },
      { name: 'Uplink', mode: 'trunk', untagged: 999, tagged: shoreTagged },
    ],
    prefixes: prefixes(),
    reserved: [
      {
        address: host('ah', 20, 20),
        vrf: 'ops',
        dnsName: 'ah-gate-1.ops.marrow.example',
        notes: 'Gate controller',
      },
    ],
    siteTemplates: [
      {
        name: 'Terminal',
        parts: [
          {
            name: 'Management',
            length: 24,
            vid: 10,
            role: 'subnet',
            gateway: 'first',
            dhcpShare: 0,
            growth: false,
          },
          {
            name: 'Operations',
            length: 24,
            vid: 20,
            role: 'subnet',
            gateway: 'first',
            dhcpShare: 50,
            growth: true,
          },
          {
            name: 'Ticketing',
            length: 24,
            vid: 30,
            role: 'subnet',
            gateway: 'first',
            dhcpShare: 50,
            growth: false,
          },
          {
            name: 'Cameras',
            length: 25,
            vid: 40,
            role: 'subnet',
            gateway: 'first',
            dhcpShare: 0,
            growth: false,
          },
          {
            name: 'Voice',
            length: 24,
            vid: 50,
            role: 'subnet',
            gateway: 'first',
            dhcpShare: 50,
            growth: false,
          },
        ],
      },
    ],
  };
}

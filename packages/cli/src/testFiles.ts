import type { ExchangeFile } from '@visograph/core/exchange';

/** A random network of switches, routers and hosts: rings, hand-offs, equal costs, addresses twice, retired gear. */
export function switchedFile(roll: () => number): ExchangeFile {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)] as T;
  const used = new Map<string, number>();
  const next = (device: string): string => {
    const port = (used.get(device) ?? 0) + 1;
    used.set(device, port);
    return `${device}:${port}`;
  };
  const switches = Array.from({ length: 6 }, (_, at) => `sw${at}`);
  const routers = Array.from({ length: 4 }, (_, at) => `r${at}`);
  const hosts = Array.from({ length: 8 }, (_, at) => `h${at}`);
  const ends: [string, string][] = [];
  for (let at = 0; at < 10; at++) ends.push([next(pick(switches)), next(pick(switches))]);
  for (const host of hosts) ends.push([next(host), next(pick(switches))]);
  const links: [string, string][] = [];
  for (let at = 0; at < 7; at++) {
    const [a, b] = [pick(routers), pick(routers)];
    if (a !== b) links.push([next(a), next(b)]);
  }
  const address = new Map<string, string>();
  links.forEach(([a, b], at) => {
    address.set(a, `10.0.${at}.0/31`);
    address.set(b, `10.0.${at}.1/31`);
  });
  const status = (): 'active' | 'planned' | 'retired' =>
    pick(['active', 'active', 'active', 'planned', 'retired']);
  const ports = (device: string, make: (name: string) => object): object[] =>
    Array.from({ length: used.get(device) ?? 0 }, (_, at) => ({
      name: String(at + 1),
      ...make(String(at + 1)),
    }));
  const file = {
    format: 'visograph-exchange',
    version: 1,
    vrfs: [{ name: 'ops' }],
    vlanNumberings: [{ name: 'shore', vlans: [10, 20, 30].map((vid) => ({ vid, name: `v${vid}` })) }],
    places: [
      { path: 'Quay', kind: 'site', vlanNumbering: 'shore' },
      { path: 'Quay/Room', kind: 'room' },
    ],
    prefixes: [
      { prefix: '10.1.0.0/24', vrf: 'ops', vlan: 'shore/20', gateway: '10.1.0.1' },
      { prefix: '10.1.0.0/16', vrf: 'ops', role: 'pool' },
    ],
    devices: [
      ...switches.map((name) => ({
        name,
        role: 'SW',
        place: 'Quay/Room',
        status: status(),
        ports: ports(name, () => ({
          mode: 'trunk',
          tagged: pick([[10, 20], [20, 30], [20]]),
          speedBps: pick([1e9, 1e10]),
        })),
      })),
      ...routers.map((name, at) => ({
        name,
        role: 'RT',
        place: 'Quay/Room',
        status: status(),
        ports: [
          ...ports(name, (port) => ({
            mode: 'routed',
            vrf: 'ops',
            addresses: [address.get(`${name}:${port}`) ?? '10.9.9.9/31'],
            ospf: { area: pick(['0', '0', '1']), cost: pick([1, 2]), network: 'point-to-point' },
          })),
          {
            name: 'lo0',
            form: 'loopback',
            vrf: 'ops',
            addresses: [`10.255.0.${at}/32`],
            ospf: { area: '0', passive: true },
          },
        ],
        routes: [{ vrf: 'ops', prefix: '10.9.0.0/16', via: `10.0.${at}.${pick([0, 1])}` }],
      })),
      ...hosts.map((name) => ({
        name,
        role: 'SV',
        place: 'Quay/Room',
        status: status(),
        ports: ports(name, () => ({ vrf: 'ops', addresses: [`10.1.0.${10 + Math.floor(roll() * 5)}/24`] })),
      })),
    ],
    cables: [...ends, ...links].map(([a, b], at) => ({
      label: `Q-${String(at + 1).padStart(5, '0')}`,
      a,
      b,
      status: status(),
    })),
  };
  return file as unknown as ExchangeFile;
}

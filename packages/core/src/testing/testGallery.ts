import { applyChanges } from '../change/apply.ts';
import { create } from '../change/change.ts';
import type { ExchangeFile } from '../exchange/format.ts';
import { blankSheet, type Sheet } from '../model/kinds/drawings/sheet.ts';
import { newId } from '../model/values/ids.ts';
import type { Network } from '../model/network/network.ts';
import { placeOnSheet } from '../sheets/commands/sheets.ts';
import { campus, ringNetwork } from './testCampus.ts';
import { networkOf } from './testNetwork.ts';
import { trunk } from './testSwitching.ts';

type DeviceEntry = NonNullable<ExchangeFile['devices']>[number];
type CableEntry = NonNullable<ExchangeFile['cables']>[number];

/** A network being made up: devices with as many ports as links lead to them. */
class Drafted {
  readonly devices: DeviceEntry[] = [];
  readonly cables: CableEntry[] = [];
  private readonly used = new Map<string, number>();

  add(name: string, role: DeviceEntry['role'], place = 'Site'): string {
    this.devices.push({ name, role, place, ports: [] });
    return name;
  }

  port(device: string): string {
    const number = (this.used.get(device) ?? 0) + 1;
    this.used.set(device, number);
    this.devices.find(({ name }) => name === device)?.ports?.push({ name: `1/${number}` });
    return `${device}:1/${number}`;
  }

  join(a: string, b: string): void {
    const label = `GX-${String(this.cables.length + 1).padStart(5, '0')}`;
    this.cables.push({ label, a: this.port(a), b: this.port(b) });
  }

  network(more: Partial<ExchangeFile> = {}): Network {
    return networkOf({ devices: this.devices, cables: this.cables, ...more });
  }
}

const numbered = (count: number, make: (at: number) => string): string[] =>
  Array.from({ length: count }, (_, at) => make(at + 1));

/** One switch with so many servers, each on it alone. */
export function star(count: number, role: DeviceEntry['role'] = 'SV'): Network {
  const drafted = new Drafted();
  const hub = drafted.add('gx-hub', 'SW');
  for (const name of numbered(count, (at) => `gx-${String(role).toLowerCase()}-${at}`))
    drafted.join(hub, drafted.add(name, role));
  return drafted.network();
}

/** Switches that each lead to three more, so many in all. */
export function tree(count: number): Network {
  const drafted = new Drafted();
  const names = numbered(count, (at) => drafted.add(`gx-sw-${at}`, 'SW'));
  names.forEach((name, at) => {
    if (at > 0) drafted.join(names[Math.floor((at - 1) / 3)] ?? '', name);
  });
  return drafted.network();
}

/** Switches of which each is joined to every other. */
export function mesh(count: number): Network {
  const drafted = new Drafted();
  const names = numbered(count, (at) => drafted.add(`gx-sw-${at}`, 'SW'));
  names.forEach((name, at) => names.slice(at + 1).forEach((other) => drafted.join(name, other)));
  return drafted.network();
}

/** Switches one after the other. */
export function chain(count: number): Network {
  const drafted = new Drafted();
  const names = numbered(count, (at) => drafted.add(`gx-sw-${at}`, 'SW'));
  names.slice(1).forEach((name, at) => drafted.join(names[at] ?? '', name));
  return drafted.network();
}

/** Leaf switches that are each joined to every spine. */
export function leafAndSpine(spines: number, leaves: number): Network {
  const drafted = new Drafted();
  const upper = numbered(spines, (at) => drafted.add(`gx-spine-${at}`, 'SW'));
  for (const leaf of numbered(leaves, (at) => drafted.add(`gx-leaf-${at}`, 'SW')))
    for (const spine of upper) drafted.join(leaf, spine);
  return drafted.network();
}

/** Two sites alike, each with a router, two switches and servers, joined by two circuits of two providers. */
export function twoSites(): Network {
  const drafted = new Drafted();
  for (const site of ['North', 'South']) {
    const stem = `gx-${site.slice(0, 1).toLowerCase()}`;
    const edges = numbered(2, (at) => drafted.add(`${stem}-edge-${at}`, 'RT', site));
    const core = numbered(2, (at) => drafted.add(`${stem}-sw-${at}`, 'SW', site));
    edges.forEach((edge) => core.forEach((one) => drafted.join(edge, one)));
    drafted.join(core[0] ?? '', core[1] ?? '');
    for (const server of numbered(4, (at) => drafted.add(`${stem}-srv-${at}`, 'SV', site)))
      for (const one of core) drafted.join(server, one);
  }
  const circuits = [1, 2].map((at) => ({
    number: `GC-${at}`,
    provider: at === 1 ? 'Holm Carrier' : 'Skerrynet',
    a: drafted.port(`gx-n-edge-${at}`),
    b: drafted.port(`gx-s-edge-${at}`),
  }));
  return drafted.network({ circuits });
}

/** A core and six access switches over whose links thirty VLANs go, on some of them fewer. */
export function manyVlans(): Network {
  const vids = numbered(30, String).map((_, at) => 100 + 10 * at);
  const port = (name: string, tagged: number[]) => trunk(name, tagged);
  const access = numbered(6, (at) => `gx-acc-${at}`);
  const carried = (at: number): number[] => (at < 4 ? vids : vids.slice(0, 20 + at));
  return networkOf({
    vlanNumberings: [{ name: 'campus', vlans: vids.map((vid) => ({ vid, name: `Segment ${vid}` })) }],
    places: [{ path: 'Site', kind: 'site', vlanNumbering: 'campus' }],
    devices: [
      {
        ...{ name: 'gx-core', role: 'SW' as const, place: 'Site' },
        ports: access.map((_, at) => port(`1/${at + 1}`, carried(at))),
      },
      ...access.map((name, at) => ({
        ...{ name, role: 'SW' as const, place: 'Site' },
        ports: [port('1/1', carried(at))],
      })),
    ],
    cables: access.map((name, at) => ({
      label: `GX-${String(at + 1).padStart(5, '0')}`,
      a: `gx-core:1/${at + 1}`,
      b: `${name}:1/1`,
    })),
  });
}

const sheetOf = (projection: Sheet['projection']): Sheet => ({
  ...blankSheet,
  ...{ id: newId(), name: 'Gallery', projection },
});

/** A star of which half was placed by hand, the hub above a column of servers; the other half came later. */
export function arrangedWithMore(): { network: Network; sheet: Sheet } {
  const network = star(12);
  const sheet = sheetOf('cabling');
  const byName = new Map([...network.all('device')].map((device) => [device.name, device.id]));
  const placed = ['gx-hub', ...numbered(6, (at) => `gx-sv-${at}`)].map(
    (name, at): [string, { x: number; y: number }] => [byName.get(name) ?? '', { x: 0, y: at * 120 }],
  );
  const made = applyChanges(network, [
    create('sheet', sheet),
    ...placeOnSheet(network, sheet, new Map(placed)).changes,
  ]);
  if (!made.ok) throw new Error(made.problems[0]?.message ?? 'arranged');
  return { network: made.network, sheet };
}

/** Networks of every shape, made up to see how they are drawn: by the name of their picture. */
export const gallery: Readonly<Record<string, () => { network: Network; sheet: Sheet }>> = {
  star: () => ({ network: star(12), sheet: sheetOf('cabling') }),
  ring: () => ({ network: ringNetwork(12), sheet: sheetOf('cabling') }),
  tree: () => ({ network: tree(60), sheet: sheetOf('cabling') }),
  'campus-24': () => ({ network: campus(24), sheet: sheetOf('cabling') }),
  'campus-60': () => ({ network: campus(60), sheet: sheetOf('cabling') }),
  'campus-300': () => ({ network: campus(300), sheet: sheetOf('cabling') }),
  mesh: () => ({ network: mesh(8), sheet: sheetOf('cabling') }),
  chain: () => ({ network: chain(20), sheet: sheetOf('cabling') }),
  'two-sites': () => ({ network: twoSites(), sheet: sheetOf('cabling') }),
  'leaf-and-spine': () => ({ network: leafAndSpine(4, 16), sheet: sheetOf('cabling') }),
  'thirty-vlans': () => ({ network: manyVlans(), sheet: sheetOf('switching') }),
  arranged: arrangedWithMore,
};

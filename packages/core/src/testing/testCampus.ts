import { applyChanges } from '../change/apply.ts';
import { readExchange } from '../exchange/read.ts';
import type { ExchangeFile } from '../exchange/format.ts';
import { newProject } from '../model/kinds/sites/project.ts';
import { Network } from '../model/network/network.ts';

type DeviceEntry = NonNullable<ExchangeFile['devices']>[number];
type CableEntry = NonNullable<ExchangeFile['cables']>[number];

/**
 * A made-up campus as plates are drawn: a data room with redundant edge, firewalls, core and servers, and floors each
 * with a ring of access switches on both cores, a panel, and end devices that fold under their switch. For drawings
 * of a given number of plates: end devices come in threes and twos that fold, or each by itself.
 */
export function campus(plates: number, folded = true): Network {
  const devices: DeviceEntry[] = [];
  const cables: CableEntry[] = [];
  const used = new Map<string, number>();
  const add = (name: string, role: DeviceEntry['role'], place: string): string => {
    devices.push({ name, role, place, ports: [] });
    return name;
  };
  const port = (device: string): string => {
    const number = (used.get(device) ?? 0) + 1;
    used.set(device, number);
    devices.find((one) => one.name === device)?.ports?.push({ name: `1/${number}` });
    return `${device}:1/${number}`;
  };
  const join = (a: string, b: string): void =>
    void cables.push({ label: `CX-${String(cables.length + 1).padStart(5, '0')}`, a: port(a), b: port(b) });
  const room = 'Campus/Main/Data room';
  const pair = (stem: string, role: DeviceEntry['role']): [string, string] => [
    add(`${stem}-1`, role, room),
    add(`${stem}-2`, role, room),
  ];
  const edge = pair('cx-edge', 'RT');
  const wall = pair('cx-fw', 'FW');
  const core = pair('cx-core', 'SW');
  for (const at of [0, 1] as const) {
    join(edge[at], wall[at]);
    join(wall[at], core[at]);
    join(wall[at], core[1 - at] ?? core[0]);
  }
  join(wall[0], wall[1]);
  join(core[0], core[1]);
  join(core[0], core[1]);
  const servers = Math.max(2, Math.round(plates / 15));
  for (let at = 1; at <= servers; at++) {
    const server = add(`cx-srv-${at}`, 'SV', room);
    for (const up of core) join(server, up);
  }
  let count = 6 + servers;
  for (let floor = 1; count < plates; floor++) {
    const place = `Campus/Building ${Math.ceil(floor / 4)}/Floor ${floor}`;
    const top = add(`cx-dist-${floor}`, 'SW', place);
    for (const up of core) join(up, top);
    count++;
    const access: string[] = [];
    for (let at = 1; at <= 4 && count < plates; at++) {
      const name = add(`cx-acc-${floor}-${at}`, 'SW', place);
      access.push(name);
      join(top, name);
      join(top, name);
      count++;
      for (const [role, many] of [
        ['AP', 3],
        ['CM', 2],
      ] as const) {
        if (count >= plates) break;
        for (let n = 1; n <= (folded ? many : 1); n++)
          join(name, add(`cx-${role.toLowerCase()}-${floor}-${at}-${n}`, role, place));
        count++;
      }
    }
    for (let at = 1; at < access.length; at++) join(access[at - 1] ?? '', access[at] ?? '');
  }
  return networkOf(devices, cables);
}

/** Switches of one place, each cabled to the next and the last to the first. */
export function ringNetwork(count: number): Network {
  const devices = Array.from({ length: count }, (_, at): DeviceEntry => ({
    name: `rg-${at + 1}`,
    role: 'SW',
    place: 'Ring',
    ports: [{ name: '1/1' }, { name: '1/2' }],
  }));
  const cables = devices.map((device, at): CableEntry => ({
    label: `RG-${String(at + 1).padStart(5, '0')}`,
    a: `${device.name}:1/2`,
    b: `${devices[(at + 1) % count]?.name ?? ''}:1/1`,
  }));
  return networkOf(devices, cables);
}

function networkOf(devices: DeviceEntry[], cables: CableEntry[]): Network {
  const file: ExchangeFile = { format: 'visograph-exchange', version: 1, devices, cables };
  const start = Network.of({ project: [newProject('Campus')] });
  const read = readExchange(start, file);
  if (!read.ok) throw new Error(read.problems[0]?.message ?? 'campus');
  const applied = applyChanges(start, read.changes);
  if (!applied.ok) throw new Error(applied.problems[0]?.message ?? 'campus');
  return applied.network;
}

import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { devicesInScope } from '../../model/network/places.ts';
import { isRouter } from '../interfaces.ts';
import { subnetsOf, type RoutedSubnet } from '../subnets.ts';
import { mostDevices } from '../../sheets/graph/containers.ts';
import type { Kept, SheetReading } from '../../sheets/graph/reading.ts';
import type { GraphContainer } from '../../sheets/graph/sheetGraph.ts';
import { nothingTold, say, type Told, type ToldLink, type ToldNode } from '../../sheets/graph/told.ts';
import { homeOf, routerPlate } from './routerPlates.ts';
import { bus, linkBetween, outward } from './routingLinks.ts';
import type { Reader } from './routingWays.ts';

/** Lines that say the same once. */
const distinct = (lines: readonly Told[]): Told[] => [
  ...new Map(lines.map((one) => [JSON.stringify(one), one])).values(),
];

function routersOf({ network, sheet, kept }: Reader): {
  routers: Device[];
  within: Set<string>;
  away: SheetReading['away'];
} {
  const picked = (): Device[] =>
    [...kept.items.values()].flatMap((item) => network.get('device', item.subjectId) ?? []);
  /** Drawn here by a person, whether it routes yet or not. */
  const byHand = (device: Device): boolean => device.role === 'FW' && kept.items.get(device.id)?.x != null;
  const wanted = (sheet.picked ? picked() : devicesInScope(network, sheet.scopeId)).filter(
    (device) =>
      device.status !== 'retired' && (isRouter(network, device) || device.role === 'RT' || byHand(device)),
  );
  const gone = wanted.filter((device) => kept.items.get(device.id)?.away === true);
  const here = wanted.filter((device) => !gone.includes(device));
  return {
    routers: here.sort(byName),
    within: new Set(here.map((device) => device.id)),
    away: gone.map(({ id, name, role }) => ({ id, name, role })).sort(byName),
  };
}

/** Whether routers reach each other over a subnet: not where it is for hosts, whose gateways they are together. */
const joins = ({ row, members }: RoutedSubnet): boolean =>
  row?.role !== 'subnet' || members.filter(({ port }) => port.ospf?.passive === false).length > 1;

/** The subnets that routers of a sheet are in, of the VRF that it shows. */
function subnetsDrawn({ network, sheet, kept }: Reader, routers: readonly Device[]): RoutedSubnet[] {
  const within = new Set(routers.map(({ id }) => id));
  const everywhere = sheet.picked
    ? routers
    : [...network.all('device')]
        .filter(
          (device) =>
            device.status !== 'retired' &&
            kept.items.get(device.id)?.away !== true &&
            isRouter(network, device),
        )
        .sort(byName);
  return subnetsOf(network, everywhere).filter(
    (subnet) =>
      (sheet.vrfId === null || subnet.vrfId === sheet.vrfId) &&
      subnet.members.some((member) => within.has(member.device.id)),
  );
}

/** A sheet while subnet after subnet is drawn. */
class Drawn {
  readonly nodes = new Map<string, ToldNode>();
  readonly links: ToldLink[] = [];
  readonly containers = new Map<string, GraphContainer>();
  /** Routers that have a plate: those of the sheet, and those at the far ends. */
  readonly devices: Map<string, Device>;
  /** Subnets that join no two routers. */
  readonly alone: RoutedSubnet[] = [];
  /** What IPv4 and IPv6 have in common is drawn once. */
  private readonly pairs = new Set<string>();

  constructor(
    private readonly reader: Reader,
    routers: readonly Device[],
  ) {
    this.devices = new Map(routers.map((device) => [device.id, device]));
  }

  containerOf(device: Device): string | null {
    const home = homeOf(this.reader, device);
    if (home !== null) this.containers.set(home.id, home);
    return home?.id ?? null;
  }

  add(subnet: RoutedSubnet): void {
    const owners = joins(subnet) ? new Set(subnet.members.map((member) => member.device.id)).size : 0;
    const ports = subnet.members.map((member) => member.port.id).sort();
    const pair = `${subnet.vrfId ?? ''} ${ports.join(' ')}`;
    if (owners > 1 && this.pairs.has(pair)) return;
    this.pairs.add(pair);
    if (owners > 1) this.addShared(subnet, owners);
    else this.addOutward(subnet);
  }

  /** Between two routers a line, between more a bar that each hangs on. */
  private addShared(subnet: RoutedSubnet, owners: number): void {
    for (const { device } of subnet.members) this.devices.set(device.id, device);
    const [a, b] = subnet.members;
    if (owners === 2 && subnet.members.length === 2 && a !== undefined && b !== undefined)
      return void this.links.push(linkBetween(this.reader, subnet, a, b));
    const homes = new Set(subnet.members.map((member) => this.containerOf(member.device)));
    const [home] = homes;
    const made = bus(this.reader, subnet, homes.size === 1 ? (home ?? null) : null);
    this.nodes.set(made.node.id, made.node);
    this.links.push(...made.links);
  }

  /** To a provider, whose plate all that leads to it shares; else it is for hosts alone. */
  private addOutward(subnet: RoutedSubnet): void {
    const made = outward(this.reader, subnet);
    if (made === null) return void this.alone.push(subnet);
    const known = this.nodes.get(made.node.id);
    if (known === undefined) this.nodes.set(made.node.id, made.node);
    else {
      known.subjects.push(...made.node.subjects);
      known.lines = distinct([...known.lines, ...made.node.lines]);
    }
    this.links.push(made.link);
  }
}

/** A colour for each VRF that is drawn, by their names. */
function coloursOf(network: Network, subnets: readonly RoutedSubnet[]): NonNullable<SheetReading['colours']> {
  const vrfs = [...new Set(subnets.map((subnet) => subnet.vrfId))].flatMap(
    (id) => network.get('vrf', id) ?? [],
  );
  return vrfs
    .sort((a, b) => compareNames(a.name, b.name))
    .map(({ name, colour }) => ({ label: say(`VRF ${name}`), shade: { scale: 'set', index: colour } }));
}

/**
 * What a routing sheet shows: routers, firewalls and switches that route, the subnets between them with the address of
 * each end, areas of OSPF as containers, subnets that three or more share as bars, and providers where one leads out.
 */
export function routingGraph(network: Network, sheet: Sheet, kept: Kept): SheetReading {
  const reader: Reader = { network, sheet, kept };
  const { routers, within, away } = routersOf(reader);
  const rest = { shades: [], linkShades: [], waiting: [], away };
  if (routers.length > mostDevices) return { ...rest, graph: nothingTold(), tooMany: routers.length };
  const subnets = subnetsDrawn(reader, routers);
  const drawn = new Drawn(reader, routers);
  for (const subnet of subnets) drawn.add(subnet);
  const hosts = drawn.alone.filter(({ prefix }) => prefix.family === 4);
  const plates = [...drawn.devices.values()].map((device) =>
    routerPlate(reader, device, hosts, drawn.containerOf(device), !within.has(device.id)),
  );
  return {
    ...rest,
    graph: {
      nodes: [...drawn.nodes.values(), ...plates],
      links: drawn.links,
      stubs: [],
      containers: [...drawn.containers.values()].sort((x, y) => (x.title < y.title ? -1 : 1)),
    },
    colours: coloursOf(network, subnets),
    tooMany: null,
  };
}

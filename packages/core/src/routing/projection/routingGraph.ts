import { formatIp, formatPrefix, type IpAddress, type IpPrefix } from '../../model/values/ip.ts';
import type { Circuit } from '../../model/kinds/lines/circuit.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Sheet } from '../../model/kinds/drawings/sheet.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { devicesInScope } from '../../model/network/places.ts';
import { cableAt, circuitAt } from '../../model/network/ports.ts';
import { roles } from '../../model/values/roles.ts';
import { areaText, interfacesOf, isRouter } from '../interfaces.ts';
import { ospfCost } from '../ospfCost.ts';
import { subnetsOf, type Member, type RoutedSubnet } from '../subnets.ts';
import { traceRun } from '../../cabling/trace.ts';
import { vrfChip } from '../../sheets/graph/chips.ts';
import { mostDevices } from '../../sheets/graph/containers.ts';
import { hostPart } from './hostPart.ts';
import { drawnMedium, type Medium } from '../../sheets/graph/medium.ts';
import type { Kept, SheetReading } from '../../sheets/graph/reading.ts';
import type { GraphContainer, Line } from '../../sheets/graph/sheetGraph.ts';
import {
  line,
  nothingTold,
  say,
  sayChips,
  told,
  type Told,
  type ToldLink,
  type ToldNode,
} from '../../sheets/graph/told.ts';

const backbone = '0';
/** More lines than this are not written on a plate. */
const mostLines = 8;

/** Areas of a router that are drawn, with the VRF they are in. */
function areasOf(
  network: Network,
  device: Device,
  vrfId: string | null,
): { key: string; area: string; vrfId: string | null }[] {
  const found = new Map<string, { key: string; area: string; vrfId: string | null }>();
  const speaking = interfacesOf(network, device.id).filter(
    (one) => one.port.ospf !== null && (vrfId === null || one.vrfId === vrfId),
  );
  // Where it has neighbours; a router that only tells its subnets belongs where those are.
  const active = speaking.filter(({ port }) => port.ospf?.passive === false);
  for (const one of active.length > 0 ? active : speaking) {
    if (one.port.ospf === null) continue;
    const area = areaText(one.port.ospf.area);
    const key = `area:${one.vrfId ?? ''}/${area}`;
    found.set(key, { key, area, vrfId: one.vrfId });
  }
  return [...found.values()];
}

/** What stands below the name of a router: number of its system, loopbacks, areas it borders, summaries, other subnets. */
function linesOf(network: Network, sheet: Sheet, device: Device, alone: readonly RoutedSubnet[]): Told[] {
  const lines: Told[] = [];
  const areas = areasOf(network, device, sheet.vrfId);
  if (device.asNumber !== null) lines.push(line(say(`AS ${device.asNumber}`)));
  for (const one of interfacesOf(network, device.id))
    if (one.port.form === 'loopback' && (sheet.vrfId === null || one.vrfId === sheet.vrfId))
      lines.push(
        line(
          say(
            `${one.port.name} ${one.addresses.map(({ address }) => formatIp(address)).join(' ')}`,
            'addresses',
          ),
        ),
      );
  const beyond = [...new Set(areas.map(({ area }) => area))].filter((area) => area !== backbone);
  if (beyond.length > 0 && areas.some(({ area }) => area === backbone))
    lines.push(line(say(`borders area ${beyond.join(', ')}`)));
  const nameOf = (id: string | null): string => network.get('vrf', id)?.name ?? '';
  const routes = network
    .find('routesByDevice', device.id)
    .sort((a, b) => compareNames(a.prefix, b.prefix) || compareNames(nameOf(a.vrfId), nameOf(b.vrfId)));
  for (const route of routes)
    if (route.discard && (sheet.vrfId === null || route.vrfId === sheet.vrfId))
      lines.push(line(say(`summary ${route.prefix}`, 'subnets')));
  const byVrf = new Map<string | null, RoutedSubnet[]>();
  for (const subnet of alone)
    if (subnet.members.some((member) => member.device.id === device.id))
      byVrf.set(subnet.vrfId, [...(byVrf.get(subnet.vrfId) ?? []), subnet]);
  for (const [vrfId, subnets] of [...byVrf].sort(([a], [b]) => compareNames(nameOf(a), nameOf(b)))) {
    const [only] = subnets;
    lines.push(
      line(
        sayChips(
          vrfChip(
            network.get('vrf', vrfId),
            only !== undefined && subnets.length === 1
              ? formatPrefix(only.prefix)
              : `${subnets.length} subnets for hosts`,
          ),
          'subnets',
        ),
      ),
    );
  }
  return lines;
}

/** The plugged port that an interface sends by, if it is one: itself, what it runs over, a member. */
function pluggedOf(network: Network, port: Port): Port | null {
  if (port.form === 'subinterface' || port.form === 'tunnel') {
    const parent = network.get('port', port.parentId);
    return parent === null ? null : pluggedOf(network, parent);
  }
  if (port.form === 'aggregate') return network.find('portsByAggregate', port.id).sort(byName)[0] ?? null;
  return port.form === 'physical' ? port : null;
}

/** The circuit that the run from an interface crosses first, and the medium at its start. */
function wayOf(
  network: Network,
  port: Port,
): { circuit: Circuit | null; medium: Medium; cable: Line | null } {
  const plugged = pluggedOf(network, port);
  if (plugged === null) return { circuit: null, medium: 'copper', cable: null };
  const own = circuitAt(network, plugged.id);
  const hops = traceRun(network, plugged.id).hops;
  const circuits = hops.flatMap((hop) =>
    'circuit' in hop ? (network.get('circuit', hop.circuit) ?? []) : [],
  );
  const circuit = own ?? circuits[0] ?? null;
  const cable = cableAt(network, plugged.id);
  const medium =
    circuit === null
      ? drawnMedium(network.get('model', cable?.typeId ?? null))
      : circuit.kind === 'radio hop'
        ? 'radio'
        : 'circuit';
  return {
    circuit,
    medium: port.form === 'tunnel' ? 'circuit' : medium,
    cable: cable === null ? null : { kind: 'cable', id: cable.id, label: cable.label },
  };
}

interface Reader {
  network: Network;
  sheet: Sheet;
  kept: Kept;
}

/** An end of a link: its port, its address, its cost. */
function endText({ network, sheet }: Reader, member: Member, prefix: IpPrefix): Told {
  const written = (address: IpAddress): string =>
    sheet.reading.wholeAddresses === true ? formatIp(address) : hostPart(address, prefix);
  return told(
    say(member.port.name, 'portNames'),
    say(written(member.own.address), 'addresses'),
    say(member.port.vid === null ? '' : String(member.port.vid), 'vlanTags'),
    say(member.port.ospf === null ? '' : `cost ${ospfCost(network, member.port)}`, 'costs'),
  );
}

function lineOf(network: Network, subnet: RoutedSubnet): Line {
  if (subnet.row !== null) return { kind: 'prefix', id: subnet.row.id, label: subnet.row.prefix };
  const member = subnet.members[0];
  const way = member === undefined ? null : wayOf(network, member.port);
  if (way?.circuit != null) return { kind: 'circuit', id: way.circuit.id, label: way.circuit.number };
  return way?.cable ?? { kind: 'port', id: member?.port.id ?? '', label: formatPrefix(subnet.prefix) };
}

const shadeOf = (network: Network, vrfId: string | null): ToldLink['shade'] => {
  const vrf = network.get('vrf', vrfId);
  return vrf === null ? null : { scale: 'set', index: vrf.colour };
};

function linkBetween(reader: Reader, subnet: RoutedSubnet, a: Member, b: Member): ToldLink {
  const { network } = reader;
  const of = lineOf(network, subnet);
  const { circuit, medium } = wayOf(network, a.port);
  return {
    id: subnet.key,
    of,
    cables: [of],
    a: a.device.id,
    b: b.device.id,
    aPort: endText(reader, a, subnet.prefix),
    bPort: endText(reader, b, subnet.prefix),
    ties: [null, null],
    aOrdinal: a.port.ordinal,
    medium,
    jacket: null,
    shade: shadeOf(network, subnet.vrfId),
    text: told(
      say(formatPrefix(subnet.prefix), 'subnets'),
      say(circuit?.provider ?? '', 'names', 'cableLabels'),
    ),
    management: false,
  };
}

/** A subnet of three routers or more as a bar that each of them hangs on; with the addresses they share. */
function bus(
  reader: Reader,
  subnet: RoutedSubnet,
  containerId: string | null,
): { node: ToldNode; links: ToldLink[] } {
  const { network } = reader;
  const id = `subnet:${subnet.key}`;
  const shared = new Set(
    subnet.members.flatMap((member) =>
      network.find('redundanciesByPort', member.port.id).map((part) => part.virtual),
    ),
  );
  const of = lineOf(network, subnet);
  const vrf = network.get('vrf', subnet.vrfId);
  const name = subnet.row?.name ?? null;
  const chip = vrfChip(vrf, '');
  const lines = [
    line(sayChips({ ...chip, text: chip.text.trim() }), say(name ?? '')),
    line(say(shared.size === 0 ? '' : `shared ${[...shared].sort().join(' ')}`, 'addresses')),
  ];
  return {
    node: {
      id,
      form: 'subnet',
      deviceIds: [],
      subjects: subnet.row === null ? [] : [subnet.row.id],
      role: 'XX',
      code: say(''),
      name: say(formatPrefix(subnet.prefix), 'subnets'),
      lines,
      mostLines,
      containerId,
      outside: false,
      planned: subnet.row?.status === 'planned',
      retired: false,
      shade: shadeOf(network, subnet.vrfId) ?? { scale: 'role', family: 'passive' },
      symbol: null,
      sheetId: null,
    },
    links: subnet.members.map((member) => ({
      id: `${subnet.key} ${member.port.id}`,
      of,
      cables: [{ kind: 'port', id: member.port.id, label: `${member.device.name} ${member.port.name}` }],
      a: member.device.id,
      b: id,
      aPort: endText(reader, member, subnet.prefix),
      bPort: told(),
      ties: [null, null],
      aOrdinal: member.port.ordinal,
      medium: 'copper',
      jacket: null,
      shade: shadeOf(network, subnet.vrfId),
      text: told(),
      management: false,
    })),
  };
}

/** Where a subnet leads into the network of a provider: that as a plate, and the session with it. */
function outward(
  reader: Reader,
  subnet: RoutedSubnet,
): { circuit: Circuit; node: ToldNode; link: ToldLink } | null {
  const { network } = reader;
  const [member] = subnet.members;
  const way = member === undefined ? null : wayOf(network, member.port);
  const circuit = way?.circuit ?? null;
  if (member === undefined || circuit === null || circuit.provider === null) return null;
  if (circuit.aPortId !== null && circuit.bPortId !== null) return null;
  const id = `provider:${circuit.provider}`;
  const of = lineOf(network, subnet);
  const session = network
    .find('bgpSessionsByDevice', member.device.id)
    .find((one) => one.vrfId === subnet.vrfId && !one.neighbour.includes(':'));
  return {
    circuit,
    node: {
      id,
      form: 'provider',
      deviceIds: [],
      subjects: [circuit.id],
      role: 'EX',
      code: say('EX'),
      name: say(circuit.provider, 'names'),
      lines: session === undefined ? [] : [line(say(`AS ${session.remoteAs}`))],
      mostLines,
      containerId: null,
      outside: true,
      planned: false,
      retired: false,
      shade: { scale: 'role', family: 'outside' },
      symbol: null,
      sheetId: null,
    },
    link: {
      id: subnet.key,
      of,
      cables: [of],
      a: member.device.id,
      b: id,
      aPort: endText(reader, member, subnet.prefix),
      bPort: told(say(session?.neighbour ?? '', 'addresses')),
      ties: [null, null],
      aOrdinal: member.port.ordinal,
      medium: 'circuit',
      jacket: null,
      shade: shadeOf(network, subnet.vrfId),
      text: told(say(formatPrefix(subnet.prefix), 'subnets')),
      management: false,
    },
  };
}

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
  const wanted = (sheet.picked ? picked() : devicesInScope(network, sheet.scopeId)).filter(
    (device) => device.status !== 'retired' && isRouter(network, device),
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

/**
 * What a routing sheet shows: routers, firewalls and switches that route, the subnets between them with the address of
 * each end, areas of OSPF as containers, subnets that three or more share as bars, and providers where one leads out.
 */
export function routingGraph(network: Network, sheet: Sheet, kept: Kept): SheetReading {
  const reader: Reader = { network, sheet, kept };
  const { routers, within, away } = routersOf(reader);
  const rest = { shades: [], linkShades: [], waiting: [], away };
  if (routers.length > mostDevices) return { ...rest, graph: nothingTold(), tooMany: routers.length };
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
  const subnets = subnetsOf(network, everywhere).filter(
    (subnet) =>
      (sheet.vrfId === null || subnet.vrfId === sheet.vrfId) &&
      subnet.members.some((member) => within.has(member.device.id)),
  );
  const nodes = new Map<string, ToldNode>();
  const links: ToldLink[] = [];
  const containers = new Map<string, GraphContainer>();
  const devices = new Map(routers.map((device) => [device.id, device]));
  const seenPairs = new Set<string>();
  const alone: RoutedSubnet[] = [];
  const containerOf = (device: Device): string | null => {
    const areas = areasOf(network, device, sheet.vrfId);
    const home = areas.find(({ area }) => area === backbone) ?? areas[0];
    if (home === undefined) return null;
    const vrf = network.get('vrf', home.vrfId);
    containers.set(home.key, {
      id: home.key,
      form: 'area',
      title: `OSPF area ${home.area}${vrf === null ? '' : ` · ${vrf.name}`}`,
      parentId: null,
      sheetId: null,
    });
    return home.key;
  };
  for (const subnet of subnets) {
    const owners = joins(subnet) ? [...new Set(subnet.members.map((member) => member.device.id))] : [];
    // What IPv4 and IPv6 have in common is drawn once.
    const pair = `${subnet.vrfId ?? ''} ${subnet.members
      .map((member) => member.port.id)
      .sort()
      .join(' ')}`;
    if (owners.length > 1 && seenPairs.has(pair)) continue;
    seenPairs.add(pair);
    for (const member of owners.length > 1 ? subnet.members : [])
      devices.set(member.device.id, member.device);
    const [a, b] = subnet.members;
    if (owners.length === 2 && subnet.members.length === 2 && a !== undefined && b !== undefined)
      links.push(linkBetween(reader, subnet, a, b));
    else if (owners.length > 1) {
      const homes = new Set(subnet.members.map((member) => containerOf(member.device)));
      const [home] = homes;
      const made = bus(reader, subnet, homes.size === 1 ? (home ?? null) : null);
      nodes.set(made.node.id, made.node);
      links.push(...made.links);
    } else {
      const made = outward(reader, subnet);
      if (made === null) alone.push(subnet);
      else {
        const known = nodes.get(made.node.id);
        if (known === undefined) nodes.set(made.node.id, made.node);
        else {
          known.subjects.push(...made.node.subjects);
          known.lines = distinct([...known.lines, ...made.node.lines]);
        }
        links.push(made.link);
      }
    }
  }
  const ids = new Set(alone.filter((subnet) => subnet.prefix.family === 4).map((subnet) => subnet.key));
  for (const device of devices.values()) {
    const lines = linesOf(
      network,
      sheet,
      device,
      alone.filter((subnet) => ids.has(subnet.key)),
    );
    nodes.set(device.id, {
      id: device.id,
      form: 'device',
      deviceIds: [device.id],
      subjects: [device.id],
      role: device.role,
      code: say(device.role),
      name: say(device.name, 'names'),
      lines,
      mostLines,
      containerId: containerOf(device),
      outside: !within.has(device.id),
      planned: device.status === 'planned',
      retired: false,
      shade: { scale: 'role', family: roles[device.role].family },
      symbol: network.get('model', device.modelId)?.symbol ?? null,
      sheetId: null,
    });
  }
  const vrfs = [...new Set(subnets.map((subnet) => subnet.vrfId))].sort((a, b) =>
    compareNames(network.get('vrf', a)?.name ?? '', network.get('vrf', b)?.name ?? ''),
  );
  return {
    ...rest,
    graph: {
      nodes: [...nodes.values()],
      links,
      stubs: [],
      containers: [...containers.values()].sort((x, y) => (x.title < y.title ? -1 : 1)),
    },
    colours: vrfs.flatMap((vrfId): NonNullable<SheetReading['colours']> => {
      const vrf = network.get('vrf', vrfId);
      return vrf === null
        ? []
        : [{ label: say(`VRF ${vrf.name}`), shade: { scale: 'set', index: vrf.colour } }];
    }),
    tooMany: null,
  };
}

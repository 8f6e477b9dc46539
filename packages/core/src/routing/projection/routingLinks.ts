import { formatIp, formatPrefix, type IpAddress, type IpPrefix } from '../../model/values/ip.ts';
import type { Circuit } from '../../model/kinds/lines/circuit.ts';
import { ospfCost } from '../ospfCost.ts';
import type { Member, RoutedSubnet } from '../subnets.ts';
import { vrfChip } from '../../sheets/graph/chips.ts';
import {
  line,
  say,
  sayChips,
  told,
  type Told,
  type ToldLink,
  type ToldNode,
} from '../../sheets/graph/told.ts';
import { hostPart } from './hostPart.ts';
import { mostLines } from './routerPlates.ts';
import { lineOf, shadeOf, wayOf, type Reader } from './routingWays.ts';

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

/** The subnet of two routers as a line between them. */
export function linkBetween(reader: Reader, subnet: RoutedSubnet, a: Member, b: Member): ToldLink {
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
export function bus(
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
export function outward(
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

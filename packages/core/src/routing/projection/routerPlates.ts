import { formatIp, formatPrefix } from '../../model/values/ip.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Network } from '../../model/network/network.ts';
import { compareNames } from '../../model/values/order.ts';
import { roles } from '../../model/values/roles.ts';
import { areaText, interfacesOf } from '../interfaces.ts';
import type { RoutedSubnet } from '../subnets.ts';
import { vrfChip } from '../../sheets/graph/chips.ts';
import type { GraphContainer } from '../../sheets/graph/sheetGraph.ts';
import { line, say, sayChips, type Told, type ToldNode } from '../../sheets/graph/told.ts';
import type { Reader } from './routingWays.ts';

const backbone = '0';
/** More lines than this are not written on a plate. */
export const mostLines = 8;

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
function linesOf({ network, sheet }: Reader, device: Device, alone: readonly RoutedSubnet[]): Told[] {
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

/** The area that a router is drawn in: the backbone where it is part of it; null: none. */
export function homeOf({ network, sheet }: Reader, device: Device): GraphContainer | null {
  const areas = areasOf(network, device, sheet.vrfId);
  const home = areas.find(({ area }) => area === backbone) ?? areas[0];
  if (home === undefined) return null;
  const vrf = network.get('vrf', home.vrfId);
  return {
    id: home.key,
    form: 'area',
    title: `OSPF area ${home.area}${vrf === null ? '' : ` · ${vrf.name}`}`,
    parentId: null,
    sheetId: null,
  };
}

/** A router as a plate; `alone`: subnets that only hosts are in. */
export const routerPlate = (
  reader: Reader,
  device: Device,
  alone: readonly RoutedSubnet[],
  containerId: string | null,
  outside: boolean,
): ToldNode => ({
  id: device.id,
  form: 'device',
  deviceIds: [device.id],
  subjects: [device.id],
  role: device.role,
  code: say(device.role),
  name: say(device.name, 'names'),
  lines: linesOf(reader, device, alone),
  mostLines,
  containerId,
  outside,
  planned: device.status === 'planned',
  retired: false,
  shade: { scale: 'role', family: roles[device.role].family },
  symbol: reader.network.get('model', device.modelId)?.symbol ?? null,
  sheetId: null,
});

import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import type { Peering } from '../../model/kinds/cloud/peering.ts';
import type { Device } from '../../model/kinds/equipment/device.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import type { Network } from '../../model/network/network.ts';
import { roles } from '../../model/values/roles.ts';
import { line, say, type Told, type ToldNode } from '../../sheets/graph/told.ts';
import { effectiveRoutes } from '../effectiveRoutes.ts';
import { prefixesOf, seatsOfDevice, type GatewayDevice } from '../inventory.ts';
import { publicAddressesOf } from '../wayOut.ts';
import { subjectOf } from './cloudScope.ts';

const mostLines = 3;
/** More addresses than this are counted. */
const mostAddresses = 2;

const addressLines = (network: Network, device: Device): Told[] => {
  const own = [
    ...new Set(seatsOfDevice(network, device.id).map(({ row }) => row.address.replace(/\/\d+$/, ''))),
  ];
  const more = own.length > mostAddresses ? ` +${own.length - mostAddresses}` : '';
  return [
    line(say(`${own.slice(0, mostAddresses).join(' ')}${more}`, 'addresses')),
    line(say(publicAddressesOf(network, device.id).join(' '), 'addresses')),
  ];
};

const bare = {
  ...{ outside: false, planned: false, retired: false, symbol: null, sheetId: null },
  ...{ deviceIds: [], role: 'XX', code: say(''), lines: [], mostLines, containerId: null },
} satisfies Partial<ToldNode>;

/** A device that stands in a cloud or beside it. */
export const devicePlate = (
  network: Network,
  device: Device,
  containerId: string | null,
  lines: readonly Told[] = addressLines(network, device),
): ToldNode => ({
  ...bare,
  ...{ id: device.id, form: 'device', deviceIds: [device.id], subjects: [device.id], role: device.role },
  code: say(device.role),
  name: say(device.name, 'names'),
  lines,
  containerId,
  planned: device.status === 'planned',
  shade: { scale: 'role', family: roles[device.role].family },
});

/** Instances of a subnet that are alike in all that a sheet tells, as one plate. */
export const foldedPlate = (id: string, devices: readonly Device[], containerId: string | null): ToldNode => {
  const [first, last] = [devices[0], devices.at(-1)];
  const role = first?.role ?? 'XX';
  return {
    ...bare,
    ...{ id, form: 'fold', role, containerId },
    deviceIds: devices.map((device) => device.id),
    subjects: devices.map((device) => device.id),
    code: say(role),
    name: say(`${first?.name ?? ''} … ${last?.name ?? ''}`, 'names'),
    planned: first?.status === 'planned',
    shade: { scale: 'role', family: roles[role].family },
  };
};

const ways: Record<GatewayDevice['gateway']['direction'], string> = {
  both: 'in and out',
  in: 'in',
  out: 'out',
  between: 'between networks',
};

/** A gateway: on the border of its network, or in the subnet that it stands in. */
export function gatewayPlate(
  network: Network,
  { device, gateway }: GatewayDevice,
  containerId: string | null,
  border: ToldNode['border'] | null,
): ToldNode {
  const what = `${ways[gateway.direction]}${gateway.translates ? ', translates' : ''}`;
  return {
    ...devicePlate(network, device, containerId, [line(say(what)), ...addressLines(network, device)]),
    ...(border == null ? {} : { border, base: true }),
  };
}

/** What stands for a subnet in its box: its prefixes and by what it is sent. Routes begin here. */
export function subnetPlate(network: Network, subnet: CloudSubnet): ToldNode {
  const subject = subjectOf(network, subnet);
  const [first, ...more] = prefixesOf(network, subnet);
  const table = network.get('routeTable', subnet.routeTableId);
  const set = network.get('ruleSet', subnet.ruleSetId);
  return {
    ...bare,
    ...{ id: `subnet:${subnet.id}`, form: 'subnet', containerId: subnet.id, base: true },
    subjects: subject === null ? [] : [subject],
    name: say(first?.row.prefix ?? 'no prefix', 'subnets'),
    lines: [
      ...more.map(({ row }) => line(say(row.prefix, 'subnets'))),
      table === null ? line(say('no route table')) : line(say(`routes ${table.name}`, 'names')),
      line(say(set === null ? '' : `border ${set.name}`, 'names')),
    ],
    planned: first?.row.status === 'planned',
    shade: { scale: 'role', family: 'passive' },
    picks: { kind: 'cloudSubnet', id: subnet.id },
  };
}

/** Whether packets of a network for the other side of a peering are sent through it. */
const routedBy = (network: Network, peeringId: string, networkId: string): boolean =>
  network
    .find('cloudSubnetsByNetwork', networkId)
    .some((subnet) =>
      effectiveRoutes(network, subnet).routes.some(
        ({ way }) => way.by === 'peering' && way.peeringId === peeringId,
      ),
    );

/** One end of a peering, on the border of its network: to which, and what is missing at this side. */
export function peeringPlate(
  network: Network,
  peering: Peering,
  place: Place,
  containerId: string | null,
  side: 'left' | 'right',
): ToldNode {
  const atA = peering.aNetworkId === place.id;
  const far = network.get('place', atA ? peering.bNetworkId : peering.aNetworkId)?.name ?? '';
  const accepted = atA ? peering.aAccepted : peering.bAccepted;
  return {
    ...bare,
    ...{ id: `peering:${peering.id}:${place.id}`, form: 'subnet', containerId, subjects: [], base: true },
    name: say(`to ${far}`, 'names'),
    lines: [
      line(say(accepted ? '' : 'not accepted')),
      line(say(routedBy(network, peering.id, place.id) ? '' : 'no route')),
    ],
    shade: { scale: 'role', family: 'passive' },
    border: { of: place.id, side },
    picks: { kind: 'peering', id: peering.id },
  };
}

/** Where a network is attached to a router of the region. */
export const attachmentPlate = (
  network: Network,
  attachment: { id: string; name: string; tableId: string | null },
  placeId: string,
  containerId: string | null,
): ToldNode => ({
  ...bare,
  ...{ id: `attachment:${attachment.id}`, form: 'subnet', containerId, subjects: [], base: true },
  name: say(attachment.name, 'names'),
  lines: [
    line(
      say(
        attachment.tableId === null
          ? 'looked up nowhere'
          : `looked up in ${network.get('routeTable', attachment.tableId)?.name ?? ''}`,
        'names',
      ),
    ),
  ],
  shade: { scale: 'role', family: 'passive' },
  border: { of: placeId, side: 'bottom' },
  picks: { kind: 'hubAttachment', id: attachment.id },
});

/** All that is out there. The sheet keeps where it stands by an account. */
export const internetId = 'internet';
export const internetPlate = (subjects: readonly string[]): ToldNode => ({
  ...bare,
  ...{ id: internetId, form: 'provider', role: 'EX', subjects: [...subjects], outside: true },
  code: say('EX'),
  name: say('Internet'),
  shade: { scale: 'role', family: 'outside' },
});

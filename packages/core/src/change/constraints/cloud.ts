import type { CloudAccount } from '../../model/kinds/cloud/cloudAccount.ts';
import type { CloudSubnet } from '../../model/kinds/cloud/cloudSubnet.ts';
import type { Gateway, HubAttachment } from '../../model/kinds/cloud/gateway.ts';
import type { Peering } from '../../model/kinds/cloud/peering.ts';
import type { PublicAddress } from '../../model/kinds/cloud/publicAddress.ts';
import type { CloudTable } from '../../model/kinds/cloud/routeTable.ts';
import type { RuleSet, RuleSetUse } from '../../model/kinds/cloud/ruleSet.ts';
import type { VirtualNetwork } from '../../model/kinds/cloud/virtualNetwork.ts';
import type { Prefix } from '../../model/kinds/logical/prefix.ts';
import type { Rack } from '../../model/kinds/sites/rack.ts';
import { isCloudPlaceKind, placeKindTitle, type PlaceKind } from '../../model/kinds/sites/place.ts';
import { anyKind, kinds, type Kind, type Row } from '../../model/kinds.ts';
import type { Problem } from '../../model/fields/problem.ts';
import { cloudPlaceAround } from '../../model/network/cloudPlaces.ts';
import type { Network } from '../../model/network/network.ts';
import { holds, parsePrefix, privateSpace } from '../../model/values/ip.ts';

const impossible = (kind: Kind, row: Row, field: string, message: string, about?: string): Problem => ({
  code: 'impossible',
  kind,
  id: row.id,
  about: about ?? `${kinds[kind].one} ${anyKind(kind).nameOf(row)}`.trim(),
  field,
  message,
});

/** A reference that has to lead to a place of some kind. */
function leadsTo(
  network: Network,
  kind: Kind,
  row: Row,
  field: string,
  placeId: string | null,
  wanted: readonly PlaceKind[],
): Problem[] {
  const place = network.get('place', placeId);
  if (place === null || wanted.some((one) => one === place.kind)) return [];
  const words = wanted.map(placeKindTitle).join(' or ');
  return [
    impossible(
      kind,
      row,
      field,
      `${place.name} is a ${placeKindTitle(place.kind)}, not ${/^[aeiou]/.test(words) ? 'an' : 'a'} ${words}. Choose one.`,
    ),
  ];
}

export const accountIsOne = (network: Network, row: CloudAccount): Problem[] =>
  leadsTo(network, 'cloudAccount', row, 'placeId', row.placeId, ['account']);

export const networkIsOne = (network: Network, row: VirtualNetwork): Problem[] =>
  leadsTo(network, 'virtualNetwork', row, 'placeId', row.placeId, ['network']);

/** Racks are of iron: they stand on the premises. */
export function rackStandsOnPremises(network: Network, rack: Rack): Problem[] {
  const place = network.get('place', rack.placeId);
  if (place === null || !isCloudPlaceKind(place.kind)) return [];
  return [
    impossible(
      'rack',
      rack,
      'placeId',
      `${rack.name} cannot stand in ${place.name}: that is a ${placeKindTitle(place.kind)} of a cloud. Choose a place of the premises.`,
    ),
  ];
}

/** A block of a virtual network: private space (RFC 1918, RFC 6598) in its own VRF, on nothing else of the network. */
export function blockFits(network: Network, row: Prefix): Problem[] {
  const place = network.get('place', row.placeId);
  if (place?.kind !== 'network') return [];
  const own = network.findOne('virtualNetworkByPlace', place.id);
  const vrf = network.get('vrf', own?.vrfId ?? null);
  if (own !== null && vrf !== null && row.vrfId !== own.vrfId)
    return [
      impossible(
        'prefix',
        row,
        'vrfId',
        `${row.prefix} is in ${place.name}, whose addresses are in the VRF ${vrf.name}. Put it there.`,
      ),
    ];
  const prefix = parsePrefix(row.prefix);
  if (prefix === null || row.role !== 'pool') return [];
  if (prefix.family === 4 && !privateSpace.some((space) => holds(space, prefix)))
    return [
      impossible(
        'prefix',
        row,
        'prefix',
        `${row.prefix} is outside what private use allows. Choose a block in 10.0.0.0/8, 172.16.0.0/12, 192.168.0.0/16 (RFC 1918) or 100.64.0.0/10 (RFC 6598).`,
      ),
    ];
  const other = network.find('prefixesByPlace', place.id).find((one) => {
    const read = one.id === row.id || one.role !== 'pool' ? null : parsePrefix(one.prefix);
    return read !== null && (holds(read, prefix) || holds(prefix, read));
  });
  return other === undefined
    ? []
    : [
        impossible(
          'prefix',
          row,
          'prefix',
          `${row.prefix} overlaps ${other.prefix}, which ${place.name} has already. Choose a block beside it.`,
        ),
      ];
}

/** A subnet is in a network, in a zone of its region, with prefixes of its blocks and a route table of its own network. */
export function subnetFits(network: Network, row: CloudSubnet): Problem[] {
  const wrong = [
    ...leadsTo(network, 'cloudSubnet', row, 'placeId', row.placeId, ['network']),
    ...leadsTo(network, 'cloudSubnet', row, 'zoneId', row.zoneId, ['zone']),
  ];
  const place = network.get('place', row.placeId);
  if (wrong.length > 0 || place === null) return wrong;
  const zone = network.get('place', row.zoneId);
  const region = cloudPlaceAround(network, place.id, 'region');
  if (zone !== null && zone.parentId !== region?.id)
    wrong.push(
      impossible(
        'cloudSubnet',
        row,
        'zoneId',
        `The zone ${zone.name} is in ${network.get('place', zone.parentId)?.name ?? 'another region'}, but ${place.name} is in ${region?.name ?? 'no region'}. Choose a zone of that region.`,
      ),
    );
  const table = network.get('routeTable', row.routeTableId);
  if (table !== null && table.placeId !== place.id)
    wrong.push(
      impossible(
        'cloudSubnet',
        row,
        'routeTableId',
        `The route table ${table.name} is of another virtual network than ${place.name}. Choose one of its own.`,
      ),
    );
  const set = network.get('ruleSet', row.ruleSetId);
  if (set !== null && set.ties !== 'subnets')
    wrong.push(
      impossible(
        'cloudSubnet',
        row,
        'ruleSetId',
        `The rule set ${set.name} is tied to interfaces, not to subnets. Choose another, or set it so.`,
      ),
    );
  return [...wrong, ...prefixesFit(network, row)];
}

function prefixesFit(network: Network, row: CloudSubnet): Problem[] {
  const place = network.get('place', row.placeId);
  const own = network.findOne('virtualNetworkByPlace', row.placeId);
  const blocks = network
    .find('prefixesByPlace', row.placeId)
    .flatMap((one) => (one.role === 'pool' ? (parsePrefix(one.prefix) ?? []) : []));
  return (['prefixId', 'v6PrefixId'] as const).flatMap((field) => {
    const prefix = network.get('prefix', row[field]);
    const read = prefix === null ? null : parsePrefix(prefix.prefix);
    if (prefix === null || read === null) return [];
    const problem = (message: string): Problem[] => [impossible('cloudSubnet', row, field, message)];
    if (read.family !== (field === 'prefixId' ? 4 : 6))
      return problem(
        `${prefix.prefix} is IPv${read.family}. Choose an IPv${field === 'prefixId' ? 4 : 6} prefix here.`,
      );
    if (own !== null && prefix.vrfId !== own.vrfId)
      return problem(
        `${prefix.prefix} is not in the VRF of ${place?.name ?? 'the network'}. Choose a prefix of that.`,
      );
    if (!blocks.some((block) => holds(block, read)))
      return problem(
        `${prefix.prefix} is in no block of ${place?.name ?? 'the network'}. Choose a prefix inside one, or add the block first.`,
      );
    const other = network.find('cloudSubnetsByPrefix', prefix.id).find(({ id }) => id !== row.id);
    return other === undefined
      ? []
      : problem(`${prefix.prefix} is that of the cloud subnet ${other.name} already. Choose another.`);
  });
}

/** A route table is of a network or of a gateway that joins networks. */
export const tableFits = (network: Network, row: CloudTable): Problem[] =>
  leadsTo(network, 'routeTable', row, 'placeId', row.placeId, ['network']);

export const gatewayFits = (network: Network, row: Gateway): Problem[] =>
  leadsTo(network, 'gateway', row, 'networkId', row.networkId, ['network']);

/** An attachment is looked up in a table of its own router. */
export function attachmentFits(network: Network, row: HubAttachment): Problem[] {
  const wrong = leadsTo(network, 'hubAttachment', row, 'networkId', row.networkId, ['network']);
  const table = network.get('routeTable', row.tableId);
  if (table !== null && table.hubId !== row.hubId)
    wrong.push(
      impossible(
        'hubAttachment',
        row,
        'tableId',
        `The route table ${table.name} is not one of ${network.get('device', row.hubId)?.name ?? 'the router'}. Choose one of its own.`,
      ),
    );
  return wrong;
}

/** A peering joins two virtual networks, and two networks once. */
export function peeringFits(network: Network, row: Peering): Problem[] {
  const wrong = (['aNetworkId', 'bNetworkId'] as const).flatMap((field) =>
    leadsTo(network, 'peering', row, field, row[field], ['network']),
  );
  const pair = [row.aNetworkId, row.bNetworkId];
  const twice = network
    .find('peeringsByNetwork', row.aNetworkId)
    .find(
      (other) => other.id !== row.id && pair.includes(other.aNetworkId) && pair.includes(other.bNetworkId),
    );
  if (twice !== undefined)
    wrong.push(
      impossible(
        'peering',
        row,
        'bNetworkId',
        `${pair.map((id) => network.get('place', id)?.name ?? '').join(' and ')} are peered by ${twice.name} already. Change that peering instead.`,
      ),
    );
  return wrong;
}

export const ruleSetFits = (network: Network, row: RuleSet): Problem[] =>
  leadsTo(network, 'ruleSet', row, 'placeId', row.placeId, ['network']);

export function ruleSetUseFits(network: Network, row: RuleSetUse): Problem[] {
  const set = network.get('ruleSet', row.setId);
  return set === null || set.ties === 'interfaces'
    ? []
    : [
        impossible(
          'ruleSetUse',
          row,
          'setId',
          `The rule set ${set.name} is tied to subnets, not to interfaces. Choose another, or set it so.`,
          `rule set ${set.name}`,
        ),
      ];
}

export const publicAddressFits = (network: Network, row: PublicAddress): Problem[] =>
  leadsTo(network, 'publicAddress', row, 'placeId', row.placeId, ['account', 'region']);

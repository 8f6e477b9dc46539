import { addressesIn, prefixOf } from '../addressing/plan.ts';
import type { CloudSubnet } from '../model/kinds/cloud/cloudSubnet.ts';
import type { Gateway } from '../model/kinds/cloud/gateway.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Address } from '../model/kinds/logical/address.ts';
import type { Prefix } from '../model/kinds/logical/prefix.ts';
import type { Place } from '../model/kinds/sites/place.ts';
import { cloudPlaceAround } from '../model/network/cloudPlaces.ts';
import { derivedBy } from '../model/network/derived.ts';
import type { Network } from '../model/network/network.ts';
import { childPlaces, devicesIn, placesWithin } from '../model/network/places.ts';
import { keptWhile, type Reads } from '../model/network/reads.ts';
import { compareIp, parseInterface, parsePrefix, type IpAddress, type IpPrefix } from '../model/values/ip.ts';
import { byName, compareNames } from '../model/values/order.ts';

/** A prefix row with what it says. */
export interface ReadPrefix {
  row: Prefix;
  prefix: IpPrefix;
}
const read = (row: Prefix | null): ReadPrefix[] => {
  const prefix = row === null ? null : parsePrefix(row.prefix);
  return row === null || prefix === null ? [] : [{ row, prefix }];
};

/** The virtual networks in a scope, by name; null stands for the whole project. */
export const networksIn = (network: Network, scopeId: string | null): Place[] =>
  [...(scopeId === null ? network.all('place') : placesWithin(network, scopeId))]
    .flatMap((one) => (typeof one === 'string' ? (network.get('place', one) ?? []) : one))
    .filter((place) => place.kind === 'network')
    .sort(byName);

/** The blocks of a virtual network, IPv4 before IPv6, in order. */
export const blocksOf = (network: Network, networkId: string): ReadPrefix[] =>
  network
    .find('prefixesByPlace', networkId)
    .filter(({ role }) => role === 'pool')
    .flatMap(read)
    .sort((a, b) => compareIp(a.prefix, b.prefix));

/** The VRF that the addresses of a virtual network are in; null where nobody has said it. */
export const vrfOf = (network: Network, networkId: string): string | null =>
  network.findOne('virtualNetworkByPlace', networkId)?.vrfId ?? null;

/** The virtual network that a VRF is of; null for those of the premises. */
export const networkOfVrf = (network: Network, vrfId: string | null): string | null =>
  vrfId === null ? null : (network.findOne('virtualNetworkByVrf', vrfId)?.placeId ?? null);

/** The prefixes of a cloud subnet, IPv4 first. */
export const prefixesOf = (network: Network, subnet: CloudSubnet): ReadPrefix[] =>
  [subnet.prefixId, subnet.v6PrefixId].flatMap((id) => read(network.get('prefix', id)));

/** The subnets of a virtual network in order of zone, then of prefix, then of name. */
export function subnetsOf(network: Network, networkId: string): CloudSubnet[] {
  const zone = ({ zoneId }: CloudSubnet): string => network.get('place', zoneId)?.name ?? '';
  const first = new Map(
    network.find('cloudSubnetsByNetwork', networkId).map((one) => [one, prefixesOf(network, one)[0]?.prefix]),
  );
  return [...first.keys()].sort((a, b) => {
    const [x, y] = [first.get(a), first.get(b)];
    return (
      compareNames(zone(a), zone(b)) ||
      (x === undefined || y === undefined
        ? Number(x === undefined) - Number(y === undefined)
        : compareIp(x, y)) ||
      compareNames(a.name, b.name)
    );
  });
}

/** The cloud subnet that an address of a VRF is in; null where it is in none. */
export function subnetOfAddress(network: Network, vrfId: string | null, ip: IpAddress): CloudSubnet | null {
  if (networkOfVrf(network, vrfId) === null) return null;
  const prefix = prefixOf(network, vrfId, ip);
  return prefix === null ? null : network.findOne('cloudSubnetsByPrefix', prefix.id);
}

/** One address of an interface, with the cloud subnet that it is in. */
export interface Seat {
  portId: string;
  row: Address;
  ip: IpAddress;
  subnet: CloudSubnet;
}

/** What says where interfaces stand. */
const seatReads: Reads = {
  ...{ address: 'all', cloudSubnet: 'all', virtualNetwork: ['placeId', 'vrfId'] },
  prefix: ['prefix', 'vrfId', 'status'],
};

/** Where an interface stands: its addresses in cloud subnets, main ones first, IPv4 before IPv6. */
export const seatsOf = derivedBy(seatsOfPort, keptWhile(seatReads));

function seatsOfPort(network: Network, portId: string): readonly Seat[] {
  return network
    .find('addressesByPort', portId)
    .flatMap((row): Seat[] => {
      const at = parseInterface(row.address);
      const subnet = at === null ? null : subnetOfAddress(network, row.vrfId, at.address);
      return at === null || subnet === null ? [] : [{ portId, row, ip: at.address, subnet }];
    })
    .sort(
      (a, b) =>
        Number(a.row.use === 'secondary') - Number(b.row.use === 'secondary') || compareIp(a.ip, b.ip),
    );
}

/** All places where a device stands in cloud subnets, interface by interface. */
export const seatsOfDevice = (network: Network, deviceId: string): Seat[] =>
  network
    .find('everyPortByDevice', deviceId)
    .sort(byName)
    .flatMap(({ id }) => seatsOf(network, id));

/** Who stands in a subnet, in order of address. */
export const seatsIn = derivedBy(seatsInSubnet, keptWhile(seatReads));

function seatsInSubnet(network: Network, subnet: CloudSubnet): readonly Seat[] {
  return prefixesOf(network, subnet)
    .flatMap(({ row: { vrfId }, prefix }) =>
      addressesIn(network, vrfId, prefix).flatMap((row): Seat[] => {
        const at = parseInterface(row.address);
        return at === null || row.portId === null
          ? []
          : [{ portId: row.portId, row, ip: at.address, subnet }];
      }),
    )
    .sort((a, b) => compareIp(a.ip, b.ip));
}

/** The zones that a device stands in by its place or its subnets, by name; none: in the region as a whole. */
export function zonesOf(network: Network, device: Device): Place[] {
  const own = cloudPlaceAround(network, device.placeId, 'zone');
  if (own !== null) return [own];
  const ids = new Set(seatsOfDevice(network, device.id).flatMap(({ subnet }) => subnet.zoneId ?? []));
  return [...ids].flatMap((id) => network.get('place', id) ?? []).sort(byName);
}

/** The virtual networks that a device stands in: by its place, by its addresses, or attached to it as a gateway. */
export function networksOfDevice(network: Network, device: Device): string[] {
  const ids = new Set<string>();
  const own = cloudPlaceAround(network, device.placeId, 'network');
  if (own !== null) ids.add(own.id);
  for (const { subnet } of seatsOfDevice(network, device.id)) ids.add(subnet.placeId);
  const attached = network.findOne('gatewayByDevice', device.id)?.networkId ?? null;
  if (attached !== null) ids.add(attached);
  return [...ids].sort((a, b) =>
    compareNames(network.get('place', a)?.name ?? '', network.get('place', b)?.name ?? ''),
  );
}

/** A gateway with the device that it is. */
export interface GatewayDevice {
  device: Device;
  gateway: Gateway;
}
export function gatewayOf(network: Network, deviceId: string | null): GatewayDevice | null {
  const device = network.get('device', deviceId);
  const gateway = device === null ? null : network.findOne('gatewayByDevice', device.id);
  return device === null || gateway === null ? null : { device, gateway };
}

/** The gateways attached to a virtual network, by name. */
export const gatewaysOf = (network: Network, networkId: string): GatewayDevice[] =>
  network
    .find('gatewaysByNetwork', networkId)
    .flatMap(({ deviceId }) => gatewayOf(network, deviceId) ?? [])
    .sort((a, b) => compareNames(a.device.name, b.device.name));

/** The instances of a virtual network: what stands in its subnets or at its place and is no gateway; by name. */
export function instancesOf(network: Network, networkId: string): Device[] {
  const found = new Map<string, Device>();
  const take = (device: Device | null): void => {
    if (device !== null && network.findOne('gatewayByDevice', device.id) === null)
      found.set(device.id, device);
  };
  for (const subnet of network.find('cloudSubnetsByNetwork', networkId))
    for (const { portId } of seatsIn(network, subnet))
      take(network.get('device', network.get('port', portId)?.deviceId ?? null));
  for (const device of devicesIn(network, [networkId])) take(device);
  return [...found.values()].sort(byName);
}

/** The zones of the region that a virtual network is in, by name. */
export function zonesAround(network: Network, networkId: string): Place[] {
  const region = cloudPlaceAround(network, networkId, 'region');
  return region === null ? [] : childPlaces(network, region.id).filter(({ kind }) => kind === 'zone');
}

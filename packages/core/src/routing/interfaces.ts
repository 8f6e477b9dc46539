import { inForce } from '../lens/inForce.ts';
import { prefixOf } from '../addressing/plan.ts';
import {
  compareIp,
  formatIp,
  holds,
  parseInterface,
  prefixAround,
  type IpAddress,
  type IpPrefix,
} from '../model/values/ip.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Ospf } from '../model/kinds/logical/routing.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { byName, compareNames } from '../model/values/order.ts';

/** One address of a port, with the subnet that it says it is in. */
export interface InterfaceAddress {
  address: IpAddress;
  subnet: IpPrefix;
}

/** A port of a device with addresses in one VRF. */
export interface RoutedInterface {
  port: Port;
  vrfId: string | null;
  /** Main addresses before secondary ones, IPv4 before IPv6. */
  addresses: InterfaceAddress[];
}

/** The global table, which has no name, stands before all. */
const vrfName = (network: Network, id: string | null): string => network.get('vrf', id)?.name ?? '';

/** Ports of a device that have addresses, one entry for each VRF they have them in. */
export function interfacesOf(network: Network, deviceId: string): RoutedInterface[] {
  const found: RoutedInterface[] = [];
  for (const port of network.find('everyPortByDevice', deviceId).sort(byName)) {
    const rows = network.find('addressesByPort', port.id);
    const vrfIds = [...new Set(rows.map((row) => row.vrfId))];
    for (const vrfId of vrfIds.sort((a, b) => compareNames(vrfName(network, a), vrfName(network, b)))) {
      const read = (secondary: boolean): InterfaceAddress[] =>
        rows
          .filter((row) => row.vrfId === vrfId && (row.use === 'secondary') === secondary)
          .flatMap((row) => parseInterface(row.address) ?? [])
          .map(({ address, length }) => ({ address, subnet: prefixAround(address, length) }))
          .sort((a, b) => compareIp(a.address, b.address));
      const addresses = [...read(false), ...read(true)].sort((a, b) => a.address.family - b.address.family);
      if (addresses.length > 0) found.push({ port, vrfId, addresses });
    }
  }
  return found;
}

/** The address of an interface in the same subnet as another; null where they have none in common. */
export function addressFacing(near: RoutedInterface, far: RoutedInterface, family: 4 | 6): IpAddress | null {
  for (const { address, subnet } of far.addresses)
    if (address.family === family && near.addresses.some((own) => holds(own.subnet, address)))
      if (near.addresses.some((own) => compareIp(own.subnet, subnet) === 0)) return address;
  return null;
}

/** Devices of these roles hand packets on by their nature. */
const routing = new Set(['RT', 'FW', 'GW']);

const carriesTraffic = ({ port }: RoutedInterface): boolean =>
  port.form !== 'loopback' && port.role !== 'management';

/** Whether others send through a device: it has routes, shares a virtual address, or is the gateway of a prefix. */
function isWayOut(network: Network, device: Device, interfaces: readonly RoutedInterface[]): boolean {
  if (network.countOf('routesByDevice', device.id) > 0) return true;
  return interfaces.some(
    ({ port, vrfId, addresses }) =>
      network.countOf('redundanciesByPort', port.id) > 0 ||
      addresses.some(({ address }) => prefixOf(network, vrfId, address)?.gateway === formatIp(address)),
  );
}

/**
 * Whether a device routes: by its role, by taking part in OSPF or BGP, or by having interfaces in two subnets of one
 * VRF and being the way out of one. A switch with addresses for its management alone does not.
 */
export function isRouter(whole: Network, device: Device): boolean {
  const network = inForce(whole);
  if (network.countOf('everyPortByDevice', device.id) === 0) return false;
  const interfaces = interfacesOf(network, device.id);
  // What opens or translates at the border of a cloud is drawn there; what joins networks is a router like others.
  const gateway = network.findOne('gatewayByDevice', device.id);
  if (gateway !== null && gateway.direction !== 'between') return false;
  if (routing.has(device.role)) return interfaces.length > 0;
  if (network.countOf('bgpSessionsByDevice', device.id) > 0) return true;
  if (interfaces.some(({ port }) => port.ospf !== null)) return true;
  if (device.role !== 'SW' && device.role !== 'LB') return false;
  const perVrf = new Map<string | null, number>();
  for (const one of interfaces)
    if (carriesTraffic(one)) perVrf.set(one.vrfId, (perVrf.get(one.vrfId) ?? 0) + 1);
  return [...perVrf.values()].some((count) => count > 1) && isWayOut(network, device, interfaces);
}

export const routersIn = (network: Network, devices: Iterable<Device>): Device[] =>
  [...devices].filter((device) => isRouter(network, device)).sort(byName);

/** VRFs in which a device has addresses or routes; null stands for the global table. */
export function vrfsOf(whole: Network, deviceId: string): (string | null)[] {
  const network = inForce(whole);
  const ids = new Set<string | null>([
    ...interfacesOf(network, deviceId).map((one) => one.vrfId),
    ...network.find('routesByDevice', deviceId).map((route) => route.vrfId),
  ]);
  return [...ids].sort((a, b) => compareNames(vrfName(network, a), vrfName(network, b)));
}

/** OSPF areas as one number each: `0.0.0.1` is area 1 (RFC 2328 section A.2). */
export function areaText(area: Ospf['area']): string {
  const parts = area.split('.').map(Number);
  if (parts.length !== 4) return String(Number(area));
  return String(parts.reduce((sum, part) => sum * 256 + part, 0));
}

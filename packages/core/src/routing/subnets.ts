import { inForce } from '../lens/inForce.ts';
import { prefixOf } from '../addressing/plan.ts';
import { formatPrefix, type IpPrefix } from '../model/values/ip.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Prefix } from '../model/kinds/logical/prefix.ts';
import type { Network } from '../model/network/network.ts';
import { layer2Of } from '../switching/layer2.ts';
import { interfacesOf, type InterfaceAddress, type RoutedInterface } from './interfaces.ts';

/** A router's part in a subnet. */
export interface Member extends RoutedInterface {
  device: Device;
  own: InterfaceAddress;
}

/** A subnet that routers are in, on one segment. */
export interface RoutedSubnet {
  key: string;
  vrfId: string | null;
  prefix: IpPrefix;
  /** Its row in the address plan; null where it is not planned. */
  row: Prefix | null;
  members: Member[];
}

/** The row of exactly this prefix. */
function rowOf(network: Network, vrfId: string | null, prefix: IpPrefix): Prefix | null {
  const row = prefixOf(network, vrfId, prefix);
  return row !== null && row.prefix === formatPrefix(prefix) ? row : null;
}

/** Where an interface is heard; a tunnel by its subnet alone, an unplugged port by nobody else. */
function segmentOf(network: Network, one: RoutedInterface): string {
  if (one.port.form === 'tunnel') return 'tunnel';
  return layer2Of(network).segmentOf(one.port) ?? one.port.id;
}

/**
 * Subnets of some routers, each with those of them that hear each other in it, IPv4 before IPv6. Loopbacks and ports
 * for management are left out: nothing is routed over them.
 */
export function subnetsOf(whole: Network, routers: readonly Device[]): RoutedSubnet[] {
  const network = inForce(whole);
  const found = new Map<string, RoutedSubnet>();
  for (const device of routers)
    for (const one of interfacesOf(network, device.id)) {
      if (one.port.form === 'loopback' || one.port.role === 'management') continue;
      const segment = segmentOf(network, one);
      for (const own of one.addresses) {
        const key = `${one.vrfId ?? ''} ${segment} ${formatPrefix(own.subnet)}`;
        const subnet = found.get(key) ?? {
          key,
          vrfId: one.vrfId,
          prefix: own.subnet,
          row: rowOf(network, one.vrfId, own.subnet),
          members: [],
        };
        if (subnet.members.every((member) => member.port.id !== one.port.id))
          subnet.members.push({ ...one, device, own });
        found.set(key, subnet);
      }
    }
  return [...found.values()].sort((a, b) => a.prefix.family - b.prefix.family);
}

import { remove, update, type Change } from '../change/change.ts';
import type { Port } from '../model/kinds/port.ts';
import type { Network } from '../model/network.ts';

/**
 * What goes with ports that are taken out: their addresses, redundancy groups and routes out of them, and the
 * subinterfaces and tunnels that run over them. Members of an aggregate that goes stay, each for itself.
 */
export function unconfigure(network: Network, ports: readonly Port[]): Change[] {
  const going = new Map(ports.map((port) => [port.id, port]));
  for (const port of going.values())
    for (const child of network.find('portsByParent', port.id)) going.set(child.id, child);
  const given = new Set(ports.map((port) => port.id));
  const changes: (Change | null)[] = [];
  for (const port of going.values()) {
    for (const address of network.find('addressesByPort', port.id)) changes.push(remove('address', address));
    for (const part of network.find('redundanciesByPort', port.id)) changes.push(remove('redundancy', part));
    for (const route of network.find('routesByPort', port.id)) changes.push(remove('route', route));
    for (const member of network.find('portsByAggregate', port.id))
      if (!going.has(member.id)) changes.push(update('port', member, { aggregateId: null }));
    if (!given.has(port.id)) changes.push(remove('port', port));
  }
  return changes.filter((change) => change !== null);
}

/** Static routes and BGP sessions of a device that is taken out. */
export const unroute = (network: Network, deviceId: string): Change[] => [
  ...network.find('routesByDevice', deviceId).map((route) => remove('route', route)),
  ...network.find('bgpSessionsByDevice', deviceId).map((session) => remove('bgpSession', session)),
];

import type { Port } from '../model/kinds/lines/port.ts';
import type { Network } from '../model/network/network.ts';
import { portSpeed } from '../model/network/ports.ts';

/**
 * Speed whose cost is 1. RFC 4750 (ospfIfMetricValue) proposes 10^8 over the speed, with which all links from
 * 100 Mbit/s on would cost the same; here it is 100 Gbit/s, so that those of today differ.
 */
export const referenceBps = 1e11;
const mostCost = 65535;
/** An interface whose speed nobody knows counts as Gigabit Ethernet. */
const assumedBps = 1e9;

/** Bit/s of a port or of what it runs over: all members of an aggregate together. Null where no speed is recorded. */
export function speedOf(network: Network, port: Port): number | null {
  if (port.form === 'aggregate') {
    const members = network.find('portsByAggregate', port.id);
    const sum = members.reduce((total, member) => total + (portSpeed(network, member) ?? 0), 0);
    return sum > 0 ? sum : port.speedBps;
  }
  if (port.form === 'subinterface' && port.speedBps === null) {
    const parent = network.get('port', port.parentId);
    return parent === null ? null : speedOf(network, parent);
  }
  return portSpeed(network, port);
}

/** Cost of sending out of a port (RFC 2328 section 9): as set, 0 for a loopback, otherwise by speed. */
export function ospfCost(network: Network, port: Port): number {
  if (port.ospf?.cost != null) return port.ospf.cost;
  if (port.form === 'loopback') return 0;
  const speed = speedOf(network, port) ?? assumedBps;
  return Math.min(mostCost, Math.max(1, Math.round(referenceBps / speed)));
}

import type { Address } from '../model/kinds/logical/address.ts';
import type { Device } from '../model/kinds/equipment/device.ts';
import type { Port } from '../model/kinds/lines/port.ts';
import { compareIp, formatIp, parseInterface } from '../model/values/ip.ts';
import type { Network } from '../model/network/network.ts';

/** What a device is managed by, best first: its management port, a loopback, a VLAN interface, any other. */
export function rankOfManagement(port: Port): number {
  if (port.role === 'management') return 0;
  if (port.form === 'loopback') return 1;
  return port.form === 'vlan' ? 2 + (port.vid ?? 0) / 10000 : 3;
}

const inOrder = (a: Address, b: Address): number => {
  const [x, y] = [parseInterface(a.address), parseInterface(b.address)];
  return x === null || y === null ? 0 : compareIp(x.address, y.address);
};

/** The addresses of a port, its main one first. */
export const addressesOf = (network: Network, portId: string): Address[] =>
  network
    .find('addressesByPort', portId)
    .sort((a, b) => Number(a.use === 'secondary') - Number(b.use === 'secondary') || inOrder(a, b));

/** The address by which a device is managed, without its length; null where it has none. */
export function managementAddressOf(network: Network, device: Device): string | null {
  if (network.count('address') === 0) return null;
  let best: { port: Port; row: Address } | null = null;
  for (const port of network.find('everyPortByDevice', device.id)) {
    const [row] = addressesOf(network, port.id);
    if (row !== undefined && (best === null || rankOfManagement(port) < rankOfManagement(best.port)))
      best = { port, row };
  }
  const read = best === null ? null : parseInterface(best.row.address);
  return read === null ? null : formatIp(read.address);
}

/** A port that carries data between devices. */
export const carriesData = (port: Port): boolean =>
  port.form === 'physical' && (port.role === 'network' || port.role === 'uplink');
const configured = 3;

/**
 * The port by which a device is managed: a management port, a loopback or the one VLAN interface that has an address,
 * the management port, its only data port, a loopback.
 */
export function managementPort(network: Network, ports: readonly Port[]): Port | null {
  const addressed = ports
    .filter(
      (port) => rankOfManagement(port) < configured && network.find('addressesByPort', port.id).length > 0,
    )
    .sort((a, b) => rankOfManagement(a) - rankOfManagement(b));
  const [best] = addressed;
  const certain = best !== undefined && (best.form !== 'vlan' || addressed.length === 1);
  const data = ports.filter(carriesData);
  return (
    (certain ? best : undefined) ??
    ports.find((port) => port.role === 'management') ??
    (data.length === 1 ? data[0] : undefined) ??
    ports.find((port) => port.form === 'loopback') ??
    null
  );
}

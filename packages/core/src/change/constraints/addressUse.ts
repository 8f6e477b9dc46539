import type { Address } from '../../model/kinds/logical/address.ts';
import type { Route } from '../../model/kinds/logical/routing.ts';
import type { Network } from '../../model/network/network.ts';
import { portTitle } from '../../model/network/ports.ts';
import type { Problem } from '../../model/fields/problem.ts';

const hostOf = (row: Pick<Address, 'address'>): string => row.address.slice(0, row.address.indexOf('/'));

/** A port has an address once, and without a port it is kept once in its VRF: the second would say nothing more. */
export function addressIsOne(network: Network, row: Address): Problem[] {
  const host = hostOf(row);
  const same = network
    .find('addressesByHost', host)
    .find(
      (other) =>
        other.id !== row.id &&
        other.portId === row.portId &&
        (row.portId !== null || other.vrfId === row.vrfId),
    );
  if (same === undefined) return [];
  const message =
    row.portId === null
      ? `${host} is kept in ${network.get('vrf', row.vrfId)?.name ?? 'the global table'} already. Change that entry instead.`
      : `${portTitle(network, row.portId)} has ${host} already. Change that address instead.`;
  return [
    {
      code: 'duplicate',
      kind: 'address',
      id: row.id,
      about: `address ${row.address}`,
      field: 'address',
      message,
    },
  ];
}

/** A static route goes out of a port of its own device. */
export function routeLeavesOwnPort(network: Network, row: Route): Problem[] {
  const port = network.get('port', row.viaPortId);
  if (port === null || port.deviceId === row.deviceId) return [];
  return [
    {
      code: 'impossible',
      kind: 'route',
      id: row.id,
      about: `static route ${row.prefix}`,
      field: 'viaPortId',
      message: `The route to ${row.prefix} of ${network.get('device', row.deviceId)?.name ?? ''} cannot go out of ${portTitle(network, port.id)}: that is on another device. Choose one of its own ports.`,
    },
  ];
}

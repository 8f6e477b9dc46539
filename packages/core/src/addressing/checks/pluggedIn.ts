import { bothOf } from '../../check/rowParts.ts';
import type { Network, Touched } from '../../model/network/network.ts';
import type { Reads } from '../../model/network/reads.ts';

/** What rules read that ask whether a device is plugged in and has an address. */
export const pluggedReads: Reads = {
  device: ['role', 'status'],
  port: ['deviceId', 'role', 'form'],
  cable: ['aPortId', 'bPortId'],
  leg: ['cableId', 'portId'],
  circuit: ['aPortId', 'bPortId'],
  address: ['portId'],
};

const deviceOf = (network: Network, portId: string | null): string | null =>
  network.get('port', portId)?.deviceId ?? null;

/** The devices of which a touched row can have changed that. */
export function devicesTouched(network: Network, touched: Touched, base: Network): string[] {
  const lines = [...bothOf(touched, 'cable'), ...bothOf(touched, 'circuit')];
  const portIds = [
    ...lines.flatMap(({ aPortId, bPortId }) => [aPortId, bPortId]),
    ...bothOf(touched, 'leg').map(({ portId }) => portId),
    ...bothOf(touched, 'address').map(({ portId }) => portId),
  ];
  return [
    ...portIds.flatMap((id) => [deviceOf(network, id), deviceOf(base, id)]),
    ...bothOf(touched, 'port').map(({ deviceId }) => deviceId),
  ].filter((id) => id !== null);
}

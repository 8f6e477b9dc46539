import type { Subject } from '../change/removal.ts';
import type { Network } from '../model/network/network.ts';
import { placeOfDevice } from '../model/network/places.ts';

const deviceOfPort = (network: Network, portId: string | null): string | null =>
  network.get('port', portId)?.deviceId ?? null;

/** The device that a row is, or stands at; null where it stands at none. */
export function deviceOf(network: Network, { kind, id }: Subject): string | null {
  if (kind === 'device') return id;
  if (kind === 'port') return deviceOfPort(network, id);
  if (kind === 'address') return deviceOfPort(network, network.get('address', id)?.portId ?? null);
  if (kind === 'redundancy') return deviceOfPort(network, network.get('redundancy', id)?.portId ?? null);
  if (kind === 'route') return network.get('route', id)?.deviceId ?? null;
  if (kind === 'bgpSession') return network.get('bgpSession', id)?.deviceId ?? null;
  if (kind !== 'cable' && kind !== 'circuit') return null;
  const line = network.get(kind, id);
  return deviceOfPort(network, line?.aPortId ?? line?.bPortId ?? null);
}

/** The place that a row is, or stands in; null where it stands nowhere. */
export function placeOfRow(network: Network, row: Subject): string | null {
  if (row.kind === 'place') return row.id;
  if (row.kind === 'rack') return network.get('rack', row.id)?.placeId ?? null;
  if (row.kind === 'prefix') return network.get('prefix', row.id)?.placeId ?? null;
  const device = network.get('device', deviceOf(network, row));
  return device === null ? null : placeOfDevice(network, device);
}

import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import { placeOfDevice } from '../model/network/places.ts';

/** A place to stand at: racks in the order of their row, units from the top, then ports in order. */
export function standing(network: Network, portId: string | null): (string | number)[] {
  const port = network.get('port', portId);
  const device = network.get('device', port?.deviceId ?? null);
  const rack = network.get('rack', device?.rackId ?? null);
  const place = network.get('place', device === null ? null : placeOfDevice(network, device));
  return [
    place?.name ?? '',
    rack?.position ?? 0,
    rack?.name ?? '',
    100 - (device?.unit ?? 0),
    port?.ordinal ?? 0,
  ];
}

/** Orders what is compared part by part: figures as figures, texts as names. */
export function compareLists(a: readonly (string | number)[], b: readonly (string | number)[]): number {
  for (const [at, left] of a.entries()) {
    const right = b[at] ?? '';
    const order =
      typeof left === 'number' && typeof right === 'number'
        ? left - right
        : compareNames(String(left), String(right));
    if (order !== 0) return order;
  }
  return 0;
}

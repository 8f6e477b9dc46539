import { nameOf } from '../../check/names.ts';
import type { Network } from '../../model/network/network.ts';

/** "booking/open-n1a": a cloud subnet as sentences name it. */
export const subnetName = (network: Network, id: string | null | undefined): string => {
  const subnet = network.get('cloudSubnet', id ?? null);
  return subnet === null ? '' : `${network.get('place', subnet.placeId)?.name ?? ''}/${subnet.name}`;
};
export const deviceName = (network: Network, id: string | null | undefined): string =>
  nameOf(network, 'device', id ?? null);

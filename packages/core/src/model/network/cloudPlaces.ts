import type { Device } from '../kinds/equipment/device.ts';
import type { ProviderProfile } from '../kinds/cloud/providerProfile.ts';
import type { Prefix } from '../kinds/logical/prefix.ts';
import { isCloudPlaceKind, type CloudPlaceKind, type Place } from '../kinds/sites/place.ts';
import { bitsOf, usable, type IpPrefix } from '../values/ip.ts';
import type { Network } from './network.ts';
import { placeChain } from './places.ts';

/** Whether a place is one of a cloud. */
export const isCloudPlace = (network: Network, placeId: string | null): boolean => {
  const place = network.get('place', placeId);
  return place !== null && isCloudPlaceKind(place.kind);
};

/** Whether a device runs in a cloud. */
export const isInCloud = (network: Network, device: Device): boolean =>
  device.rackId === null && isCloudPlace(network, device.placeId);

/** The place of a kind at or around a place: the region or account that a network is in. Null where there is none. */
export const cloudPlaceAround = (
  network: Network,
  placeId: string | null,
  kind: CloudPlaceKind,
): Place | null => placeChain(network, placeId).findLast((place) => place.kind === kind) ?? null;

/** What the provider of the account around a place offers; null where nobody has said it. */
export function profileAround(network: Network, placeId: string | null): ProviderProfile | null {
  const account = cloudPlaceAround(network, placeId, 'account');
  const row = account === null ? null : network.findOne('cloudAccountByPlace', account.id);
  return network.get('providerProfile', row?.profileId ?? null);
}

/** Whether a prefix is that of a cloud subnet: it is on no VLAN, and its gateway is the provider's. */
export const isOfCloudSubnet = (network: Network, prefixId: string): boolean =>
  network.countOf('cloudSubnetsByPrefix', prefixId) > 0;

/** The first and last address of a prefix that a host can have: of a cloud subnet without those the provider keeps. */
export function hostRange(
  network: Network,
  row: Pick<Prefix, 'id' | 'placeId'>,
  prefix: IpPrefix,
): { first: bigint; last: bigint; count: bigint } {
  const all = usable(prefix);
  if (prefix.family === 6 || !isOfCloudSubnet(network, row.id)) return all;
  const profile = profileAround(network, row.placeId);
  if (profile === null) return all;
  const first = prefix.value + BigInt(profile.keptFirst);
  const last = prefix.value + (1n << BigInt(bitsOf(4) - prefix.length)) - 1n - BigInt(profile.keptLast);
  return { first, last, count: last < first ? 0n : last - first + 1n };
}

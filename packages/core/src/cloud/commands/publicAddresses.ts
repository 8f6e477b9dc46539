import { create, update } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { blankPublicAddress, type PublicAddress } from '../../model/kinds/cloud/publicAddress.ts';
import type { Port } from '../../model/kinds/lines/port.ts';
import type { Place } from '../../model/kinds/sites/place.ts';
import { formatIp, parseIp } from '../../model/values/ip.ts';
import { newId } from '../../model/values/ids.ts';
import type { Network } from '../../model/network/network.ts';
import { cloudPlaceAround } from '../../model/network/cloudPlaces.ts';
import { placesWithin } from '../../model/network/places.ts';
import { compareNames } from '../../model/values/order.ts';
import { isPrivate } from '../follow.ts';
import type { Made } from './places.ts';

const holderText = (network: Network, port: Port | null): string =>
  port === null ? 'nothing' : `${network.get('device', port.deviceId)?.name ?? ''} ${port.name}`;

/** The public addresses of a region, or of another place of a cloud and what is in it; by address. */
export const publicAddressesIn = (network: Network, placeId: string): PublicAddress[] =>
  [...placesWithin(network, placeId)]
    .flatMap((id) => network.find('publicAddressesByPlace', id))
    .sort((a, b) => compareNames(a.address, b.address));

/**
 * A public address of the region around a place, kept unused or for an interface. One that is there and stands for
 * nothing is given to the interface instead.
 */
export function addPublicAddress(
  network: Network,
  place: Place,
  wish: { address: string; hold: PublicAddress['hold']; port: Port | null },
): Made<{ addressId: string }> {
  const ip = parseIp(wish.address.trim());
  if (ip === null) return refuse(`“${wish.address.trim()}” is not an address such as 203.0.113.40.`);
  if (isPrivate(ip))
    return refuse(
      `${formatIp(ip)} is private: nobody on the internet comes to it. Give one of the internet.`,
    );
  const address = formatIp(ip);
  const known = [...network.all('publicAddress')].find((one) => one.address === address);
  if (known !== undefined && wish.port !== null && known.portId === null) {
    const given = standFor(network, known, wish.port);
    return given.ok ? { ...given, addressId: known.id } : given;
  }
  if (known !== undefined)
    return refuse(
      `${address} stands for ${holderText(network, network.get('port', known.portId))} already. Take it off there first.`,
    );
  const region = cloudPlaceAround(network, place.id, 'region') ?? place;
  const row: PublicAddress = {
    ...blankPublicAddress,
    ...{ id: newId(), address, placeId: region.id, hold: wish.hold, portId: wish.port?.id ?? null },
  };
  const attempt = judged(
    network,
    [create('publicAddress', row)],
    wish.port === null
      ? `Kept the public address ${address} in ${region.name}`
      : `Gave ${holderText(network, wish.port)} the public address ${address}`,
  );
  return attempt.ok ? { ...attempt, addressId: row.id } : attempt;
}

/** Lets a public address stand for an interface, or for none. */
export const standFor = (network: Network, row: PublicAddress, port: Port | null): Attempt =>
  judged(
    network,
    [update('publicAddress', row, { portId: port?.id ?? null })],
    port === null
      ? `Took ${row.address} off ${holderText(network, network.get('port', row.portId))}`
      : `Gave ${holderText(network, port)} the public address ${row.address}`,
  );

import { pricedThings } from '../../model/kinds/cloud/cloudPrice.ts';
import type { Network } from '../../model/network/network.ts';
import { byName, compareNames } from '../../model/values/order.ts';
import { placesWithin } from '../../model/network/places.ts';
import { table } from '../../report/parts.ts';
import type { Column, Table } from '../../report/table.ts';
import { priceText, pricesIn } from '../commands/prices.ts';

const priceColumns: Column[] = [
  { key: 'list', label: 'Price list' },
  { key: 'validFrom', label: 'Valid from' },
  { key: 'of', label: 'Of' },
  { key: 'which', label: 'Which' },
  { key: 'per', label: 'Per' },
  { key: 'price', label: 'Price', numeric: true },
  { key: 'currency', label: 'Currency' },
];

/** What providers ask money for: every price of every list. Read back as it is written. */
export const cloudPriceSchedule = (network: Network): Table =>
  table(
    priceColumns,
    [...network.all('cloudPriceList')]
      .sort((a, b) => byName(a, b) || compareNames(a.validFrom, b.validFrom))
      .flatMap((list) =>
        pricesIn(network, list.id).map(({ id, of, which, millionths }) => ({
          id,
          cells: {
            ...{ list: list.name, validFrom: list.validFrom, of: pricedThings[of].title, which },
            ...{ per: pricedThings[of].per, price: priceText(millionths), currency: list.currency },
          },
        })),
      ),
  );

const addressColumns: Column[] = [
  { key: 'region', label: 'Region' },
  { key: 'address', label: 'Address' },
  { key: 'stays', label: 'Stays' },
  { key: 'device', label: 'Stands for' },
  { key: 'interface', label: 'Interface' },
  { key: 'notes', label: 'Notes' },
];

/** The public addresses of a scope: what each stands for, and how long it stays. */
export function publicAddressSchedule(network: Network, scopeId: string | null): Table {
  const within = placesWithin(network, scopeId);
  return table(
    addressColumns,
    [...network.all('publicAddress')]
      .filter(({ placeId }) => within.has(placeId))
      .sort((a, b) => compareNames(a.address, b.address))
      .map((row) => {
        const port = network.get('port', row.portId);
        return {
          id: row.id,
          cells: {
            ...{ region: network.get('place', row.placeId)?.name ?? null, address: row.address },
            ...{ stays: row.hold, device: network.get('device', port?.deviceId ?? null)?.name ?? null },
            ...{ interface: port?.name ?? null, notes: row.notes },
          },
        };
      }),
  );
}

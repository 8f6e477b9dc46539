import { create, remove, update, type Change } from '../../change/change.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import type { PriceList } from '../../model/kinds/purchase/priceList.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import type { ReadPrice } from '../readPrices.ts';

export type PriceListFields = Omit<PriceList, 'id'>;

/** Keeps prices under a list of their own. */
export function keepPriceList(
  network: Network,
  fields: PriceListFields,
  prices: readonly ReadPrice[],
): Attempt & { id: string } {
  const id = newId();
  const name = fields.name.trim();
  if (name === '') return { ...refuse('The price list has no name. Give it one.'), id };
  if (prices.length === 0)
    return { ...refuse(`No price could be read for the price list ${name}. Nothing was kept.`), id };
  const changes: Change[] = [
    create('priceList', { ...fields, id, name }),
    ...prices.map((price) => create('price', { ...price, id: newId(), listId: id })),
  ];
  return {
    ...judged(
      network,
      changes,
      `Took in the price list ${name} with ${prices.length} ${prices.length === 1 ? 'price' : 'prices'}`,
    ),
    id,
  };
}

export const changePriceList = (
  network: Network,
  list: PriceList,
  fields: Partial<PriceListFields>,
): Attempt => judged(network, [update('priceList', list, fields)], `Changed the price list ${list.name}`);

export const removePriceList = (network: Network, list: PriceList): Attempt =>
  judged(
    network,
    [...network.find('pricesByList', list.id).map((row) => remove('price', row)), remove('priceList', list)],
    `Deleted the price list ${list.name}`,
  );

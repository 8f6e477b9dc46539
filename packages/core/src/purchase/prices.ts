import { stockOf } from '../cabling/stock.ts';
import type { Day } from '../model/values/day.ts';
import type { Price, PriceList } from '../model/kinds/purchase/priceList.ts';
import type { Network } from '../model/network/network.ts';
import { compareNames } from '../model/values/order.ts';
import type { Part } from './part.ts';

/** What one piece or metre costs, from whom, and how many come together. */
export interface Offer {
  unitMinor: number;
  currency: string;
  /** Null: the list price of the catalogue. */
  supplier: string | null;
  list: string | null;
  pack: number;
}

/** Whether a price list holds on a day. */
export const isValidOn = ({ validFrom, validUntil }: PriceList, day: Day): boolean =>
  validFrom <= day && (validUntil === null || validUntil >= day);

const sameText = (a: string | null, b: string | null): boolean => a?.toLowerCase() === b?.toLowerCase();

/** What the catalogue itself asks for a part. */
function cataloguePrice(network: Network, part: Part): Offer | null {
  const model = network.get('model', part.modelId);
  const currency = model?.currency ?? null;
  if (model === null || currency === null) return null;
  const stock = model.form === 'cable' ? stockOf(model, part.lengthM) : null;
  const unitMinor =
    part.licence !== null
      ? (model.licences.find(({ name }) => sameText(name, part.licence))?.priceMinor ?? null)
      : part.lengthM === null
        ? model.priceMinor
        : stock?.in === true
          ? stock.priceMinor
          : null;
  return unitMinor === null ? null : { unitMinor, currency, supplier: null, list: null, pack: 1 };
}

/**
 * The price of a part on a day. Of the lists that hold then those in the currency that was asked for come first, of
 * these the one that began last, of several that began that day the cheapest, then by name of the list. Without one it
 * is the price of the catalogue.
 */
export function offerOf(network: Network, part: Part, day: Day, currency: string): Offer | null {
  const told = network
    .find('pricesByModel', part.modelId ?? '')
    .filter((price) => price.lengthM === part.lengthM && sameText(price.licence, part.licence))
    .flatMap((price): { price: Price; list: PriceList }[] => {
      const list = network.get('priceList', price.listId);
      return list !== null && isValidOn(list, day) ? [{ price, list }] : [];
    })
    .sort(
      (a, b) =>
        Number(b.list.currency === currency) - Number(a.list.currency === currency) ||
        (a.list.validFrom < b.list.validFrom ? 1 : a.list.validFrom > b.list.validFrom ? -1 : 0) ||
        a.price.unitMinor - b.price.unitMinor ||
        compareNames(a.list.name, b.list.name),
    );
  const [best] = told;
  if (best === undefined) return cataloguePrice(network, part);
  return {
    unitMinor: best.price.unitMinor,
    currency: best.list.currency,
    supplier: best.list.supplier,
    list: best.list.name,
    pack: best.price.pack,
  };
}

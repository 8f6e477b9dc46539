import { create, update } from '../../change/change.ts';
import {
  pricedThingNames,
  pricedThings,
  type CloudPriceList,
  type PricedThing,
} from '../../model/kinds/cloud/cloudPrice.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import type { RowsRead } from '../../places/exchange/placeRows.ts';
import { Wrong } from '../../exchange/listRows.ts';
import { pricedText, readPrice } from '../commands/prices.ts';
import { readRows, type RowDone, type Text } from './headedRows.ts';

/** Headings of a price list of a provider. */
export const priceHeadings = {
  of: ['of', 'what', 'item'],
  which: ['which', 'size', 'sort'],
  price: ['price', 'amount'],
  currency: ['currency'],
} as const;

/** What is paid for, by its key or as people call it. */
const thingOf = (text: string): PricedThing | null =>
  pricedThingNames.find((name) =>
    [name, pricedThings[name].title].some((one) => one.toLowerCase() === text.trim().toLowerCase()),
  ) ?? null;

function priceRow(network: Network, list: CloudPriceList, text: Text<typeof priceHeadings>): RowDone {
  const of = thingOf(text('of'));
  if (of === null)
    throw new Wrong(
      `“${text('of')}” is nothing that a provider asks money for: write one of ${pricedThingNames.map((name) => pricedThings[name].title.toLowerCase()).join(', ')}`,
    );
  const currency = text('currency').toUpperCase();
  if (currency !== '' && currency !== list.currency)
    throw new Wrong(`The price is in ${currency}, and ${list.name} is in ${list.currency}`);
  const millionths = readPrice(text('price'));
  if (millionths === null)
    throw new Wrong(`Price “${text('price')}” is not an amount such as 0.0520, with six decimals at most`);
  const which = text('which') || null;
  const what = `${pricedText(of, which)}, per ${pricedThings[of].per}`;
  const there = network
    .find('cloudPricesByList', list.id)
    .find((price) => price.of === of && price.which === which);
  return {
    what,
    changes: [
      there === undefined
        ? create('cloudPrice', { id: newId(), listId: list.id, of, which, millionths })
        : update('cloudPrice', there, { millionths }),
    ],
  };
}

/** Reads prices into a list, as from a spreadsheet or from a schedule of prices; every row is told what it comes to. */
export const readCloudPriceRows = (
  network: Network,
  list: CloudPriceList,
  rows: readonly (readonly string[])[],
): RowsRead =>
  readRows(
    network,
    rows,
    priceHeadings,
    ['of', 'price'],
    (on, text) => priceRow(on, list, text),
    (added, changed) => `Took prices into ${list.name}: ${added} added, ${changed} changed`,
  );

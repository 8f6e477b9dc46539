import type { CatalogueModel } from '../model/kinds/equipment/catalogueModel.ts';

/** What a length of a cable type costs off the shelf. */
export type Stock =
  | { in: true; priceMinor: number | null }
  /** Not made: the next longer one that is; null where the longest is shorter. */
  | { in: false; nextM: number | null; longestM: number }
  /** Nothing is known: no length, or a type without stock lengths, which is cut from a drum. */
  | null;

type Lengths = Pick<CatalogueModel, 'stockLengthsM' | 'stockPricesMinor'>;

/** Whether a length is in stock and at what price; a length that is not has no price, not a price of nothing. */
export function stockOf({ stockLengthsM, stockPricesMinor }: Lengths, lengthM: number | null): Stock {
  if (lengthM === null || stockLengthsM.length === 0) return null;
  const at = stockLengthsM.indexOf(lengthM);
  if (at >= 0) return { in: true, priceMinor: stockPricesMinor[at] ?? null };
  const longer = stockLengthsM.filter((one) => one > lengthM);
  return {
    in: false,
    nextM: longer.length === 0 ? null : Math.min(...longer),
    longestM: Math.max(...stockLengthsM),
  };
}

/** "not in stock, 5 m next"; null where there is nothing to say. */
export function stockText(stock: Stock): string | null {
  if (stock === null || stock.in) return null;
  return `not in stock, ${stock.nextM === null ? `${stock.longestM} m is the longest` : `${stock.nextM} m next`}`;
}

import { grouped } from './numbers.ts';

/** An amount in minor units, hundredths, with its currency (ISO 4217); both unknown together. */
export interface Money {
  priceMinor: number | null;
  currency: string | null;
}

/** "1 250.00 EUR"; empty where nothing is known. */
export const moneyText = ({ priceMinor, currency }: Money): string =>
  priceMinor === null ? '' : `${grouped(priceMinor / 100, 2)} ${currency ?? ''}`.trim();

const written = /^(?:([A-Za-z]{3})\s*)?(\d[\d\s.,']*?)\s*([A-Za-z]{3})?$/;

/**
 * Reads "1 250.00 EUR", "EUR 1.250,00", "1250": the last sign before one or two digits divides decimals, all others
 * thousands. Without a currency in it the given one holds. Null where it is no amount.
 */
export function readMoney(text: string, currency: string | null): Money | null {
  const match = written.exec(text.trim());
  const digits = match?.[2];
  const said = match?.[1] ?? match?.[3];
  if (digits === undefined || (match?.[1] !== undefined && match[3] !== undefined)) return null;
  const [, whole, decimals = ''] = /^(.*?)(?:[.,](\d{1,2}))?$/.exec(digits) ?? [];
  const plain = (whole ?? '').replace(/[\s.,']/g, '');
  if (!/^\d{1,10}$/.test(plain)) return null;
  return {
    priceMinor: Number(plain) * 100 + Number(decimals.padEnd(2, '0')),
    currency: said?.toUpperCase() ?? currency,
  };
}

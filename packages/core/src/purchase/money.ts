/**
 * Money in whole minor units of its currency. Products are worked out as whole numbers of any size and rounded once,
 * halves away from zero (commercial rounding, DIN 1333); nothing here is a floating-point amount.
 */

/** A quotient of whole numbers, rounded to the nearest, halves away from zero. */
export function divided(dividend: bigint, divisor: bigint): number {
  const negative = dividend < 0n !== divisor < 0n;
  const [a, b] = [dividend < 0n ? -dividend : dividend, divisor < 0n ? -divisor : divisor];
  const rounded = (2n * a + b) / (2n * b);
  return Number(negative ? -rounded : rounded);
}

const whole = 10_000;

/** So many at a price each, less two discounts one after the other, in hundredths of a per cent: rounded once. */
export const netOf = (count: number, unitMinor: number, ...discounts: readonly number[]): number =>
  divided(
    discounts.reduce(
      (product, discount) => product * BigInt(whole - discount),
      BigInt(count) * BigInt(unitMinor),
    ),
    BigInt(whole) ** BigInt(discounts.length),
  );

/** A share of an amount, in hundredths of a per cent: 1900 of 10000 is 19 %. */
export const shareOf = (minor: number, hundredths: number): number =>
  divided(BigInt(minor) * BigInt(hundredths), BigInt(whole));

/** An amount in another currency at a rate such as "0.9312" for one unit of its own. */
export function atRate(minor: number, rate: string): number {
  const [units = '0', decimals = ''] = rate.split('.');
  return divided(BigInt(minor) * BigInt(units + decimals), 10n ** BigInt(decimals.length));
}

/** "19 %", "7.5 %": hundredths of a per cent. */
export const percentText = (hundredths: number): string =>
  `${String(Math.floor(hundredths / 100))}${
    hundredths % 100 === 0
      ? ''
      : `.${String(hundredths % 100)
          .padStart(2, '0')
          .replace(/0$/, '')}`
  } %`;

/** Reads "19", "7.5 %", "7,25": hundredths of a per cent; null where it is none, or more than two decimals. */
export function readPercent(text: string): number | null {
  const match = /^(\d{1,5})(?:[.,](\d{1,2}))?\s*%?$/.exec(text.trim());
  if (match === null) return null;
  return Number(match[1]) * 100 + Number((match[2] ?? '').padEnd(2, '0'));
}

/** An amount in millionths of its currency, with two decimals. */
export const money = (millionths: number, currency: string): string =>
  `${(millionths / 1e6).toFixed(2)} ${currency}`;

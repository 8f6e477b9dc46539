import { describe, expect, test } from '@jest/globals';
import type { QuotationLine } from '../model/kinds/purchase/quotation.ts';
import { atRate, divided, netOf, percentText, readPercent, shareOf } from './money.ts';
import { totalsOf } from './totals.ts';

const line = (rest: Partial<QuotationLine>): QuotationLine => ({
  ...{ what: 'A part', partNumber: null, detail: null, count: 1, unit: 'piece', unitMinor: 100 },
  ...{ discount: 0, tax: 1900, optional: false, model: null },
  ...rest,
});

describe('amounts in minor units', () => {
  test('halves are rounded away from zero, whatever the size', () => {
    expect([divided(5n, 2n), divided(-5n, 2n), divided(7n, 3n), divided(0n, 9n)]).toEqual([3, -3, 2, 0]);
    // 999 999 pieces at 9 999 999.99 less 33.33 %: beyond what a double holds on the way.
    expect(netOf(999_999, 999_999_999, 3333)).toBe(
      Number((999_999n * 999_999_999n * 6667n + 5000n) / 10_000n),
    );
  });

  test('a line by hand: 3 at 19.99 less 10 % is 53.973, that less 5 % of the section 51.27435', () => {
    expect(netOf(3, 1999, 1000)).toBe(5397);
    expect(netOf(3, 1999, 1000, 500)).toBe(5127);
    expect(netOf(1, 1, 5000)).toBe(1);
    expect(netOf(7, 1250, 10_000)).toBe(0);
  });

  test('tax: 19 % of 53.97 is 10.2543; 7 % of 0.50 is 0.035, half a cent up', () => {
    expect([shareOf(5397, 1900), shareOf(50, 700), shareOf(50, 0)]).toEqual([1025, 4, 0]);
  });

  test('at a fixed rate: 1 250.00 at 0.9312 is 1 164.00, at 1.17 is 1 462.50', () => {
    expect([atRate(125_000, '0.9312'), atRate(125_000, '1.17'), atRate(1, '0.5'), atRate(3, '2')]).toEqual([
      116_400, 146_250, 1, 6,
    ]);
  });

  test('per cent as they are written and read', () => {
    expect([1900, 750, 725, 705, 0].map(percentText)).toEqual(['19 %', '7.5 %', '7.25 %', '7.05 %', '0 %']);
    for (let hundredths = 0; hundredths <= 10_000; hundredths += 7)
      expect(readPercent(percentText(hundredths))).toBe(hundredths);
    expect(['19', '7,25 %', ' 5% '].map(readPercent)).toEqual([1900, 725, 500]);
    expect(['', 'ten', '1.234', '-3', '5 % off'].map(readPercent)).toEqual([null, null, null, null, null]);
  });
});

describe('the sums of a quotation', () => {
  test('by hand: two rates of tax, a discount of a line and of a section, an option, a price nobody knows', () => {
    const totals = totalsOf({
      sections: [
        {
          name: 'Devices',
          discount: 500,
          lines: [
            // 3 x 19.99 = 59.97, less 10 % and 5 %: 51.27
            line({ count: 3, unitMinor: 1999, discount: 1000 }),
            // 1 x 100.00 less 5 %: 95.00, in no sum as it is an option
            line({ unitMinor: 10_000, optional: true }),
            line({ unitMinor: null }),
          ],
        },
        {
          name: 'Services',
          discount: 0,
          // 2 x 45.25 = 90.50 at 7 %: tax 6.335, so 6.34
          lines: [line({ count: 2, unitMinor: 4525, tax: 700 })],
        },
      ],
    });
    expect(totals.sections).toEqual([
      { grossMinor: 5997, netMinor: 5127 },
      { grossMinor: 9050, netMinor: 9050 },
    ]);
    // 19 % of 51.27 is 9.7413, so 9.74.
    expect(totals.taxes).toEqual([
      { rate: 1900, baseMinor: 5127, taxMinor: 974 },
      { rate: 700, baseMinor: 9050, taxMinor: 634 },
    ]);
    expect([totals.grossMinor, totals.netMinor, totals.taxMinor, totals.totalMinor]).toEqual([
      15_047, 14_177, 1608, 15_785,
    ]);
    expect([totals.optionsMinor, totals.unpriced]).toEqual([9500, 1]);
  });

  test('tax of many small lines is worked out on their sum, not line by line', () => {
    const lines = Array.from({ length: 100 }, () => line({ unitMinor: 3 }));
    const { taxes, netMinor } = totalsOf({ sections: [{ name: 'Small', discount: 0, lines }] });
    // Line by line 0.57 would be 1 each and 100 in all.
    expect([netMinor, taxes[0]?.taxMinor]).toEqual([300, 57]);
    expect(totalsOf({ sections: [] }).totalMinor).toBe(0);
  });
});

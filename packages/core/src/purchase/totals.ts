import type { Quotation, QuotationLine, QuotationSection } from '../model/kinds/purchase/quotation.ts';
import { netOf, shareOf } from './money.ts';

/** What a rate of tax is asked on, and how much that is. */
export interface TaxShare {
  /** Hundredths of a per cent. */
  rate: number;
  baseMinor: number;
  taxMinor: number;
}
export interface SectionTotal {
  /** Before any discount. */
  grossMinor: number;
  netMinor: number;
}
export interface Totals {
  sections: SectionTotal[];
  grossMinor: number;
  netMinor: number;
  /** By rate, the highest first. */
  taxes: TaxShare[];
  taxMinor: number;
  totalMinor: number;
  /** The net sum of what is offered beside, which is in none of the others. */
  optionsMinor: number;
  /** Lines without a price that would be in the sum. */
  unpriced: number;
}

/** A line after its own discount and that of its section: null where nobody knows its price. */
export const lineNet = (
  { count, unitMinor, discount }: QuotationLine,
  section: Pick<QuotationSection, 'discount'>,
): number | null => (unitMinor === null ? null : netOf(count, unitMinor, discount, section.discount));

/**
 * The sums of a quotation. Each line is rounded once, after both discounts; sums are of what stands in the lines. Tax is
 * worked out once for each rate, on the sum of the lines of that rate.
 */
export function totalsOf({ sections }: Pick<Quotation, 'sections'>): Totals {
  const bases = new Map<number, number>();
  let optionsMinor = 0;
  let unpriced = 0;
  const sums = sections.map((section): SectionTotal => {
    let [grossMinor, netMinor] = [0, 0];
    for (const line of section.lines) {
      const net = lineNet(line, section);
      if (line.optional) {
        optionsMinor += net ?? 0;
      } else if (net === null || line.unitMinor === null) {
        unpriced++;
      } else {
        grossMinor += line.count * line.unitMinor;
        netMinor += net;
        bases.set(line.tax, (bases.get(line.tax) ?? 0) + net);
      }
    }
    return { grossMinor, netMinor };
  });
  const sum = (of: (section: SectionTotal) => number): number =>
    sums.reduce((all, section) => all + of(section), 0);
  const taxes = [...bases]
    .sort(([a], [b]) => b - a)
    .map(([rate, baseMinor]) => ({ rate, baseMinor, taxMinor: shareOf(baseMinor, rate) }));
  const netMinor = sum((section) => section.netMinor);
  const taxMinor = taxes.reduce((all, tax) => all + tax.taxMinor, 0);
  return {
    ...{ sections: sums, grossMinor: sum((section) => section.grossMinor), netMinor, taxes, taxMinor },
    ...{ totalMinor: netMinor + taxMinor, optionsMinor, unpriced },
  };
}

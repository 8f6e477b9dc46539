import {
  grouped,
  readMoney,
  type Quotation,
  type QuotationLine,
  type QuotationSection,
} from '@visograph/core/model';
import { lineNet, percentText, readPercent } from '@visograph/core/purchase';
import type { GridRow } from '../../kit/grid/Grid.tsx';

const units = (minor: number | null): string | null => (minor === null ? null : grouped(minor / 100, 2));

/** Where a row of the grid stands in a quotation: a section, or a line of one. */
export function spotOf(id: string): { section: number; line: number | null } {
  const [section = '0', line] = id.split('.');
  return { section: Number(section), line: line === undefined ? null : Number(line) };
}

/** Sections as headings that carry their discount and net sum, lines below them. */
export function quotationRows({ sections }: Quotation, nets: readonly number[]): GridRow[] {
  return sections.flatMap((section, at): GridRow[] => [
    {
      id: String(at),
      heading: 0,
      cells: {
        what:
          section.discount === 0 ? section.name : `${section.name}, less ${percentText(section.discount)}`,
        net: units(nets[at] ?? 0),
      },
    },
    ...section.lines.map((line, index): GridRow => ({
      id: `${at}.${index}`,
      cells: {
        what: line.what,
        partNumber: line.partNumber,
        count: line.unit === 'm' ? `${line.count} m` : line.count,
        price: units(line.unitMinor),
        discount: line.discount === 0 ? null : percentText(line.discount),
        tax: percentText(line.tax),
        net: units(lineNet(line, section)),
        optional: line.optional ? 'yes' : null,
        detail: line.detail,
      },
    })),
  ]);
}

const wrong = (why: string): { why: string } => ({ why });

/** A typed cell as what it makes of a line; or why it makes nothing. */
export function typedInto(
  line: QuotationLine,
  key: string,
  text: string,
  currency: string,
): QuotationLine | { why: string } {
  const typed = text.trim();
  switch (key) {
    case 'what':
      return typed === '' ? wrong('Item is empty.') : { ...line, what: typed };
    case 'partNumber':
      return { ...line, partNumber: typed === '' ? null : typed };
    case 'detail':
      return { ...line, detail: typed === '' ? null : typed };
    case 'count':
      return /^\d+( m)?$/.test(typed)
        ? { ...line, count: Number(typed.replace(' m', '')) }
        : wrong(`“${typed}” is no whole number.`);
    case 'price': {
      if (typed === '') return { ...line, unitMinor: null };
      const money = readMoney(typed, currency);
      if (money?.priceMinor == null) return wrong(`“${typed}” is no amount such as 1 250.00.`);
      return money.currency === currency
        ? { ...line, unitMinor: money.priceMinor }
        : wrong(`The quotation is in ${currency}, not ${money.currency ?? ''}.`);
    }
    case 'discount':
    case 'tax': {
      const value = typed === '' ? 0 : readPercent(typed);
      return value === null ? wrong(`“${typed}” is no percentage such as 7.5.`) : { ...line, [key]: value };
    }
    case 'optional': {
      const said = typed.toLowerCase();
      if (!['', 'yes', 'no'].includes(said)) return wrong(`Option is yes or no, not “${typed}”.`);
      return { ...line, optional: said === 'yes' };
    }
    default:
      return wrong('It is worked out, and cannot be typed in.');
  }
}

/** A line with nothing in it but a name: taxed as the lines above. */
export const blankLine = (what: string, { lines }: QuotationSection): QuotationLine => ({
  ...{ what, partNumber: null, detail: null, count: 1, unit: 'piece', unitMinor: null },
  ...{ discount: 0, tax: lines.at(-1)?.tax ?? 0, optional: false, model: null },
});

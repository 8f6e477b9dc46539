import type { Quotation, QuotationLine } from '../model/kinds/purchase/quotation.ts';
import { moneyText } from '../model/values/money.ts';
import { percentText } from './money.ts';
import { totalsOf } from './totals.ts';

/** One thing that two revisions of a quotation say differently. */
export interface Difference {
  what: string;
  /** Null: it was not there. */
  before: string | null;
  /** Null: it is no longer there. */
  after: string | null;
}

const sum = (minor: number | null, currency: string): string =>
  minor === null ? 'no price' : moneyText({ priceMinor: minor, currency });

function lineText(
  { count, unit, unitMinor, discount, tax, optional }: QuotationLine,
  currency: string,
): string {
  return [
    `${count}${unit === 'm' ? ' m' : ''} at ${sum(unitMinor, currency)}`,
    ...(discount === 0 ? [] : [`less ${percentText(discount)}`]),
    ...(tax === 0 ? [] : [`tax ${percentText(tax)}`]),
    ...(optional ? ['option'] : []),
  ].join(', ');
}

/** Lines by section and what they offer; of several alike the first, the second … */
function linesOf({ sections, currency }: Quotation): Map<string, string> {
  const found = new Map<string, string>();
  for (const section of sections)
    for (const line of section.lines) {
      const name = `${section.name}: ${line.what}${line.partNumber === null ? '' : ` (${line.partNumber})`}`;
      let key = name;
      for (let at = 2; found.has(key); at++) key = `${name}, line ${at}`;
      found.set(key, lineText(line, currency));
    }
  return found;
}

const heads = [
  ['title', 'Subject'],
  ['quotedOn', 'Date'],
  ['validUntil', 'Valid until'],
  ['customer', 'Customer'],
  ['address', 'Address'],
  ['contact', 'Contact'],
  ['currency', 'Currency'],
  ['terms', 'Terms'],
] as const satisfies readonly (readonly [keyof Quotation, string])[];

/** What changed from one revision to another: head, discounts of sections, lines, and the sums. */
export function differencesBetween(before: Quotation, after: Quotation): Difference[] {
  const told: Difference[] = [];
  const tell = (what: string, was: string | null, is: string | null): void => {
    if (was !== is) told.push({ what, before: was, after: is });
  };
  for (const [field, label] of heads) tell(label, before[field], after[field]);
  const maps = [
    [linesOf(before), linesOf(after)],
    [discountsOf(before), discountsOf(after)],
  ] as const;
  for (const [was, is] of maps)
    for (const key of new Set([...was.keys(), ...is.keys()]))
      tell(key, was.get(key) ?? null, is.get(key) ?? null);
  const [old, now] = [totalsOf(before), totalsOf(after)];
  tell('Net sum', sum(old.netMinor, before.currency), sum(now.netMinor, after.currency));
  tell('Total', sum(old.totalMinor, before.currency), sum(now.totalMinor, after.currency));
  return told;
}

const discountsOf = ({ sections }: Quotation): Map<string, string> =>
  new Map(
    sections.flatMap(({ name, discount }) =>
      discount === 0 ? [] : [[`${name}: discount`, percentText(discount)] as const],
    ),
  );

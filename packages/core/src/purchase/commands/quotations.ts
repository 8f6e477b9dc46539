import { create, remove, update } from '../../change/change.ts';
import { daysFrom, type Day } from '../../model/values/day.ts';
import { judged, refuse, type Attempt } from '../../commands/attempt.ts';
import { partSections, type PartsList } from '../../model/kinds/purchase/partsList.ts';
import {
  quotationKind,
  type Quotation,
  type QuotationLine,
  type QuotationSection,
  type Rate,
} from '../../model/kinds/purchase/quotation.ts';
import { modelTitle } from '../../model/kinds.ts';
import type { Network } from '../../model/network/network.ts';
import { newId } from '../../model/values/ids.ts';
import { metresText } from '../../model/values/numbers.ts';
import { compareNames } from '../../model/values/order.ts';
import { atRate } from '../money.ts';
import { partsOf, type PartLine } from '../partsOf.ts';

/** How long a quotation holds where nobody says it. */
const holdsDays = 30;

export type QuotationFields = Partial<Omit<Quotation, 'id' | 'status' | 'revision'>>;

/** What a line of a parts list costs each, in the currency of the quotation; null where no rate is known. */
export function priceIn(line: PartLine, currency: string, rates: readonly Rate[]): number | null {
  const { offer } = line;
  if (offer === null) return null;
  if (offer.currency === currency) return offer.unitMinor;
  const rate = rates.find((one) => one.currency === offer.currency)?.rate;
  return rate === undefined ? null : atRate(offer.unitMinor, rate);
}

function quotedLine(
  network: Network,
  line: PartLine,
  { currency, rates, tax }: { currency: string; rates: readonly Rate[]; tax: number },
): QuotationLine {
  const { part, order } = line;
  const model = part.licence === null ? network.get('model', part.modelId) : null;
  return {
    what: `${part.what}${part.lengthM === null ? '' : `, ${metresText(part.lengthM)}`}`.slice(0, 200),
    partNumber: part.partNumber,
    detail: null,
    count: order,
    unit: part.unit,
    unitMinor: priceIn(line, currency, rates),
    ...{ discount: 0, tax, optional: false },
    model: model === null || model.form === 'cable' ? null : modelTitle(model),
  };
}

/** What is to be bought of a list, as the sections of a quotation. */
export function quotedSections(
  network: Network,
  list: PartsList,
  day: Day,
  terms: { currency: string; rates: readonly Rate[]; tax: number },
): QuotationSection[] {
  const bought = partsOf(network, list, day).lines.filter(({ order }) => order > 0);
  return partSections.flatMap((name) => {
    const lines = bought
      .filter(({ part }) => part.section === name)
      .map((line) => quotedLine(network, line, terms));
    return lines.length === 0 ? [] : [{ name, discount: 0, lines }];
  });
}

/** "Q-2026-001": the first number of the year that no quotation has. */
export function nextNumber(network: Network, day: Day): string {
  for (let at = 1; ; at++) {
    const number = `Q-${day.slice(0, 4)}-${String(at).padStart(3, '0')}`;
    if (network.find('quotationsByNumber', number.toLowerCase()).length === 0) return number;
  }
}

/** The rate of tax that the latest quotation begins with, in hundredths of a per cent; 0 where there is none. */
function usualTax(network: Network): number {
  const [latest] = [...network.all('quotation')].sort(
    (a, b) =>
      Number(b.quotedOn > a.quotedOn) - Number(a.quotedOn > b.quotedOn) ||
      compareNames(b.number, a.number) ||
      b.revision - a.revision,
  );
  return latest?.sections[0]?.lines[0]?.tax ?? 0;
}

/**
 * Writes a quotation down from a parts list, or an empty one; from then on it is its own. Tax in hundredths of a per
 * cent; left out, that of the latest quotation.
 */
export function beginQuotation(
  network: Network,
  list: PartsList | null,
  day: Day,
  { tax = usualTax(network), ...fields }: QuotationFields & { tax?: number } = {},
): Attempt & { id: string } {
  const id = newId();
  const currency = fields.currency ?? list?.currency ?? 'EUR';
  const rates = fields.rates ?? [];
  const sections = list === null ? [] : quotedSections(network, list, day, { currency, rates, tax });
  if (list !== null && sections.length === 0)
    return {
      ...refuse(`Nothing of the parts list ${list.name} is to be bought: all of it is in place or reserved.`),
      id,
    };
  const row: Quotation = {
    ...{ id, number: nextNumber(network, day), revision: 1, status: 'draft' },
    ...{ title: list?.name ?? 'Quotation', partsListId: list?.id ?? null },
    ...{ quotedOn: day, validUntil: daysFrom(day, holdsDays) },
    ...{ customer: null, address: null, contact: null, drawings: [], terms: null },
    sections,
    ...fields,
    currency,
    rates,
  };
  return { ...judged(network, [create('quotation', row)], `Wrote the quotation ${row.number}`), id };
}

const called = (row: Quotation): string => quotationKind.nameOf(row);

export const changeQuotation = (network: Network, row: Quotation, fields: QuotationFields): Attempt =>
  judged(network, [update('quotation', row, fields)], `Changed the quotation ${called(row)}`);

/** Writes the lines anew from the list that it was made from; discounts, options and words of its own are lost. */
export function quoteAnew(network: Network, row: Quotation, day: Day): Attempt {
  if (row.status === 'issued')
    return refuse(`The quotation ${called(row)} ${quotationKind.frozen?.why ?? ''}.`);
  const list = network.get('partsList', row.partsListId);
  if (list === null) return refuse(`The parts list of ${called(row)} is gone. Write its lines by hand.`);
  const tax = row.sections[0]?.lines[0]?.tax ?? 0;
  const sections = quotedSections(network, list, day, { currency: row.currency, rates: row.rates, tax });
  return judged(
    network,
    [update('quotation', row, { sections })],
    `Wrote the quotation ${called(row)} anew from ${list.name}`,
  );
}

/** From now on it stays as it is. */
export const issueQuotation = (network: Network, row: Quotation): Attempt =>
  row.status === 'issued'
    ? refuse(`The quotation ${called(row)} is issued already.`)
    : judged(
        network,
        [update('quotation', row, { status: 'issued' })],
        `Issued the quotation ${called(row)}`,
      );

/** A draft with what a quotation says, under the next revision of its number, of the day. */
export function reviseQuotation(network: Network, row: Quotation, day: Day): Attempt & { id: string } {
  const id = newId();
  const same = network.find('quotationsByNumber', row.number.toLowerCase());
  const draft = same.find(({ status }) => status === 'draft');
  if (draft !== undefined)
    return { ...refuse(`${called(draft)} is a draft already. Change that, or delete it first.`), id };
  const revision = Math.max(...same.map((one) => one.revision)) + 1;
  const next: Quotation = {
    ...row,
    ...{ id, revision, status: 'draft', quotedOn: day, validUntil: daysFrom(day, holdsDays) },
  };
  return { ...judged(network, [create('quotation', next)], `Began ${called(next)}`), id };
}

export const removeQuotation = (network: Network, row: Quotation): Attempt =>
  judged(network, [remove('quotation', row)], `Deleted the quotation ${called(row)}`);

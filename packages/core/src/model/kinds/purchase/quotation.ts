import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import {
  countField,
  currencyField,
  dateField,
  idField,
  nameField,
  noted,
  refField,
  textField,
} from '../../fields/field.ts';

export const quotationStatuses = ['draft', 'issued'] as const;
export const quotationLimits = { sections: 40, lines: 1000, rates: 20, drawings: 40 } as const;

/** Hundredths of a per cent: 1 900 is 19 %. */
const basisPoints = (label: string) =>
  noted(
    z
      .int('is not a whole number of hundredths of a per cent')
      .min(0, 'is below 0 %')
      .max(10_000, 'is above 100 %'),
    { label },
  );

/** One thing that is offered. */
export const quotationLineSchema = z.strictObject({
  what: nameField('Item', 200),
  partNumber: nameField('Part number', 60).nullable(),
  detail: textField('Detail', 400),
  count: countField('Count', 1, 1_000_000),
  unit: z.enum(['piece', 'm']),
  /** Null: nobody knows the price yet; such a quotation cannot be issued. */
  unitMinor: z
    .int('is not a whole number of minor units')
    .min(0, 'is negative')
    .max(1e12, 'is above 10 000 000 000')
    .nullable(),
  discount: basisPoints('Discount'),
  tax: basisPoints('Tax'),
  /** Offered beside and not in the sum. */
  optional: z.boolean(),
  /** Maker and name of the model that is drawn with it. */
  model: nameField('Model', 200).nullable(),
});
export type QuotationLine = z.infer<typeof quotationLineSchema>;

export const quotationSectionSchema = z.strictObject({
  name: nameField('Section', 80),
  discount: basisPoints('Discount'),
  lines: z.array(quotationLineSchema).max(quotationLimits.lines, `are more than ${quotationLimits.lines}`),
});
export type QuotationSection = z.infer<typeof quotationSectionSchema>;

/** What one unit of another currency costs in that of the quotation: "0.9312", fixed when it was written. */
export const rateSchema = z.strictObject({
  currency: currencyField().unwrap(),
  rate: z.string().regex(/^(?!0+(\.0+)?$)\d{1,7}(\.\d{1,8})?$/, 'is not a rate such as 0.9312'),
});
export type Rate = z.infer<typeof rateSchema>;

/** What is offered to somebody; what it says was written down when it was made and no longer follows the model. */
export const quotationSchema = z
  .strictObject({
    id: idField('Id'),
    number: nameField('Number', 40),
    revision: countField('Revision', 1, 999),
    status: noted(z.enum(quotationStatuses), { label: 'Status' }),
    title: nameField('Subject', 120),
    /** What it was made from. */
    partsListId: refField('Parts list'),
    quotedOn: noted(dateField('Date').unwrap(), { label: 'Date', help: 'Year-month-day' }),
    validUntil: dateField('Valid until'),
    customer: nameField('Customer', 120).nullable(),
    address: textField('Address', 400),
    contact: textField('Contact', 200),
    currency: noted(currencyField().unwrap(), { label: 'Currency' }),
    rates: noted(z.array(rateSchema).max(quotationLimits.rates, `are more than ${quotationLimits.rates}`), {
      label: 'Rates',
    }),
    sections: noted(
      z
        .array(quotationSectionSchema)
        .max(quotationLimits.sections, `are more than ${quotationLimits.sections}`),
      { label: 'Items' },
    ),
    /** Names of sheets that are printed with it. */
    drawings: noted(
      z
        .array(nameField('Drawing', 120))
        .max(quotationLimits.drawings, `are more than ${quotationLimits.drawings}`),
      { label: 'Drawings' },
    ),
    terms: textField('Terms', 8000),
  })
  .superRefine((row, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if (row.validUntil !== null && row.validUntil < row.quotedOn)
      issue('validUntil', `${row.validUntil} is before its date, ${row.quotedOn}`);
    const rated = row.rates.map(({ currency }) => currency);
    const twice = rated.find((one, at) => rated.indexOf(one) !== at || one === row.currency);
    if (twice !== undefined)
      issue('rates', twice === row.currency ? `hold its own currency ${twice}` : `hold ${twice} twice`);
    if (row.status === 'draft') return;
    if (row.customer === null) issue('customer', 'is missing: it cannot be issued to nobody');
    if (row.validUntil === null) issue('validUntil', 'is missing: say until when it holds');
    const lines = row.sections.flatMap((section) => section.lines);
    if (lines.length === 0) issue('sections', 'are none: there is nothing to issue');
    const open = lines.filter(({ unitMinor, optional }) => unitMinor === null && !optional);
    if (open.length > 0)
      issue(
        'sections',
        `hold ${open.length} without a price, the first of them ${open[0]?.what ?? ''}. Give the price or take it out`,
      );
  });
export type Quotation = z.infer<typeof quotationSchema>;

export const quotationKind = defineKind({
  schema: quotationSchema,
  one: 'quotation',
  many: 'quotations',
  paper: true,
  refs: { partsListId: { to: 'partsList', index: 'quotationsByList', onRemove: 'cleared' } },
  indexes: { quotationsByNumber: (row) => row.number.toLowerCase() },
  unique: [uniqueBy<Quotation>('number', 'revision')],
  nameOf: (row) => (row.revision === 1 ? row.number : `${row.number} revision ${row.revision}`),
  frozen: {
    when: (row) => row.status === 'issued',
    field: 'status',
    value: 'issued',
    except: ['partsListId'],
    why: 'is issued and stays as it is. Make a revision of it',
  },
  facts: {
    number: 'serials',
    title: 'names',
    quotedOn: 'prices',
    validUntil: 'prices',
    customer: 'providers',
    address: 'whereabouts',
    contact: 'whereabouts',
    currency: 'prices',
    rates: 'prices',
    sections: 'prices',
    drawings: 'names',
    terms: 'notes',
  },
  blank: {
    revision: 1,
    status: 'draft',
    partsListId: null,
    validUntil: null,
    customer: null,
    address: null,
    contact: null,
    currency: 'EUR',
    rates: [],
    sections: [],
    drawings: [],
    terms: null,
  },
  section: 'quotations',
});

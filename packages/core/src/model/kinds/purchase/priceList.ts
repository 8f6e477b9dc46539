import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import {
  amountField,
  countField,
  currencyField,
  dateField,
  idField,
  moneyField,
  nameField,
  noted,
  textField,
} from '../../fields/field.ts';

/** What a supplier asks from one day until another; without an end until a later list of theirs. */
export const priceListSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name', 80),
    supplier: nameField('Supplier', 80),
    currency: noted(currencyField().unwrap(), { label: 'Currency' }),
    validFrom: noted(dateField('Valid from').unwrap(), { label: 'Valid from', help: 'Year-month-day' }),
    validUntil: dateField('Valid until'),
    notes: textField('Notes'),
  })
  .superRefine((list, context) => {
    if (list.validUntil !== null && list.validUntil < list.validFrom)
      context.addIssue({
        code: 'custom',
        path: ['validUntil'],
        message: `${list.validUntil} is before ${list.validFrom}, from when on it is valid`,
      });
  });
export type PriceList = z.infer<typeof priceListSchema>;

export const priceListKind = defineKind({
  schema: priceListSchema,
  one: 'price list',
  many: 'price lists',
  paper: true,
  refs: {},
  indexes: {},
  unique: [uniqueBy<PriceList>('name')],
  nameOf: (row) => row.name,
  facts: {
    name: 'providers',
    supplier: 'providers',
    currency: 'prices',
    validFrom: 'prices',
    validUntil: 'prices',
    notes: 'notes',
  },
  blank: { validUntil: null, notes: null },
  section: 'priceLists',
});

/** The price of one piece or metre of a part in a list, and how many come together. */
export const priceSchema = z.strictObject({
  id: idField('Id'),
  listId: idField('Price list'),
  modelId: idField('Part'),
  /** Of a cable in this stock length; empty for everything else. */
  lengthM: amountField('Length', 100_000, 'm'),
  /** Of a licence of the part, by its name; empty for the part itself. */
  licence: nameField('Licence', 60).nullable(),
  unitMinor: noted(moneyField('Price').unwrap(), { label: 'Price', internal: true }),
  pack: countField('Pack', 1, 10_000),
});
export type Price = z.infer<typeof priceSchema>;

export const priceKind = defineKind({
  schema: priceSchema,
  one: 'price',
  many: 'prices',
  paper: true,
  refs: {
    listId: { to: 'priceList', index: 'pricesByList', onRemove: 'goes' },
    modelId: { to: 'model', index: 'pricesByModel', onRemove: 'goes' },
  },
  indexes: {},
  unique: [uniqueBy<Price>('listId', 'modelId', 'lengthM', 'licence')],
  nameOf: (row) => row.licence ?? '',
  titled: (row, title) =>
    `${title('model', row.modelId)}${row.licence === null ? '' : `, ${row.licence}`}${row.lengthM === null ? '' : ` ${row.lengthM} m`} in ${title('priceList', row.listId)}`,
  facts: { licence: 'models', unitMinor: 'prices', pack: 'prices' },
  blank: { lengthM: null, licence: null, pack: 1 },
  section: 'prices',
  uncounted: true,
});

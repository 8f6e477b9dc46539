import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import {
  amountField,
  countField,
  dateField,
  idField,
  nameField,
  noted,
  textField,
} from '../../fields/field.ts';

/** So many of a part: pieces, or of cable without stock lengths whole metres. */
const pieces = (label: string, least: number) => countField(label, least, 1_000_000);
/** The length of a cable that is kept in lengths; empty for everything else. */
const lengthField = amountField('Length', 100_000, 'm');

/** What of a part lies in a store, which is any place. */
export const stockSchema = z.strictObject({
  id: idField('Id'),
  placeId: idField('Store'),
  modelId: idField('Part'),
  lengthM: lengthField,
  count: pieces('On hand', 0),
  /** Below this it is told. */
  least: noted(pieces('At least', 0).nullable(), { label: 'At least', help: 'Told when there are fewer' }),
  notes: textField('Notes'),
});
export type StockLine = z.infer<typeof stockSchema>;

export const stockKind = defineKind({
  schema: stockSchema,
  one: 'stock line',
  many: 'stock lines',
  paper: true,
  refs: {
    placeId: { to: 'place', index: 'stockByPlace', onRemove: 'holds' },
    modelId: { to: 'model', index: 'stockByModel', onRemove: 'holds' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<StockLine>('modelId', 'placeId', 'lengthM'),
      meanwhile: (row, name) =>
        `Somebody else entered ${name('model', row.modelId)} in ${name('place', row.placeId)} at the same moment. Count it there.`,
    },
  ],
  nameOf: () => '',
  titled: (row, title) =>
    `${title('model', row.modelId)}${row.lengthM === null ? '' : ` ${row.lengthM} m`} in ${title('place', row.placeId)}`,
  facts: { count: 'prices', least: 'prices', notes: 'notes' },
  blank: { lengthM: null, count: 0, least: null, notes: null },
  section: 'stock',
});

/** So many of a part in a store that are kept for a parts list. */
export const reservedPartSchema = z.strictObject({
  id: idField('Id'),
  listId: idField('Parts list'),
  modelId: idField('Part'),
  placeId: idField('Store'),
  lengthM: lengthField,
  count: pieces('Reserved', 1),
});
export type ReservedPart = z.infer<typeof reservedPartSchema>;

export const reservedPartKind = defineKind({
  schema: reservedPartSchema,
  one: 'reserved part',
  many: 'reserved parts',
  paper: true,
  refs: {
    listId: { to: 'partsList', index: 'reservedPartsByList', onRemove: 'goes' },
    modelId: { to: 'model', index: 'reservedPartsByModel', onRemove: 'holds' },
    placeId: { to: 'place', index: 'reservedPartsByPlace', onRemove: 'holds' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<ReservedPart>('listId', 'modelId', 'placeId', 'lengthM'),
      meanwhile: (row, name) =>
        `Somebody else reserved ${name('model', row.modelId)} in ${name('place', row.placeId)} for this list at the same moment.`,
    },
  ],
  nameOf: () => '',
  titled: (row, title) => `${title('model', row.modelId)} for ${title('partsList', row.listId)}`,
  facts: { count: 'prices' },
  blank: { lengthM: null },
  section: 'reservedParts',
});

/** Licences that are held: so many under one certificate, for a term or for good. */
export const heldLicenceSchema = z
  .strictObject({
    id: idField('Id'),
    certificate: nameField('Certificate', 80),
    modelId: idField('Part'),
    name: nameField('Licence', 60),
    count: pieces('Held', 1),
    validFrom: dateField('Valid from'),
    validUntil: dateField('Valid until'),
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    if (row.validFrom !== null && row.validUntil !== null && row.validUntil < row.validFrom)
      context.addIssue({
        code: 'custom',
        path: ['validUntil'],
        message: `${row.validUntil} is before ${row.validFrom}, from when on it is valid`,
      });
  });
export type HeldLicence = z.infer<typeof heldLicenceSchema>;

export const heldLicenceKind = defineKind({
  schema: heldLicenceSchema,
  one: 'held licence',
  many: 'held licences',
  refs: { modelId: { to: 'model', index: 'heldLicencesByModel', onRemove: 'holds' } },
  indexes: {},
  unique: [uniqueBy<HeldLicence>('certificate')],
  nameOf: (row) => row.certificate,
  facts: {
    certificate: 'serials',
    name: 'models',
    count: 'prices',
    validFrom: 'serials',
    validUntil: 'serials',
    notes: 'notes',
  },
  blank: { validFrom: null, validUntil: null, notes: null },
  section: 'heldLicences',
});

import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, nameField, noted, textField, uuid } from '../../fields/field.ts';

export const pathwayKinds = ['tray', 'conduit', 'riser', 'duct'] as const;

/** A way for cables between two places, with its length as drawn or measured. */
export const pathwaySchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name', 60),
    kind: noted(z.enum(pathwayKinds), { label: 'Kind' }),
    aPlaceId: noted(uuid(), { label: 'From', internal: true }),
    bPlaceId: noted(uuid(), { label: 'To', internal: true }),
    lengthM: noted(z.number().positive('is not above 0').max(100000, 'is above 100000'), {
      label: 'Length',
      unit: 'm',
    }),
    notes: textField('Notes'),
  })
  .superRefine((pathway, context) => {
    if (pathway.aPlaceId === pathway.bPlaceId)
      context.addIssue({
        code: 'custom',
        path: ['bPlaceId'],
        message: 'is the same place as it starts from',
      });
  });
export type Pathway = z.infer<typeof pathwaySchema>;

export const pathwayKind = defineKind({
  schema: pathwaySchema,
  one: 'pathway',
  many: 'pathways',
  refs: {
    aPlaceId: { to: 'place', index: 'pathwaysByPlace', onRemove: 'goes' },
    bPlaceId: { to: 'place', index: 'pathwaysByPlace', onRemove: 'goes' },
  },
  indexes: {},
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'names', lengthM: 'lengths', notes: 'notes' },
  blank: {},
});

import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted, textField } from '../../fields/field.ts';
import { labelsField } from './labels.ts';

/**
 * Two virtual networks that send to each other. It carries no further than to these two, is in force when both sides
 * have accepted it, and each side needs a route.
 */
export const peeringSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name', 60),
    aNetworkId: idField('One network'),
    bNetworkId: idField('Other network'),
    aAccepted: noted(z.boolean(), { label: 'One side accepted' }),
    bAccepted: noted(z.boolean(), { label: 'Other side accepted' }),
    labels: labelsField,
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    if (row.aNetworkId === row.bNetworkId)
      context.addIssue({
        code: 'custom',
        path: ['bNetworkId'],
        message: 'is the same network: choose another',
      });
  });
export type Peering = z.infer<typeof peeringSchema>;
export const blankPeering: Omit<Peering, 'id' | 'name' | 'aNetworkId' | 'bNetworkId'> = {
  aAccepted: true,
  bAccepted: true,
  labels: {},
  notes: null,
};

export const peeringKind = defineKind({
  schema: peeringSchema,
  one: 'peering',
  many: 'peerings',
  refs: {
    aNetworkId: { to: 'place', index: 'peeringsByNetwork', onRemove: 'goes' },
    bNetworkId: { to: 'place', index: 'peeringsByNetwork', onRemove: 'goes' },
  },
  indexes: {},
  unique: [uniqueBy<Peering>('name')],
  nameOf: (row) => row.name,
  facts: { name: 'names', labels: 'notes', notes: 'notes' },
  blank: blankPeering,
  section: 'peerings',
});

import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted } from '../../fields/field.ts';

/** The things of a cloud that can be asked for a label. */
export const labelledThings = [
  'instances',
  'gateways',
  'virtual networks',
  'cloud subnets',
  'rule sets',
  'public addresses',
] as const;
export type LabelledThing = (typeof labelledThings)[number];

/** A label that every thing of a sort has to carry, such as a cost centre on every instance. */
export const demandedLabelSchema = z.strictObject({
  id: idField('Id'),
  key: nameField('Key', 40),
  on: noted(z.enum(labelledThings), { label: 'On' }),
});
export type DemandedLabel = z.infer<typeof demandedLabelSchema>;

export const demandedLabelKind = defineKind({
  schema: demandedLabelSchema,
  one: 'demanded label',
  many: 'demanded labels',
  refs: {},
  indexes: {},
  unique: [uniqueBy<DemandedLabel>('key', 'on')],
  nameOf: (row) => `${row.key} on ${row.on}`,
  facts: { key: 'notes' },
  blank: { on: 'instances' },
  section: 'demandedLabels',
});

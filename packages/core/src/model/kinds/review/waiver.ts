import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { dateField, idField, nameField, noted, uuid } from '../../fields/field.ts';

/** The row that a finding is about. */
const aboutSchema = z.strictObject({ kind: z.string().min(1).max(40), id: uuid() });

/** Why something that a rule finds is meant to be so: it holds back one finding while the facts of it stay as they are. */
export const waiverSchema = z.strictObject({
  id: idField('Id'),
  rule: nameField('Rule', 60),
  about: noted(z.array(aboutSchema).max(5000, 'are more than 5000'), { label: 'About', internal: true }),
  /** The mark of the finding's facts (`factMark`). */
  facts: noted(z.string().regex(/^[0-9a-f]{32}$/, 'is not the mark of facts'), {
    label: 'Facts',
    internal: true,
  }),
  reason: noted(
    z
      .string()
      .max(500, 'is longer than 500 characters')
      .refine((text) => text.trim() !== '', 'is missing: say why it is meant'),
    { label: 'Reason' },
  ),
  by: nameField('By', 120),
  madeOn: noted(dateField('Since').unwrap(), { label: 'Since' }),
  until: dateField('Until'),
});
export type Waiver = z.infer<typeof waiverSchema>;

export const waiverKind = defineKind({
  schema: waiverSchema,
  one: 'waiver',
  many: 'waivers',
  paper: true,
  refs: {},
  indexes: { waiversByRule: (row) => row.rule },
  unique: [],
  nameOf: (row) => row.reason,
  facts: { rule: 'notes', reason: 'notes', by: 'whereabouts', madeOn: 'notes', until: 'notes' },
  blank: { until: null },
});

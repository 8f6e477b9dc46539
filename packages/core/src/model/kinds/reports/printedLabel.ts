import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { dateField, noted, idField } from '../../fields/field.ts';

/** The kinds of thing that a label is stuck to. */
export const labelledKinds = ['cable', 'device', 'port', 'rack'] as const;
export type LabelledKind = (typeof labelledKinds)[number];

/** What was last printed for a thing, or for one end of a cable: as long as it still reads so, it needs no new label. */
export const printedLabelSchema = z.strictObject({
  id: idField('Id'),
  subjectKind: noted(z.enum(labelledKinds), { label: 'Of' }),
  subjectId: idField('Thing'),
  /** The end of a cable; null for what has one label. */
  side: noted(z.enum(['a', 'b']).nullable(), { label: 'End' }),
  text: noted(z.string().min(1, 'is empty').max(1000, 'is longer than 1000 characters'), { label: 'Text' }),
  printedOn: noted(dateField('Printed on').unwrap(), { label: 'Printed on' }),
});
export type PrintedLabel = z.infer<typeof printedLabelSchema>;

export const printedLabelKind = defineKind({
  schema: printedLabelSchema,
  one: 'printed label',
  many: 'printed labels',
  paper: true,
  refs: {
    subjectId: { to: labelledKinds, by: 'subjectKind', index: 'printedLabelsBySubject', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      what: 'subjectId',
      fields: ['subjectId', 'side'],
      key: (row) => `${row.subjectId}/${row.side ?? ''}`,
      meanwhile: (row, name) =>
        `Somebody else printed the label of ${name(row.subjectKind, row.subjectId)} at the same moment.`,
    },
  ],
  nameOf: (row) => row.text,
  facts: { text: 'labels', printedOn: 'notes' },
  blank: { side: null },
  uncounted: true,
});

import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted, textField } from '../../fields/field.ts';
import { prefixField } from '../../fields/ipField.ts';

/** Prefixes under one name, for rules and routes. */
export const prefixListSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 60),
  prefixes: noted(z.array(prefixField('Prefix')).max(1000, 'are more than 1,000'), {
    label: 'Prefixes',
    internal: true,
  }),
  notes: textField('Notes'),
});
export type PrefixList = z.infer<typeof prefixListSchema>;

export const prefixListKind = defineKind({
  schema: prefixListSchema,
  one: 'named list of prefixes',
  many: 'named lists of prefixes',
  refs: {},
  indexes: {},
  unique: [uniqueBy<PrefixList>('name')],
  nameOf: (row) => row.name,
  facts: { name: 'names', prefixes: 'addresses', notes: 'notes' },
  blank: { prefixes: [], notes: null },
  section: 'prefixLists',
});

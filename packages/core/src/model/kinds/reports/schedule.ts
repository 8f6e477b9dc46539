import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted, refField, textField } from '../../fields/field.ts';

/** What a value of a column can be asked. Of dates `today` and `today + 365` are values too. */
export const columnTests = [
  'is',
  'is not',
  'contains',
  'does not contain',
  'at least',
  'at most',
  'is empty',
  'is not empty',
] as const;
export type ColumnTest = (typeof columnTests)[number];
/** Tests that look at a value of their own. */
export const takesValue = (test: ColumnTest): boolean => test !== 'is empty' && test !== 'is not empty';

/** What is worked out of the values of a column, for each group and in all. */
export const totals = ['sum', 'mean', 'least', 'most', 'count'] as const;
export type Total = (typeof totals)[number];

/** How much a question can hold. */
export const questionLimits = { columns: 60, filters: 20, groups: 4, order: 6 } as const;

export const columnKey = z.string().min(1).max(60);
const atMost = <T extends z.ZodType>(item: T, most: number) =>
  z.array(item).max(most, `are more than ${most}`);

/** A column that is listed: which, under what title, how wide, and what is worked out of it. */
const askedColumn = z.strictObject({
  key: columnKey,
  /** Null: as the column itself is called. */
  title: z.string().min(1, 'is empty').max(80, 'is longer than 80 characters').nullable(),
  /** In pixels on screen; null: as wide as such a column is. */
  width: z.int().min(30).max(1200).nullable(),
  total: z.enum(totals).nullable(),
});
export const askedFilter = z.strictObject({
  key: columnKey,
  test: z.enum(columnTests),
  value: z.string().max(200, 'is longer than 200 characters'),
});
export const askedOrder = z.strictObject({ key: columnKey, descending: z.boolean() });

/** A schedule is kept as its question: what is listed and how. Its rows are never kept. */
export const scheduleSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 80),
  /** The rows that it lists: the key of a built-in schedule. */
  of: nameField('Lists', 40),
  /** A place of its own; null: that which one looks at. */
  scopeId: refField('Place'),
  columns: noted(atMost(askedColumn, questionLimits.columns).min(1, 'are missing: choose at least one'), {
    label: 'Columns',
  }),
  filters: noted(atMost(askedFilter, questionLimits.filters), { label: 'Filters' }),
  groups: noted(atMost(columnKey, questionLimits.groups), { label: 'Groups' }),
  order: noted(atMost(askedOrder, questionLimits.order), { label: 'Order' }),
  numbered: noted(z.boolean(), { label: 'Rows numbered' }),
  blankRepeats: noted(z.boolean(), { label: 'Repeated values blank' }),
  notes: textField('Notes', 4000),
});
export type Schedule = z.infer<typeof scheduleSchema>;
export type AskedColumn = z.infer<typeof askedColumn>;
export type AskedFilter = z.infer<typeof askedFilter>;
export type AskedOrder = z.infer<typeof askedOrder>;

/** A question that is not kept under a name. */
export const questionSchema = scheduleSchema.omit({ id: true, name: true });
export type Question = z.infer<typeof questionSchema>;

export const scheduleKind = defineKind({
  schema: scheduleSchema,
  one: 'schedule',
  many: 'schedules',
  paper: true,
  refs: { scopeId: { to: 'place', index: 'schedulesByPlace', onRemove: 'cleared' } },
  indexes: {},
  unique: [uniqueBy<Schedule>('name')],
  nameOf: (row) => row.name,
  facts: { name: 'names', of: 'notes', filters: 'notes', notes: 'notes' },
  blank: {
    scopeId: null,
    filters: [],
    groups: [],
    order: [],
    numbered: false,
    blankRepeats: false,
    notes: null,
  },
  section: 'schedules',
});

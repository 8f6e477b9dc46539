import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted } from '../../fields/field.ts';
import { askedFilter, askedOrder, columnKey, questionLimits } from './schedule.ts';

/** How the rows of a grid are looked at: which columns in which order and how wide, which rows, in what groups and order. */
export const viewFields = {
  /** Columns that are shown, in their order; none: all, as they come. */
  columns: noted(z.array(columnKey).max(questionLimits.columns, `are more than ${questionLimits.columns}`), {
    label: 'Columns',
  }),
  /** Columns that were made wider or narrower, in pixels. */
  widths: noted(z.record(columnKey, z.int().min(30).max(1200)), { label: 'Widths' }),
  filters: noted(
    z.array(askedFilter).max(questionLimits.filters, `are more than ${questionLimits.filters}`),
    {
      label: 'Filters',
    },
  ),
  group: noted(columnKey.nullable(), { label: 'Group' }),
  order: noted(askedOrder.nullable(), { label: 'Order' }),
};

/** A view that is not kept under a name. */
export const gridViewPart = z.strictObject(viewFields);
export type View = z.infer<typeof gridViewPart>;

/** Rows as they come, all of their columns. */
export const plainView: View = { columns: [], widths: {}, filters: [], group: null, order: null };

/** A view of a grid that everybody in the project can choose. Its rows are never kept. */
export const gridViewSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 80),
  /** The grid that it is of, such as "cables". */
  grid: nameField('Grid', 40),
  ...viewFields,
});
export type GridView = z.infer<typeof gridViewSchema>;

export const gridViewKind = defineKind({
  schema: gridViewSchema,
  one: 'view',
  many: 'views',
  paper: true,
  refs: {},
  indexes: {},
  unique: [uniqueBy<GridView>('name', 'grid')],
  nameOf: (row) => row.name,
  facts: { name: 'names', grid: 'notes', filters: 'notes', group: 'notes' },
  blank: plainView,
  section: 'views',
});

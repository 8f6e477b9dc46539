import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, noted } from '../../fields/field.ts';

const coordinate = (label: string) => noted(z.number().min(-1e6).max(1e6).nullable(), { label });
const length = (label: string) => noted(z.number().min(16).max(1e5).nullable(), { label });

/** The kinds of thing that a plate can stand for: a provider by its first circuit, a shared subnet by its prefix. */
export const plateKinds = ['device', 'place', 'circuit', 'prefix'] as const;
export type PlateKind = (typeof plateKinds)[number];

/**
 * What a person did with one thing on one sheet: where its plate stands (the top left corner, in sheet units; empty
 * when it was not placed), its size, whether it is locked, left out, or a place drawn as one plate.
 */
export const sheetItemSchema = z
  .strictObject({
    id: idField('Id'),
    sheetId: idField('Sheet'),
    subjectKind: noted(z.enum(plateKinds), { label: 'What stands there' }),
    subjectId: idField('Which'),
    x: coordinate('X'),
    y: coordinate('Y'),
    width: length('Width'),
    height: length('Height'),
    locked: noted(z.boolean(), { label: 'Locked' }),
    away: noted(z.boolean(), { label: 'Left out' }),
    collapsed: noted(z.boolean(), { label: 'Drawn as one plate' }),
  })
  .superRefine((item, context) => {
    if ((item.x === null) !== (item.y === null))
      context.addIssue({
        code: 'custom',
        path: [item.x === null ? 'x' : 'y'],
        message: 'is missing although the other coordinate is given',
      });
  });
export type SheetItem = z.infer<typeof sheetItemSchema>;

/** An item that says nothing yet. */
export const blankSheetItem: Omit<SheetItem, 'id' | 'sheetId' | 'subjectKind' | 'subjectId'> = {
  x: null,
  y: null,
  width: null,
  height: null,
  locked: false,
  away: false,
  collapsed: false,
};

export const sheetItemKind = defineKind({
  schema: sheetItemSchema,
  one: 'position on a sheet',
  many: 'positions on sheets',
  paper: true,
  refs: {
    sheetId: { to: 'sheet', index: 'sheetItemsBySheet', onRemove: 'goes' },
    subjectId: { to: plateKinds, by: 'subjectKind', index: 'sheetItemsBySubject', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      what: 'subjectId',
      key: (row) => `${row.sheetId}/${row.subjectId}`,
      meanwhile: (row, name) =>
        `${name(row.subjectKind, row.subjectId)} was moved by somebody else on this sheet at the same moment. It stands where they put it; move it again.`,
    },
  ],
  nameOf: () => 'position',
  facts: {},
  blank: blankSheetItem,
  uncounted: true,
});

import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, noted } from '../../fields/field.ts';
import { linkFacets } from './sheet.ts';

const point = z.strictObject({ x: z.number().min(-1e6).max(1e6), y: z.number().min(-1e6).max(1e6) });

/** The kinds of thing that a link can stand for: a subnet by its prefix. */
export const lineKinds = ['cable', 'circuit', 'prefix'] as const;

/** What a person did with one link on one sheet: labels slid from where they would stand, bends of their own. */
export const sheetLinkSchema = z.strictObject({
  id: idField('Id'),
  sheetId: idField('Sheet'),
  subjectKind: noted(z.enum(lineKinds), { label: 'What it stands for' }),
  subjectId: idField('Which'),
  /** How far a label was slid, in sheet units along x and y. */
  aLabel: noted(point.nullable(), { label: 'A end label', internal: true }),
  bLabel: noted(point.nullable(), { label: 'B end label', internal: true }),
  middleLabel: noted(point.nullable(), { label: 'Middle label', internal: true }),
  bends: noted(z.array(point).max(40, 'are more than 40'), { label: 'Bends', internal: true }),
  /** What its labels tell, where that is not what the sheet says. */
  show: noted(z.array(z.enum(linkFacets)).nullable(), { label: 'Labels', internal: true }),
  straight: noted(z.boolean(), { label: 'Straight' }),
});
export type SheetLink = z.infer<typeof sheetLinkSchema>;

/** A link as it is drawn by itself. */
export const blankSheetLink: Omit<SheetLink, 'id' | 'sheetId' | 'subjectKind' | 'subjectId'> = {
  aLabel: null,
  bLabel: null,
  middleLabel: null,
  bends: [],
  show: null,
  straight: false,
};

export const sheetLinkKind = defineKind({
  schema: sheetLinkSchema,
  one: 'link on a sheet',
  many: 'links on sheets',
  paper: true,
  refs: {
    sheetId: { to: 'sheet', index: 'sheetLinksBySheet', onRemove: 'goes' },
    subjectId: { to: lineKinds, by: 'subjectKind', index: 'sheetLinksBySubject', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      what: 'subjectId',
      key: (row) => `${row.sheetId}/${row.subjectId}`,
      meanwhile: (row, name) =>
        `${name(row.subjectKind, row.subjectId)} was changed by somebody else on this sheet at the same moment. Look at it and change it again.`,
    },
  ],
  nameOf: () => 'link',
  facts: {},
  blank: blankSheetLink,
  uncounted: true,
});

import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, noted, refField } from '../../fields/field.ts';
import { linkFacets } from './sheet.ts';

const point = z.strictObject({ x: z.number().min(-1e6).max(1e6), y: z.number().min(-1e6).max(1e6) });

/** What a person did with one link on one sheet: labels slid from where they would stand, bends of their own. */
export const sheetLinkSchema = z
  .strictObject({
    id: idField('Id'),
    sheetId: idField('Sheet'),
    cableId: refField('Cable'),
    circuitId: refField('Circuit'),
    prefixId: refField('Prefix'),
    /** How far a label was slid, in sheet units along x and y. */
    aLabel: noted(point.nullable(), { label: 'A end label', internal: true }),
    bLabel: noted(point.nullable(), { label: 'B end label', internal: true }),
    middleLabel: noted(point.nullable(), { label: 'Middle label', internal: true }),
    bends: noted(z.array(point).max(40, 'are more than 40'), { label: 'Bends', internal: true }),
    /** What its labels tell, where that is not what the sheet says. */
    show: noted(z.array(z.enum(linkFacets)).nullable(), { label: 'Labels', internal: true }),
    straight: noted(z.boolean(), { label: 'Straight' }),
  })
  .superRefine((link, context) => {
    if ([link.cableId, link.circuitId, link.prefixId].filter((id) => id !== null).length !== 1)
      context.addIssue({
        code: 'custom',
        path: ['cableId'],
        message: 'or a circuit or a prefix must be given, and one of them only',
      });
  });
export type SheetLink = z.infer<typeof sheetLinkSchema>;

/** A link as it is drawn by itself. */
export const blankSheetLink: Omit<SheetLink, 'id' | 'sheetId'> = {
  cableId: null,
  circuitId: null,
  prefixId: null,
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
    cableId: { to: 'cable', index: 'sheetLinksByLine', onRemove: 'goes' },
    circuitId: { to: 'circuit', index: 'sheetLinksByLine', onRemove: 'goes' },
    prefixId: { to: 'prefix', index: 'sheetLinksByLine', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      what: 'cableId',
      key: (row) => `${row.sheetId}/${row.cableId ?? row.circuitId ?? row.prefixId ?? ''}`,
      meanwhile: (row, name) =>
        `${name('cable', row.cableId) || name('circuit', row.circuitId) || name('prefix', row.prefixId)} was changed by somebody else on this sheet at the same moment. Look at it and change it again.`,
    },
  ],
  nameOf: () => 'link',
  facts: {},
  blank: blankSheetLink,
  uncounted: true,
});

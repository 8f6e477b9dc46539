import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { idField, noted, refField } from '../../fields/field.ts';

const coordinate = (label: string) => noted(z.number().min(-1e6).max(1e6).nullable(), { label });
const length = (label: string) => noted(z.number().min(16).max(1e5).nullable(), { label });

/**
 * What a person did with one device, place, provider (by its first circuit) or shared subnet (by its prefix) on one sheet: where its plate stands (the top left corner, in sheet
 * units; empty when it was not placed), its size, whether it is locked, left out, or a place drawn as one plate.
 */
export const sheetItemSchema = z
  .strictObject({
    id: idField('Id'),
    sheetId: idField('Sheet'),
    deviceId: refField('Device'),
    placeId: refField('Place'),
    circuitId: refField('Circuit'),
    prefixId: refField('Prefix'),
    x: coordinate('X'),
    y: coordinate('Y'),
    width: length('Width'),
    height: length('Height'),
    locked: noted(z.boolean(), { label: 'Locked' }),
    away: noted(z.boolean(), { label: 'Left out' }),
    collapsed: noted(z.boolean(), { label: 'Drawn as one plate' }),
  })
  .superRefine((item, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if ([item.deviceId, item.placeId, item.circuitId, item.prefixId].filter((id) => id !== null).length !== 1)
      issue('deviceId', 'or a place, a circuit or a prefix must be given, and one of them only');
    if ((item.x === null) !== (item.y === null))
      issue(item.x === null ? 'x' : 'y', 'is missing although the other coordinate is given');
  });
export type SheetItem = z.infer<typeof sheetItemSchema>;

/** An item that says nothing yet. */
export const blankSheetItem: Omit<SheetItem, 'id' | 'sheetId'> = {
  deviceId: null,
  placeId: null,
  circuitId: null,
  prefixId: null,
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
    deviceId: { to: 'device', index: 'sheetItemsByDevice', onRemove: 'goes' },
    placeId: { to: 'place', index: 'sheetItemsByPlace', onRemove: 'goes' },
    circuitId: { to: 'circuit', index: 'sheetItemsByCircuit', onRemove: 'goes' },
    prefixId: { to: 'prefix', index: 'sheetItemsByPrefix', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      what: 'deviceId',
      key: (row) => `${row.sheetId}/${row.deviceId ?? row.placeId ?? row.circuitId ?? row.prefixId ?? ''}`,
      meanwhile: (row, name) =>
        `${name('device', row.deviceId) || name('place', row.placeId) || name('circuit', row.circuitId) || name('prefix', row.prefixId)} was moved by somebody else on this sheet at the same moment. It stands where they put it; move it again.`,
    },
  ],
  nameOf: () => 'position',
  facts: {},
  blank: blankSheetItem,
  uncounted: true,
});

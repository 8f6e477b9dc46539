import { z } from 'zod';
import { idField, nameField, noted, refField } from '../field.ts';

export const projections = ['cabling'] as const;
export const facets = ['models', 'portNames', 'cableLabels', 'places', 'power', 'key'] as const;
export type Facet = (typeof facets)[number];

/** One saved drawing: how the model is read, for which place, and which facets are shown. Never facts. */
export const sheetSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  projection: noted(z.enum(projections), { label: 'Projection' }),
  scopeId: refField('Scope'),
  show: noted(z.array(z.enum(facets)), { label: 'Shown', internal: true }),
});
export type Sheet = z.infer<typeof sheetSchema>;

/** Where a person has put a device on a sheet: the top left corner of its plate, in sheet units. */
export const sheetItemSchema = z.strictObject({
  id: idField('Id'),
  sheetId: idField('Sheet'),
  deviceId: idField('Device'),
  x: noted(z.number().min(-1e6).max(1e6), { label: 'X' }),
  y: noted(z.number().min(-1e6).max(1e6), { label: 'Y' }),
});
export type SheetItem = z.infer<typeof sheetItemSchema>;

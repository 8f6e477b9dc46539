import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { cableStatuses } from '../lines/cable.ts';
import { deviceSides } from './device.ts';
import { idField, nameField, noted, textField } from '../../fields/field.ts';
import { feedSchema } from '../sites/rack.ts';
import { roleCodes } from '../../values/roles.ts';

const unit = z.number().min(1).max(60.5).nullable();

/** A rack of a kit: placing the kit makes one, or fills one that is there. */
export const kitRackSchema = z.strictObject({
  key: z.string().min(1).max(80),
  units: z.int().min(1).max(60),
  numbering: z.enum(['up', 'down']),
  widthMm: z.number().min(200).max(1200),
  posts: z.union([z.literal(2), z.literal(4)]),
  depthMm: z.int().nullable(),
  massLimitKg: z.number().nullable(),
  feeds: z.array(feedSchema),
});
export const kitDeviceSchema = z.strictObject({
  key: z.string().min(1).max(80),
  role: z.enum(roleCodes),
  model: z.string().max(200),
  rack: z.string().nullable(),
  unit,
  units: z.number().min(0).max(60),
  face: z.enum(['front', 'rear']),
  fillsBothFaces: z.boolean(),
  side: z.enum(deviceSides),
  feed: z.string().nullable(),
  modules: z.array(z.strictObject({ slot: z.string(), model: z.string() })),
});
export const kitCableSchema = z.strictObject({
  type: z.string().nullable(),
  lengthM: z.number().nullable(),
  status: z.enum(cableStatuses),
  /** Device key and port name of each end. */
  a: z.tuple([z.string(), z.string()]),
  b: z.tuple([z.string(), z.string()]),
});
export const kitContentsSchema = z.strictObject({
  racks: z.array(kitRackSchema).max(50),
  devices: z.array(kitDeviceSchema).max(2000),
  cables: z.array(kitCableSchema).max(10000),
});
export type KitContents = z.infer<typeof kitContentsSchema>;

/** Racks, devices and cables kept under a name, to be placed again with new names and labels. */
export const kitSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name'),
  contents: noted(kitContentsSchema, { label: 'Contents', internal: true }),
  notes: textField('Notes'),
});
export type Kit = z.infer<typeof kitSchema>;

export const kitKind = defineKind({
  schema: kitSchema,
  one: 'kit',
  many: 'kits',
  paper: true,
  refs: {},
  indexes: {},
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: { name: 'names', contents: 'names', notes: 'notes' },
  blank: { contents: { racks: [], devices: [], cables: [] }, notes: null },
  section: 'kits',
});

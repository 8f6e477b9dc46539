import { z } from 'zod';
import { connectorNames } from '../model/connectors.ts';
import { cableStatuses } from '../model/kinds/cable.ts';
import { modelSchema } from '../model/kinds/catalogueModel.ts';
import { deviceSchema } from '../model/kinds/device.ts';
import { kitSchema } from '../model/kinds/kit.ts';
import { placeSchema } from '../model/kinds/place.ts';
import { portRoles } from '../model/kinds/portGroup.ts';
import { rackSchema } from '../model/kinds/rack.ts';
import { facets, projections } from '../model/kinds/sheet.ts';

export const formatName = 'visograph-exchange';
export const formatVersion = 1;

const name = z.string().min(1);
const text = z.string().nullable().optional();
const amount = z.number().min(0).nullable().optional();

/** The fields of a kind that stand in a file as they are: all may be left out. */
function fieldsOf<S extends z.ZodRawShape, D extends keyof S>(shape: S, without: readonly D[]) {
  const kept = Object.fromEntries(
    Object.entries(shape).filter(([key]) => !without.includes(key as D)),
  ) as Omit<S, D>;
  return z.strictObject(kept).partial();
}

export const placeEntry = fieldsOf(placeSchema.shape, ['id', 'name', 'parentId']).extend({
  path: name.describe(
    'Names from the outermost place in, separated by slashes; places not listed on the way are made',
  ),
});

export const rackEntry = fieldsOf(rackSchema.shape, ['id', 'placeId']).extend({
  name,
  place: name.describe('Path of the place it stands in'),
});

export const modelEntry = fieldsOf(modelSchema.shape, ['id']).extend({ name });

export const portEntry = z.strictObject({
  name,
  connector: z.enum(connectorNames).nullable().optional(),
  speedBps: amount,
  role: z.enum(portRoles).optional(),
  face: z.enum(['front', 'rear']).optional(),
  passThrough: text.describe('Name of the port on the other face of the same device'),
  notes: text,
});

export const moduleEntry = z.strictObject({
  slot: name.describe('Name of a slot of the model'),
  model: name.describe('Maker and name of a module'),
  serial: text,
  notes: text,
});

export const deviceEntry = fieldsOf(deviceSchema.shape, ['id', 'modelId', 'placeId', 'rackId']).extend({
  name,
  model: text.describe('Maker and name, or the name of a generic model'),
  rack: text,
  place: text.describe('Path of the place, for a device that is not in a rack'),
  modules: z.array(moduleEntry).optional().describe('What sits in its slots'),
  ports: z
    .array(portEntry)
    .optional()
    .describe("Ports beside, or different from, those of the device's model and modules"),
  onlyListedPorts: z
    .boolean()
    .optional()
    .describe('The ports listed are all there are: none are taken from the model'),
});

export const cableEntry = z.strictObject({
  label: name,
  type: text,
  lengthM: amount,
  status: z.enum(cableStatuses).optional(),
  a: text.describe('device:port'),
  b: text.describe('device:port'),
  notes: text,
});

export const sheetEntry = z.strictObject({
  name,
  projection: z.enum(projections).optional(),
  scope: text.describe('Path of a place; left out for the whole project'),
  show: z.array(z.enum(facets)).optional(),
  positions: z.array(z.strictObject({ device: name, x: z.number(), y: z.number() })).optional(),
});

export const kitEntry = fieldsOf(kitSchema.shape, ['id']).extend({ name });

/** The whole file. Everything but the first two fields may be left out. */
export const exchangeSchema = z.strictObject({
  format: z.literal(formatName),
  version: z.literal(formatVersion),
  project: z.strictObject({ name, labelDigits: z.int().optional() }).optional(),
  places: z.array(placeEntry).optional(),
  racks: z.array(rackEntry).optional(),
  models: z.array(modelEntry).optional(),
  devices: z.array(deviceEntry).optional(),
  cables: z.array(cableEntry).optional(),
  sheets: z.array(sheetEntry).optional(),
  kits: z.array(kitEntry).optional(),
});

export type ExchangeFile = z.infer<typeof exchangeSchema>;
export type ModelEntry = z.infer<typeof modelEntry>;
export type DeviceEntry = z.infer<typeof deviceEntry>;
export type PortEntry = z.infer<typeof portEntry>;

/** JSON Schema (2020-12) of the file, for editors and other programs. */
export const exchangeJsonSchema = (): Record<string, unknown> => ({
  title: 'Visograph exchange file, version 1',
  ...z.toJSONSchema(exchangeSchema, { target: 'draft-2020-12', io: 'input' }),
});

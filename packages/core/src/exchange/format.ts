import { z } from 'zod';
import { connectorNames } from '../model/connectors.ts';
import { cableStatuses } from '../model/kinds/cable.ts';
import { media, portGroupSchema, portRoles } from '../model/kinds/catalogueModel.ts';
import { deviceStatuses } from '../model/kinds/device.ts';
import { placeKinds } from '../model/kinds/place.ts';
import { facets, projections } from '../model/kinds/sheet.ts';
import { roleCodes } from '../model/roles.ts';

export const formatName = 'visograph-exchange';
export const formatVersion = 1;

const name = z.string().min(1);
const text = z.string().nullable().optional();
const amount = z.number().min(0).nullable().optional();

export const placeEntry = z.strictObject({
  path: name.describe(
    'Names from the outermost place in, separated by slashes; places not listed on the way are made',
  ),
  kind: z.enum(placeKinds).optional(),
  code: text.describe('Site code: starts device names and cable labels'),
  notes: text,
});

export const rackEntry = z.strictObject({
  name,
  place: name.describe('Path of the place it stands in'),
  units: z.int().optional(),
  numbering: z.enum(['up', 'down']).optional(),
  position: z.int().optional(),
  massLimitKg: amount,
  notes: text,
});

export const modelEntry = z.strictObject({
  form: z.enum(['device', 'cable']).optional(),
  maker: text,
  name,
  role: z.enum(roleCodes).nullable().optional(),
  units: z.int().optional(),
  fullDepth: z.boolean().optional(),
  massKg: amount,
  maxPowerW: amount,
  portGroups: z.array(portGroupSchema).optional(),
  medium: z.enum(media).nullable().optional(),
  ends: z.array(z.enum(connectorNames)).length(2).nullable().optional(),
  jacket: text,
  stockLengthsM: z.array(z.number().positive()).optional(),
  notes: text,
});

export const portEntry = z.strictObject({
  name,
  connector: z.enum(connectorNames).nullable().optional(),
  speedBps: amount,
  role: z.enum(portRoles).optional(),
  face: z.enum(['front', 'rear']).optional(),
  passThrough: text.describe('Name of the port on the other face of the same device'),
  notes: text,
});

export const deviceEntry = z.strictObject({
  name,
  role: z.enum(roleCodes).optional().describe('Taken from the model where left out'),
  status: z.enum(deviceStatuses).optional(),
  model: text.describe('Maker and name, or the name of a generic model'),
  rack: text,
  unit: z.int().nullable().optional(),
  units: z.int().optional(),
  face: z.enum(['front', 'rear']).optional(),
  fullDepth: z.boolean().optional(),
  place: text.describe('Path of the place, for a device that is not in a rack'),
  serial: text,
  notes: text,
  ports: z
    .array(portEntry)
    .optional()
    .describe("Ports beside, or different from, those of the device's model"),
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

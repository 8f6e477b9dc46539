import { z } from 'zod';
import { sectionSchemas } from './sections.ts';
import {
  bgpEntry,
  logicalPortFields,
  portProfileEntry,
  prefixEntry,
  reservedEntry,
  routeEntry,
  siteTemplateEntry,
  vlanNumberingEntry,
  vrfEntry,
} from './logicalEntries.ts';
import { connectorNames } from '../model/values/connectors.ts';
import { cableStatuses } from '../model/kinds/lines/cable.ts';
import { circuitSchema } from '../model/kinds/lines/circuit.ts';
import { modelSchema } from '../model/kinds/equipment/catalogueModel.ts';
import { macField } from '../model/fields/field.ts';
import { deviceSchema } from '../model/kinds/equipment/device.ts';
import { pathwaySchema } from '../model/kinds/sites/pathway.ts';
import { placeSchema } from '../model/kinds/sites/place.ts';
import { portRoles } from '../model/kinds/equipment/portGroup.ts';
import { cablingRulesSchema } from '../model/kinds/sites/project.ts';
import { rackSchema } from '../model/kinds/sites/rack.ts';
import { printedLabelSchema } from '../model/kinds/reports/printedLabel.ts';
import { waiverSchema } from '../model/kinds/review/waiver.ts';
import { projectSchema } from '../model/kinds/sites/project.ts';
import { markSchema } from '../model/kinds/drawings/mark.ts';
import { projections } from '../model/kinds/drawings/projections.ts';
import {
  bundleManners,
  groupSchema,
  pageSchema,
  readingSchema,
  sheetSchema,
} from '../model/kinds/drawings/sheet.ts';
import { sheetLinkSchema } from '../model/kinds/drawings/sheetLink.ts';

export const formatName = 'visograph-exchange';
export const formatVersion = 1;

const name = z.string().min(1);
const text = z.string().nullable().optional();
const amount = z.number().min(0).nullable().optional();

/** The fields of a kind that stand in a file as they are: all may be left out. */
function fieldsOf<S extends z.ZodRawShape, D extends keyof S>(shape: S, without: readonly D[]) {
  const kept = Object.fromEntries(
    Object.entries(shape).filter(([key]) => !without.some((one) => one === key)),
  ) as Omit<S, D>;
  return z.strictObject(kept).partial();
}

export const placeEntry = fieldsOf(placeSchema.shape, ['id', 'name', 'parentId', 'vlanNumberingId']).extend({
  vlanNumbering: text.describe('Numbering of VLANs that holds here and in what is inside'),
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
  leadsTo: text.describe('Name of the port on the other face of the same device'),
  strand: z
    .int()
    .min(1)
    .nullable()
    .optional()
    .describe('In a cassette: the first strand of this port at the common port it passes through to'),
  transceiver: text.describe('Maker and name of the transceiver in a cage'),
  transceiverSerial: text,
  reserved: text.describe('What the port is kept for'),
  mac: macField('MAC address').optional(),
  ...logicalPortFields,
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
  routes: z.array(routeEntry).optional().describe('Static routes'),
  bgp: z.array(bgpEntry).optional().describe('BGP sessions'),
});

export const cableEntry = z.strictObject({
  label: name,
  type: text,
  lengthM: amount,
  splices: z.int().min(0).optional(),
  status: z.enum(cableStatuses).optional(),
  a: text.describe('device:port'),
  b: text.describe('device:port'),
  aLegs: z
    .array(z.string().nullable())
    .optional()
    .describe('device:port of the second and further plugs at the A end; null where one hangs loose'),
  bLegs: z.array(z.string().nullable()).optional().describe('The same for the B end'),
  notes: text,
});

export const circuitEntry = fieldsOf(circuitSchema.shape, ['id', 'aPortId', 'bPortId']).extend({
  number: name,
  a: text.describe('device:port'),
  b: text.describe('device:port; left out where the circuit leads into the network of its provider'),
});

export const pathwayEntry = fieldsOf(pathwaySchema.shape, ['id', 'aPlaceId', 'bPlaceId']).extend({
  name,
  from: name.describe('Path of a place'),
  to: name.describe('Path of a place'),
  lengthM: z.number(),
});

/** What was done with one device, place or provider (by its circuit) on a sheet. */
const sheetPosition = z.strictObject({
  device: text,
  place: text.describe('Path of a place'),
  circuit: text.describe('Number of a circuit'),
  prefix: text.describe('Prefix of a shared subnet'),
  vrf: text.describe('VRF of the prefix'),
  x: z.number().optional(),
  y: z.number().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  locked: z.boolean().optional(),
  away: z.boolean().optional(),
  collapsed: z.boolean().optional(),
});

const sheetLine = fieldsOf(sheetLinkSchema.shape, ['id', 'sheetId', 'subjectKind', 'subjectId']).extend({
  cable: text.describe('Label of a cable'),
  circuit: text.describe('Number of a circuit'),
  prefix: text.describe('Prefix of a subnet'),
  vrf: text.describe('VRF of the prefix'),
});

const markEntry = fieldsOf(markSchema.shape, [
  'id',
  'sheetId',
  'deviceId',
  'aRackId',
  'bRackId',
  'scheduleId',
  'linkSheetId',
]).extend({
  form: markSchema.shape.form,
  device: text.describe('Device a callout points at'),
  aRack: text,
  bRack: text,
  schedule: text.describe('Name of the schedule whose rows stand there'),
  linkSheet: text.describe('Name of the sheet it leads to'),
});

export const sheetEntry = z.strictObject({
  name,
  projection: z.enum(projections).optional(),
  scope: text.describe('Path of a place; left out for the whole project'),
  vlan: text.describe('The one VLAN that a switching sheet lights up: numbering/number'),
  vrf: text.describe('The one VRF that a routing sheet shows'),
  ...sheetSchema
    .pick({
      picked: true,
      show: true,
      faded: true,
      locked: true,
      templates: true,
      colourBy: true,
      views: true,
      position: true,
    })
    .partial().shape,
  reading: readingSchema.omit({ gathered: true, bundles: true }).partial().optional(),
  page: pageSchema.partial().optional(),
  positions: z.array(sheetPosition).optional(),
  links: z.array(sheetLine).optional(),
  marks: z.array(markEntry).optional(),
  gathered: z.array(z.array(name).min(2)).optional().describe('Devices that are drawn as one plate, by name'),
  bundles: z
    .strictObject({
      drawn: z.enum(bundleManners).optional(),
      own: z
        .array(
          z.strictObject({ device: name, purpose: z.string().min(1).max(40), drawn: z.enum(bundleManners) }),
        )
        .optional(),
    })
    .optional()
    .describe('How links of one purpose from one device are drawn, and where that is otherwise'),
  groups: z
    .array(
      z.strictObject({
        name,
        state: groupSchema.shape.state.optional(),
        devices: z.array(name).optional(),
        marks: z.array(z.int()).optional().describe('Numbers of marks of this sheet, from 0'),
      }),
    )
    .optional(),
});

const waiverEntry = z.strictObject({
  rule: waiverSchema.shape.rule,
  about: z
    .array(z.string().min(1).max(400))
    .max(5000)
    .describe('The things it is about, each with its kind: “device kq-core-1”'),
  facts: waiverSchema.shape.facts.describe('Marks the facts that it stands on, with names in place of ids'),
  reason: waiverSchema.shape.reason,
  by: waiverSchema.shape.by,
  since: waiverSchema.shape.madeOn,
  until: waiverSchema.shape.until.optional(),
});

const printedLabelEntry = z.strictObject({
  of: printedLabelSchema.shape.subjectKind,
  name: z.string().min(1).max(400).describe('The thing that it is stuck to'),
  end: z.enum(['a', 'b']).nullable().optional().describe('Of a cable'),
  text: printedLabelSchema.shape.text,
  on: printedLabelSchema.shape.printedOn,
});

/** The whole file. Everything but the first two fields may be left out. */
export const exchangeSchema = z.strictObject({
  format: z.literal(formatName),
  version: z.literal(formatVersion),
  project: z
    .strictObject({
      name,
      labelDigits: z.int().optional(),
      cabling: cablingRulesSchema.partial().optional(),
      symbols: projectSchema.shape.symbols.optional(),
    })
    .optional(),
  vrfs: z.array(vrfEntry).optional(),
  vlanNumberings: z.array(vlanNumberingEntry).optional(),
  portProfiles: z.array(portProfileEntry).optional(),
  siteTemplates: z.array(siteTemplateEntry).optional(),
  places: z.array(placeEntry).optional(),
  racks: z.array(rackEntry).optional(),
  models: z.array(modelEntry).optional(),
  devices: z.array(deviceEntry).optional(),
  cables: z.array(cableEntry).optional(),
  circuits: z.array(circuitEntry).optional(),
  pathways: z.array(pathwayEntry).optional(),
  prefixes: z.array(prefixEntry).optional(),
  reserved: z.array(reservedEntry).optional().describe('Addresses kept without a port'),
  sheets: z.array(sheetEntry).optional(),
  waivers: z.array(waiverEntry).optional().describe('What is found and meant to be so, and why'),
  printedLabels: z.array(printedLabelEntry).optional().describe('Labels as they were last printed'),
  ...sectionSchemas(),
});

export type ExchangeFile = z.infer<typeof exchangeSchema>;
export type PrintedLabelEntry = z.infer<typeof printedLabelEntry>;
export type WaiverEntry = z.infer<typeof waiverEntry>;
export type ModelEntry = z.infer<typeof modelEntry>;
export type DeviceEntry = z.infer<typeof deviceEntry>;
export type PortEntry = z.infer<typeof portEntry>;

/** JSON Schema (2020-12) of the file, for editors and other programs. */
export const exchangeJsonSchema = (): Record<string, unknown> => ({
  title: 'Visograph exchange file, version 1',
  ...z.toJSONSchema(exchangeSchema, { target: 'draft-2020-12', io: 'input' }),
});

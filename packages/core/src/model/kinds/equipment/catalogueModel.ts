import { grouped } from '../../values/numbers.ts';
import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { connectorNames } from '../../values/connectors.ts';
import {
  amountField,
  currencyField,
  dateField,
  idField,
  moneyField,
  nameField,
  noted,
  textField,
} from '../../fields/field.ts';
import { roleCodes } from '../../values/roles.ts';
import { pictureField } from './pictures/picture.ts';
import { groupNames, portGroupSchema } from './portGroup.ts';

export const modelForms = ['device', 'module', 'transceiver', 'cable'] as const;
export const media = [
  'Cat 5e',
  'Cat 6',
  'Cat 6A',
  'Cat 7',
  'OM3',
  'OM4',
  'OM5',
  'OS2',
  'twinax',
  'active twinax',
  'active optical',
  'coax',
  'power',
  'serial',
] as const;
/** straight: strand 1 arrives as 1 (A); reversed: as the last (B); pairs: as 2, and 2 as 1 (C). */
export const polarities = ['straight', 'reversed', 'pairs'] as const;
export const airflows = ['front to rear', 'rear to front', 'left to right', 'none'] as const;
/** Things of a rack that are no equipment of their own. */
export const rackParts = ['blank', 'shelf', 'manager', 'tray'] as const;
/** How far a model of one project is on its way to all projects. */
export const sharingSteps = ['draft', 'offered', 'accepted'] as const;

/** A place in a device that takes a module of a family. */
export const slotSchema = z.strictObject({
  name: nameField('Slot', 30),
  family: nameField('Module family', 40),
  face: z.enum(['front', 'rear']).default('front'),
});
export type Slot = z.infer<typeof slotSchema>;

/** What a licence can be needed for; without one it is needed in any case. */
export const licensedFeatures = ['OSPF', 'BGP', 'several VRFs', 'stack'] as const;

/** What has to be held for a device, beside the device. */
export const licenceSchema = z.strictObject({
  name: nameField('Licence', 60),
  /** One for each device; or one for each that it manages, and for itself where it says nothing of what it manages. */
  per: z.enum(['device', 'managed device']),
  priceMinor: z.int().min(0).max(1e12).nullable().default(null),
  /** The role of the devices that it manages. */
  manages: z.enum(roleCodes).nullable().optional(),
  /** Needed only by devices that are set up so. */
  feature: z.enum(licensedFeatures).nullable().optional(),
  /** How long it holds; null or left out: for good. */
  termMonths: z.int().min(1, 'is below 1 month').max(120, 'is above 120 months').nullable().optional(),
});
export type Licence = z.infer<typeof licenceSchema>;

/** What a transceiver sends and needs to receive; power in dBm at the connector. */
export const opticsSchema = z.strictObject({
  formFactor: z.enum(connectorNames),
  speedBps: z.number().positive().max(1e13),
  connector: z.enum(connectorNames),
  /** Sent, then received when it differs: bidirectional optics come as mirrored pairs. */
  wavelengthsNm: z.array(z.number().min(600).max(2000)).max(16),
  reachM: z.number().positive().max(200000),
  launchMinDbm: z.number().min(-40).max(10).nullable().default(null),
  launchMaxDbm: z.number().min(-40).max(10).nullable().default(null),
  sensitivityDbm: z.number().min(-60).max(10).nullable().default(null),
});
export type Optics = z.infer<typeof opticsSchema>;

/** What a new transceiver begins with. */
export const blankOptics: Optics = {
  formFactor: 'SFP+',
  speedBps: 1e10,
  connector: 'LC',
  wavelengthsNm: [1310],
  reachM: 10000,
  launchMinDbm: null,
  launchMaxDbm: null,
  sensitivityDbm: null,
};

const halfUnits = z
  .number()
  .min(0, 'is below 0')
  .max(60, 'is above 60')
  .refine((units) => Number.isInteger(units * 2), 'is not a whole or half number of units');

const legs = z.int().min(1, 'is below 1').max(72, 'is above 72');
const shape = {
  id: idField('Id'),
  form: noted(z.enum(modelForms), { label: 'Form' }),
  maker: noted(nameField('Maker', 40).nullable(), { label: 'Maker', help: 'Empty for a generic model' }),
  name: nameField('Name'),
  partNumber: noted(nameField('Part number', 60).nullable(), { label: 'Part number' }),
  role: noted(z.enum(roleCodes).nullable(), { label: 'Role' }),
  part: noted(z.enum(rackParts).nullable(), { label: 'Rack part' }),
  units: noted(halfUnits, {
    label: 'Height',
    unit: 'U',
    help: 'Halves are allowed; 0 stands at the side or outside a rack',
  }),
  fillsBothFaces: noted(z.boolean(), {
    label: 'Fills both faces',
    help: 'Fills front and rear of its units',
  }),
  halfWidth: noted(z.boolean(), { label: 'Half width', help: 'Two stand side by side' }),
  massKg: amountField('Mass', 2000, 'kg'),
  typicalPowerW: amountField('Typical power', 100000, 'W'),
  maxPowerW: amountField('Maximum power', 100000, 'W'),
  capacityW: amountField('Power it passes on', 1e6, 'W', 'Of a power strip, UPS or power supply'),
  inletsNeeded: noted(z.int().min(1, 'is below 1').max(8, 'is above 8'), {
    label: 'Inlets needed',
    help: 'How many of its inlets must have power for it to run',
  }),
  airflow: noted(z.enum(airflows).nullable(), { label: 'Airflow' }),
  poeBudgetW: amountField('PoE budget', 20000, 'W'),
  poeClass: noted(z.int().min(0).max(8).nullable(), {
    label: 'PoE class as powered device',
    help: 'IEEE 802.3bt class 1 to 8',
  }),
  priceMinor: moneyField('List price'),
  currency: currencyField(),
  endOfSale: dateField('End of sale'),
  endOfSupport: dateField('End of support'),
  replacedBy: noted(nameField('Replaced by', 140).nullable(), {
    label: 'Replaced by',
    help: 'Maker and name of the model that is sold in its place',
  }),
  licences: noted(z.array(licenceSchema).max(20), { label: 'Licences', internal: true }),
  portGroups: noted(z.array(portGroupSchema).max(20), { label: 'Port groups', internal: true }),
  slots: noted(z.array(slotSchema).max(40), { label: 'Slots', internal: true }),
  moduleFamily: noted(nameField('Module family', 40).nullable(), { label: 'Module family' }),
  optics: noted(opticsSchema.nullable(), { label: 'Optics', internal: true }),
  opticStrands: noted(
    z
      .array(z.int().min(1, 'hold a strand below 1').max(24, 'hold a strand above 24'))
      .max(24)
      .refine(
        (list) => list.every((one, at) => at === 0 || one > (list[at - 1] ?? 0)),
        'are not in order, each once',
      )
      .nullable(),
    {
      label: 'Strands it lights',
      help: 'Of an array plug: 1-4 and 9-12 for four lanes each way; all of them where empty',
    },
  ),
  medium: noted(z.enum(media).nullable(), { label: 'Medium' }),
  ends: noted(z.array(z.enum(connectorNames)).length(2).nullable(), { label: 'Plugs', internal: true }),
  legsA: noted(legs, { label: 'Plugs at the A end' }),
  legsB: noted(legs, { label: 'Plugs at the B end', help: 'More than one for a breakout or a trunk' }),
  crossed: noted(z.boolean(), { label: 'Crossed', help: 'Pairs 2 and 3 change places' }),
  polarity: noted(z.enum(polarities), {
    label: 'Polarity',
    help: 'Order of the strands of an array cable at its far end (TIA-568.3-D methods A, B, C)',
  }),
  strands: noted(z.int().min(1).max(288).nullable(), { label: 'Strands' }),
  jacket: noted(
    z
      .string()
      .regex(/^#[0-9A-Fa-f]{6}$/, 'is not a colour such as #E3C233')
      .nullable(),
    { label: 'Jacket colour' },
  ),
  stockLengthsM: noted(z.array(z.number().positive().max(100000)).max(40), {
    label: 'Stock lengths',
    unit: 'm',
    internal: true,
  }),
  stockPricesMinor: noted(z.array(z.int().min(0).max(1e12)).max(40), {
    label: 'Prices of the stock lengths',
    internal: true,
  }),
  picture: pictureField,
  symbol: noted(pictureField.unwrap().nullable(), {
    label: 'Symbol',
    help: 'Drawn on plates in place of the letters of the role',
    internal: true,
  }),
  sharing: noted(z.enum(sharingSteps).nullable(), { label: 'Shared' }),
  retired: noted(z.boolean(), { label: 'Retired', help: 'No longer offered; what uses it stays' }),
  notes: textField('Notes'),
};

type Issue = (field: string, message: string) => void;

function checkPortNames(model: { portGroups: z.infer<typeof portGroupSchema>[] }, issue: Issue): void {
  const seen = new Set<string>();
  for (const group of model.portGroups) {
    const own = groupNames(group, 'own');
    const other = groupNames(group, 'other');
    for (const name of [...own, ...other]) {
      if (seen.has(name.toLowerCase())) return issue('portGroups', `yields the port name ${name} twice`);
      seen.add(name.toLowerCase());
    }
    const shared = group.rearConnector !== null && group.rearConnector !== group.connector;
    if (
      group.rearPattern !== null &&
      (shared ? own.length % other.length !== 0 : other.length !== own.length)
    ) {
      issue(
        'portGroups',
        `${group.pattern} has ${own.length} ports but its rear ${group.rearPattern} has ${other.length}`,
      );
    }
  }
}

/** An entry of the catalogue: a hardware model, a module, a transceiver or a cable type. */
export const modelSchema = z.strictObject(shape).superRefine((model, context) => {
  const issue: Issue = (field, message) => void context.addIssue({ code: 'custom', path: [field], message });
  if (model.form === 'cable' && model.medium === null)
    issue('medium', 'is missing: a cable type needs its medium');
  if (model.form === 'device' && model.role === null)
    issue('role', 'is missing: a hardware model needs its role');
  if (model.form === 'module' && model.moduleFamily === null)
    issue('moduleFamily', 'is missing: a module needs the family of the slots it fits');
  if (model.form === 'transceiver' && model.optics === null)
    issue('optics', 'are missing: a transceiver needs its form factor, speed and connector');
  if (model.opticStrands !== null && model.form !== 'transceiver')
    issue('opticStrands', 'are given although only transceivers light strands');
  if (model.typicalPowerW !== null && model.maxPowerW !== null && model.typicalPowerW > model.maxPowerW)
    issue(
      'typicalPowerW',
      `${grouped(model.typicalPowerW)} W is above the maximum of ${grouped(model.maxPowerW)} W`,
    );
  if (model.priceMinor !== null && model.currency === null)
    issue('currency', 'is missing although a price is given');
  if (model.endOfSale !== null && model.endOfSupport !== null && model.endOfSupport < model.endOfSale)
    issue('endOfSupport', `${model.endOfSupport} is before the end of sale, ${model.endOfSale}`);
  if (model.stockPricesMinor.length > 0 && model.stockPricesMinor.length !== model.stockLengthsM.length)
    issue('stockPricesMinor', 'are not as many as the stock lengths');
  const slots = model.slots.map((slot) => slot.name.toLowerCase());
  const twice = slots.find((name, at) => slots.indexOf(name) !== at);
  if (twice !== undefined) issue('slots', `hold the name ${twice} twice`);
  checkPortNames(model, issue);
});
export type CatalogueModel = z.infer<typeof modelSchema>;

/** A model with nothing filled in: what a new one starts from, and what files leave out. */
export const blankModel: Omit<CatalogueModel, 'id' | 'name'> = {
  form: 'device',
  maker: null,
  partNumber: null,
  role: null,
  part: null,
  units: 1,
  fillsBothFaces: true,
  halfWidth: false,
  massKg: null,
  typicalPowerW: null,
  maxPowerW: null,
  capacityW: null,
  inletsNeeded: 1,
  airflow: null,
  poeBudgetW: null,
  poeClass: null,
  priceMinor: null,
  currency: null,
  endOfSale: null,
  endOfSupport: null,
  replacedBy: null,
  licences: [],
  portGroups: [],
  slots: [],
  moduleFamily: null,
  optics: null,
  opticStrands: null,
  medium: null,
  ends: null,
  legsA: 1,
  legsB: 1,
  crossed: false,
  polarity: 'straight',
  strands: null,
  jacket: null,
  stockLengthsM: [],
  stockPricesMinor: [],
  picture: null,
  symbol: null,
  sharing: null,
  retired: false,
  notes: null,
};

/** Maker and name together, as people say it and as files refer to it. */
export const modelTitle = (model: Pick<CatalogueModel, 'maker' | 'name'>): string =>
  model.maker === null ? model.name : `${model.maker} ${model.name}`;

export const modelKind = defineKind({
  schema: modelSchema,
  one: 'model',
  many: 'models',
  refs: {},
  indexes: {
    modelByTitle: (row) => modelTitle(row).toLowerCase(),
  },
  unique: [{ what: 'name', key: (row) => modelTitle(row) }],
  nameOf: (row) => modelTitle(row),
  facts: {
    maker: 'models',
    name: 'models',
    partNumber: 'models',
    part: 'models',
    moduleFamily: 'models',
    picture: 'models',
    symbol: 'models',
    replacedBy: 'models',
    slots: 'portNames',
    portGroups: 'portNames',
    licences: 'prices',
    priceMinor: 'prices',
    currency: 'prices',
    stockPricesMinor: 'prices',
    notes: 'notes',
  },
  blank: blankModel,
});

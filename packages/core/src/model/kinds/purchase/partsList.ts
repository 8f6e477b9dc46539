import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { currencyField, idField, nameField, noted, refField, textField } from '../../fields/field.ts';
import { roleCodes } from '../../values/roles.ts';

/** What a list is made of, in the order in which it stands. */
export const partSections = [
  'Devices',
  'Modules',
  'Transceivers',
  'Panels',
  'Rack parts',
  'Racks',
  'Cables',
  'Power cords',
  'Licences',
  'Services',
  'Further parts',
] as const;
export type PartSection = (typeof partSections)[number];

/** Which things a list counts: what is planned, what is in place, or both. */
export const partStates = ['planned', 'in place', 'both'] as const;
/** What a service is counted by: once, or once for each of these that the list counts. */
export const servicePer = ['list', 'site', 'rack', 'device', 'cable'] as const;

const limits = { rules: 60, further: 300 } as const;
const count = z.int('is not a whole number').min(1, 'is below 1').max(1_000_000, 'is above 1000000');
const unitPrice = z
  .int('is not a whole number of minor units')
  .min(0, 'is negative')
  .max(1e12, 'is above 10 000 000 000')
  .nullable();

/** Spares of a section: so many in a hundred of what is planned, rounded up, and at least so many. */
const spareRule = z.strictObject({
  of: z.enum(partSections),
  percent: z.number().min(0, 'is below 0').max(100, 'is above 100'),
  least: z.int('is not a whole number').min(0, 'is below 0').max(10_000, 'is above 10000'),
});
/** A service that follows from what is counted. */
const serviceRule = z.strictObject({
  name: nameField('Service', 120),
  per: z.enum(servicePer),
  /** Only devices of this role. */
  role: z.enum(roleCodes).nullable(),
  unitMinor: unitPrice,
});
/** A part that nothing in the model stands for. */
const furtherPart = z.strictObject({
  name: nameField('Part', 120),
  partNumber: nameField('Part number', 60).nullable(),
  count,
  unitMinor: unitPrice,
});

/** A parts list is kept as what it is made of; its lines are worked out and never kept. */
export const partsListSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 80),
  /** Null: all places. */
  scopeId: refField('Place'),
  /** Its contents, so many times, in place of what stands in a place. */
  kitId: refField('Kit'),
  kitTimes: noted(count, { label: 'Times the kit' }),
  counts: noted(z.enum(partStates), { label: 'Counts' }),
  /** Amounts are in this currency. */
  currency: noted(currencyField().unwrap(), { label: 'Currency' }),
  spares: noted(z.array(spareRule).max(limits.rules, `are more than ${limits.rules}`), { label: 'Spares' }),
  services: noted(z.array(serviceRule).max(limits.rules, `are more than ${limits.rules}`), {
    label: 'Services',
  }),
  further: noted(z.array(furtherPart).max(limits.further, `are more than ${limits.further}`), {
    label: 'Further parts',
  }),
  notes: textField('Notes', 4000),
});
export type PartsList = z.infer<typeof partsListSchema>;
export type SpareRule = z.infer<typeof spareRule>;
export type ServiceRule = z.infer<typeof serviceRule>;
export type FurtherPart = z.infer<typeof furtherPart>;

/** A list with nothing filled in: of what is planned. */
export const blankPartsList: Omit<PartsList, 'id' | 'name'> = {
  scopeId: null,
  kitId: null,
  kitTimes: 1,
  counts: 'planned',
  currency: 'EUR',
  spares: [],
  services: [],
  further: [],
  notes: null,
};

export const partsListKind = defineKind({
  schema: partsListSchema,
  one: 'parts list',
  many: 'parts lists',
  paper: true,
  refs: {
    scopeId: { to: 'place', index: 'partsListsByPlace', onRemove: 'cleared' },
    kitId: { to: 'kit', index: 'partsListsByKit', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [uniqueBy<PartsList>('name')],
  nameOf: (row) => row.name,
  facts: {
    name: 'names',
    currency: 'prices',
    services: 'prices',
    further: 'prices',
    notes: 'notes',
  },
  blank: blankPartsList,
  section: 'partsLists',
});

/** A device that was chosen for a list: a list that has any counts those alone. */
export const listedDeviceSchema = z.strictObject({
  id: idField('Id'),
  listId: idField('Parts list'),
  deviceId: idField('Device'),
});
export type ListedDevice = z.infer<typeof listedDeviceSchema>;

export const listedDeviceKind = defineKind({
  schema: listedDeviceSchema,
  one: 'chosen device',
  many: 'chosen devices',
  paper: true,
  refs: {
    listId: { to: 'partsList', index: 'listedDevicesByList', onRemove: 'goes' },
    deviceId: { to: 'device', index: 'listedDevicesByDevice', onRemove: 'goes' },
  },
  indexes: {},
  unique: [uniqueBy<ListedDevice>('listId', 'deviceId')],
  nameOf: () => '',
  titled: (row, title) => `${title('device', row.deviceId)} in ${title('partsList', row.listId)}`,
  facts: {},
  blank: {},
  section: 'listedDevices',
  uncounted: true,
});

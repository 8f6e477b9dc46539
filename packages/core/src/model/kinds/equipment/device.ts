import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { notActive } from '../../values/status.ts';
import {
  currencyField,
  dateField,
  idField,
  inKeyOrder,
  moneyField,
  nameField,
  noted,
  refField,
  textField,
} from '../../fields/field.ts';
import { ipField } from '../../fields/ipField.ts';
import { roleCodes } from '../../values/roles.ts';
import { bridgeAddressField, bridgePriorityField, spanningTreeSchema } from '../logical/spanningTree.ts';

export const deviceStatuses = ['planned', 'active', 'retired'] as const;
export const deviceSides = ['full', 'left', 'right'] as const;

const halves = (value: number): boolean => Number.isInteger(value * 2);

export const deviceSchema = z
  .strictObject({
    id: idField('Id'),
    name: nameField('Name').refine(
      (name) => !name.includes(':'),
      'contains a colon, which separates device and port',
    ),
    role: noted(z.enum(roleCodes), { label: 'Role' }),
    status: noted(z.enum(deviceStatuses), { label: 'Status' }),
    modelId: refField('Model'),
    placeId: refField('Place'),
    rackId: refField('Rack'),
    unit: noted(
      z
        .number()
        .min(1, 'is below 1')
        .max(60.5, 'is above 60')
        .refine(halves, 'is not a whole or half unit')
        .nullable(),
      { label: 'Unit', help: 'Lowest-numbered unit it fills; empty when at the side of the rack' },
    ),
    units: noted(
      z
        .number()
        .min(0, 'is below 0')
        .max(60, 'is above 60')
        .refine(halves, 'is not a whole or half number of units'),
      { label: 'Height', unit: 'U' },
    ),
    face: noted(z.enum(['front', 'rear']), { label: 'Mounted at' }),
    fillsBothFaces: noted(z.boolean(), { label: 'Fills both faces' }),
    side: noted(z.enum(deviceSides), {
      label: 'Side',
      help: 'Half-width gear stands at the left or the right, as seen from the front',
    }),
    feed: noted(nameField('Power feed', 20).nullable(), {
      label: 'Power feed',
      help: 'The feed of its rack that its inlets hang on without a cable',
    }),
    serial: textField('Serial', 80),
    installedOn: dateField('Installed on'),
    assetNumber: textField('Asset number', 60),
    supplier: textField('Supplier', 80),
    orderNumber: textField('Order', 60),
    boughtOn: dateField('Bought on'),
    priceMinor: moneyField('Price paid'),
    currency: currencyField(),
    warrantyUntil: dateField('Warranty until'),
    supportUntil: dateField('Support until'),
    contract: textField('Support contract', 80),
    softwareVersion: textField('Software version', 80),
    responsible: textField('Responsible', 80),
    stack: noted(nameField('Stack or pair', 60).nullable(), {
      label: 'Stack or pair',
      help: 'Devices of one name here act as one switch, so that aggregates may span them',
    }),
    bridgePriority: noted(bridgePriorityField.nullable(), {
      label: 'Bridge priority',
      help: 'The lowest becomes the root of the spanning tree; 32768 where empty',
    }),
    bridgeAddress: bridgeAddressField,
    spanningTree: noted(spanningTreeSchema.nullable(), { label: 'Spanning tree', internal: true }),
    routerId: noted(
      ipField('Router id')
        .refine((text) => !text.includes(':'), 'is not like an IPv4 address')
        .nullable(),
      { label: 'Router id' },
    ),
    asNumber: noted(z.int().min(1, 'is below 1').max(4294967294, 'is above 4294967294').nullable(), {
      label: 'AS number',
    }),
    extra: noted(z.record(z.string().min(1).max(40), z.string().max(200)).overwrite(inKeyOrder), {
      label: 'Own fields',
      internal: true,
    }),
    notes: textField('Notes'),
  })
  .superRefine((device, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if (device.unit !== null && device.rackId === null)
      issue('rackId', 'is missing although a unit is given');
    if (device.unit !== null && device.units === 0)
      issue('unit', 'is given, but the device has no height (0 U)');
    if (device.priceMinor !== null && device.currency === null)
      issue('currency', 'is missing although a price is given');
    if (Object.keys(device.extra).length > 30) issue('extra', 'are more than 30');
  });
export type Device = z.infer<typeof deviceSchema>;

/** A device with nothing filled in. */
export const blankDevice: Omit<Device, 'id' | 'name' | 'role'> = {
  status: 'active',
  modelId: null,
  placeId: null,
  rackId: null,
  unit: null,
  units: 1,
  face: 'front',
  fillsBothFaces: true,
  side: 'full',
  feed: null,
  serial: null,
  installedOn: null,
  assetNumber: null,
  supplier: null,
  orderNumber: null,
  boughtOn: null,
  priceMinor: null,
  currency: null,
  warrantyUntil: null,
  supportUntil: null,
  contract: null,
  softwareVersion: null,
  responsible: null,
  stack: null,
  bridgePriority: null,
  bridgeAddress: null,
  spanningTree: null,
  routerId: null,
  asNumber: null,
  extra: {},
  notes: null,
};

export const deviceKind = defineKind({
  schema: deviceSchema,
  one: 'device',
  many: 'devices',
  refs: {
    modelId: { to: 'model', index: 'devicesByModel', onRemove: 'holds' },
    placeId: { to: 'place', index: 'devicesByPlace', onRemove: 'holds' },
    rackId: { to: 'rack', index: 'devicesByRack', onRemove: 'holds' },
  },
  indexes: {
    deviceByName: (row) => row.name.toLowerCase(),
    deviceBySerial: (row) => row.serial?.toLowerCase() ?? null,
    deviceByAsset: (row) => row.assetNumber?.toLowerCase() ?? null,
    /** Of what is not active: planned or retired. */
    devicesByStatus: (row) => notActive(row),
    /** Drawn, but nobody has said yet where it will stand. */
    devicesNotPlaced: (row) => (row.placeId === null && row.rackId === null ? 'not placed yet' : null),
    devicesByStack: (row) => row.stack?.toLowerCase() ?? null,
  },
  unique: [{ what: 'name', key: (row) => row.name }],
  nameOf: (row) => row.name,
  facts: {
    name: 'names',
    stack: 'names',
    serial: 'serials',
    installedOn: 'serials',
    assetNumber: 'serials',
    supplier: 'providers',
    orderNumber: 'serials',
    boughtOn: 'serials',
    priceMinor: 'prices',
    currency: 'prices',
    warrantyUntil: 'serials',
    supportUntil: 'serials',
    contract: 'serials',
    softwareVersion: 'serials',
    responsible: 'whereabouts',
    feed: 'power',
    bridgeAddress: 'addresses',
    routerId: 'addresses',
    asNumber: 'addresses',
    bridgePriority: 'protocols',
    spanningTree: 'protocols',
    extra: 'notes',
    notes: 'notes',
  },
  blank: blankDevice,
});

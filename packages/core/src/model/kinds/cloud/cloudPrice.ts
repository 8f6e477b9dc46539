import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import {
  amountField,
  currencyField,
  dateField,
  idField,
  nameField,
  noted,
  refField,
  textField,
} from '../../fields/field.ts';

/** What a provider asks money for. */
export const pricedThings = {
  instance: { title: 'Instance', per: 'hour', named: 'size' },
  storage: { title: 'Storage', per: 'GB and month', named: null },
  gateway: { title: 'Gateway', per: 'hour', named: 'sort' },
  gatewayTraffic: { title: 'Traffic through a gateway', per: 'GB', named: 'sort' },
  attachment: { title: 'Attachment of a router of the region', per: 'hour', named: null },
  publicAddress: { title: 'Public address in use', per: 'hour', named: null },
  keptAddress: { title: 'Public address kept unused', per: 'hour', named: null },
  acrossZones: { title: 'Traffic between zones', per: 'GB', named: null },
  acrossRegions: { title: 'Traffic between regions', per: 'GB', named: null },
  outbound: { title: 'Traffic to the internet', per: 'GB', named: null },
} as const;
export type PricedThing = keyof typeof pricedThings;
export const pricedThingNames = [
  'instance',
  'storage',
  'gateway',
  'gatewayTraffic',
  'attachment',
  'publicAddress',
  'keptAddress',
  'acrossZones',
  'acrossRegions',
  'outbound',
] as const satisfies readonly PricedThing[];

/** Prices of one provider from one day on. */
export const cloudPriceListSchema = z.strictObject({
  id: idField('Id'),
  name: nameField('Name', 80),
  profileId: idField('Provider profile'),
  currency: noted(currencyField().unwrap(), { label: 'Currency' }),
  validFrom: noted(dateField('Valid from').unwrap(), { label: 'Valid from', help: 'Year-month-day' }),
  notes: textField('Notes'),
});
export type CloudPriceList = z.infer<typeof cloudPriceListSchema>;

export const cloudPriceListKind = defineKind({
  schema: cloudPriceListSchema,
  one: 'cloud price list',
  many: 'cloud price lists',
  paper: true,
  refs: { profileId: { to: 'providerProfile', index: 'cloudPriceListsByProfile', onRemove: 'holds' } },
  indexes: {},
  unique: [uniqueBy<CloudPriceList>('name')],
  nameOf: (row) => row.name,
  facts: { name: 'providers', currency: 'prices', validFrom: 'prices', notes: 'notes' },
  blank: { notes: null },
  section: 'cloudPriceLists',
});

/** One price, in millionths of the currency: prices by the hour are smaller than a hundredth. */
export const cloudPriceSchema = z
  .strictObject({
    id: idField('Id'),
    listId: idField('Price list'),
    of: noted(z.enum(pricedThingNames), { label: 'Of' }),
    which: noted(nameField('Which', 40).nullable(), {
      label: 'Which',
      help: 'Size of an instance, sort of a gateway',
    }),
    millionths: noted(
      z.int('is not a whole number of millionths').min(0, 'is negative').max(1e12, 'is above 1 000 000'),
      { label: 'Price', internal: true },
    ),
  })
  .superRefine((row, context) => {
    if (pricedThings[row.of].named === null && row.which !== null)
      context.addIssue({
        code: 'custom',
        path: ['which'],
        message: `is given although there is one price of ${pricedThings[row.of].title.toLowerCase()}`,
      });
  });
export type CloudPrice = z.infer<typeof cloudPriceSchema>;

export const cloudPriceKind = defineKind({
  schema: cloudPriceSchema,
  one: 'cloud price',
  many: 'cloud prices',
  paper: true,
  refs: { listId: { to: 'cloudPriceList', index: 'cloudPricesByList', onRemove: 'goes' } },
  indexes: {},
  unique: [
    {
      ...uniqueBy<CloudPrice>('listId', 'of', 'which'),
      meanwhile: (row, name) =>
        `${name('cloudPriceList', row.listId)} has a price of ${pricedThings[row.of].title.toLowerCase()}${row.which === null ? '' : ` ${row.which}`} already.`,
    },
  ],
  nameOf: (row) => `${row.of}${row.which === null ? '' : ` ${row.which}`}`,
  titled: (row, title) =>
    `${pricedThings[row.of].title}${row.which === null ? '' : ` ${row.which}`} in ${title('cloudPriceList', row.listId)}`,
  facts: { which: 'models', millionths: 'prices' },
  blank: { which: null },
  section: 'cloudPrices',
  uncounted: true,
});

/** What is reckoned to flow from a device each month: to another device, or to the internet. */
export const flowEstimateSchema = z
  .strictObject({
    id: idField('Id'),
    fromId: idField('From'),
    toId: refField('To'),
    gbPerMonth: noted(amountField('Per month', 1e9, 'GB').unwrap(), { label: 'Per month', unit: 'GB' }),
    notes: textField('Notes', 400),
  })
  .superRefine((row, context) => {
    if (row.fromId === row.toId)
      context.addIssue({ code: 'custom', path: ['toId'], message: 'is where it comes from: choose another' });
  });
export type FlowEstimate = z.infer<typeof flowEstimateSchema>;

export const flowEstimateKind = defineKind({
  schema: flowEstimateSchema,
  one: 'estimate of a flow',
  many: 'estimates of flows',
  paper: true,
  refs: {
    fromId: { to: 'device', index: 'flowsFrom', onRemove: 'goes' },
    toId: { to: 'device', index: 'flowsTo', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<FlowEstimate>('fromId', 'toId'),
      meanwhile: (row, name) =>
        `The flow from ${name('device', row.fromId)} is estimated already. Change that estimate.`,
    },
  ],
  nameOf: () => '',
  titled: (row, title) =>
    `${title('device', row.fromId)} to ${row.toId === null ? 'the internet' : title('device', row.toId)}`,
  facts: { gbPerMonth: 'prices', notes: 'notes' },
  blank: { toId: null, notes: null },
  section: 'flowEstimates',
});

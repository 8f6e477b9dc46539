import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { amountField, countField, idField, nameField, noted, refField } from '../../fields/field.ts';
import { transportProtocols } from './ports.ts';

/** Towards whom a load balancer stands. */
export const facings = ['internal', 'internet'] as const;

/** What a device that runs in a cloud is besides: its size there, whether it runs, and what stands by for it. */
export const instanceSchema = z
  .strictObject({
    id: idField('Id'),
    deviceId: idField('Device'),
    size: noted(nameField('Size', 40).nullable(), { label: 'Size', help: 'As the price list calls it' }),
    running: noted(z.boolean(), { label: 'Running' }),
    storageGb: amountField('Storage', 1e9, 'GB'),
    facing: noted(z.enum(facings).nullable(), { label: 'Faces', help: 'Of a load balancer' }),
    standbyForId: refField('Stands by for'),
  })
  .superRefine((row, context) => {
    if (row.standbyForId === row.deviceId)
      context.addIssue({ code: 'custom', path: ['standbyForId'], message: 'is the instance itself' });
  });
export type Instance = z.infer<typeof instanceSchema>;
export const blankInstance: Omit<Instance, 'id' | 'deviceId'> = {
  size: null,
  running: true,
  storageGb: null,
  facing: null,
  standbyForId: null,
};

export const instanceKind = defineKind({
  schema: instanceSchema,
  one: 'instance',
  many: 'instances',
  refs: {
    deviceId: { to: 'device', index: 'instanceByDevice', onRemove: 'goes' },
    standbyForId: { to: 'device', index: 'instancesByStandbyFor', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [uniqueBy<Instance>('deviceId')],
  nameOf: () => '',
  titled: (row, title) => title('device', row.deviceId),
  facts: { size: 'models' },
  blank: blankInstance,
  section: 'instances',
  uncounted: true,
});

/** Where a load balancer sends what it takes in on a port. */
export const balancerTargetSchema = z.strictObject({
  id: idField('Id'),
  balancerId: idField('Load balancer'),
  deviceId: idField('Target'),
  protocol: noted(z.enum(transportProtocols), { label: 'Protocol' }),
  listens: countField('Listens on', 1, 65535),
  port: countField('Sends to port', 1, 65535),
});
export type BalancerTarget = z.infer<typeof balancerTargetSchema>;

export const balancerTargetKind = defineKind({
  schema: balancerTargetSchema,
  one: 'target',
  many: 'targets',
  refs: {
    balancerId: { to: 'device', index: 'targetsByBalancer', onRemove: 'goes' },
    deviceId: { to: 'device', index: 'targetsByDevice', onRemove: 'goes' },
  },
  indexes: {},
  unique: [
    {
      ...uniqueBy<BalancerTarget>('balancerId', 'deviceId', 'protocol', 'listens'),
      meanwhile: (row, name) =>
        `${name('device', row.balancerId)} sends ${row.protocol} ${row.listens} to ${name('device', row.deviceId)} already.`,
    },
  ],
  nameOf: () => '',
  titled: (row, title) =>
    `${title('device', row.balancerId)} ${row.protocol} ${row.listens} to ${title('device', row.deviceId)}`,
  facts: {},
  blank: { protocol: 'TCP' },
  section: 'balancerTargets',
  uncounted: true,
});

import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted, refField } from '../../fields/field.ts';
import { prefixField } from '../../fields/ipField.ts';
import { cloudReaches, familiesField, gatewayDirections } from './providerProfile.ts';

const prefixes = (label: string, help: string) =>
  noted(z.array(prefixField('Prefix')).max(100, 'are more than 100'), { label, help, internal: true });

/**
 * What a device of the role gateway does: which way connections may begin through it, in which families, whether it
 * puts an address of its own in place of the sender's, whether it fails with a zone, and which virtual network it is
 * attached to. Every provider's sort of gateway is a setting of this. Its tunnels and lines end on ports of the device.
 */
export const gatewaySchema = z
  .strictObject({
    id: idField('Id'),
    deviceId: idField('Device'),
    sort: noted(nameField('Sort', 40).nullable(), {
      label: 'Sort',
      help: 'What the provider calls it: one of its profile',
    }),
    direction: noted(z.enum(gatewayDirections), { label: 'Direction' }),
    families: familiesField,
    translates: noted(z.boolean(), {
      label: 'Translates',
      help: 'Puts its own address in place of the sender’s (RFC 3022)',
    }),
    reach: noted(z.enum(cloudReaches), { label: 'Stands' }),
    networkId: refField('Attached to'),
    publishes: noted(nameField('Publishes', 120).nullable(), {
      label: 'Publishes',
      help: 'A service that hosts of the network find under its private address',
    }),
    clientPool: noted(prefixField('Client pool').nullable(), {
      label: 'Client pool',
      help: 'Addresses that people get who dial in',
    }),
    clientsReach: prefixes('Clients reach', 'Prefixes that people who dial in are led to'),
    learned: prefixes('Learned', 'Prefixes that the far side tells it, where that side is not documented'),
  })
  .superRefine((row, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if (row.translates && row.direction === 'in')
      issue('translates', 'is set, but nothing begins a connection outward through it');
    if (row.clientPool === null && row.clientsReach.length > 0)
      issue('clientPool', 'is missing although it is said what clients reach');
  });
export type Gateway = z.infer<typeof gatewaySchema>;
export const blankGateway: Omit<Gateway, 'id' | 'deviceId'> = {
  sort: null,
  direction: 'both',
  families: ['IPv4'],
  translates: false,
  reach: 'regional',
  networkId: null,
  publishes: null,
  clientPool: null,
  clientsReach: [],
  learned: [],
};

export const gatewayKind = defineKind({
  schema: gatewaySchema,
  one: 'gateway',
  many: 'gateways',
  refs: {
    deviceId: { to: 'device', index: 'gatewayByDevice', onRemove: 'goes' },
    networkId: { to: 'place', index: 'gatewaysByNetwork', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [uniqueBy<Gateway>('deviceId')],
  nameOf: () => '',
  titled: (row, title) => title('device', row.deviceId),
  facts: {
    sort: 'providers',
    publishes: 'names',
    clientPool: 'addresses',
    clientsReach: 'addresses',
    learned: 'addresses',
  },
  blank: blankGateway,
  section: 'gateways',
  uncounted: true,
});

/** A virtual network, a tunnel or line of a port, or another router, joined by a router of the region. */
export const hubAttachmentSchema = z
  .strictObject({
    id: idField('Id'),
    hubId: idField('Router of the region'),
    name: nameField('Name', 60),
    networkId: refField('Virtual network'),
    portId: refField('Tunnel or line'),
    otherHubId: refField('Other router'),
    tableId: refField('Looked up in'),
  })
  .superRefine((row, context) => {
    const joined = [row.networkId, row.portId, row.otherHubId].filter((one) => one !== null);
    if (joined.length !== 1)
      context.addIssue({
        code: 'custom',
        path: ['networkId'],
        message:
          'is to be given: an attachment joins one virtual network, one tunnel or line, or one other router',
      });
    if (row.otherHubId === row.hubId)
      context.addIssue({ code: 'custom', path: ['otherHubId'], message: 'is the router itself' });
  });
export type HubAttachment = z.infer<typeof hubAttachmentSchema>;
export const blankHubAttachment: Omit<HubAttachment, 'id' | 'hubId' | 'name'> = {
  networkId: null,
  portId: null,
  otherHubId: null,
  tableId: null,
};

export const hubAttachmentKind = defineKind({
  schema: hubAttachmentSchema,
  one: 'attachment',
  many: 'attachments',
  refs: {
    hubId: { to: 'device', index: 'hubAttachmentsByHub', onRemove: 'goes' },
    networkId: { to: 'place', index: 'hubAttachmentsByNetwork', onRemove: 'goes' },
    portId: { to: 'port', index: 'hubAttachmentsByPort', onRemove: 'goes' },
    otherHubId: { to: 'device', index: 'hubAttachmentsByOther', onRemove: 'goes' },
    tableId: { to: 'routeTable', index: 'hubAttachmentsByTable', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [
    uniqueBy<HubAttachment>('name', 'hubId'),
    {
      ...uniqueBy<HubAttachment>('networkId', 'hubId'),
      meanwhile: (row, name) =>
        `${name('place', row.networkId)} is attached to ${name('device', row.hubId)} already. Change that attachment instead.`,
    },
  ],
  nameOf: (row) => row.name,
  titled: (row, title) => `${title('device', row.hubId)}/${row.name}`,
  facts: { name: 'names' },
  blank: blankHubAttachment,
  section: 'hubAttachments',
});

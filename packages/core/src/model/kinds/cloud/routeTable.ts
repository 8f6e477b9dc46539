import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, noted, refField, textField } from '../../fields/field.ts';
import { prefixField } from '../../fields/ipField.ts';
import { labelsField } from './labels.ts';

/** A route table of a virtual network, tied to its subnets; or one of a router of the region, tied to attachments. */
export const cloudTableSchema = z
  .strictObject({
    id: idField('Id'),
    placeId: refField('Virtual network'),
    hubId: refField('Router of the region'),
    name: nameField('Name', 60),
    learns: noted(z.boolean(), {
      label: 'Takes in routes',
      help: 'What tunnels, private lines and attachments bring is in the table without a route written for it',
    }),
    labels: labelsField,
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    if ((row.placeId === null) === (row.hubId === null))
      context.addIssue({
        code: 'custom',
        path: ['placeId'],
        message: 'is to be given: a table belongs to one virtual network or to one router of the region',
      });
  });
export type CloudTable = z.infer<typeof cloudTableSchema>;
export const blankCloudTable: Omit<CloudTable, 'id' | 'name'> = {
  placeId: null,
  hubId: null,
  learns: false,
  labels: {},
  notes: null,
};

export const routeTableKind = defineKind({
  schema: cloudTableSchema,
  one: 'route table',
  many: 'route tables',
  refs: {
    placeId: { to: 'place', index: 'routeTablesByNetwork', onRemove: 'goes' },
    hubId: { to: 'device', index: 'routeTablesByHub', onRemove: 'goes' },
  },
  indexes: {},
  unique: [uniqueBy<CloudTable>('name', 'placeId', 'hubId')],
  nameOf: (row) => row.name,
  titled: (row, title) =>
    `${row.placeId === null ? title('device', row.hubId) : title('place', row.placeId)}/${row.name}`,
  facts: { name: 'names', labels: 'notes', notes: 'notes' },
  blank: blankCloudTable,
  section: 'routeTables',
});

/** One line of a route table: to a prefix or a named list, through one thing, or nowhere. */
export const cloudRouteSchema = z
  .strictObject({
    id: idField('Id'),
    tableId: idField('Route table'),
    prefix: noted(prefixField('Destination').nullable(), { label: 'Destination' }),
    listId: refField('Named list'),
    gatewayId: refField('Gateway'),
    peeringId: refField('Peering'),
    portId: refField('Interface'),
    attachmentId: refField('Attachment'),
    discard: noted(z.boolean(), { label: 'Discard', help: 'Drops what matches nothing longer' }),
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    const issue = (field: string, message: string): void =>
      void context.addIssue({ code: 'custom', path: [field], message });
    if ((row.prefix === null) === (row.listId === null))
      issue('prefix', 'is to be given: a route leads to one prefix or to one named list');
    const ways = [row.gatewayId, row.peeringId, row.portId, row.attachmentId].filter((way) => way !== null);
    if (ways.length + (row.discard ? 1 : 0) !== 1)
      issue(
        'gatewayId',
        'is to be given: a route leads through one gateway, peering, interface or attachment, or nowhere',
      );
  });
export type CloudRoute = z.infer<typeof cloudRouteSchema>;
export const blankCloudRoute: Omit<CloudRoute, 'id' | 'tableId'> = {
  prefix: null,
  listId: null,
  gatewayId: null,
  peeringId: null,
  portId: null,
  attachmentId: null,
  discard: false,
  notes: null,
};

export const cloudRouteKind = defineKind({
  schema: cloudRouteSchema,
  one: 'route of a table',
  many: 'routes of tables',
  refs: {
    tableId: { to: 'routeTable', index: 'cloudRoutesByTable', onRemove: 'goes' },
    listId: { to: 'prefixList', index: 'cloudRoutesByList', onRemove: 'holds' },
    gatewayId: { to: 'device', index: 'cloudRoutesByGateway', onRemove: 'goes' },
    peeringId: { to: 'peering', index: 'cloudRoutesByPeering', onRemove: 'goes' },
    portId: { to: 'port', index: 'cloudRoutesByPort', onRemove: 'goes' },
    attachmentId: { to: 'hubAttachment', index: 'cloudRoutesByAttachment', onRemove: 'goes' },
  },
  indexes: {},
  unique: [uniqueBy<CloudRoute>('tableId', 'prefix', 'listId')],
  nameOf: (row) => row.prefix ?? '',
  titled: (row, title) =>
    `${title('routeTable', row.tableId)} to ${row.prefix ?? title('prefixList', row.listId)}`,
  facts: { prefix: 'addresses', notes: 'notes' },
  blank: blankCloudRoute,
  section: 'cloudRoutes',
});

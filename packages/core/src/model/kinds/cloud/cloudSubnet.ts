import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, nameField, refField, textField } from '../../fields/field.ts';
import { labelsField } from './labels.ts';

/**
 * A subnet of a virtual network: its IPv4 and its IPv6 prefix, in one zone or, without one, in the region as a whole;
 * the route table that its packets are sent by, and the rule set at its border. Whether it is open to the internet is
 * not said here: it follows from where its routes lead.
 */
export const cloudSubnetSchema = z
  .strictObject({
    id: idField('Id'),
    placeId: idField('Virtual network'),
    name: nameField('Name', 60),
    zoneId: refField('Zone'),
    prefixId: refField('IPv4 prefix'),
    v6PrefixId: refField('IPv6 prefix'),
    routeTableId: refField('Route table'),
    ruleSetId: refField('Rule set'),
    labels: labelsField,
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    if (row.prefixId !== null && row.prefixId === row.v6PrefixId)
      context.addIssue({ code: 'custom', path: ['v6PrefixId'], message: 'is the IPv4 prefix as well' });
  });
export type CloudSubnet = z.infer<typeof cloudSubnetSchema>;
export const blankCloudSubnet: Omit<CloudSubnet, 'id' | 'placeId' | 'name'> = {
  zoneId: null,
  prefixId: null,
  v6PrefixId: null,
  routeTableId: null,
  ruleSetId: null,
  labels: {},
  notes: null,
};

export const cloudSubnetKind = defineKind({
  schema: cloudSubnetSchema,
  one: 'cloud subnet',
  many: 'cloud subnets',
  refs: {
    placeId: { to: 'place', index: 'cloudSubnetsByNetwork', onRemove: 'goes' },
    zoneId: { to: 'place', index: 'cloudSubnetsByZone', onRemove: 'holds' },
    prefixId: { to: 'prefix', index: 'cloudSubnetsByPrefix', onRemove: 'cleared' },
    v6PrefixId: { to: 'prefix', index: 'cloudSubnetsByPrefix', onRemove: 'cleared' },
    routeTableId: { to: 'routeTable', index: 'cloudSubnetsByRouteTable', onRemove: 'cleared' },
    ruleSetId: { to: 'ruleSet', index: 'cloudSubnetsByRuleSet', onRemove: 'cleared' },
  },
  indexes: {},
  unique: [uniqueBy<CloudSubnet>('name', 'placeId')],
  nameOf: (row) => row.name,
  titled: (row, title) => `${title('place', row.placeId)}/${row.name}`,
  facts: { name: 'names', labels: 'notes', notes: 'notes' },
  blank: blankCloudSubnet,
  section: 'cloudSubnets',
});

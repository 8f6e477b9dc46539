import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, noted, textField } from '../../fields/field.ts';
import { ipField } from '../../fields/ipField.ts';
import { isHostName } from '../logical/address.ts';
import { labelsField } from './labels.ts';

const servers = (label: string, help: string) =>
  noted(z.array(ipField('Server')).max(8, 'are more than 8'), { label, help, internal: true });

/**
 * What a place of the kind network is besides: the VRF in which its blocks lie, and what its hosts are told by DHCP
 * (RFC 2132 options 6, 15 and 42). Its blocks are the prefixes of the role pool at that place.
 */
export const virtualNetworkSchema = z.strictObject({
  id: idField('Id'),
  placeId: idField('Virtual network'),
  vrfId: idField('VRF'),
  nameServers: servers('Name servers', 'Told to hosts by DHCP; where there are none, those of the provider'),
  timeServers: servers('Time servers', 'Told to hosts by DHCP'),
  domain: noted(
    z.string().refine(isHostName, 'is not a domain of letters, digits and hyphens (RFC 1123)').nullable(),
    { label: 'Domain', help: 'Told to hosts by DHCP' },
  ),
  labels: labelsField,
  notes: textField('Notes'),
});
export type VirtualNetwork = z.infer<typeof virtualNetworkSchema>;
export const blankVirtualNetwork: Omit<VirtualNetwork, 'id' | 'placeId' | 'vrfId'> = {
  nameServers: [],
  timeServers: [],
  domain: null,
  labels: {},
  notes: null,
};

export const virtualNetworkKind = defineKind({
  schema: virtualNetworkSchema,
  one: 'virtual network',
  many: 'virtual networks',
  refs: {
    placeId: { to: 'place', index: 'virtualNetworkByPlace', onRemove: 'goes' },
    vrfId: { to: 'vrf', index: 'virtualNetworkByVrf', onRemove: 'holds' },
  },
  indexes: {},
  unique: [uniqueBy<VirtualNetwork>('placeId'), uniqueBy<VirtualNetwork>('vrfId')],
  nameOf: () => '',
  titled: (row, title) => title('place', row.placeId),
  facts: {
    nameServers: 'addresses',
    timeServers: 'addresses',
    domain: 'names',
    labels: 'notes',
    notes: 'notes',
  },
  blank: blankVirtualNetwork,
  section: 'virtualNetworks',
  uncounted: true,
});

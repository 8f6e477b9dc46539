import { z } from 'zod';
import { defineKind, uniqueBy } from '../../fields/kind.ts';
import { idField, noted, refField, textField } from '../../fields/field.ts';
import { ipField } from '../../fields/ipField.ts';
import { labelsField } from './labels.ts';

/**
 * How long an address stays: `own` is of a block that the house brought along, `kept` by the account until it is given
 * back, `lent` as long as the instance runs: a stop loses it, and the next start gets another.
 */
export const addressStays = ['own', 'kept', 'lent'] as const;
export type AddressStay = (typeof addressStays)[number];

/** An address of the internet that stands for an interface in a cloud; without one it is kept and costs. */
export const publicAddressSchema = z.strictObject({
  id: idField('Id'),
  address: ipField('Address'),
  placeId: idField('Account or region'),
  hold: noted(z.enum(addressStays), {
    label: 'Stays',
    help: 'A lent address is lost when the instance stops',
  }),
  portId: refField('Interface'),
  labels: labelsField,
  notes: textField('Notes'),
});
export type PublicAddress = z.infer<typeof publicAddressSchema>;
export const blankPublicAddress: Omit<PublicAddress, 'id' | 'address' | 'placeId'> = {
  hold: 'kept',
  portId: null,
  labels: {},
  notes: null,
};

export const publicAddressKind = defineKind({
  schema: publicAddressSchema,
  one: 'public address',
  many: 'public addresses',
  refs: {
    placeId: { to: 'place', index: 'publicAddressesByPlace', onRemove: 'goes' },
    portId: { to: 'port', index: 'publicAddressesByPort', onRemove: 'cleared' },
  },
  indexes: { publicAddressByText: (row) => row.address },
  unique: [uniqueBy<PublicAddress>('address')],
  nameOf: (row) => row.address,
  facts: { address: 'addresses', labels: 'notes', notes: 'notes' },
  blank: blankPublicAddress,
  section: 'publicAddresses',
});

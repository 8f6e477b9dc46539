import { z } from 'zod';
import { defineKind } from '../../fields/kind.ts';
import { addressBlock } from '../../values/addressBlock.ts';
import { idField, noted, refField, textField } from '../../fields/field.ts';
import { formatIp, parseInterface, prefixAround, usable } from '../../values/ip.ts';
import { interfaceField } from '../../fields/ipField.ts';

export const addressUses = ['interface', 'secondary', 'reserved'] as const;

/** A host name: labels of letters, digits and hyphens, 63 at most each (RFC 1123 section 2.1, RFC 1035). */
export const isHostName = (text: string): boolean =>
  text.length <= 253 && text.split('.').every((label) => /^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/i.test(label));

/** One address with the length of its prefix: on a port, or kept without one. */
export const addressSchema = z
  .strictObject({
    id: idField('Id'),
    address: interfaceField('Address'),
    vrfId: refField('VRF'),
    portId: refField('Port'),
    use: noted(z.enum(addressUses), { label: 'Use' }),
    dnsName: noted(
      z
        .string()
        .refine(isHostName, 'is not a host name of letters, digits and hyphens (RFC 1123)')
        .nullable(),
      { label: 'DNS name' },
    ),
    notes: textField('Notes'),
  })
  .superRefine((row, context) => {
    if (row.use === 'reserved' && row.portId !== null)
      context.addIssue({
        code: 'custom',
        path: ['use'],
        message: 'is reserved although a port has the address',
      });
    if (row.use !== 'reserved' && row.portId === null)
      context.addIssue({
        code: 'custom',
        path: ['portId'],
        message: 'is missing: without one the address is reserved',
      });
  });
export type Address = z.infer<typeof addressSchema>;

/** An address with nothing filled in. */
export const blankAddress: Omit<Address, 'id' | 'address'> = {
  vrfId: null,
  portId: null,
  use: 'interface',
  dnsName: null,
  notes: null,
};

const hostOf = (row: Address): string => row.address.slice(0, row.address.indexOf('/'));

/** The host after this one in its subnet, as far as hosts can have it. */
function nextHost(row: Address): string | null {
  const read = parseInterface(row.address);
  if (read === null) return null;
  const { address, length } = read;
  const value = address.value + 1n;
  return value > usable(prefixAround(address, length)).last
    ? null
    : `${formatIp({ family: address.family, value })}/${length}`;
}

export const addressKind = defineKind({
  schema: addressSchema,
  one: 'address',
  many: 'addresses',
  refs: {
    vrfId: { to: 'vrf', index: 'addressesByVrf', onRemove: 'holds' },
    portId: { to: 'port', index: 'addressesByPort', onRemove: 'goes' },
  },
  indexes: {
    /** By the host alone, whatever its VRF and prefix length. */
    addressesByHost: hostOf,
    addressesByBlock: (row) => addressBlock(row),
  },
  unique: [],
  kept: [{ what: 'address', key: (row) => `${row.vrfId ?? ''} ${hostOf(row)}`, next: nextHost }],
  nameOf: (row) => row.address,
  facts: { address: 'addresses', dnsName: 'names', notes: 'notes' },
  blank: blankAddress,
});
